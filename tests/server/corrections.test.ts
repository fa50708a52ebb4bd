import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { isLaid } from '../../src/core/cells/bitmap';
import type { WishedColour } from '../../src/core/corrections/colourList';
import { bitmapOf, replayMarks } from '../../src/data/bench';
import { findCanvas, legendOf, nextLine } from '../../src/data/canvas';
import { chartOf } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { panelPlanOf } from '../../src/data/panels';
import { putDrawing } from '../../src/data/symbols';
import { archiveOf } from '../../src/server/archive/archiveOut';
import { restoreArchive } from '../../src/server/archive/restore';
import { enterMark } from '../../src/server/bench/writes';
import { panelsView, savePanels } from '../../src/server/chart/panels';
import { checkinView } from '../../src/server/checkin/view';
import { enterBag } from '../../src/server/checkin/writes';
import { correctionsView } from '../../src/server/corrections/view';
import {
  correctFacts,
  reportOfFacts,
  saveColourList,
  undoCorrection,
  versionOf,
} from '../../src/server/corrections/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1, { neededDrills: 4 }), line(2, { neededDrills: 2 }), line(3, { neededDrills: 0 })];
const kit = () => shelve(database, legend, chartOfRows('112', '11.'));
const save = (canvas: Canvas, lines: readonly WishedColour[], basedOn: string | null = null) =>
  saveColourList(database, canvas, { lines, basedOn });
const codes = async (canvas: Canvas) => (await legendOf(database, canvas.id)).map(({ code }) => code);
const numbers = async (canvas: Canvas) => (await legendOf(database, canvas.id)).map((each) => each.line);
const fresh = ({ line: _, ...colour }: WishedColour): WishedColour => colour;

const countBag = async (canvas: Canvas, of: number) => {
  const id = randomUUID();
  await enterBag(database, canvas, bagRequest({ id, line: of }));
  return id;
};
const lay = (canvas: Canvas, runs: number[]) =>
  enterMark(database, canvas, {
    id: randomUUID(),
    kind: 'lay',
    runs,
    sittingId: null,
    undoes: null,
    redoes: null,
  });

describe('a correction of the colour list', () => {
  it('carries bags, squares and drawings along when a code is corrected, on its own canvas', async () => {
    const [canvas, other] = [await kit(), await kit()];
    for (const each of [canvas, other]) {
      await countBag(each, 2);
      await lay(each, [2, 1]);
      await putDrawing(database, each.id, legend[1]!, 'M0 0L9 0L0 9Z');
    }
    await save(canvas, [legend[0]!, { ...legend[1]!, code: '777' }, legend[2]!]);
    expect([await codes(canvas), await codes(other)]).toEqual([
      ['401', '777', '403'],
      ['401', '402', '403'],
    ]);
    const view = await checkinView(database, canvas);
    expect(view.supply[1]).toMatchObject({ line: 2, bags: 1 });
    expect((await chartOf(database, canvas))!.cells[2]).toBe(2);
    expect((await legendOf(database, canvas.id))[1]!.drawing).toBe('M0 0L9 0L0 9Z');
    expect((await legendOf(database, other.id))[1]!.drawing).toBe('M0 0L9 0L0 9Z');
  });

  it('exchanges two codes with their drawings', async () => {
    const canvas = await kit();
    await putDrawing(database, canvas.id, legend[0]!, 'M0 0L1 0L0 1Z');
    await putDrawing(database, canvas.id, legend[1]!, 'M0 0L2 0L0 2Z');
    await save(canvas, [{ ...legend[0]!, code: '402' }, { ...legend[1]!, code: '401' }, legend[2]!]);
    expect((await legendOf(database, canvas.id)).map((each) => [each.line, each.code, each.drawing])).toEqual(
      [
        [1, '402', 'M0 0L1 0L0 1Z'],
        [2, '401', 'M0 0L2 0L0 2Z'],
        [3, '403', undefined],
      ],
    );
  });

  it('inserts, moves and deletes rows, and never uses a number again', async () => {
    const canvas = await kit();
    await save(canvas, [legend[1]!, fresh(line(9, { code: '900' })), legend[0]!]);
    expect([await codes(canvas), await numbers(canvas)]).toEqual([
      ['402', '900', '401'],
      [2, 4, 1],
    ]);
    await save(canvas, [legend[1]!, legend[0]!]);
    await save(canvas, [legend[1]!, legend[0]!, fresh(line(9, { code: '900' }))]);
    expect(await numbers(canvas)).toEqual([2, 1, 5]);
    expect(await nextLine(database, canvas.id)).toBe(6);
  });

  it('finds the colours of a sheet that is read again, by code, else by key number and symbol', async () => {
    const canvas = await kit();
    await save(canvas, [
      fresh({ ...legend[1]!, name: 'Other words' }),
      fresh({ ...legend[0]!, code: '41O' }),
      fresh(line(3, { code: '999', symbol: '%' })),
    ]);
    // 403 was not used by anything and is gone; 999 has its key number but another symbol, so it is a new colour.
    expect([await codes(canvas), await numbers(canvas)]).toEqual([
      ['402', '41O', '999'],
      [2, 1, 4],
    ]);
  });

  it('is refused where something hangs on what would go, a code stands twice, or a number is unknown', async () => {
    const canvas = await kit();
    await countBag(canvas, 3);
    const before = await legendOf(database, canvas.id);
    await expect(save(canvas, [legend[0]!, legend[1]!])).rejects.toThrow('403 has 1 bag');
    await expect(save(canvas, [legend[0]!, legend[2]!])).rejects.toThrow('402 has 1 square of the chart');
    await expect(save(canvas, [...legend, fresh(line(9, { code: '40-1' }))])).rejects.toThrow(
      'Code 40-1 stands there twice',
    );
    await expect(save(canvas, [...legend, line(9)])).rejects.toThrow('Leave the number out');
    expect(await legendOf(database, canvas.id)).toEqual(before);
  });

  it('does not change where a colour came from, whatever is sent back with the list', async () => {
    const canvas = await kit();
    const sent = { ...legend[0]!, origin: 'nowhere', drawing: 'M0 0' } as unknown as WishedColour;
    await save(canvas, [sent, ...legend.slice(1)]);
    const [first] = await legendOf(database, canvas.id);
    expect([first!.origin, first!.drawing]).toEqual([undefined, undefined]);
  });

  it('is refused when another screen changed the list since', async () => {
    const canvas = await kit();
    const seen = versionOf(await legendOf(database, canvas.id));
    await save(canvas, [{ ...legend[0]!, name: 'Here' }, ...legend.slice(1)], seen);
    await expect(save(canvas, [{ ...legend[0]!, name: 'There' }, ...legend.slice(1)], seen)).rejects.toThrow(
      'changed at another screen',
    );
  });

  it('is undone and made again, once for one id, unless the list changed since', async () => {
    const [canvas, other] = [await kit(), await kit()];
    await save(canvas, [{ ...legend[0]!, code: '555' }, ...legend.slice(1)]);
    const [entry] = (await correctionsView(database, canvas)).entries;
    expect(entry!.changes).toEqual(['401 is now 555']);
    const undo = { id: randomUUID(), undoes: entry!.id, redoes: null };
    await undoCorrection(database, canvas, undo);
    await undoCorrection(database, canvas, undo);
    expect(await codes(canvas)).toEqual(['401', '402', '403']);
    await expect(undoCorrection(database, canvas, { ...undo, id: randomUUID() })).rejects.toThrow(
      'undone already',
    );
    await undoCorrection(database, canvas, { id: randomUUID(), undoes: null, redoes: entry!.id });
    expect(await codes(canvas)).toEqual(['555', '402', '403']);
    await expect(undoCorrection(database, other, { ...undo, id: randomUUID() })).rejects.toThrow(
      'no such correction',
    );
    await save(canvas, [{ ...legend[0]!, code: '555' }, legend[1]!]);
    const view = await correctionsView(database, canvas);
    expect(view.entries.map(({ undone }) => undone)).toEqual([false, false, false, true]);
    const redone = view.entries[1]!.id;
    await expect(
      undoCorrection(database, canvas, { id: randomUUID(), undoes: redone, redoes: null }),
    ).rejects.toThrow('changed again since');
  });
});

describe('a correction of the canvas itself', () => {
  it('says what it costs before, changes only what is named, and is undone', async () => {
    const [canvas, other] = [await kit(), await kit()];
    await countBag(canvas, 1);
    const report = await reportOfFacts(database, canvas, { packetDrills: 500, title: 'New words' });
    expect(report.fault).toBeNull();
    expect(report.costs).toEqual([
      'Bags are counted with 500 drills from now on. The 1 bag counted so far keeps its number; change them in the list of bags.',
    ]);
    await correctFacts(database, canvas, { packetDrills: 500, title: 'New words' });
    expect(await findCanvas(database, canvas.id)).toEqual({
      ...canvas,
      packetDrills: 500,
      title: 'New words',
    });
    expect(await findCanvas(database, other.id)).toEqual(other);
    const [entry] = (await correctionsView(database, canvas)).entries;
    await undoCorrection(database, canvas, { id: randomUUID(), undoes: entry!.id, redoes: null });
    expect(await findCanvas(database, canvas.id)).toEqual(canvas);
  });

  it('moves squares and marks to another size, and cuts nothing off that wants a drill', async () => {
    const [canvas, other] = [await kit(), await kit()];
    for (const each of [canvas, other]) await lay(each, [0, 1, 3, 2]);
    await expect(correctFacts(database, canvas, { width: 2 })).rejects.toThrow(
      '1 of the squares that would go want a drill',
    );
    await expect(correctFacts(database, canvas, { height: 1 })).rejects.toThrow('2 drills laid on them');
    await correctFacts(database, canvas, { width: 5, height: 3 });
    const large = (await findCanvas(database, canvas.id))!;
    expect([...(await chartOf(database, large))!.cells]).toEqual([
      1, 1, 2, 0, 0, 1, 1, 0, 0, 0, 0, 0, 0, 0, 0,
    ]);
    const laid = await bitmapOf(database, canvas.id, 15);
    expect(Array.from({ length: 15 }, (_, cell) => cell).filter((cell) => isLaid(laid, cell))).toEqual([
      0, 5, 6,
    ]);
    expect(await replayMarks(database, canvas.id, 15)).toEqual(laid);
    const [entry] = (await correctionsView(database, large)).entries;
    expect(entry!.changes).toEqual(['size: 3 × 2 → 5 × 3 squares']);
    await undoCorrection(database, large, { id: randomUUID(), undoes: entry!.id, redoes: null });
    expect(await bitmapOf(database, canvas.id, 6)).toEqual(await bitmapOf(database, other.id, 6));
    expect(await chartOf(database, canvas)).toEqual(await chartOf(database, other));
  });

  it('keeps a plan of panels: while it does not fit it rests, as is said before, and it is back with the size', async () => {
    const shelved = () => shelve(database, legend, null, { width: 60, height: 20 });
    const [canvas, other] = [await shelved(), await shelved()];
    const plan = { columnCuts: [40], rowCuts: [], overlap: 5 };
    const whole = { ...plan, marginMm: 0, reachWidthCm: null, reachHeightCm: null };
    for (const each of [canvas, other]) await savePanels(database, each, whole);
    const here = async () => (await findCanvas(database, canvas.id))!;
    const cut = async () => (await here()).panelRects.map(({ width }) => width);
    expect(await cut()).toEqual([40, 20]);
    for (const [width, words, panels] of [
      [50, 'Your own panels stay cut where they are', [40, 10]],
      [45, 'Your own panels do not fit the new size', [45]],
      [44, null, [44]],
      [56, 'Your own panels, which did not fit, are back', [40, 16]],
      [45, 'Your own panels do not fit the new size', [45]],
    ] as const) {
      const { costs } = await reportOfFacts(database, await here(), { width });
      if (words === null) expect(costs.join(' ')).not.toContain('panels');
      else expect(costs.join(' ')).toContain(words);
      await correctFacts(database, await here(), { width });
      expect(await cut()).toEqual(panels);
      const { plan: shown } = await panelsView(database, await here());
      expect(shown.columnCuts).toEqual(panels.length === 2 ? [40] : []);
    }
    const [last] = (await correctionsView(database, await here())).entries;
    await undoCorrection(database, await here(), { id: randomUUID(), undoes: last!.id, redoes: null });
    expect(await cut()).toEqual([40, 16]);
    expect(await panelPlanOf(database, canvas.id)).toEqual(whole);
    expect((await findCanvas(database, other.id))!.panelRects.map(({ width }) => width)).toEqual([40, 20]);
  });

  it('goes out and comes back with a plan of panels that does not fit', async () => {
    const canvas = await shelve(database, legend, null, { width: 60, height: 20 });
    await savePanels(database, canvas, {
      columnCuts: [40],
      rowCuts: [],
      overlap: 0,
      marginMm: 0,
      reachWidthCm: null,
      reachHeightCm: null,
    });
    const narrow = await correctFacts(database, canvas, { width: 44 });
    const zip = await archiveOf(database, narrow, new Date('2026-05-02T09:30:00Z'));
    const { id } = await restoreArchive(database, zip, randomUUID());
    expect(id).not.toBe(canvas.id);
    const came = (await findCanvas(database, id))!;
    expect(came.panelRects.map(({ width }) => width)).toEqual([44]);
    const wide = await correctFacts(database, came, { width: 60 });
    expect(wide.panelRects.map(({ width }) => width)).toEqual([40, 20]);
  });

  it('is not undone once the canvas was changed again, nor by another canvas', async () => {
    const [canvas, other] = [await kit(), await kit()];
    await correctFacts(database, canvas, { title: 'First' });
    const undoes = (await correctionsView(database, canvas)).entries[0]!.id;
    const undo = (at: Canvas) => undoCorrection(database, at, { id: randomUUID(), undoes, redoes: null });
    await expect(undo(other)).rejects.toThrow('no such correction');
    await correctFacts(database, canvas, { title: 'Second' });
    await expect(undo(canvas)).rejects.toThrow('changed again since');
    expect((await findCanvas(database, canvas.id))!.title).toBe('Second');
    // What was left out of a wish stays.
    await correctFacts(database, canvas, { title: undefined, packetDrills: 300 });
    expect(await findCanvas(database, canvas.id)).toMatchObject({ title: 'Second', packetDrills: 300 });
  });

  it('offers to undo what was changed, in words, and grows in height alone', async () => {
    const canvas = await kit();
    const screen = randomUUID();
    await correctFacts(database, canvas, { height: 3 }, screen);
    const { history } = await correctionsView(database, canvas, screen);
    expect(history.undo).toMatchObject({ changes: ['size: 3 × 2 → 3 × 3 squares'] });
    expect((await chartOf(database, (await findCanvas(database, canvas.id))!))!.cells).toHaveLength(9);
  });

  it('refuses facts that do not go together', async () => {
    const canvas = await kit();
    await expect(correctFacts(database, canvas, { width: 4000, height: 4000 })).rejects.toThrow('at most');
    await expect(correctFacts(database, canvas, { panels: 9 })).rejects.toThrow('more panels than columns');
  });
});
