import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';
import { forecastView } from '../../../../server/progress/forecast';

/** When it will be done, what it takes, what may run out, and the pace. */
export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone, maker } = await readQuery(url, progressQuery);
  return json(await forecastView(database, canvas, zone, maker));
});
