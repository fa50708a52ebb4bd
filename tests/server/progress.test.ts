import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { addSitting, addSittingEdit, endSitting } from '../../src/data/bench';
import type { Database } from '../../src/data/engine/database';
import { putInFront } from '../../src/data/inFront';
import { enterMark } from '../../src/server/bench/writes';
import { enterBag } from '../../src/server/checkin/writes';
import { dayChangesOf, forecastView } from '../../src/server/progress/forecast';
import { calendarOf, sittingsTable, weekPrint } from '../../src/server/progress/out';
import { progressView } from '../../src/server/progress/view';
import { chartOfRows, line } from '../core/samples';
import { keepGrid, memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

/** A Wednesday. */
const NOW = new Date('2026-06-10T12:00:00Z');
const TODAY = '2026-06-10';

/** Marks a run of squares at a moment. */
async function lay(canvas: Canvas, runs: number[], at: string, sittingId: string | null = null) {
  const id = randomUUID();
  await enterMark(database, canvas, {
    ...{ id, kind: 'lay', runs, sittingId, undoes: null, redoes: null },
  });
  await database.query('update mark set happened_at = $2 where id = $1', [id, at]);
}
/** An hour at the bench, with what was laid in it. */
async function sit(canvas: Canvas, began: string, runs: number[]): Promise<string> {
  const id = randomUUID();
  const minutes = (later: number) => new Date(Date.parse(began) + later * 60_000).toISOString();
  await addSitting(database, canvas.id, id, began);
  await lay(canvas, runs, minutes(30), id);
  await endSitting(database, id, minutes(60), '');
  return id;
}
const twice = async (make: () => Promise<Canvas>): Promise<[Canvas, Canvas]> => [await make(), await make()];

describe('how far a canvas is', () => {
  it('is told of the section in front, without what wants no drill there', async () => {
    const chart = chartOfRows('11122', '11122', '1112.');
    const [canvas, other] = await twice(() => shelve(database, [line(1), line(2)], chart));
    for (const each of [canvas, other]) await keepGrid(database, each, 3, 3);
    await lay(canvas, [0, 5], NOW.toISOString());
    await putInFront(database, canvas.id, { section: 2, line: 2 }, NOW.toISOString());
    expect((await progressView(database, canvas, 'UTC', TODAY)).section).toEqual({
      ...{ number: 2, drills: 5, laid: 2 },
    });
    expect((await progressView(database, other, 'UTC', TODAY)).section).toBeNull();
  });

  it('is, without a chart, what was marked in each section', async () => {
    const [canvas, other] = await twice(() => shelve(database, [line(1)], null));
    for (const each of [canvas, other]) await keepGrid(database, each, 5, 5);
    // The first section whole, of the second one row.
    await lay(canvas, [0, 10, 10, 5, 20, 5, 30, 5, 40, 5], NOW.toISOString());
    expect((await progressView(database, canvas, 'UTC', TODAY)).estimate).toEqual({
      expected: 30,
      low: 30,
      high: 30,
    });
    expect((await progressView(database, other, 'UTC', TODAY)).estimate).toMatchObject({ expected: 0 });
  });

  it('counts a week from its Monday to the day itself', async () => {
    const [canvas] = await twice(() => shelve(database, [line(1)], chartOfRows('1111111111')));
    await lay(canvas, [0, 1], '2026-06-07T23:59:00Z');
    await lay(canvas, [1, 2], '2026-06-08T00:01:00Z');
    await lay(canvas, [3, 4], '2026-06-10T08:00:00Z');
    // By a clock that is ahead of this one.
    await lay(canvas, [7, 1], '2026-06-11T08:00:00Z');
    expect(await progressView(database, canvas, 'UTC', TODAY)).toMatchObject({
      ...{ laidToday: 4, laidThisWeek: 6, laid: 8 },
    });
  });
});

describe('what foretells the end', () => {
  /** 60 squares of one colour in a row, and three hours at the bench: ended, removed and still open. */
  async function worked(chart = true): Promise<Canvas> {
    const cells = chart ? chartOfRows('1'.repeat(60)) : null;
    const canvas = await shelve(database, [line(1)], cells, { width: 60, height: 1 });
    await sit(canvas, '2026-06-09T17:00:00Z', [0, 20]);
    const removed = await sit(canvas, '2026-06-09T20:00:00Z', [20, 10]);
    const span = { startedAt: '2026-06-09T20:00:00Z', endedAt: '2026-06-09T21:00:00Z' };
    const edit = { id: randomUUID(), sittingId: removed, ...span, note: '', removed: true };
    await addSittingEdit(database, canvas.id, edit, NOW.toISOString());
    await addSitting(database, canvas.id, randomUUID(), '2026-06-10T11:30:00Z');
    return canvas;
  }

  it('is the pace of sittings that ended and stand', async () => {
    const canvas = await worked();
    const empty = await shelve(database, [line(1)], chartOfRows('1'.repeat(60)));
    const { pace } = await forecastView(database, canvas, 'UTC', null, NOW);
    expect(pace.sittings).toEqual([{ startedAt: expect.any(String), drillsAnHour: 20 }]);
    expect(Date.parse(pace.sittings[0]!.startedAt)).toBe(Date.parse('2026-06-09T17:00:00Z'));
    expect(pace.ofAll).toBe(20);
    expect((await forecastView(database, empty, 'UTC', null, NOW)).pace).toMatchObject({ ofAll: null });
  });

  it('is, without a chart, the time that a drill took so far', async () => {
    // An hour for 20 drills: three minutes a drill, for the 30 that are left.
    expect((await forecastView(database, await worked(false), 'UTC', null, NOW)).minutesLeft).toBe(90);
    const fresh = await shelve(database, [line(1)], null, { width: 60, height: 1 });
    // Five seconds a drill, before anything is known.
    expect((await forecastView(database, fresh, 'UTC', null, NOW)).minutesLeft).toBe(5);
  });

  it('tells the pace by the hour of the place, once there are four sittings in it', async () => {
    const canvas = await shelve(database, [line(1)], chartOfRows('1'.repeat(90)));
    for (const day of [1, 2, 3, 4]) await sit(canvas, `2026-06-0${day}T19:00:00Z`, [day * 20 - 20, 20]);
    const hours = async (zone: string) =>
      (await forecastView(database, canvas, zone, null, NOW)).pace.hours.map(({ name, from }) => [
        name,
        from,
      ]);
    expect(await hours('UTC')).toEqual([['In the evening (18 to 24)', 4]]);
    expect(await hours('America/New_York')).toEqual([['In the afternoon (12 to 18)', 4]]);
  });

  it('says which colour may run out, by what is left of it on this canvas', async () => {
    const chart = chartOfRows('1111111111', '2222222222');
    const legend = [
      line(1, { neededDrills: 10, packets: 0 }),
      line(2, { neededDrills: 10, packets: 0 }),
      line(3, { neededDrills: 0, packets: 0 }),
    ];
    const [canvas, other] = await twice(() => shelve(database, legend, chart));
    for (const each of [canvas, other]) {
      await enterBag(database, each, bagRequest({ line: 1, drills: 4, how: 'counted' }));
      await enterBag(database, each, bagRequest({ line: 2, drills: 400, how: 'counted' }));
    }
    await lay(canvas, [0, 3], NOW.toISOString());
    expect((await forecastView(database, canvas, 'UTC', null, NOW)).runningOut).toMatchObject([
      { line: 1, left: 7, goodLeft: 1 },
    ]);
    expect((await forecastView(database, other, 'UTC', null, NOW)).runningOut).toMatchObject([
      { line: 1, left: 10, goodLeft: 4 },
    ]);
    await lay(canvas, [3, 7], NOW.toISOString());
    expect((await forecastView(database, canvas, 'UTC', null, NOW)).runningOut).toEqual([]);
  });

  it('ends a calendar on the wished day while it lies ahead, else on the likely one', async () => {
    const canvas = await worked();
    const view = await forecastView(database, canvas, 'UTC', null, NOW);
    const end = (finishBy: string | null) => calendarOf(canvas, { ...view, finishBy, minutesLeft: 100 });
    const likely = view.forecast!.likely.replaceAll('-', '');
    expect(end('2026-07-01')).toMatch(/wished to be done[\s\S]*DTSTART;VALUE=DATE:20260701/);
    for (const passed of [null, '2026-06-01', TODAY])
      expect(end(passed)).toMatch(new RegExp(`likely done[\\s\\S]*DTSTART;VALUE=DATE:${likely}`));
    expect(() => calendarOf(canvas, { ...view, finishBy: null, forecast: null })).toThrow('Nothing is left');
  });

  it('leaves a removed sitting out of the week on paper and of the table', async () => {
    const canvas = await worked();
    const view = await progressView(database, canvas, 'UTC', TODAY);
    expect(view.sittings).toHaveLength(3);
    expect(sittingsTable(view.sittings).rows.map(([began]) => String(began).slice(0, 13))).toEqual([
      '2026-06-09T17',
      '2026-06-10T11',
    ]);
    const foretold = await forecastView(database, canvas, 'UTC', null, NOW);
    const words = weekPrint(canvas, view, foretold, TODAY, 'a4', 'UTC').pages[0]!.marks.flatMap((mark) =>
      mark.kind === 'text' ? [mark.text] : [],
    );
    expect(words).toContain('1 sitting, 60 minutes');
  });
});

it('what each day changed is told of one canvas, with what was laid before it was kept here', async () => {
  const [canvas, other] = await twice(() => shelve(database, [line(1)], chartOfRows('1111111111')));
  await lay(canvas, [4, 2], '2026-06-08T23:30:00Z');
  await lay(canvas, [6, 1], '2026-06-09T10:00:00Z');
  await lay(other, [0, 1], '2026-06-09T10:00:00Z');
  const days = async (zone: string) => (await dayChangesOf(database, canvas, zone)).map(({ day }) => day);
  expect(await days('UTC')).toEqual(['2026-06-08', '2026-06-09']);
  expect(await days('Europe/Lisbon')).toEqual(['2026-06-09']);
  await database.query(
    `update mark set before = true where position = (select min(position) from mark where canvas_id = $1)`,
    [canvas.id],
  );
  expect((await dayChangesOf(database, canvas, 'UTC')).flatMap(({ laid }) => laid)).toEqual([4, 2, 6, 1]);
});
