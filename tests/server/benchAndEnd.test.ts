import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import ICAL from 'ical.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { countLaid } from '../../src/core/cells/bitmap';
import { UNTOLD_FINISH } from '../../src/core/finish/record';
import type { PotEventKind } from '../../src/core/kitup/potLedger';
import { laidAt } from '../../src/core/progress/laidByDay';
import { addDays, dayIn } from '../../src/core/words/calendar';
import { bitmapOf, laidOf, replayMarks } from '../../src/data/bench';
import type { Database } from '../../src/data/engine/database';
import { potStatesOf } from '../../src/data/kitup';
import { putFinishBy } from '../../src/data/progress';
import { stashItems } from '../../src/data/stash';
import { benchView, poppedOf } from '../../src/server/bench/view';
import {
  correctSitting,
  enterMark,
  type MarkRequest,
  partSitting,
  startSitting,
  stopSitting,
} from '../../src/server/bench/writes';
import { editChart } from '../../src/server/chart/edits';
import { enterBag, recordTrash } from '../../src/server/checkin/writes';
import { finishView, logOfAll } from '../../src/server/finish/view';
import { putAwayAll, takeBackAll, tellFinish } from '../../src/server/finish/writes';
import { notePot } from '../../src/server/kitup/writes';
import { labelsToPrint, labelsView } from '../../src/server/labels/view';
import { dayChangesOf, forecastView } from '../../src/server/progress/forecast';
import { calendarOf, daysTable, sittingsTable, weekPrint } from '../../src/server/progress/out';
import { everySitting, progressView } from '../../src/server/progress/view';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1, { neededDrills: 9, packets: 1 }), line(2, { neededDrills: 5, packets: 1 })];
const chart = chartOfRows('11122', '11122', '1112.');
const mark = (more: Partial<MarkRequest>): MarkRequest => ({
  id: randomUUID(),
  kind: 'lay',
  runs: [0, 1],
  sittingId: null,
  undoes: null,
  redoes: null,
  ...more,
});
const ago = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString();
/** Two canvases, so that nothing of one shows on the other. */
async function two(): Promise<[Canvas, Canvas]> {
  return [await shelve(database, legend, chart), await shelve(database, legend, chart)];
}

describe('popped drills', () => {
  it('are said with the lift, are gone once they are laid again, and come back when that is undone', async () => {
    const [canvas, other] = await two();
    for (const each of [canvas, other]) await enterMark(database, each, mark({ runs: [0, 5] }));
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [1, 2], popped: true }));
    expect(await poppedOf(database, canvas)).toEqual([1, 2]);
    expect(await poppedOf(database, other)).toEqual([]);
    const again = mark({ runs: [1, 1] });
    await enterMark(database, canvas, again);
    expect(await poppedOf(database, canvas)).toEqual([2]);
    await enterMark(database, canvas, mark({ undoes: again.id }));
    expect(await poppedOf(database, canvas)).toEqual([1, 2]);
  });

  it('are none for a lift that is undone, or that corrects a mark of just now', async () => {
    const [canvas] = await two();
    await enterMark(database, canvas, mark({ runs: [0, 5] }));
    const lift = mark({ kind: 'lift', runs: [3, 1], popped: true });
    await enterMark(database, canvas, lift);
    await enterMark(database, canvas, mark({ undoes: lift.id }));
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [4, 1] }));
    expect(await poppedOf(database, canvas)).toEqual([]);
  });

  it('cannot be said of a laying, and the same request twice is one', async () => {
    const [canvas] = await two();
    await expect(enterMark(database, canvas, mark({ popped: true }))).rejects.toThrow('Only a lift');
    await enterMark(database, canvas, mark({ runs: [0, 5] }));
    const lift = mark({ kind: 'lift', runs: [3, 1], popped: true });
    expect((await enterMark(database, canvas, lift)).position).toBe(
      (await enterMark(database, canvas, lift)).position,
    );
    await expect(enterMark(database, canvas, { ...lift, popped: false })).rejects.toThrow();
  });
});

describe('the bitmap', () => {
  it('equals the ledger after many marks, lifts, undos and redos, on each of two canvases', async () => {
    const canvases = await two();
    const step = fc.record({
      on: fc.nat(1),
      what: fc.constantFrom('lay', 'lift', 'undo', 'redo'),
      from: fc.nat(13),
      length: fc.integer({ min: 1, max: 5 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 20, maxLength: 20, size: 'max' }), async (steps) => {
        for (const { on, what, from, length } of steps) {
          const canvas = canvases[on]!;
          const { history } = await benchView(database, canvas);
          const request =
            what === 'undo'
              ? history.undo && mark({ undoes: history.undo.id })
              : what === 'redo'
                ? history.redo && mark({ redoes: history.redo.id })
                : mark({ kind: what, runs: [from, Math.min(length, 15 - from)] });
          // What a later mark stands in the way of is refused as a whole.
          if (request) await enterMark(database, canvas, request).catch(() => {});
        }
        for (const canvas of canvases) {
          const cached = await bitmapOf(database, canvas.id, 15);
          expect(cached).toEqual(await replayMarks(database, canvas.id, 15));
          expect(await laidOf(database, canvas.id)).toBe(countLaid(cached));
          const days = await dayChangesOf(database, canvas, 'UTC');
          expect(laidAt(days, '2999-12-31', 15)).toEqual(cached);
        }
      }),
      { numRuns: 6 },
    );
  });
});

describe('sittings', () => {
  it('are entered by hand, and take the marks of their time that have none', async () => {
    const [canvas, other] = await two();
    for (const each of [canvas, other]) await enterMark(database, each, mark({ runs: [0, 4] }));
    const id = randomUUID();
    const times = { startedAt: ago(60), endedAt: ago(-1), note: 'By hand' };
    await startSitting(database, canvas, id, null, times);
    await startSitting(database, canvas, id, null, times);
    expect(await everySitting(database, canvas)).toMatchObject([{ id, note: 'By hand', drills: 4 }]);
    expect(await everySitting(database, other)).toEqual([]);
    expect(sittingsTable(await everySitting(database, canvas)).rows[0]!.slice(2, 4)).toEqual([61, 4]);
  });

  it.each([
    ['ends before it begins', { startedAt: ago(10), endedAt: ago(20) }, 'must end after'],
    ['lies in time to come', { startedAt: ago(-100), endedAt: ago(-200) }, 'in the future'],
    ['lasts thirty hours', { startedAt: ago(1900), endedAt: ago(100) }, 'more than 24 hours'],
  ])('that %s are refused', async (_, times, words) => {
    const [canvas] = await two();
    await expect(startSitting(database, canvas, randomUUID(), null, { ...times, note: '' })).rejects.toThrow(
      words,
    );
    expect(await everySitting(database, canvas)).toEqual([]);
  });

  it('over midnight are parted by a pause, with the marks after it', async () => {
    const [canvas] = await two();
    const id = randomUUID();
    await startSitting(database, canvas, id, null, { startedAt: ago(240), endedAt: ago(-2), note: 'Long' });
    await enterMark(database, canvas, mark({ runs: [0, 3], sittingId: id }));
    const second = randomUUID();
    const pause = { id: second, pauseFrom: ago(180), pauseTo: ago(30) };
    await partSitting(database, canvas, id, pause);
    await partSitting(database, canvas, id, pause);
    const [later, earlier] = await everySitting(database, canvas);
    expect([later!.id, later!.drills, earlier!.id, earlier!.drills]).toEqual([second, 3, id, 0]);
    expect([later!.startedAt, earlier!.endedAt].map((at) => new Date(at!).toISOString())).toEqual([
      pause.pauseTo,
      pause.pauseFrom,
    ]);
    await expect(partSitting(database, canvas, id, { ...pause, id: randomUUID() })).rejects.toThrow(
      'within the sitting',
    );
  });

  it('that were forgotten end where they ended, with consent, and not before they began', async () => {
    const [canvas] = await two();
    const id = randomUUID();
    await startSitting(database, canvas, id);
    await correctSitting(database, canvas, id, {
      id: randomUUID(),
      startedAt: ago(600),
      endedAt: null,
      note: '',
      removed: false,
    });
    expect(await benchView(database, canvas)).toMatchObject({
      lastMarkAt: null,
      sittings: [{ id, endedAt: null }],
    });
    await expect(stopSitting(database, canvas, id, '', ago(700))).rejects.toThrow('must end after');
    await expect(stopSitting(database, canvas, randomUUID(), '')).rejects.toThrow();
    await stopSitting(database, canvas, id, 'Trimmed', ago(550));
    expect((await benchView(database, canvas)).sittings[0]!.endedAt).not.toBeUndefined();
  });
});

describe('what the bench opens with', () => {
  it('is the canvas’s squares where it has no chart, and what bad drills taught, but for removed records', async () => {
    const plain = await shelve(database, legend, null, { width: 7, height: 3 });
    const [canvas, other] = await two();
    expect([(await benchView(database, plain)).drills, (await benchView(database, canvas)).drills]).toEqual([
      21, 14,
    ]);
    const thrown = (of: Canvas, more: object) =>
      recordTrash(database, of, {
        ...{ id: randomUUID(), handled: 100, thrown: 50, replaces: null, removed: false },
        ...more,
      });
    const usual = (await benchView(database, other)).trash;
    const id = randomUUID();
    await thrown(canvas, { id });
    expect((await benchView(database, canvas)).trash.share).toBeGreaterThan(usual.share);
    await thrown(canvas, { replaces: id, removed: true });
    expect((await benchView(database, canvas)).trash).toEqual(usual);
    expect((await benchView(database, other)).trash).toEqual(usual);
  });

  it('a sitting of its own canvas, begun once for one id and told apart from one entered by hand', async () => {
    const [canvas, other] = await two();
    const id = randomUUID();
    await startSitting(database, canvas, id);
    await startSitting(database, canvas, id);
    const times = { startedAt: ago(90), endedAt: ago(30), note: '' };
    await expect(startSitting(database, canvas, id, null, times)).rejects.toMatchObject({ status: 409 });
    await expect(startSitting(database, other, id)).rejects.toMatchObject({ status: 409 });
    expect((await benchView(database, canvas)).sittings).toHaveLength(1);
    expect((await benchView(database, other)).sittings).toEqual([]);
  });

  it('and an undo that a later mark makes half is refused with what stands in its way', async () => {
    const [canvas] = await two();
    const laid = mark({ runs: [0, 5] });
    await enterMark(database, canvas, laid);
    const lifted = mark({ kind: 'lift', runs: [1, 2] });
    await enterMark(database, canvas, lifted);
    await expect(enterMark(database, canvas, mark({ undoes: laid.id }))).rejects.toThrow(
      'Undo would touch 5 drills, but 2 drills of them were lifted by a later mark.',
    );
    await enterMark(database, canvas, mark({ undoes: lifted.id }));
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [4, 1] }));
    await enterMark(database, canvas, mark({ runs: [4, 1] }));
    await enterMark(database, canvas, mark({ undoes: laid.id }));
    await enterMark(database, canvas, mark({ runs: [3, 1] }));
    await expect(enterMark(database, canvas, mark({ redoes: laid.id }))).rejects.toThrow(
      'Redo would touch 5 drills, but 1 drill of them was laid by a later mark.',
    );
  });
});

describe('the week on paper', () => {
  it('goes by the clock of the reader', async () => {
    const [canvas] = await two();
    const view = await progressView(database, canvas, 'UTC', '2026-11-25');
    // Sunday evening in New York is Monday in Greenwich.
    const sittings = [
      {
        ...{ id: 'a', startedAt: '2026-11-23T01:00:00Z', endedAt: '2026-11-23T02:00:00Z' },
        ...{ note: 'Late', drills: 5, removed: false },
      },
    ];
    const foretold = await forecastView(database, canvas, 'UTC', null);
    const words = (zone: string) =>
      weekPrint(canvas, { ...view, sittings }, foretold, '2026-11-25', 'a4', zone).pages[0]!.marks.flatMap(
        (each) => (each.kind === 'text' ? [each.text] : []),
      );
    expect(words('UTC')).toContain('1 sitting, 60 minutes');
    expect(words('America/New_York')).toContain('0 sittings, 0 minutes');
  });
});

describe('progress', () => {
  it('tells today, the week and the section, and the forecast what is left', async () => {
    const [canvas, other] = await two();
    await enterMark(database, canvas, mark({ runs: [0, 7] }));
    const today = dayIn('UTC', new Date());
    const view = await progressView(database, canvas, 'UTC', today);
    expect(view).toMatchObject({ laidToday: 7, laidThisWeek: 7, laid: 7, drills: 14, estimate: null });
    expect(daysTable(view).rows).toEqual([[today, 7, 7]]);
    const foretold = await forecastView(database, canvas, 'UTC', null);
    expect(foretold.days).toMatchObject([{ day: today, drills: 7 }]);
    expect(foretold.minutesLeft).toBeGreaterThan(0);
    expect(foretold.forecast).toMatchObject({ usual: true });
    expect((await forecastView(database, other, 'UTC', null)).days).toEqual([]);
    // What was reckoned once is reckoned anew after a mark.
    await enterMark(database, canvas, mark({ runs: [7, 8] }));
    expect(await forecastView(database, canvas, 'UTC', null)).toMatchObject({
      minutesLeft: 0,
      forecast: null,
    });
  });

  it('has a wished day, with its chance and what it takes, and says calmly that one has passed', async () => {
    const [canvas] = await two();
    await enterMark(database, canvas, mark({ runs: [0, 7] }));
    const today = dayIn('UTC', new Date());
    await putFinishBy(database, canvas.id, addDays(today, 30));
    const view = await forecastView(database, canvas, 'UTC', null);
    expect(view.chance).toBeGreaterThan(0);
    expect(view.minutesAWeek).toBeGreaterThan(0);
    await putFinishBy(database, canvas.id, addDays(today, -3));
    expect(await forecastView(database, canvas, 'UTC', null)).toMatchObject({
      chance: 0,
      minutesAWeek: null,
    });
  });

  // RFC 5545, parsed by ical.js.
  it('goes into a calendar that another library reads', async () => {
    const [canvas] = await two();
    await enterMark(database, canvas, mark({ runs: [0, 7] }));
    const today = dayIn('UTC', new Date());
    await putFinishBy(database, canvas.id, addDays(today, 20));
    const view = await forecastView(database, canvas, 'UTC', null);
    const events = new ICAL.Component(ICAL.parse(calendarOf(canvas, { ...view, minutesLeft: 300 })))
      .getAllSubcomponents('vevent')
      .map((each) => new ICAL.Event(each));
    const sittings = events.filter(({ summary }) => summary.startsWith('At the bench'));
    const minutes = sittings.reduce((sum, { duration }) => sum + duration.toSeconds() / 60, 0);
    expect(minutes).toBeGreaterThanOrEqual(300);
    for (const { startDate } of sittings) {
      expect(startDate.hour).toBe(19);
      expect(
        startDate.toString().slice(0, 10) > today && startDate.toString().slice(0, 10) <= addDays(today, 20),
      ).toBe(true);
    }
    const end = events.at(-1)!;
    expect([end.startDate.isDate, end.startDate.toString()]).toEqual([true, addDays(today, 20)]);
    expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length);
    expect(() => calendarOf(canvas, { ...view, minutesLeft: 0 })).toThrow('Nothing is left to plan');
  });
});

describe('the end', () => {
  it('finds bare, popped and doubtful squares by place', async () => {
    const [canvas] = await two();
    await enterMark(database, canvas, mark({ runs: [0, 14] }));
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [2, 1], popped: true }));
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [6, 2], popped: false }));
    const { walk } = await finishView(database, canvas, 'UTC');
    expect(walk).toEqual({
      bare: { drills: 2, runs: [6, 2] },
      popped: { drills: 1, runs: [2, 1] },
      doubtful: { drills: 0, runs: [] },
    });
  });

  it('doubts squares that were laid before their colour was corrected, until they are laid anew', async () => {
    const [canvas, other] = await two();
    for (const each of [canvas, other]) await enterMark(database, each, mark({ runs: [0, 4] }));
    await editChart(database, canvas, { id: randomUUID(), edits: [{ runs: [2, 4], line: 2 }] });
    // The two that were laid; the others were bare then.
    expect((await finishView(database, canvas, 'UTC')).walk.doubtful).toEqual({ drills: 2, runs: [2, 2] });
    expect((await finishView(database, other, 'UTC')).walk.doubtful.drills).toBe(0);
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [2, 1], popped: false }));
    await enterMark(database, canvas, mark({ runs: [2, 1] }));
    expect((await finishView(database, canvas, 'UTC')).walk.doubtful).toEqual({ drills: 1, runs: [3, 1] });
  });

  it('is told again and again, and the last word holds; its days must be possible', async () => {
    const [canvas, other] = await two();
    await enterMark(database, canvas, mark({ runs: [0, 14] }));
    const today = dayIn('UTC', new Date());
    expect((await finishView(database, canvas, 'UTC')).facts).toMatchObject({
      startedOn: today,
      finishedOn: today,
      minutes: 0,
    });
    const entry = {
      id: randomUUID(),
      startedOn: '2026-01-05',
      minutes: 90,
      notes: 'First',
    };
    await tellFinish(database, canvas, entry, today);
    await tellFinish(database, canvas, entry, today);
    await tellFinish(database, canvas, { id: randomUUID(), notes: 'Second', steps: { gaps: true } }, today);
    // Two people at once: each names what it is about, and neither takes back what the other told.
    await Promise.all(
      (
        [{ steps: { roll: true } }, { steps: { loose: true } }, { sealing: 'no' }, { borderMm: 12 }] as const
      ).map((change) => tellFinish(database, canvas, { id: randomUUID(), ...change }, today)),
    );
    await tellFinish(database, canvas, { id: randomUUID(), steps: { roll: false } }, today);
    const view = await finishView(database, canvas, 'UTC');
    expect(view.record).toMatchObject({
      startedOn: '2026-01-05',
      minutes: 90,
      notes: 'Second',
      checked: ['loose', 'gaps'],
      sealing: 'no',
      borderMm: 12,
    });
    expect(view.facts).toMatchObject({ startedOn: '2026-01-05', finishedOn: today, minutes: 90 });
    expect((await finishView(database, other, 'UTC')).record).toEqual(UNTOLD_FINISH);
    await expect(
      tellFinish(database, canvas, { ...entry, id: randomUUID(), finishedOn: '2025-01-01' }, today),
    ).rejects.toThrow('before it was begun');
    // Notes take the place of those that were looked at, and of no others.
    const over = (notesBefore: string) =>
      tellFinish(database, canvas, { id: randomUUID(), notes: 'Third', notesBefore, minutes: 91 }, today);
    await expect(over('First')).rejects.toMatchObject({ status: 409 });
    expect((await finishView(database, canvas, 'UTC')).record).toMatchObject({
      notes: 'Second',
      minutes: 90,
    });
    await over(' Second\n');
    expect((await finishView(database, canvas, 'UTC')).record).toMatchObject({ notes: 'Third', minutes: 91 });
    const log = await logOfAll(database, 'UTC');
    expect(log.find(({ id }) => id === canvas.id)).toMatchObject({ finishedOn: today });
    expect(log.some(({ id }) => id === other.id)).toBe(false);
  });

  it('puts all leftovers into the stash in one go, or none, and takes them back', async () => {
    const [canvas, other] = await two();
    for (const number of [1, 2]) await enterBag(database, canvas, bagRequest({ line: number }));
    await enterMark(database, canvas, mark({ runs: [0, 14] }));
    const { leftovers } = await finishView(database, canvas, 'UTC');
    // 200 came, 3 % are bad, nine (five) are laid.
    expect(leftovers.map(({ left }) => left)).toEqual([185, 189]);
    const wish = {
      id: randomUUID(),
      colours: leftovers.map(({ line: number, left }) => ({ line: number, drills: left })),
    };
    const before = await stashItems(database, {});
    await putAwayAll(database, canvas, wish, null);
    await putAwayAll(database, canvas, wish, null);
    const sum = (items: { code: string; drills: number }[]) =>
      items.filter(({ code }) => ['401', '402'].includes(code)).reduce((all, { drills }) => all + drills, 0);
    expect(sum(await stashItems(database, {})) - sum(before)).toBe(374);
    expect((await finishView(database, canvas, 'UTC')).leftovers.map(({ putAway }) => putAway)).toEqual([
      185, 189,
    ]);
    // One that is away already: nothing of the second go happens.
    await expect(putAwayAll(database, canvas, { ...wish, id: randomUUID() }, null)).rejects.toThrow(
      'put away already',
    );
    await expect(
      putAwayAll(
        database,
        other,
        {
          id: randomUUID(),
          colours: [
            { line: 1, drills: 5 },
            { line: 77, drills: 1 },
          ],
        },
        null,
      ),
    ).rejects.toThrow('no colour number 77');
    expect((await finishView(database, other, 'UTC')).leftovers.map(({ putAway }) => putAway)).toEqual([
      null,
      null,
    ]);
    // Each bag gets its label, in the order of the codes; the other canvas has none.
    const printed = (at: Canvas) =>
      labelsToPrint(database, at, { format: 'strips', which: 'leftovers', start: 1 }, 'http://127.0.0.1');
    expect((await printed(canvas)).labels).toMatchObject([
      { line: { code: '401' }, leftover: 185, address: null },
      { line: { code: '402' }, leftover: 189, address: null },
    ]);
    expect((await labelsView(database, canvas)).leftovers).toEqual([1, 2]);
    await expect(printed(other)).rejects.toThrow('No leftovers of this canvas lie in the stash yet.');
    await takeBackAll(database, canvas, { id: randomUUID(), lines: [1, 2] }, null);
    await expect(printed(canvas)).rejects.toThrow('No leftovers of this canvas lie in the stash yet.');
    expect(sum(await stashItems(database, {})) - sum(before)).toBe(0);
    expect((await finishView(database, canvas, 'UTC')).leftovers.map(({ putAway }) => putAway)).toEqual([
      null,
      null,
    ]);
  });

  it('are taken back out whole, and nothing that was noted of their pots before', async () => {
    const [canvas, other] = await two();
    const lines = [1, 2];
    const states = async (at: Canvas) => Object.fromEntries(await potStatesOf(database, at.id));
    const note = (line: number, kind: PotEventKind, drills = 0) =>
      notePot(database, canvas, { id: randomUUID(), line, kind, drills });
    const away = (at: Canvas) =>
      putAwayAll(
        database,
        at,
        { id: randomUUID(), colours: lines.map((line) => ({ line, drills: 50 })) },
        null,
      );
    const back = () => takeBackAll(database, canvas, { id: randomUUID(), lines }, null);
    const drills = async () => (await stashItems(database, {})).reduce((all, { drills }) => all + drills, 0);
    const before = await drills();
    await note(1, 'fill');
    await away(canvas);
    await away(other);
    // One was counted again since.
    await note(1, 'amount', 44);
    expect((await drills()) - before).toBe(194);
    await back();
    expect(await states(canvas)).toEqual({ 1: 'fill' });
    expect((await drills()) - before).toBe(100);
    // A screen that does not know of that: the pot stays filled, and so does that of the other canvas.
    await expect(back()).rejects.toThrow('The leftovers of 401 are not in the stash');
    expect(await states(canvas)).toEqual({ 1: 'fill' });
    expect(await states(other)).toEqual({ 1: 'put away', 2: 'put away' });
    // Where one is there and the other is not, nothing happens.
    await note(1, 'put away', 50);
    await expect(back()).rejects.toThrow('The leftovers of 402 are not in the stash');
    expect(await states(canvas)).toEqual({ 1: 'put away' });
  });
});
