import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { stageOf } from '../../src/core/shelf/stage';
import { STARTING_LAYOUTS, startStorage } from '../../src/core/storage/drawStorage';
import { shelf } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { inFrontOf, putInFront } from '../../src/data/inFront';
import { putNoCases, replaceAllotment } from '../../src/data/kitup';
import { stampOf } from '../../src/data/once';
import { putStorage } from '../../src/data/storage';
import { enterMark, type MarkRequest } from '../../src/server/bench/writes';
import { enterBag } from '../../src/server/checkin/writes';
import { notePot } from '../../src/server/kitup/writes';
import { progressView } from '../../src/server/progress/view';
import { tickColour, ticksView } from '../../src/server/sections/ticks';
import { othersOnBench, shelfEntry, shelfPage } from '../../src/server/shelf/view';
import { chartOfRows, line } from '../core/samples';
import { keepGrid, memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
let mine: Canvas;
let other: Canvas;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1), line(2)];
/** Two canvases of 12 × 6 squares, cut into four sections of 5 × 5, 5 × 5, 2 × 5 … */
async function pair(chart = chartOfRows(...Array.from({ length: 6 }, () => '111112222.22'))): Promise<void> {
  mine = await shelve(database, legend, chart);
  other = await shelve(database, legend, chart);
  for (const each of [mine, other]) await keepGrid(database, each, 5, 5);
}
const mark = (canvas: Canvas, more: Partial<MarkRequest>) =>
  enterMark(database, canvas, {
    id: randomUUID(),
    kind: 'lay',
    runs: [],
    sittingId: null,
    undoes: null,
    redoes: null,
    ...more,
  });

describe('what was in front', () => {
  it('is kept for one canvas, the last word of any screen, and said on the shelf with what is left there', async () => {
    await pair();
    expect(await inFrontOf(database, mine.id)).toBeNull();
    await putInFront(database, mine.id, { section: 1, line: 1 }, new Date().toISOString());
    await putInFront(database, mine.id, { section: 2, line: 2 }, new Date().toISOString());
    expect(await inFrontOf(database, mine.id)).toEqual({ section: 2, line: 2 });
    expect(await inFrontOf(database, other.id)).toBeNull();
    // Nothing is laid yet: the shelf says what comes first instead.
    expect((await shelfEntry(database, mine.id)).goesOnAt).toBeNull();
    // Section 2 holds columns 6 to 10: four of the second colour in each of five rows, one bare.
    await mark(mine, { runs: [5, 1] });
    expect(await shelfEntry(database, mine.id)).toMatchObject({
      inFront: { section: 2, line: 2 },
      goesOnAt: 'Section 2, colour 402, 19 left',
    });
    expect(await shelfEntry(database, other.id)).toMatchObject({ inFront: null, goesOnAt: null });
  });

  it('is not said where the sections were cut otherwise since', async () => {
    await pair();
    await mark(mine, { runs: [0, 1] });
    await putInFront(database, mine.id, { section: 99, line: null }, new Date().toISOString());
    expect((await shelfEntry(database, mine.id)).goesOnAt).toBeNull();
  });
});

it('the shelf begins with what was counted, marked or in front last, and with what came last before any of that', async () => {
  await pair();
  const third = await shelve(database, legend, null);
  const own = [mine.id, other.id, third.id];
  const order = async () =>
    (await shelfPage(database, '', 1)).entries
      .flatMap(({ canvas }) => own.indexOf(canvas.id))
      .filter((at) => at >= 0);
  const later = (minutes: number) => new Date(Date.now() + minutes * 60_000).toISOString();
  expect(await order()).toEqual([2, 1, 0]);
  await mark(mine, { runs: [0, 1] });
  expect(await order()).toEqual([0, 2, 1]);
  await enterBag(database, third, bagRequest({ line: 1 }));
  expect(await order()).toEqual([2, 0, 1]);
  await putInFront(database, other.id, { section: 1, line: 1 }, later(1));
  expect(await order()).toEqual([1, 2, 0]);
  await putInFront(database, other.id, { section: 1, line: 1 }, '2026-01-01T00:00:00Z');
  const filled = { id: randomUUID(), line: 1, kind: 'fill' as const, drills: 0, undoes: null, redoes: null };
  await notePot(database, mine, filled);
  expect(await order()).toEqual([0, 2, 1]);
  expect(await shelfPage(database, other.title, 1)).toMatchObject({ page: 1, all: expect.any(Number) });
  expect((await shelfPage(database, 'no such title', 1)).entries).toEqual([]);
});

it('at the bench others are offered on which work goes on, the last one first, and neither itself nor what is all laid', async () => {
  await pair();
  const more = [];
  for (let i = 0; i < 6; i++) more.push(await shelve(database, legend, null));
  const [bare, done, ...begun] = more as [Canvas, Canvas, ...Canvas[]];
  for (const each of [done, ...begun, mine, other]) await mark(each, { runs: [0, 1] });
  await mark(done, { runs: [0, done.width * done.height] });
  await mark(begun[1]!, { runs: [1, 1] });
  const ids = (canvases: readonly { id: string }[]) => canvases.map(({ id }) => id);
  const offered = async (here: Canvas) =>
    ids((await othersOnBench(database, here.id)).map(({ canvas }) => canvas));
  expect(await offered(mine)).toEqual(ids([begun[1]!, other, begun[3]!, begun[2]!]));
  expect(await offered(bare)).toEqual(ids([begun[1]!, other, mine, begun[3]!]));
});

describe('what was laid before the canvas was kept here', () => {
  it('counts for what is laid, not for a day, and undo takes it back as such', async () => {
    await pair();
    const zone = 'UTC';
    const today = new Date().toISOString().slice(0, 10);
    const before = await mark(mine, { runs: [0, 9], before: true });
    await mark(mine, { runs: [12, 3] });
    await mark(other, { runs: [0, 2] });
    expect(await progressView(database, mine, zone, today)).toMatchObject({
      laid: 12,
      laidToday: 3,
      laidBefore: 9,
      burnUp: [{ day: today, total: 12 }],
    });
    expect(await progressView(database, other, zone, today)).toMatchObject({ laidBefore: 0, laidToday: 2 });
    const undone = await mark(mine, { undoes: before.id });
    expect(await progressView(database, mine, zone, today)).toMatchObject({
      laid: 3,
      laidToday: 3,
      laidBefore: 0,
    });
    await mark(mine, { redoes: before.id });
    expect(await progressView(database, mine, zone, today)).toMatchObject({
      laid: 12,
      laidToday: 3,
      laidBefore: 9,
    });
    expect(undone.runs).toEqual([0, 9]);
  });

  it('is another request than one of today with the same id', async () => {
    await pair();
    const id = randomUUID();
    await mark(mine, { id, runs: [0, 2], before: true });
    await mark(mine, { id, runs: [0, 2], before: true });
    await expect(mark(mine, { id, runs: [0, 2] })).rejects.toThrow('stands for something else');
  });

  it('is in what a page is told of its canvas', async () => {
    await pair();
    const { stamp } = await stampOf(database, mine.id);
    await mark(mine, { runs: [0, 9], before: true });
    expect(await stampOf(database, mine.id)).toMatchObject({ laid: 9, drills: 66 });
    expect((await stampOf(database, mine.id)).stamp).not.toBe(stamp);
    expect(await stampOf(database, other.id)).toMatchObject({ laid: 0, drills: 66 });
  });
});

describe('a canvas without a chart', () => {
  it('has its colours ticked section by section, each canvas its own, and is done by percent', async () => {
    mine = await shelve(database, legend, null, { width: 10, height: 5 });
    other = await shelve(database, legend, null, { width: 10, height: 5 });
    await keepGrid(database, mine, 5, 5);
    const wish = { id: randomUUID(), section: 2, line: 1, done: true };
    await tickColour(database, mine, wish);
    await tickColour(database, mine, wish);
    await tickColour(database, mine, { id: randomUUID(), section: 1, line: 2, done: true });
    await tickColour(database, mine, { id: randomUUID(), section: 1, line: 2, done: false });
    expect(await ticksView(database, mine)).toEqual({ ticked: [{ line: 1, section: 2 }] });
    expect(await ticksView(database, other)).toEqual({ ticked: [] });
    expect((await progressView(database, mine, 'UTC', '2026-01-01')).ticked).toEqual([
      { line: 1, percent: 50 },
      { line: 2, percent: 0 },
    ]);
  });

  it('refuses sections and colours that are not there; with a chart there is nothing to tick', async () => {
    const tick = (canvas: Canvas, section: number, tickedLine: number) =>
      tickColour(database, canvas, { id: randomUUID(), section, line: tickedLine, done: true });
    await expect(tick(mine, 3, 1)).rejects.toThrow('There is no section 3; the last is 2.');
    await expect(tick(mine, 1, 9)).rejects.toThrow('no longer has this colour');
    // The tick of a screen that has not heard of a new cut is of other squares than those that it saw.
    const seen = { x: 0, y: 0, width: 5, height: 5 };
    const late = (around: typeof seen) =>
      tickColour(database, mine, { id: randomUUID(), section: 1, around, line: 2, done: true });
    await late(seen);
    await keepGrid(database, mine, 2, 5);
    await expect(late(seen)).rejects.toThrow('cut again meanwhile');
    await late({ ...seen, width: 2 });
    await pair();
    await expect(tick(mine, 1, 1)).rejects.toThrow('has a chart now');
    expect((await progressView(database, mine, 'UTC', '2026-01-01')).ticked).toBeNull();
  });
});

describe('a kit that is kitted up', () => {
  const kittedUp = async (id: string) => (await shelf(database, id))[0]!.kittedUp;

  it('has every planned pot filled, or needs none', async () => {
    await pair();
    expect(await kittedUp(mine.id)).toBe(false);
    const storage = startStorage(randomUUID(), STARTING_LAYOUTS[0]!, 'Mine');
    await putStorage(database, storage, new Date().toISOString());
    const [first, second] = storage.trays[0]!.slots;
    await replaceAllotment(database, mine.id, [
      { line: 1, nth: 1, storageId: storage.id, slot: first!.id, locked: false },
      { line: 2, nth: 1, storageId: storage.id, slot: second!.id, locked: false },
    ]);
    const fill = (filled: number) =>
      notePot(database, mine, {
        id: randomUUID(),
        line: filled,
        kind: 'fill',
        drills: 0,
        undoes: null,
        redoes: null,
      });
    await fill(1);
    expect(await kittedUp(mine.id)).toBe(false);
    await fill(2);
    expect(await kittedUp(mine.id)).toBe(true);
    expect(await kittedUp(other.id)).toBe(false);
    await putNoCases(database, other.id, true);
    expect(await kittedUp(other.id)).toBe(true);
    expect(stageOf({ colours: 2, bagsCounted: 2, bagsToFind: 0, laid: 0, drills: 9, kittedUp: true })).toBe(
      'lay',
    );
  });
});
