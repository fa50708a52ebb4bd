import { dayIn } from '../../../../core/words/calendar';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';
import { inWorker } from '../../../../server/jobs/pool';
import { weekQuery } from '../../../../server/progress/contract';
import { forecastView } from '../../../../server/progress/forecast';
import { weekPrint } from '../../../../server/progress/out';
import { progressView } from '../../../../server/progress/view';

/** A week on one page. */
export const GET = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { zone, maker, day, paper } = await readQuery(url, weekQuery);
  const today = dayIn(zone, new Date());
  const view = await progressView(database, canvas, zone, today, maker);
  const foretold = await forecastView(database, canvas, zone, maker);
  const print = weekPrint(canvas, view, foretold, day ?? today, paper, zone);
  const pdf = await asJob(request, (job) => inWorker('drawingPdf', print, job));
  return content(pdf, 'application/pdf', `${canvas.title} week.pdf`);
});
