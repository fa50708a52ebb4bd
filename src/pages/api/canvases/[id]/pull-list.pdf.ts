import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';
import { inWorker } from '../../../../server/jobs/pool';
import { pullQuery } from '../../../../server/sections/contract';
import { printedPull } from '../../../../server/sections/pull';

export const GET = canvasEndpoint(async (database, canvas, { request, url }) => {
  const wish = await readQuery(url, pullQuery);
  const print = await database.snapshot((queries) => printedPull(queries, canvas, wish));
  const pdf = await asJob(request, (job) => inWorker('pullListPdf', print, job));
  return content(pdf, 'application/pdf', `${canvas.title} pull list.pdf`);
});
