import { readJson } from '../../../server/http/body';
import { endpoint, isUuid, json, screenOf } from '../../../server/http/endpoint';
import { notFound } from '../../../server/http/problem';
import { stashCorrectionSchema } from '../../../server/stash/contract';
import { stashView } from '../../../server/stash/view';
import { correctStash, removeStashItem } from '../../../server/stash/writes';

/** Corrects an item of the stash. */
export const PUT = endpoint(async (database, { request, params }) => {
  const { id, before, ...item } = await readJson(request, stashCorrectionSchema);
  if (!isUuid(params.item)) throw notFound('such item in the stash');
  const screen = screenOf(request);
  await correctStash(database, { id, before, item: { ...item, id: params.item } }, screen);
  return json(await database.snapshot((queries) => stashView(queries, screen)));
});

/** Deletes an item of the stash; it is kept for a while. */
export const DELETE = endpoint(async (database, { request, params }) => {
  if (!isUuid(params.item)) throw notFound('such item in the stash');
  await removeStashItem(database, params.item);
  return json(await database.snapshot((queries) => stashView(queries, screenOf(request))));
});
