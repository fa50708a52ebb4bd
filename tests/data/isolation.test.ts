import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { countLaid } from '../../src/core/cells/bitmap';
import {
  addMark,
  addSitting,
  bitmapOf,
  endSitting,
  everyMark,
  findMark,
  laidOf,
  putBitmap,
  replayMarks,
  sittingBelongs,
  sittingsOf,
  stretchOf,
} from '../../src/data/bench';
import { legendOf } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { replaceAllotment } from '../../src/data/kitup';
import { addStashItem, addStashMove, stashItems } from '../../src/data/stash';
import { putStorage, slotsOfOthers, storagesOf, takenSlots } from '../../src/data/storage';
import { lidMarks, putDrawing, putLidMark, removeDrawing } from '../../src/data/symbols';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1), line(2)];
const pair = () =>
  Promise.all([
    shelve(database, legend, chartOfRows('1122', '1122')),
    shelve(database, legend, chartOfRows('2211', '2211')),
  ]);

/** Lays the first `drills` squares of a canvas. */
async function lay(canvasId: string, drills: number, sittingId: string | null = null): Promise<string> {
  const id = randomUUID();
  const stretch = await stretchOf(database, canvasId, 0, drills - 1, 8);
  for (let cell = 0; cell < drills; cell++) stretch.laid[cell >> 3]! |= 1 << (cell & 7);
  await addMark(
    database,
    {
      id,
      canvasId,
      screenId: null,
      sittingId,
      happenedAt: new Date(0).toISOString(),
      kind: 'lay',
      changed: [0, drills],
      line: null,
      undoes: null,
      redoes: null,
      digest: id,
    },
    stretch,
  );
  return id;
}

it('what is laid on one canvas is not laid on another, in cache, ledger and chart', async () => {
  const [first, second] = await pair();
  const [one, other] = [await lay(first.id, 3), await lay(second.id, 5)];
  const cached = async (id: string) => countLaid(await bitmapOf(database, id, 8));
  const replayed = async (id: string) => countLaid(await replayMarks(database, id, 8));
  expect([await cached(first.id), await cached(second.id)]).toEqual([3, 5]);
  expect([await replayed(first.id), await replayed(second.id)]).toEqual([3, 5]);
  expect([await laidOf(database, first.id), await laidOf(database, second.id)]).toEqual([3, 5]);
  expect(await everyMark(database, first.id)).toHaveLength(1);
  expect(await findMark(database, first.id, other)).toBeNull();
  expect(await findMark(database, first.id, one)).toMatchObject({ runs: [0, 3] });
  const lines = (await stretchOf(database, second.id, 0, 7, 8)).lines;
  expect([...lines!]).toEqual([2, 2, 1, 1, 2, 2, 1, 1]);
  await putBitmap(database, first.id, new Uint8Array(1));
  expect([await laidOf(database, first.id), await laidOf(database, second.id)]).toEqual([0, 5]);
  expect(await cached(second.id)).toBe(5);
});

it('sittings belong to one canvas, with the drills of that sitting', async () => {
  const [first, second] = await pair();
  const [mine, yours] = [randomUUID(), randomUUID()];
  await addSitting(database, first.id, mine, '2026-05-01T10:00:00Z');
  await addSitting(database, second.id, yours, '2026-05-01T11:00:00Z');
  await endSitting(database, mine, '2026-05-01T10:30:00Z', 'calm');
  await lay(first.id, 2, mine);
  await lay(second.id, 7, yours);
  expect(await sittingBelongs(database, first.id, yours)).toBe(false);
  expect(await sittingBelongs(database, first.id, mine)).toBe(true);
  expect(await sittingsOf(database, first.id, 9)).toMatchObject([{ id: mine, drills: 2, note: 'calm' }]);
  expect(await sittingsOf(database, second.id, 9)).toMatchObject([{ id: yours, drills: 7, endedAt: null }]);
});

it('a drawing and a mark on a lid stay on their canvas', async () => {
  const [first, second] = await pair();
  const drawing = async (id: string) => (await legendOf(database, id)).map((each) => each.drawing ?? null);
  for (const [canvas, path] of [
    [first, 'M0 0L9 0L0 9Z'],
    [second, 'M0 0L5 0L0 5Z'],
  ] as const) {
    await putDrawing(database, canvas.id, legend[0]!, path);
    await putLidMark(database, canvas.id, 1, 2);
  }
  expect(await drawing(first.id)).toEqual(['M0 0L9 0L0 9Z', null]);
  await removeDrawing(database, first.id, legend[0]!);
  await putLidMark(database, first.id, 1, null);
  expect([await drawing(first.id), await drawing(second.id)]).toEqual([
    [null, null],
    ['M0 0L5 0L0 5Z', null],
  ]);
  expect([...(await lidMarks(database, first.id))]).toEqual([]);
  expect([...(await lidMarks(database, second.id))]).toEqual([[1, 2]]);
});

it('slots in use are told by case, and those of the others are counted apart', async () => {
  const [first, second] = await pair();
  const [one, other] = [randomUUID(), randomUUID()];
  for (const id of [one, other]) {
    await putStorage(database, { id, name: 'Case', packingShare: 0.5, trays: [] }, new Date(0).toISOString());
  }
  const put = (canvasId: string, storageId: string, slot: string, line: number) => ({
    canvasId,
    allotted: { line, nth: 1, storageId, slot, locked: false },
  });
  const rows = [put(first.id, one, 'a', 1), put(first.id, other, 'a', 2), put(second.id, one, 'b', 1)];
  for (const { id } of [first, second]) {
    const own = rows.filter(({ canvasId }) => canvasId === id).map(({ allotted }) => allotted);
    await replaceAllotment(database, id, own);
  }
  expect((await takenSlots(database, [one])).map(({ slot, canvasId }) => [slot, canvasId]).sort()).toEqual([
    ['a', first.id],
    ['b', second.id],
  ]);
  expect(await takenSlots(database, [])).toEqual([]);
  expect((await takenSlots(database)).length).toBeGreaterThanOrEqual(3);
  expect((await slotsOfOthers(database, first.id)).get(one)).toBe(1);
  expect((await slotsOfOthers(database, second.id)).get(one)).toBe(1);
  expect((await slotsOfOthers(database, second.id)).get(other)).toBe(1);
  expect((await slotsOfOthers(database, first.id)).get(other)).toBeUndefined();
  expect((await storagesOf(database, [other])).map(({ id }) => id)).toEqual([other]);
});

it('leftovers are found by item, code or shape', async () => {
  const item = (code: string, shape: 'square' | 'round') => ({
    id: randomUUID(),
    code,
    name: '',
    hex: null,
    finish: 'plain' as const,
    shape,
  });
  const items = [item('Q1', 'square'), item('Q1', 'round'), item('Q2', 'round')];
  for (const each of items) await addStashItem(database, each, new Date(0).toISOString());
  await addStashMove(
    database,
    { id: randomUUID(), itemId: items[1]!.id, drills: 40, bagId: null },
    new Date(0).toISOString(),
  );
  const ids = async (which: Parameters<typeof stashItems>[1]) =>
    (await stashItems(database, which)).map(({ id }) => id).sort();
  expect(await ids({ code: 'Q1' })).toEqual([items[0]!.id, items[1]!.id].sort());
  expect(await ids({ shape: 'round' })).toEqual([items[1]!.id, items[2]!.id].sort());
  expect(await stashItems(database, { id: items[1]!.id })).toMatchObject([{ code: 'Q1', drills: 40 }]);
});
