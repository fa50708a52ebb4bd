import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { countLaid } from '../../src/core/cells/bitmap';
import { makeChart } from '../../src/core/cells/chart';
import type { WishedColour } from '../../src/core/corrections/colourList';
import type { LedgerRow } from '../../src/core/ledger/history';
import { undoState } from '../../src/core/ledger/history';
import { dayIn } from '../../src/core/words/calendar';
import { addSitting, bitmapOf, endSitting, laidOf, replayMarks, sittingsOf } from '../../src/data/bench';
import { shelf } from '../../src/data/canvas';
import type { TrashEntry } from '../../src/data/checkin';
import type { Database } from '../../src/data/engine/database';
import { undoStateOf } from '../../src/data/history';
import { benchView } from '../../src/server/bench/view';
import { enterMark, type MarkRequest } from '../../src/server/bench/writes';
import { saveChart } from '../../src/server/chart/writes';
import { checkinView } from '../../src/server/checkin/view';
import { type BagRequest, enterBag, recordTrash } from '../../src/server/checkin/writes';
import { correctFacts, saveColourList } from '../../src/server/corrections/writes';
import { progressView } from '../../src/server/progress/view';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1, { neededDrills: 300, packets: 2 }), line(2, { neededDrills: 90, packets: 1 })];

describe('the bag ledger', () => {
  let canvas: Canvas;
  const enter = async (more: Partial<BagRequest>) => {
    const request = bagRequest(more);
    await enterBag(database, canvas, request);
    return request.id;
  };
  const view = () => checkinView(database, canvas);

  it('counts a bag at the canvas’s packet, or at the number given', async () => {
    canvas = await shelve(database, legend, null);
    await enter({ line: 1 });
    await enter({ line: 1, drills: 140 });
    const { supply, bags } = await view();
    expect(supply[0]).toMatchObject({ suppliedDrills: 340, bags: 2, verdict: { kind: 'enough', over: 40 } });
    expect(bags.map((each) => each.label)).toEqual(['401', '401']);
  });

  it('changes nothing when a request comes twice', async () => {
    canvas = await shelve(database, legend, null);
    const request = bagRequest({ line: 1 });
    await enterBag(database, canvas, request);
    await enterBag(database, canvas, request);
    expect((await view()).bags).toHaveLength(1);
  });

  it('answers with what the entry changed, the second time as well, and with nothing of another canvas', async () => {
    canvas = await shelve(database, legend, null);
    const other = await shelve(database, legend, null);
    await enterBag(database, other, bagRequest({ line: 2 }));
    const first = bagRequest({ line: 1 });
    await enterBag(database, canvas, first);
    const moved = bagRequest({ changes: first.id, line: 2, drills: 150 });
    for (let time = 1; time <= 2; time++) {
      const answer = await enterBag(database, canvas, moved);
      const { revision, supply, summary, sentence, bags } = await view();
      expect(answer.revision).toBe(revision);
      expect(answer.supply).toEqual(supply);
      expect(answer).toMatchObject({ summary, sentence, bags });
      expect(bags).toMatchObject([{ id: first.id, line: 2, drills: 150 }]);
      expect(answer.history.undo).toMatchObject({ id: moved.id });
    }
    expect(await shelf(database, canvas.id)).toMatchObject([{ bagsCounted: 1, bagsToFind: 2 }]);
  });

  it('never answers with a later revision than the bags it tells of', async () => {
    canvas = await shelve(database, [line(1), line(2)], null);
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        enterBag(database, canvas, bagRequest({ line: (i % 2) + 1, label: `${i}` })),
      ),
    );
    const before = answers[0]!.revision - answers[0]!.summary.bags;
    for (const { revision, summary } of answers) expect(revision - summary.bags).toBe(before);
  });

  it('takes back, and counts again', async () => {
    canvas = await shelve(database, legend, null);
    const first = await enter({ line: 1 });
    const second = await enter({ line: 2 });
    await enter({ undoes: second });
    expect((await view()).bags.map((each) => each.id)).toEqual([first]);
    expect((await view()).history).toMatchObject({
      undo: { id: first, line: 1, drills: 200, own: true },
      redo: { id: second },
    });
    await enter({ redoes: second });
    const { bags, history } = await view();
    expect(bags.map((each) => each.line)).toEqual([1, 2]);
    expect(history.redo).toBeNull();
  });

  it('lets only one of two people take back the same bag', async () => {
    canvas = await shelve(database, legend, null);
    const first = await enter({ line: 1 });
    const tries = await Promise.allSettled([enter({ undoes: first }), enter({ undoes: first })]);
    expect(tries.map((each) => each.status).sort()).toEqual(['fulfilled', 'rejected']);
    expect((await view()).bags).toEqual([]);
    const ledger = await database.query('select kind from bag_entry where canvas_id = $1 order by position', [
      canvas.id,
    ]);
    expect(ledger).toEqual([{ kind: 'count' }, { kind: 'take back' }]);
  });

  it('keeps a bag on no line under its label, and refuses what it does not know', async () => {
    canvas = await shelve(database, legend, null);
    await enter({ label: '3717' });
    expect((await view()).summary.strays).toBe(1);
    await expect(enter({ line: 9 })).rejects.toThrow('no longer has this colour');
    await expect(enter({})).rejects.toThrow('needs its code as a label');
    await expect(enter({ undoes: randomUUID() })).rejects.toThrow('no such bag');
  });

  it('agrees with the shelf on what is still to find', async () => {
    canvas = await shelve(database, legend, null);
    await enter({ line: 1 });
    await enter({ line: 2 });
    const second = await enter({ line: 2 });
    await enter({ undoes: second });
    const [shelved] = await shelf(database, canvas.id);
    const { summary } = await view();
    expect(shelved).toMatchObject({ bagsCounted: summary.bags, bagsToFind: summary.bagsToFind });
    expect(summary).toMatchObject({ bags: 2, bagsToFind: 1 });
  });
});

describe('deeper check-in', () => {
  let canvas: Canvas;
  const enter = async (more: Partial<BagRequest>) => {
    const request = bagRequest(more);
    await enterBag(database, canvas, request);
    return request.id;
  };
  const view = () => checkinView(database, canvas);

  it('gives a stray to a line, takes that back and does it again, and the shelf agrees at each step', async () => {
    canvas = await shelve(database, legend, null);
    const stray = await enter({ label: '4O1' });
    const given = await enter({ assigns: stray, line: 1 });
    const agree = async (bags: number, strays: number, toFind: number) => {
      const { summary } = await view();
      expect(summary).toMatchObject({ bags, strays, bagsToFind: toFind });
      expect((await shelf(database, canvas.id))[0]).toMatchObject({ bagsCounted: bags, bagsToFind: toFind });
    };
    await agree(1, 0, 2);
    expect((await view()).bags[0]).toMatchObject({ id: stray, line: 1, label: '4O1' });
    await expect(enter({ assigns: stray, line: 2 })).rejects.toThrow('already has its colour');
    await expect(enter({ undoes: stray })).rejects.toThrow(
      'Later this happened to the same bag: bag 4O1 taken for 401',
    );
    await enter({ undoes: given });
    await agree(1, 1, 3);
    await enter({ redoes: given });
    await agree(1, 0, 2);
  });

  it('keeps how a bag was measured', async () => {
    canvas = await shelve(database, legend, null);
    await enter({ line: 1 });
    await enter({ line: 1, drills: 150, how: 'counted' });
    await enter({ line: 2, drills: 97, how: 'weighed', spread: 1.5 });
    await expect(enter({ line: 2, how: 'weighed' })).rejects.toThrow('needs its uncertainty');
    const { bags, supply } = await view();
    expect(bags.map((each) => [each.how, each.spread])).toEqual([
      ['nominal', 2],
      ['counted', 0],
      ['weighed', 1.5],
    ]);
    expect(supply[0]).toMatchObject({ suppliedDrills: 350, bags: 2 });
  });

  it('learns the trash share, and repeats nothing', async () => {
    canvas = await shelve(database, legend, null);
    const record = { id: randomUUID(), handled: 800, thrown: 34, replaces: null, removed: false };
    await recordTrash(database, canvas, record);
    await recordTrash(database, canvas, record);
    expect((await view()).trash).toEqual({ handled: 1000, thrown: 40, share: 0.04 });
    await expect(recordTrash(database, canvas, { ...record, thrown: 3 })).rejects.toMatchObject({
      status: 409,
    });
  });

  it('has a record of bad drills corrected, removed and brought back, and stays what it was meanwhile elsewhere', async () => {
    const other = await shelve(database, legend, null);
    canvas = await shelve(database, legend, null);
    const share = async (of = canvas) => (await checkinView(database, of)).trash.share;
    const say = async (record: Partial<TrashEntry>, of = canvas) => {
      const id = randomUUID();
      const whole = { id, handled: 800, thrown: 34, replaces: null, removed: false, ...record };
      await recordTrash(database, of, whole);
      return id;
    };
    const wrong = await say({ thrown: 340 });
    await say({ thrown: 74 }, other);
    const right = await say({ replaces: wrong });
    expect(await share()).toBe(0.04);
    await expect(say({ replaces: wrong, thrown: 1 })).rejects.toThrow('corrected meanwhile');
    const removed = await say({ replaces: right, removed: true });
    expect(await share()).toBe(0.03);
    expect((await view()).trashRecords).toMatchObject([{ id: removed, removed: true }]);
    await say({ replaces: removed });
    expect(await share()).toBe(0.04);
    await expect(say({ replaces: removed }, other)).rejects.toThrow('corrected meanwhile');
    expect(await share(other)).toBe(0.08);
  });

  it('says in which section a short colour runs out', async () => {
    const wide = [line(1, { neededDrills: 60, packets: 1 })];
    const chart = { width: 60, height: 1, cells: new Uint16Array(60).fill(1) };
    canvas = await shelve(database, wide, chart);
    await enter({ line: 1, drills: 45, how: 'counted' });
    // 45 × 0.97 = 43 good ones: sections of 20 are laid in order, so the third cannot be finished.
    expect((await view()).supply[0]).toMatchObject({
      verdict: { kind: 'short', by: 15 },
      lastsUntilSection: 3,
    });
    await enter({ line: 1, drills: 100, how: 'counted' });
    expect((await view()).supply[0]!.lastsUntilSection).toBeNull();
  });

  it('reports what on the sheet does not add up', async () => {
    canvas = await shelve(database, [line(1, { neededDrills: 5 })], chartOfRows('11', '1.'));
    expect((await view()).findings.map((finding) => finding.kind)).toEqual(['sum', 'chart']);
  });
});

function mark(more: Partial<MarkRequest>): MarkRequest {
  return { id: randomUUID(), kind: 'lay', runs: [], sittingId: null, undoes: null, redoes: null, ...more };
}

describe('the mark ledger', () => {
  const chart = chartOfRows('1122', '11.2');
  const cells = 8;

  it('lays, lifts, undoes and redoes, and says which cells changed', async () => {
    const canvas = await shelve(database, legend, chart);
    const first = await enterMark(database, canvas, mark({ runs: [0, 8] }));
    expect(first).toMatchObject({ kind: 'lay', runs: [0, 6, 7, 1], laid: 7 });
    const second = await enterMark(database, canvas, mark({ kind: 'lift', runs: [0, 2] }));
    expect(second).toMatchObject({ kind: 'lift', runs: [0, 2], laid: 5 });
    const undo = await enterMark(database, canvas, mark({ undoes: second.id }));
    expect(undo).toMatchObject({
      kind: 'lay',
      runs: [0, 2],
      laid: 7,
      history: {
        undo: { id: first.id, kind: 'lay', drills: 7, line: null, cell: 0, own: true },
        redo: { id: second.id, kind: 'lift', drills: 2, line: 1, cell: 0 },
      },
    });
    const redo = await enterMark(database, canvas, mark({ redoes: second.id }));
    expect(redo).toMatchObject({ kind: 'lift', laid: 5 });
  });

  it('gives a repeated request the same answer and changes nothing', async () => {
    const canvas = await shelve(database, legend, chart);
    const request = mark({ runs: [0, 2] });
    const first = await enterMark(database, canvas, request);
    const again = await enterMark(database, canvas, request);
    expect(again).toEqual(first);
    expect(countLaid(await replayMarks(database, canvas.id, cells))).toBe(2);
  });

  it('refuses cells beyond the canvas, nothing at all, and what is not there', async () => {
    const canvas = await shelve(database, legend, chart);
    await expect(enterMark(database, canvas, mark({ runs: [7, 2] }))).rejects.toThrow(
      'beyond the last of 8 squares',
    );
    await expect(enterMark(database, canvas, mark({}))).rejects.toThrow('at least one square');
    await expect(enterMark(database, canvas, mark({ undoes: randomUUID() }))).rejects.toThrow('no such mark');
    const first = await enterMark(database, canvas, mark({ runs: [0, 1] }));
    await expect(enterMark(database, canvas, mark({ redoes: first.id }))).rejects.toThrow('is not undone');
    await expect(
      enterMark(database, canvas, mark({ runs: [0, 1], sittingId: randomUUID() })),
    ).rejects.toThrow('no such sitting');
    const other = await shelve(database, legend, chart);
    await expect(enterMark(database, other, mark({ undoes: first.id }))).rejects.toThrow('no such mark');
  });

  it('writes no row for a mark that changes no cell, and remembers it all the same', async () => {
    const canvas = await shelve(database, legend, chart);
    await enterMark(database, canvas, mark({ runs: [0, 8] }));
    const idle = mark({ runs: [0, 4] });
    expect(await enterMark(database, canvas, idle)).toMatchObject({ runs: [], laid: 7 });
    expect(await enterMark(database, canvas, idle)).toMatchObject({ runs: [], laid: 7 });
    expect(await database.query('select id from mark where canvas_id = $1', [canvas.id])).toHaveLength(1);
  });

  it('refuses an id that stands for something else, on this canvas or another', async () => {
    const canvas = await shelve(database, legend, chart);
    const other = await shelve(database, legend, chart);
    const request = mark({ runs: [0, 2] });
    await enterMark(database, canvas, request);
    const refused = { status: 409, detail: expect.stringContaining('already stands for something else') };
    await expect(enterMark(database, canvas, { ...request, runs: [2, 1] })).rejects.toMatchObject(refused);
    await expect(enterMark(database, canvas, { ...request, kind: 'lift' })).rejects.toMatchObject(refused);
    await expect(enterMark(database, other, request)).rejects.toMatchObject(refused);
    expect(countLaid(await bitmapOf(database, canvas.id, cells))).toBe(2);
    expect(countLaid(await bitmapOf(database, other.id, cells))).toBe(0);
  });

  it('takes back what this screen did, and says so when a later act stands in the way', async () => {
    const canvas = await shelve(database, legend, chart);
    const [desk, tablet] = [randomUUID(), randomUUID()];
    const mine = await enterMark(database, canvas, mark({ runs: [0, 3] }), desk);
    const theirs = await enterMark(database, canvas, mark({ kind: 'lift', runs: [1, 1] }), tablet);
    expect((await benchView(database, canvas, desk)).history.undo).toMatchObject({ id: mine.id, own: true });
    // A page is made before its screen has a name, and what it shows then may be another one's.
    const named = async (screen?: string) => (await benchView(database, canvas, screen)).history.nameless;
    expect([await named(), await named(desk)]).toEqual([true, undefined]);
    expect((await benchView(database, canvas, randomUUID())).history.undo).toMatchObject({
      id: theirs.id,
      own: false,
    });
    await expect(enterMark(database, canvas, mark({ undoes: mine.id }), desk)).rejects.toThrow(
      'Undo would touch 3 drills, but 1 drill of them was lifted by a later mark.',
    );
    await enterMark(database, canvas, mark({ undoes: theirs.id }), tablet);
    const undone = await enterMark(database, canvas, mark({ undoes: mine.id }), desk);
    expect(undone).toMatchObject({ laid: 0, history: { undo: null, redo: { id: mine.id } } });
    await expect(enterMark(database, canvas, mark({ undoes: mine.id }), tablet)).rejects.toThrow(
      'undone already',
    );
    // The other screen still has its own redo.
    expect((await benchView(database, canvas, tablet)).history.redo).toMatchObject({ id: theirs.id });
  });

  it('knows of each screen the same undo and redo as the rule over all rows, on two canvases at once', async () => {
    const screens = [randomUUID(), randomUUID()] as const;
    const step = fc.record({
      screen: fc.constantFrom(0 as const, 1 as const),
      canvas: fc.constantFrom(0 as const, 1 as const),
      what: fc.oneof(
        fc.record({
          kind: fc.constantFrom('lay' as const, 'lift' as const),
          start: fc.integer({ min: 0, max: 7 }),
        }),
        fc.constantFrom('undo' as const, 'redo' as const),
      ),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 25 }), async (steps) => {
        const canvases = [
          await shelve(database, legend, chart),
          await shelve(database, legend, chart),
        ] as const;
        const ruled = async (canvas: Canvas, screen: string | null) => {
          const rows = await database.query<LedgerRow>(
            'select id, screen_id as screen, undoes, redoes from mark where canvas_id = $1 order by position',
            [canvas.id],
          );
          return undoState(rows, screen);
        };
        for (const { screen, canvas: at, what } of steps) {
          const canvas = canvases[at];
          if (typeof what === 'object') {
            const request = mark({ kind: what.kind, runs: [what.start, 1] });
            await enterMark(database, canvas, request, screens[screen]);
            continue;
          }
          const target = (await ruled(canvas, screens[screen]))[what as 'undo' | 'redo'];
          if (target === null) continue;
          const request = mark(what === 'undo' ? { undoes: target } : { redoes: target });
          // A later act of the other screen may stand in the way.
          await enterMark(database, canvas, request, screens[screen]).catch((error: Error) =>
            expect(error.message).toContain('by a later mark'),
          );
        }
        for (const canvas of canvases) {
          for (const screen of [...screens, null]) {
            expect(await undoStateOf(database, 'mark', canvas.id, screen)).toEqual(
              await ruled(canvas, screen),
            );
          }
          expect(await bitmapOf(database, canvas.id, cells)).toEqual(
            await replayMarks(database, canvas.id, cells),
          );
          expect(await laidOf(database, canvas.id)).toBe(
            countLaid(await bitmapOf(database, canvas.id, cells)),
          );
        }
      }),
      { numRuns: 15 },
    );
  });

  it('marks across the parts of a large canvas as on a small one', async () => {
    const [width, height] = [300, 100];
    const large = makeChart(width, height, new Uint16Array(width * height).fill(1));
    const canvas = await shelve(database, legend, large);
    const all = await enterMark(database, canvas, mark({ runs: [8000, 15_000] }));
    expect(all).toMatchObject({ runs: [8000, 15_000], laid: 15_000 });
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [8190, 4] }));
    await enterMark(database, canvas, mark({ runs: [29_999, 1] }));
    const laid = await bitmapOf(database, canvas.id, width * height);
    expect(laid).toEqual(await replayMarks(database, canvas.id, width * height));
    expect(countLaid(laid)).toBe(14_997);
    expect(await laidOf(database, canvas.id)).toBe(14_997);
  });

  it('keeps a cache that equals the replayed ledger, whatever is done', async () => {
    const step = fc.oneof(
      fc.record({
        kind: fc.constantFrom('lay' as const, 'lift' as const),
        start: fc.integer({ min: 0, max: 7 }),
        length: fc.integer({ min: 1, max: 8 }),
      }),
      fc.constantFrom('undo' as const, 'redo' as const),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 15 }), async (steps) => {
        const canvas = await shelve(database, legend, chart);
        let history: { undo: { id: string } | null; redo: { id: string } | null } = {
          undo: null,
          redo: null,
        };
        for (const each of steps) {
          if (typeof each === 'object') {
            const runs = [each.start, Math.min(each.length, cells - each.start)];
            ({ history } = await enterMark(database, canvas, mark({ kind: each.kind, runs })));
          } else {
            const target = history[each];
            if (target === null) continue;
            const body = each === 'undo' ? { undoes: target.id } : { redoes: target.id };
            ({ history } = await enterMark(database, canvas, mark(body)));
          }
        }
        const cached = await bitmapOf(database, canvas.id, cells);
        expect(cached).toEqual(await replayMarks(database, canvas.id, cells));
        const [shelved] = await shelf(database, canvas.id);
        expect(shelved!.laid).toBe(countLaid(cached));
      }),
      { numRuns: 25 },
    );
  });

  it('puts a mark where it was made, though the canvas got another size before it came', async () => {
    const [canvas, other] = [await shelve(database, legend, chart), await shelve(database, legend, chart)];
    // The second square of the second row, by the four columns that the screen knew.
    const late = mark({ runs: [5, 1], columns: 4 });
    const wide = await correctFacts(database, canvas, { width: 6, height: 3 });
    expect(await enterMark(database, wide, late)).toMatchObject({ runs: [7, 1], laid: 1 });
    expect(await enterMark(database, wide, late)).toMatchObject({ runs: [7, 1], laid: 1 });
    expect(await enterMark(database, other, { ...late, id: randomUUID() })).toMatchObject({ runs: [5, 1] });
    const bare = await shelve(database, legend, null, { width: 4, height: 2 });
    const small = await correctFacts(database, bare, { height: 1 });
    await expect(
      enterMark(database, small, mark({ kind: 'lift', runs: [5, 1], columns: 4 })),
    ).rejects.toThrow('ends beyond the last of 4 squares');
    await expect(
      enterMark(database, small, mark({ kind: 'lift', runs: [5, 1], columns: 5 })),
    ).rejects.toThrow('has none of these squares');
  });

  it('keeps marks apart that two screens make at the same time', async () => {
    const canvas = await shelve(database, legend, chart);
    await Promise.all([0, 1, 3, 4, 5].map((cell) => enterMark(database, canvas, mark({ runs: [cell, 1] }))));
    expect(countLaid(await bitmapOf(database, canvas.id, cells))).toBe(5);
    expect(await bitmapOf(database, canvas.id, cells)).toEqual(await replayMarks(database, canvas.id, cells));
  });
});

describe('sittings and progress', () => {
  it('add up drills, days and colours', async () => {
    const canvas = await shelve(database, legend, chartOfRows('1122', '11.2'));
    const sittingId = randomUUID();
    await addSitting(database, canvas.id, sittingId, '2026-03-01T19:00:00.000Z');
    await enterMark(database, canvas, mark({ runs: [0, 3], sittingId }));
    await enterMark(database, canvas, mark({ kind: 'lift', runs: [0, 1], sittingId }));
    await endSitting(database, sittingId, '2026-03-01T20:30:00.000Z', 'Lamp on');
    // Ended at another screen too: the first end holds, and no word is lost or said twice.
    for (const note of ['Too dark', '', 'Lamp on', 'Too dark'])
      await endSitting(database, sittingId, '2026-03-01T21:30:00.000Z', note);
    expect(await sittingsOf(database, canvas.id, 5)).toEqual([
      {
        id: sittingId,
        startedAt: '2026-03-01T19:00:00.000Z',
        endedAt: '2026-03-01T20:30:00.000Z',
        note: 'Lamp on; Too dark',
        drills: 2,
        removed: false,
      },
    ]);
    const today = dayIn('UTC', new Date());
    const view = await progressView(database, canvas, 'UTC', today);
    expect(view).toMatchObject({
      laidToday: 2,
      laid: 2,
      drills: 7,
      percent: 28.57,
      burnUp: [{ day: today, total: 2 }],
    });
    expect(view.colours).toEqual([
      { line: 1, drills: 4, left: 3 },
      { line: 2, drills: 3, left: 2 },
    ]);
  });

  it('begins a day when the user’s clock does', async () => {
    const canvas = await shelve(database, legend, chartOfRows('1122', '11.2'));
    await enterMark(database, canvas, mark({ runs: [0, 1] }));
    await database.query('update mark set happened_at = $2 where canvas_id = $1', [
      canvas.id,
      '2026-03-01T23:30:00.000Z',
    ]);
    const inUtc = await progressView(database, canvas, 'UTC', '2026-03-01');
    const inAuckland = await progressView(database, canvas, 'Pacific/Auckland', '2026-03-01');
    expect(inUtc).toMatchObject({ laidToday: 1, burnUp: [{ day: '2026-03-01', total: 1 }] });
    expect(inAuckland).toMatchObject({ laidToday: 0, burnUp: [{ day: '2026-03-02', total: 1 }] });
    expect(dayIn('Pacific/Auckland', new Date('2026-03-01T23:30:00Z'))).toBe('2026-03-02');
  });

  it('go by area where there is no chart', async () => {
    const canvas = await shelve(database, legend, null);
    await enterMark(database, canvas, mark({ runs: [0, 25] }));
    const view = await progressView(database, canvas, 'UTC', dayIn('UTC', new Date()));
    expect(view).toMatchObject({ laid: 25, drills: 100, percent: 25, colours: null });
  });
});

describe('a new sheet or chart over old work', () => {
  it('is refused where bags would change their colour', async () => {
    const canvas = await shelve(database, legend, null);
    await enterBag(database, canvas, bagRequest({ line: 2 }));
    const save = (lines: WishedColour[]) => saveColourList(database, canvas, { lines, basedOn: null });
    await expect(save([line(1)])).rejects.toThrow('402 has 1 bag, so it cannot be deleted');
    expect((await checkinView(database, canvas)).supply).toHaveLength(2);
    await save([line(1), line(2), { ...line(3), line: null }]);
    expect((await checkinView(database, canvas)).supply).toHaveLength(3);
  });

  it('is refused where laid drills would lie on bare cells', async () => {
    const canvas = await shelve(database, legend, chartOfRows('11', '22'));
    await enterMark(database, canvas, mark({ runs: [0, 1] }));
    await expect(saveChart(database, canvas, chartOfRows('.1', '22'))).rejects.toThrow(
      '1 drill is laid on squares that this chart leaves bare',
    );
    await saveChart(database, canvas, chartOfRows('2.', '22'));
    expect((await shelf(database, canvas.id))[0]!.drills).toBe(3);
  });
});
