import { readJson } from '../../../server/http/body';
import { endpoint, isUuid, json, screenOf } from '../../../server/http/endpoint';
import { notFound } from '../../../server/http/problem';
import { stashCorrectionSchema } from '../../../server/stash/contract';
import { stashChange } from '../../../server/stash/view';
import { correctStash, removeStashItem } from '../../../server/stash/writes';

/** Corrects an item of the stash. */
export const PUT = endpoint(async (database, { request, params }) => {
  const { id, before, ...item } = await readJson(request, stashCorrectionSchema);
  const itemId = params.item;
  if (!isUuid(itemId)) throw notFound('such item in the stash');
  const screen = screenOf(request);
  await correctStash(database, { id, before, item: { ...item, id: itemId } }, screen);
  return json(await database.snapshot((queries) => stashChange(queries, itemId, screen)));
});

/** Deletes an item of the stash; it is kept for a while. */
export const DELETE = endpoint(async (database, { request, params }) => {
  const itemId = params.item;
  if (!isUuid(itemId)) throw notFound('such item in the stash');
  await removeStashItem(database, itemId);
  return json(await database.snapshot((queries) => stashChange(queries, itemId, screenOf(request))));
});
