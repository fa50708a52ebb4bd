import { randomUUID } from 'node:crypto';
import { expect, it } from 'vitest';
import { stashChange, stashPage, stashView } from '../../src/server/stash/view';
import { correctStash, putIntoStash, removeStashItem, undoStash } from '../../src/server/stash/writes';
import { memoryDatabase } from '../data/memory';

it('a write tells of its own item alone, and a long stash comes after its page', async () => {
  const database = await memoryDatabase();
  const fresh = (code: string) => ({
    ...{ id: randomUUID(), code, name: '', hex: null, drills: 5 },
    ...{ finish: 'plain' as const, shape: 'square' as const },
  });
  const [item, other] = [fresh('1'), fresh('2')];
  for (const each of [item, other]) await putIntoStash(database, each);
  const changed = async () => {
    const { items, gone } = await stashChange(database, item.id, null);
    return [items.map(({ code, drills }) => `${code}: ${drills}`), gone];
  };
  expect(await changed()).toEqual([['1: 5'], []]);
  await correctStash(database, { id: randomUUID(), item: { ...item, drills: 8 } });
  expect(await changed()).toEqual([['1: 8'], []]);
  const { history } = await stashView(database);
  expect(await undoStash(database, { id: randomUUID(), undoes: history.undo!.id, redoes: null })).toBe(
    item.id,
  );
  expect(await changed()).toEqual([['1: 5'], []]);
  await removeStashItem(database, item.id);
  expect(await changed()).toEqual([[], [item.id]]);
  expect((await stashChange(database, item.id, null)).deleted.map(({ id }) => id)).toEqual([item.id]);

  for (let n = 1; n < 100; n++) await putIntoStash(database, fresh(`9${n}`));
  const page = await stashPage(database);
  expect([page.isWhole, page.first.items.length]).toEqual([true, 100]);
  await putIntoStash(database, fresh('3'));
  expect(await stashPage(database)).toMatchObject({ isWhole: false, first: { items: [] } });
  // More than are read at once, each once and with its own drills.
  await database.query(
    `with added as (insert into stash_item (id, code, name, finish, shape, created_at)
       select gen_random_uuid(), n::text, '', 'plain', 'round', now() from generate_series(1, 1500) as n returning id, code)
     insert into stash_move (id, item_id, happened_at, drills) select gen_random_uuid(), id, now(), code::int from added`,
  );
  const { items } = await stashView(database);
  expect(new Set(items.map(({ id }) => id)).size).toBe(1601);
  expect(
    items.filter(({ code, drills, shape }) => shape === 'round' && code === String(drills)),
  ).toHaveLength(1500);
  await database.close();
});
