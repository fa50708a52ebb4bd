import { logPrint } from '../../../../server/finish/out';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';
import { inWorker } from '../../../../server/jobs/pool';
import { weekQuery } from '../../../../server/progress/contract';

/** The log page of a canvas on paper. */
export const GET = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { zone, paper } = await readQuery(url, weekQuery);
  const print = await logPrint(database, canvas, zone, paper);
  const pdf = await asJob(request, (job) => inWorker('logPdf', print, job));
  return content(pdf, 'application/pdf', `${canvas.title} log.pdf`);
});
