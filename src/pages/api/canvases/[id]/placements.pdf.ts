import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';
import { inWorker } from '../../../../server/jobs/pool';
import { sheetQuery } from '../../../../server/placing/contract';
import { printedPlacing } from '../../../../server/placing/view';

export const GET = canvasEndpoint(async (database, canvas, { request, url }) => {
  const wish = await readQuery(url, sheetQuery);
  const print = await printedPlacing(database, canvas, wish);
  const pdf = await asJob(request, (job) => inWorker('placingPdf', print, job));
  return content(pdf, 'application/pdf', `${canvas.title} placements ${wish.section}.pdf`);
});
