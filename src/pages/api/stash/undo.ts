import { readJson } from '../../../server/http/body';
import { endpoint, json, screenOf } from '../../../server/http/endpoint';
import { stashUndoSchema } from '../../../server/stash/contract';
import { stashChange } from '../../../server/stash/view';
import { undoStash } from '../../../server/stash/writes';

/** Takes the last leftovers out of the stash again, or puts them back in. */
export const POST = endpoint(async (database, { request }) => {
  const screen = screenOf(request);
  const item = await undoStash(database, await readJson(request, stashUndoSchema), screen);
  return json(await database.snapshot((queries) => stashChange(queries, item, screen)), 201);
});
