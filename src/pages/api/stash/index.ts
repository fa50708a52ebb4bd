import { readJson } from '../../../server/http/body';
import { endpoint, json, screenOf } from '../../../server/http/endpoint';
import { stashItemSchema } from '../../../server/stash/contract';
import { stashView } from '../../../server/stash/view';
import { putIntoStash } from '../../../server/stash/writes';

export const GET = endpoint(async (database, { request }) =>
  json(await database.snapshot((queries) => stashView(queries, screenOf(request)))),
);

/** Adds leftovers to the stash. */
export const POST = endpoint(async (database, { request }) => {
  const screen = screenOf(request);
  await putIntoStash(database, await readJson(request, stashItemSchema), screen);
  return json(await database.snapshot((queries) => stashView(queries, screen)), 201);
});
