import { dayIn } from '../../../../core/words/calendar';
import { finishChangeSchema } from '../../../../server/finish/contract';
import { finishView } from '../../../../server/finish/view';
import { tellFinish } from '../../../../server/finish/writes';
import { readJson, readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';

/** The last walk, the record of the end, frames and leftovers. */
export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone } = await readQuery(url, progressQuery);
  return json(await finishView(database, canvas, zone));
});

/** Tells something of the end; what is not named stays. */
export const PATCH = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { zone } = await readQuery(url, progressQuery);
  await tellFinish(database, canvas, await readJson(request, finishChangeSchema), dayIn(zone, new Date()));
  return json(await finishView(database, canvas, zone));
});
