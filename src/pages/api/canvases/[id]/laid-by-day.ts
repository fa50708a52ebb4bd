import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';
import { dayChangesOf } from '../../../../server/progress/forecast';

/** Day by day what changed on the canvas. */
export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone } = await readQuery(url, progressQuery);
  return json({ days: await dayChangesOf(database, canvas, zone) });
});
