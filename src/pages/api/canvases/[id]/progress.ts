import { progressQuery } from '../../../../server/contract/progress';
import { canvasEndpoint, json, readQuery } from '../../../../server/endpoint';
import { progressView, todayIn } from '../../../../server/progress';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone } = await readQuery(url, progressQuery);
  return json(await progressView(database, canvas, zone, todayIn(zone, new Date())));
});
