import { readingChart } from '../../../../../data/reading';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { notFound } from '../../../../../server/http/problem';
import { asJob } from '../../../../../server/jobs/jobs';
import { acceptSchema } from '../../../../../server/reading/contract';
import { readingView } from '../../../../../server/reading/view';
import { acceptRead } from '../../../../../server/reading/writes';

/** Which photo each square of the chart was read from, run by run. */
export const GET = canvasEndpoint(async (database, canvas) => {
  const chart = await readingChart(database, canvas.id);
  if (!chart) throw notFound('chart from photos');
  return json(chart);
});

/** Makes the chart of what was read; squares that no photo shows stay as they were. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const wish = await readJson(request, acceptSchema);
  const done = await asJob(request, (job) => acceptRead(database, canvas, wish, job));
  return json({ done, ...(await readingView(database, canvas, screenOf(request))) });
});
