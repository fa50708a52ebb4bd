import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { edgeStickers } from '../../src/core/chart/files/edgeStickers';
import { findCanvas, legendOf } from '../../src/data/canvas';
import { chartOf } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { panelsView, printedPart, savePanels } from '../../src/server/chart/panels';
import { drawingPdf } from '../../src/server/print/drawingPdf';
import { stitchCanvasSchema } from '../../src/server/stitches/contract';
import { stitchReading } from '../../src/server/stitches/reading';
import { addStitchCanvas } from '../../src/server/stitches/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { words } from './pdfReader';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const PLAN = {
  columnCuts: [100],
  rowCuts: [],
  overlap: 5,
  marginMm: 0,
  reachWidthCm: 26,
  reachHeightCm: null,
};

describe('panels of a canvas', () => {
  it('are those of the kit until the user cuts it himself', async () => {
    const chart = chartOfRows(...new Array(20).fill('12'.repeat(110)));
    const canvas = await shelve(database, [line(1), line(2)], chart, { panels: 2 });
    const before = await panelsView(database, canvas);
    expect(before.panels.map(({ rect, drills, colours }) => [rect.width, drills, colours])).toEqual([
      [110, 2200, 2],
      [110, 2200, 2],
    ]);
    expect(before.twice).toBe(0);
    await savePanels(database, canvas, PLAN);
    const after = await panelsView(database, canvas);
    expect(after.plan).toEqual(PLAN);
    // The left one goes on for five columns of 20 drills; 105 and 120 columns at 2.5 mm are 26.25 and 30 cm.
    expect(after.twice).toBe(100);
    expect(after.panels.map(({ cm }) => cm.width)).toEqual([26.25, 30]);
    expect(after.panels[1]!.warning).toBe('Panel 2 is 30.0 cm wide, and you reach 26 cm.');
    await expect(savePanels(database, canvas, { ...PLAN, columnCuts: [215] })).rejects.toThrow(
      'at least 10 squares',
    );
    expect((await panelsView(database, canvas)).plan).toEqual(PLAN);
  });

  it('are printed one by one, with edge marks that count on over the canvas', async () => {
    const canvas = await shelve(database, [line(1)], null, { width: 220, height: 60, title: 'Owls' });
    await savePanels(database, canvas, PLAN);
    const { area, title } = await printedPart(database, canvas, 2);
    expect(title).toBe('Owls, panel 2 of 2');
    expect(area).toEqual({ x: 100, y: 0, width: 120, height: 60 });
    const pdf = await drawingPdf({ title, pages: edgeStickers([area], 50, 'a4') });
    const numbers = (await words(pdf)).map(({ text }) => text).filter((text) => /^\d+$/.test(text));
    // Columns 150 and 200 of the canvas on both edges, with the panel's own number below; row 50 on both.
    expect(numbers.sort()).toEqual(['100', '100', '150', '150', '200', '200', '50', '50', '50', '50']);
    expect((await printedPart(database, canvas, undefined)).title).toBe('Owls');
    await expect(printedPart(database, canvas, 3)).rejects.toThrow('no panel of this number');
  });
});

describe('a stitch chart', () => {
  const files = {
    grid: 'x,o,o\nx,x,.\n',
    threads: 'symbol,code,name,hex\nx,T1,Peat,#101010\no,T2,,\n',
    range: 'code,name,hex\nT1,Peat,#0d0c0b\n',
  };

  it('waits for the thread that has no colour, and is then put on the shelf once', async () => {
    const open = stitchReading({ ...files, chosen: [], words: null }).view;
    expect([open.drills, open.colours]).toEqual([null, null]);
    const wish = await stitchCanvasSchema.validate({
      ...files,
      id: randomUUID(),
      title: 'Hill',
      shape: 'round',
      pitchMm: 2.8,
      chosen: [],
      words: null,
    });
    await expect(addStitchCanvas(database, wish)).rejects.toThrow('Choose one for each');
    expect(await findCanvas(database, wish.id)).toBeNull();
    const settled = { ...wish, chosen: [{ thread: 'T2', drill: 'T1' }] };
    await addStitchCanvas(database, settled);
    const canvas = await addStitchCanvas(database, settled);
    await expect(addStitchCanvas(database, { ...settled, title: 'Another' })).rejects.toMatchObject({
      status: 409,
    });
    expect(await findCanvas(database, wish.id)).toMatchObject({
      title: 'Hill',
      width: 3,
      height: 2,
      pitchMm: 2.8,
      symbolsPrinted: false,
    });
    expect(
      (await legendOf(database, wish.id)).map(({ code, hex, neededDrills }) => [code, hex, neededDrills]),
    ).toEqual([['T1', '#0d0c0b', 5]]);
    expect([...(await chartOf(database, canvas))!.cells]).toEqual([1, 1, 1, 1, 1, 0]);
  });

  it('is not put on the shelf when nothing of it is a stitch', async () => {
    const wish = {
      ...files,
      grid: '.,.\n.,.\n',
      id: randomUUID(),
      title: 'Bare',
      shape: 'square' as const,
      pitchMm: 2.5,
      chosen: [],
      words: null,
    };
    await expect(addStitchCanvas(database, { ...wish })).rejects.toThrow('No cell of the grid');
    expect(() => stitchReading({ ...files, grid: 'x,½o\n', chosen: [], words: null })).toThrow(
      'a fractional stitch',
    );
  });
});
