import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';
import { inWorker } from '../../../../server/jobs/pool';
import { sectionPaperQuery } from '../../../../server/sections/contract';
import { sectionPrint } from '../../../../server/sections/view';

export const GET = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { paper } = await readQuery(url, sectionPaperQuery);
  const print = await sectionPrint(database, canvas, paper);
  const pdf = await asJob(request, (job) => inWorker('sectionMapPdf', print, job));
  return content(pdf, 'application/pdf', `${canvas.title} sections.pdf`);
});
