import { randomUUID } from 'node:crypto';
import { addStashItem, addStashMove, stashItems } from '../../data/stash';
import { readJson } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { stashItemSchema } from '../../server/stash/contract';

export const GET = endpoint(async (database) => json(await stashItems(database)));

/** Adds leftovers to the stash. */
export const POST = endpoint(async (database, { request }) => {
  const { drills, ...item } = await readJson(request, stashItemSchema);
  await database.transaction(async (queries) => {
    const now = new Date().toISOString();
    if (!(await addStashItem(queries, item, now))) return;
    await addStashMove(queries, { id: randomUUID(), itemId: item.id, drills, bagId: null }, now);
  });
  return json(await stashItems(database));
});
