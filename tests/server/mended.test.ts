import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { STARTING_LAYOUTS, startStorage } from '../../src/core/storage/drawStorage';
import type { Storage } from '../../src/core/storage/storage';
import { addSitting, endSitting, sittingsOf } from '../../src/data/bench';
import { bringBack, deletedThings, emptyDeleted } from '../../src/data/deleted';
import type { Database } from '../../src/data/engine/database';
import { addStashMove, returnToStash, stashItems } from '../../src/data/stash';
import { storagesOf } from '../../src/data/storage';
import { benchView } from '../../src/server/bench/view';
import { correctSitting } from '../../src/server/bench/writes';
import { stashView } from '../../src/server/stash/view';
import { correctStash, putIntoStash, removeStashItem, undoStash } from '../../src/server/stash/writes';
import { removeStorage, saveStorage } from '../../src/server/storage/writes';
import { line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const LATER = '2100-01-01T00:00:00Z';

describe('leftovers in the stash', () => {
  const item = (code: string, drills: number) => ({
    id: randomUUID(),
    code,
    name: 'Sky',
    hex: null,
    finish: 'plain' as const,
    shape: 'square' as const,
    drills,
  });
  const here = async (id: string) => (await stashItems(database)).find((each) => each.id === id);

  it('are corrected, code and amount, and the amount is undone like any move', async () => {
    const [mine, other] = [item('310', 200), item('311', 50)];
    await putIntoStash(database, mine);
    await putIntoStash(database, other);
    const id = randomUUID();
    const right = { ...mine, code: '301', name: 'Sea', drills: 180 };
    await correctStash(database, { id, item: right });
    await correctStash(database, { id, item: right });
    expect(await here(mine.id)).toEqual(right);
    expect(await here(other.id)).toEqual(other);
    const { history } = await stashView(database);
    expect(history.undo).toMatchObject({ code: '301', drills: -20 });
    await undoStash(database, { id: randomUUID(), undoes: history.undo!.id, redoes: null });
    expect(await here(mine.id)).toEqual({ ...right, drills: 200 });
    await correctStash(database, { id: randomUUID(), item: { ...right, drills: 0 } });
    expect(await here(mine.id)).toMatchObject({ drills: 0 });
    await expect(correctStash(database, { id: randomUUID(), item: item('999', 1) })).rejects.toThrow(
      'no such item',
    );
  });

  it('are corrected while others take from them: nothing comes back by itself', async () => {
    const [mine, other] = [item('312', 400), item('313', 400)];
    for (const each of [mine, other]) {
      await putIntoStash(database, each);
      await addStashMove(database, { id: randomUUID(), itemId: each.id, drills: -150, bagId: null }, LATER);
    }
    const correct = (drills: number, drillsBefore: number, name = 'Sky') =>
      correctStash(database, {
        id: randomUUID(),
        item: { ...mine, name, drills },
        before: { ...mine, drills: drillsBefore },
      });
    await correct(400, 400, 'Sea');
    expect(await here(mine.id)).toMatchObject({ name: 'Sea', drills: 250 });
    await expect(correct(380, 400, 'Lake')).rejects.toMatchObject({
      message: expect.stringContaining('There are 250 of 312 by now, and not 400'),
      more: { drills: 250 },
    });
    expect(await here(mine.id)).toMatchObject({ name: 'Sea', drills: 250 });
    // The name was not touched, so that of the other screen stays.
    await correct(380, 250);
    expect(await here(mine.id)).toMatchObject({ name: 'Sea', drills: 380 });
    await correctStash(database, { id: randomUUID(), item: { ...mine, drills: 380 } });
    expect(await here(mine.id)).toEqual({ ...mine, drills: 380 });
    expect(await here(other.id)).toEqual({ ...other, drills: 250 });
  });

  it('are deleted, kept for a while and brought back with their drills', async () => {
    const [mine, other] = [item('320', 90), item('321', 60)];
    await putIntoStash(database, mine);
    await putIntoStash(database, other);
    await removeStashItem(database, mine.id);
    await expect(removeStashItem(database, mine.id)).rejects.toThrow('no such item');
    expect(await here(mine.id)).toBeUndefined();
    expect((await stashView(database)).deleted).toMatchObject([{ id: mine.id, title: '320 Sky' }]);
    expect(await bringBack(database, mine.id)).toBe('stash');
    expect(await bringBack(database, mine.id)).toBeNull();
    expect(await here(mine.id)).toEqual(mine);
    expect(await here(other.id)).toEqual(other);
  });

  it('are there again when drills come back that a bag had taken', async () => {
    const mine = item('330', 90);
    const canvas = await shelve(database, [line(1)], null);
    const bag = randomUUID();
    await putIntoStash(database, mine);
    await database.query(
      `insert into bag_entry (id, canvas_id, happened_at, kind, line, label, drills, how)
       values ($1, $2, now(), 'count', 1, '330', 40, 'counted')`,
      [bag, canvas.id],
    );
    const now = new Date().toISOString();
    await addStashMove(database, { id: randomUUID(), itemId: mine.id, drills: -40, bagId: bag }, now);
    await removeStashItem(database, mine.id);
    await returnToStash(database, bag, now);
    expect(await here(mine.id)).toEqual(mine);
  });
});

describe('a case', () => {
  it('is deleted, kept for a while, brought back, and gone after that', async () => {
    const [mine, other] = ['Mine', 'Other'].map((name) =>
      startStorage(randomUUID(), STARTING_LAYOUTS[0]!, name),
    );
    await saveStorage(database, mine!);
    await saveStorage(database, other!);
    await removeStorage(database, mine!.id);
    const names = async () => (await storagesOf(database)).map(({ name }) => name);
    expect(await names()).toEqual(['Other']);
    expect(await deletedThings(database, 'case')).toMatchObject([{ id: mine!.id, title: 'Mine' }]);
    expect(await bringBack(database, mine!.id)).toBe('case');
    expect(await names()).toEqual(['Mine', 'Other']);
    await removeStorage(database, mine!.id);
    expect(await emptyDeleted(database, { before: '2026-01-01T00:00:00Z' })).toBe(0);
    expect(await emptyDeleted(database, { before: LATER, id: mine!.id })).toBe(1);
    expect(await bringBack(database, mine!.id)).toBeNull();
    expect(await names()).toEqual(['Other']);
  });

  it('is not drawn over what another screen drew or deleted meanwhile', async () => {
    const [mine, other] = ['Mine', 'Other'].map((name) =>
      startStorage(randomUUID(), STARTING_LAYOUTS[0]!, name),
    ) as [Storage, Storage];
    await saveStorage(database, mine);
    await saveStorage(database, other);
    const kept = async () => (await storagesOf(database, [mine.id]))[0];
    const wide = { ...mine, trays: [{ ...mine.trays[0]!, unitWidthMm: 45 }] };
    await saveStorage(database, wide, mine);
    const renamed = { ...mine, name: 'Blue box' };
    await expect(saveStorage(database, renamed, mine)).rejects.toThrow('changed on another screen');
    expect(await kept()).toEqual(wide);
    // An answer that was lost is asked for again: what was saved stands, and nothing is in its way.
    await saveStorage(database, wide, mine);
    await removeStorage(database, mine.id);
    await expect(saveStorage(database, renamed, wide)).rejects.toThrow('deleted on another screen');
    expect(await kept()).toBeUndefined();
    // Whoever says so after that has it back, as drawn.
    await saveStorage(database, renamed);
    expect(await kept()).toEqual(renamed);
    expect(await storagesOf(database, [other.id])).toEqual([other]);
    await removeStorage(database, mine.id);
    await removeStorage(database, other.id);
  });
});

describe('a sitting', () => {
  it('is corrected, removed and brought back, and that of another canvas stays', async () => {
    const [canvas, other] = [
      await shelve(database, [line(1)], null),
      await shelve(database, [line(1)], null),
    ];
    const [mine, theirs] = [randomUUID(), randomUUID()];
    await addSitting(database, canvas.id, mine, '2026-05-01T10:00:00Z');
    await endSitting(database, mine, '2026-05-01T19:00:00Z', 'forgot the timer');
    await addSitting(database, other.id, theirs, '2026-05-01T12:00:00Z');
    const wish = {
      startedAt: '2026-05-01T10:00:00.000Z',
      endedAt: '2026-05-01T11:30:00.000Z',
      note: '',
      removed: false,
    };
    const say = (more: Partial<typeof wish>, of = canvas) =>
      correctSitting(database, of, mine, { id: randomUUID(), ...wish, ...more });
    await say({});
    const [only] = await sittingsOf(database, canvas.id, 9);
    expect(only).toMatchObject({ id: mine, note: '', removed: false });
    expect(new Date(only!.endedAt!).toISOString()).toBe(wish.endedAt);
    await say({ removed: true });
    expect((await benchView(database, canvas)).sittings).toEqual([]);
    expect(await sittingsOf(database, canvas.id, 9)).toMatchObject([{ id: mine, removed: true }]);
    await say({ removed: false });
    expect((await benchView(database, canvas)).sittings).toHaveLength(1);
    await expect(say({}, other)).rejects.toThrow('no such sitting');
    await expect(say({ endedAt: '2026-05-01T09:00:00Z' })).rejects.toThrow('must end after it begins');
    await expect(say({ endedAt: '2026-05-03T09:00:00Z' })).rejects.toThrow('more than 24 hours');
    await expect(say({ startedAt: LATER, endedAt: LATER })).rejects.toThrow('in the future');
    expect(await sittingsOf(database, other.id, 9)).toMatchObject([{ id: theirs, endedAt: null }]);
  });
});
