import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { legendOf } from '../../src/data/canvas';
import { chartOf } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { stampOf } from '../../src/data/once';
import { enterMark } from '../../src/server/bench/writes';
import { editChart, repairView, replaceFinish } from '../../src/server/chart/edits';
import { kindView } from '../../src/server/chart/view';
import { beginChart } from '../../src/server/chart/writes';
import { checkinView } from '../../src/server/checkin/view';
import { correctFacts } from '../../src/server/corrections/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1, { neededDrills: 4 }), line(2, { neededDrills: 2 })];
const kit = () => shelve(database, legend, chartOfRows('112', '11.'));
const cells = async (canvas: Awaited<ReturnType<typeof kit>>) => [
  ...(await chartOf(database, canvas))!.cells,
];

describe('a chart that is typed', () => {
  it('begins empty, once, and takes rows', async () => {
    const canvas = await shelve(database, legend, null, { width: 3, height: 2 });
    await beginChart(database, canvas);
    await expect(beginChart(database, canvas)).rejects.toThrow('has a chart already');
    await editChart(database, canvas, { id: randomUUID(), edits: [{ runs: [0, 2], line: 1 }] });
    expect(await cells(canvas)).toEqual([1, 1, 0, 0, 0, 0]);
  });

  it('takes a repair where it was made, though the canvas got another size before it came', async () => {
    const [canvas, other] = [
      await shelve(database, legend, chartOfRows('111', '222')),
      await shelve(database, legend, chartOfRows('111', '222')),
    ];
    const wide = await correctFacts(database, canvas, { width: 4 });
    const edits = [{ runs: [2, 2], line: 2 }];
    await editChart(database, wide, { id: randomUUID(), edits, columns: 3 });
    expect(await cells(wide)).toEqual([1, 1, 2, 0, 2, 2, 2, 0]);
    expect(await cells(other)).toEqual([1, 1, 1, 2, 2, 2]);
  });

  it('does not begin without a colour list', async () => {
    await expect(beginChart(database, await shelve(database, [], null))).rejects.toThrow('colour list first');
  });

  it('keeps what was laid by area, counts it as it is typed, and over undo and redo', async () => {
    const canvas = await shelve(database, legend, null, { width: 3, height: 2 });
    const other = await shelve(database, legend, null, { width: 3, height: 2 });
    const mark = { kind: 'lay' as const, sittingId: null, undoes: null, redoes: null };
    const area = randomUUID();
    await enterMark(database, canvas, { ...mark, id: area, runs: [0, 4] });
    await beginChart(database, canvas);
    const facts = async () => {
      const { laid, drills } = await stampOf(database, canvas.id);
      return [laid, drills];
    };
    expect(await facts()).toEqual([4, 4]);
    const typed = randomUUID();
    await editChart(database, canvas, { id: typed, edits: [{ runs: [3, 3], line: 2 }] });
    // Square 4 of the four is typed, and two more that are not laid yet.
    expect(await facts()).toEqual([4, 6]);
    await editChart(database, canvas, { id: randomUUID(), undoes: typed });
    expect(await facts()).toEqual([4, 4]);
    await editChart(database, canvas, { id: randomUUID(), redoes: typed });
    expect(await facts()).toEqual([4, 6]);
    // What is laid after it was typed holds its square.
    await enterMark(database, canvas, { ...mark, id: randomUUID(), runs: [4, 1] });
    const again = (await repairView(database, canvas)).history.undo!.id;
    await expect(editChart(database, canvas, { id: randomUUID(), undoes: again })).rejects.toThrow(
      'Lift it before the square is left bare',
    );
    // The act by area can still be undone, typed or not.
    await enterMark(database, canvas, { ...mark, id: randomUUID(), undoes: area, runs: [] });
    expect((await facts())[0]).toBe(1);
    expect((await stampOf(database, other.id)).laid).toBe(0);
  });
});

describe('repairing a chart', () => {
  it('sets cells once, leads to the colours that are off, and is taken back by its inverse', async () => {
    const canvas = await kit();
    expect((await repairView(database, canvas)).suspects).toEqual([
      { line: 2, onChart: 1, onSheet: 2, perhaps: null },
    ]);
    const wish = { id: randomUUID(), edits: [{ runs: [0, 1], line: 2 }] };
    await editChart(database, canvas, wish);
    await editChart(database, canvas, wish);
    expect(await cells(canvas)).toEqual([2, 1, 2, 1, 1, 0]);
    await editChart(database, canvas, { id: randomUUID(), edits: [{ runs: [0, 1], line: 1 }] });
    expect(await cells(canvas)).toEqual([1, 1, 2, 1, 1, 0]);
    const ledger = await database.query<{ before: unknown }>(
      'select before from chart_edit where canvas_id = $1',
      [canvas.id],
    );
    expect(ledger).toHaveLength(2);
  });

  it('is taken back from its last change to its first, also where they overlap, and on its own canvas', async () => {
    const [canvas, other] = [await kit(), await kit()];
    const before = await cells(canvas);
    const id = randomUUID();
    await editChart(database, canvas, {
      id,
      edits: [
        { runs: [0, 2], line: 2 },
        { runs: [0, 1], line: 0 },
      ],
    });
    expect(await cells(canvas)).toEqual([0, 2, ...before.slice(2)]);
    await editChart(database, canvas, { id: randomUUID(), undoes: id });
    expect([await cells(canvas), await cells(other)]).toEqual([before, before]);
  });

  it('refuses what would lose a laid drill or names nothing, and then changes nothing', async () => {
    const canvas = await kit();
    const mark = {
      id: randomUUID(),
      kind: 'lay' as const,
      runs: [0, 1],
      sittingId: null,
      undoes: null,
      redoes: null,
    };
    await enterMark(database, canvas, mark);
    const edit = (edits: { runs: number[]; line: number }[]) =>
      editChart(database, canvas, { id: randomUUID(), edits });
    await expect(
      edit([
        { runs: [3, 1], line: 2 },
        { runs: [0, 1], line: 0 },
      ]),
    ).rejects.toThrow('A drill is laid');
    await expect(edit([{ runs: [0, 1], line: 3 }])).rejects.toThrow('no colour number 3');
    await expect(edit([{ runs: [5, 2], line: 1 }])).rejects.toThrow('beyond the last of 6 squares');
    expect(await cells(canvas)).toEqual([1, 1, 2, 1, 1, 0]);
    const bare = await shelve(database, legend, null);
    await expect(
      editChart(database, bare, { id: randomUUID(), edits: [{ runs: [0, 1], line: 1 }] }),
    ).rejects.toThrow('no chart yet');
  });

  it('gives drills another finish in a line of their own, and the counts move with them', async () => {
    const canvas = await kit();
    const wish = { id: randomUUID(), line: 1, finish: 'iridescent' as const, code: 'SH401', runs: [0, 3] };
    await replaceFinish(database, canvas, wish);
    await replaceFinish(database, canvas, wish);
    const after = await legendOf(database, canvas.id);
    expect(after.map(({ code, finish, neededDrills }) => [code, finish, neededDrills])).toEqual([
      ['401', 'plain', 2],
      ['402', 'plain', 2],
      ['SH401', 'iridescent', 2],
    ]);
    // Cell 2 is of another colour and stays.
    expect(await cells(canvas)).toEqual([3, 3, 2, 1, 1, 0]);
    // And back again: the line is known, so the drills join it.
    await replaceFinish(database, canvas, {
      id: randomUUID(),
      line: 3,
      finish: 'plain',
      code: '401',
      runs: [0, 6],
    });
    expect((await legendOf(database, canvas.id)).map((each) => each.neededDrills)).toEqual([4, 2, 0]);
    const again = { id: randomUUID(), line: 1, finish: 'plain' as const, code: '401', runs: [0, 6] };
    await expect(replaceFinish(database, canvas, again)).rejects.toThrow('401 already is plain');
    await expect(
      replaceFinish(database, canvas, { ...again, id: randomUUID(), runs: [2, 1] }),
    ).rejects.toThrow('None of these squares');
  });

  it('takes a finish back with its counts, and the line that was made for it', async () => {
    const canvas = await kit();
    const wish = { id: randomUUID(), line: 1, finish: 'glow' as const, code: 'G401', runs: [0, 3] };
    await replaceFinish(database, canvas, wish);
    const { finish } = await repairView(database, canvas);
    expect(finish).toEqual({ id: wish.id, from: 1, special: 3, drills: 2 });
    const undo = { id: randomUUID(), undoes: wish.id };
    await editChart(database, canvas, undo);
    await editChart(database, canvas, undo);
    expect(await cells(canvas)).toEqual([1, 1, 2, 1, 1, 0]);
    const after = await legendOf(database, canvas.id);
    expect(after.map(({ code, neededDrills }) => [code, neededDrills])).toEqual([
      ['401', 4],
      ['402', 2],
    ]);
    expect((await repairView(database, canvas)).finish).toBeNull();
    await expect(editChart(database, canvas, { id: randomUUID(), undoes: wish.id })).rejects.toThrow(
      'undone already',
    );
    const again = { ...wish, id: randomUUID() };
    await replaceFinish(database, canvas, again);
    await editChart(database, canvas, { id: randomUUID(), edits: [{ runs: [0, 1], line: 2 }] });
    await expect(editChart(database, canvas, { id: randomUUID(), undoes: again.id })).rejects.toThrow(
      'changed since',
    );
  });

  it('gives the list its own number back, and never uses the number of a colour again', async () => {
    // The sheet counts 2 of 401, the chart has 4.
    const unsound = [line(1, { neededDrills: 2 }), line(2, { neededDrills: 1 })];
    const [canvas, other] = [
      await shelve(database, unsound, chartOfRows('112', '11.')),
      await shelve(database, unsound, chartOfRows('112', '11.')),
    ];
    const counts = async (of: Canvas) =>
      (await legendOf(database, of.id)).map((each) => [each.line, each.neededDrills]);
    const wish = { line: 1, finish: 'glow' as const, code: 'G401', runs: [0, 6] };
    const first = randomUUID();
    await replaceFinish(database, canvas, { ...wish, id: first });
    expect(await counts(canvas)).toEqual([
      [1, 0],
      [2, 1],
      [3, 4],
    ]);
    await editChart(database, canvas, { id: randomUUID(), undoes: first });
    expect(await counts(canvas)).toEqual([
      [1, 2],
      [2, 1],
    ]);
    await replaceFinish(database, canvas, { ...wish, id: randomUUID() });
    expect((await counts(canvas)).map(([number]) => number)).toEqual([1, 2, 4]);
    expect((await checkinView(database, canvas)).supply.map(({ line: number }) => number)).toEqual([1, 2, 4]);
    expect(await counts(other)).toEqual([
      [1, 2],
      [2, 1],
    ]);
  });

  it('looks a canvas over, if there is one', async () => {
    const view = await kindView(database, await kit());
    expect(view?.runs).toEqual([
      { length: '1', runs: 1, share: 1 / 5 },
      { length: '2', runs: 2, share: 4 / 5 },
    ]);
    expect(view).toMatchObject({ fewest: 2, most: 2, heat: { columns: 1, rows: 1, colours: [2] } });
    expect(await kindView(database, await shelve(database, legend, null))).toBeNull();
  });
});
