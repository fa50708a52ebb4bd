import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { makeChart } from '../../../src/core/cells/chart';
import {
  cellIndex,
  cellsInPart,
  countInPart,
  cropped,
  isInside,
  placeOfCell,
  printOfLaid,
  rectBetween,
  rectCells,
  wholeRect,
} from '../../../src/core/cells/rect';
import { forEachRowRun, forEachRun } from '../../../src/core/cells/runs';

// 1 1 2
// 0 2 2
const chart = makeChart(3, 2, Uint16Array.of(1, 1, 2, 0, 2, 2));
const all = wholeRect(chart);

describe('rectangles of cells', () => {
  it('lie between two corners, whichever they are', () => {
    const rect = { x: 2, y: 1, width: 3, height: 3 };
    expect(rectBetween({ x: 4, y: 1 }, { x: 2, y: 3 })).toEqual(rect);
    expect(rectBetween({ x: 2, y: 3 }, { x: 4, y: 1 })).toEqual(rect);
    expect(rectBetween({ x: 5, y: 5 }, { x: 5, y: 5 })).toEqual({ x: 5, y: 5, width: 1, height: 1 });
    expect(isInside(rect, { x: 4, y: 3 })).toBe(true);
    for (const outside of [
      { x: 5, y: 3 },
      { x: 4, y: 4 },
      { x: 1, y: 1 },
      { x: 2, y: 0 },
    ])
      expect(isInside(rect, outside)).toBe(false);
  });

  it('have a print that changes with each cell that is laid in them, and with no other', () => {
    const laid = emptyBitmap(6);
    const part = { x: 0, y: 0, width: 2, height: 2 };
    const prints = new Set([printOfLaid(laid, 3, part)]);
    for (let which = 1; which < 16; which++) {
      for (const [bit, cell] of [0, 1, 3, 4].entries()) setLaid(laid, cell, (which & (1 << bit)) !== 0);
      const print = printOfLaid(laid, 3, part);
      setLaid(laid, 2, which % 2 === 0);
      setLaid(laid, 5, which % 3 === 0);
      expect(printOfLaid(laid, 3, part)).toBe(print);
      prints.add(print);
    }
    expect(prints.size).toBe(16);
  });

  it('count what is in them, and what is still to lay', () => {
    const laid = emptyBitmap(6);
    setLaid(laid, 1, true);
    expect([...countInPart(chart, all, 2, null)]).toEqual([1, 2, 3]);
    expect([...countInPart(chart, all, 2, laid)]).toEqual([1, 1, 3]);
    expect([...countInPart(chart, { x: 1, y: 0, width: 2, height: 1 }, 2, null)]).toEqual([0, 1, 1]);
    expect(cellsInPart(chart, laid, all, 1, false)).toEqual([0]);
    expect(cellsInPart(chart, laid, all, null, true)).toEqual([1]);
    expect(cellsInPart(chart, laid, all, null, false)).toEqual([0, 2, 4, 5]);
  });

  it('are cut off at the edges of the chart', () => {
    expect(rectCells(chart, { x: 2, y: -1, width: 5, height: 2 })).toEqual([2]);
    expect(rectCells(chart, { x: 3, y: 0, width: 5, height: 2 })).toEqual([]);
    expect([...cropped(chart, { x: 1, y: 0, width: 2, height: 2 }).cells]).toEqual([1, 2, 2, 2]);
  });

  it('turn an index into a place and back', () => {
    for (let cell = 0; cell < 6; cell++) expect(cellIndex(placeOfCell(cell, 3), 3)).toBe(cell);
    expect(placeOfCell(5, 3)).toEqual({ x: 2, y: 1 });
  });
});

describe('runs of equal neighbours', () => {
  it('cover a line from end to end, each as long as it can be', () => {
    const seen: [number, number, string][] = [];
    forEachRun(
      6,
      (i) => 'aabccc'[i]!,
      (...run) => seen.push(run),
    );
    expect(seen).toEqual([
      [0, 2, 'a'],
      [2, 1, 'b'],
      [3, 3, 'c'],
    ]);
    forEachRun(
      0,
      () => 1,
      () => expect.unreachable(),
    );
  });

  it('end at the edge of their row, and of the rectangle', () => {
    const seen: number[][] = [];
    forEachRowRun(chart, all, (...run) => seen.push(run));
    expect(seen).toEqual([
      [0, 0, 2, 1],
      [2, 0, 1, 2],
      [0, 1, 1, 0],
      [1, 1, 2, 2],
    ]);
    seen.length = 0;
    forEachRowRun(chart, { x: 1, y: 0, width: 1, height: 2 }, (...run) => seen.push(run));
    expect(seen).toEqual([
      [1, 0, 1, 1],
      [1, 1, 1, 2],
    ]);
  });
});
