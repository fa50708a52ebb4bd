import { readJson } from '../../../server/http/body';
import { endpoint, json, screenOf } from '../../../server/http/endpoint';
import { stashItemSchema } from '../../../server/stash/contract';
import { stashChange, stashView } from '../../../server/stash/view';
import { putIntoStash } from '../../../server/stash/writes';

export const GET = endpoint(async (database, { request }) =>
  json(await database.snapshot((queries) => stashView(queries, screenOf(request)))),
);

/** Adds leftovers to the stash. */
export const POST = endpoint(async (database, { request }) => {
  const screen = screenOf(request);
  const item = await readJson(request, stashItemSchema);
  await putIntoStash(database, item, screen);
  return json(await database.snapshot((queries) => stashChange(queries, item.id, screen)), 201);
});
