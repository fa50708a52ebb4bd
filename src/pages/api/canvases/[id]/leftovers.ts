import { leftoversSchema, leftoversUndoSchema } from '../../../../server/finish/contract';
import { finishView } from '../../../../server/finish/view';
import { putAwayAll, takeBackAll } from '../../../../server/finish/writes';
import { readJson, readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';

/** Leftovers of several colours go into the stash in one go, and their pots are free. */
export const POST = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { zone } = await readQuery(url, progressQuery);
  await putAwayAll(database, canvas, await readJson(request, leftoversSchema), screenOf(request));
  return json(await finishView(database, canvas, zone), 201);
});

/** Takes that back. */
export const PUT = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { zone } = await readQuery(url, progressQuery);
  await takeBackAll(database, canvas, await readJson(request, leftoversUndoSchema), screenOf(request));
  return json(await finishView(database, canvas, zone));
});
