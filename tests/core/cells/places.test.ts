import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { cellsOfRuns, countCells, faultInRuns, runsFromCells } from '../../../src/core/cells/cellRuns';
import { countPerLine, makeChart } from '../../../src/core/cells/chart';
import { edgeMarks } from '../../../src/core/cells/edgeMarks';
import { floodCells } from '../../../src/core/cells/flood';
import { panelPlace, panelPlaceInWords, positionOf } from '../../../src/core/cells/position';
import {
  boxAround,
  cropped,
  isInside,
  overlapOf,
  printOfLaid,
  rectCells,
  someCell,
} from '../../../src/core/cells/rect';
import { squareInWords } from '../../../src/core/cells/squareInWords';
import { cellsOnTheWay } from '../../../src/core/cells/stroke';
import { chartOfRows, line } from '../samples';

const place = fc.record({ x: fc.integer({ min: 0, max: 12 }), y: fc.integer({ min: 0, max: 9 }) });
const rect = fc.record({
  x: fc.integer({ min: 0, max: 8 }),
  y: fc.integer({ min: 0, max: 6 }),
  width: fc.integer({ min: 1, max: 5 }),
  height: fc.integer({ min: 1, max: 4 }),
});

describe('the way from one square to another', () => {
  it('leaves the first out, ends at the last, and never jumps', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        const way = cellsOnTheWay(from, to);
        const steps = Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y));
        // As long as the longer side, so that no square is gone over twice (Bresenham 1965, from memory).
        expect(way).toHaveLength(steps);
        if (steps > 0) expect(way.at(-1)).toEqual(to);
        let before = from;
        way.forEach((here, i) => {
          expect(Math.max(Math.abs(here.x - before.x), Math.abs(here.y - before.y))).toBe(1);
          // Never further than half a square off the straight line.
          const share = (i + 1) / steps;
          expect(Math.abs(here.x - from.x - (to.x - from.x) * share)).toBeLessThanOrEqual(0.5);
          expect(Math.abs(here.y - from.y - (to.y - from.y) * share)).toBeLessThanOrEqual(0.5);
          before = here;
        });
      }),
    );
  });
});

describe('an area of one colour', () => {
  const chart = chartOfRows('1121', '1211', '2111', '1110');

  it('reaches over sides and not over corners', () => {
    expect(floodCells(chart, 0, 0).sort((a, b) => a - b)).toEqual([0, 1, 4]);
    expect(floodCells(chart, 1, 1)).toEqual([5]);
    expect(floodCells(chart, 3, 3)).toEqual([15]);
    expect(floodCells(chart, 3, 0).sort((a, b) => a - b)).toEqual([3, 6, 7, 9, 10, 11, 12, 13, 14]);
  });

  it('is the same from each of its squares, and ends at the edges of the chart', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 2 }), { minLength: 20, maxLength: 20 }), (cells) => {
        const some = makeChart(5, 4, Uint16Array.from(cells));
        const area = floodCells(some, 2, 1).sort((a, b) => a - b);
        for (const cell of area) {
          expect(some.cells[cell]).toBe(some.cells[7]);
          expect(floodCells(some, cell % 5, Math.floor(cell / 5)).sort((a, b) => a - b)).toEqual(area);
        }
      }),
    );
    expect(floodCells(makeChart(3, 2, new Uint16Array(6).fill(4)), 1, 0)).toHaveLength(6);
  });
});

describe('where a square lies', () => {
  it('is told from the left and from above, in centimetres and inches', () => {
    expect(positionOf(3, 8, { pitchMm: 2.5 })).toEqual({
      column: 4,
      row: 9,
      cm: { fromLeft: expect.closeTo(0.875, 9), fromTop: expect.closeTo(2.125, 9) },
      inches: { fromLeft: expect.closeTo(8.75 / 25.4, 9), fromTop: expect.closeTo(21.25 / 25.4, 9) },
    });
  });

  it('is told on its panel where there are several', () => {
    const panelRects = [
      { x: 0, y: 0, width: 10, height: 6 },
      { x: 10, y: 0, width: 10, height: 6 },
    ];
    expect(panelPlace({ panelRects }, { x: 10, y: 5 })).toEqual({ panel: 2, column: 1, row: 6 });
    expect(panelPlace({ panelRects }, { x: 9, y: 0 })).toEqual({ panel: 1, column: 10, row: 1 });
    expect(
      panelPlace({ panelRects: [panelRects[0]!, { x: 10, y: 2, width: 5, height: 5 }] }, { x: 11, y: 3 }),
    ).toEqual({
      panel: 2,
      column: 2,
      row: 2,
    });
    expect(panelPlace({ panelRects }, { x: 20, y: 0 })).toBeNull();
    expect(panelPlace({ panelRects: panelRects.slice(0, 1) }, { x: 1, y: 1 })).toBeNull();
    expect(panelPlaceInWords({ panel: 2, column: 20, row: 7 })).toBe('on panel 2 column 20, row 7');
  });

  it('is said for the ear', () => {
    const rose = line(4, { symbol: 'A', code: '745', name: 'Rose' });
    expect(squareInWords({ x: 11, y: 3 }, rose, false, 2)).toBe(
      'Column 12, row 4: symbol A, 745 Rose, not laid, section 2',
    );
    expect(
      squareInWords({ x: 0, y: 0 }, { ...rose, name: '', symbol: null, keyNumber: '9' }, true, null),
    ).toBe('Column 1, row 1: symbol 9, 745, laid');
    expect(squareInWords({ x: 0, y: 0 }, undefined, true, 3, 'on panel 1')).toBe(
      'Column 1, row 1: no drill goes here, section 3, on panel 1',
    );
    expect(squareInWords({ x: 4, y: 5 }, null, true, null)).toBe('Column 5, row 6: laid');
    expect(squareInWords({ x: 4, y: 5 }, null, null, null)).toBe('Column 5, row 6');
  });

  it('has edge marks every so many squares', () => {
    expect(edgeMarks(42, 10)).toEqual([10, 20, 30, 40]);
    expect(edgeMarks(10, 10)).toEqual([10]);
    expect(edgeMarks(9, 10)).toEqual([]);
  });
});

describe('parts of a chart', () => {
  const inside = (part: { x: number; y: number; width: number; height: number }) =>
    Array.from({ length: 16 * 12 }, (_, i) => ({ x: i % 16, y: Math.floor(i / 16) })).filter((cell) =>
      isInside(part, cell),
    );

  it('hold the squares from their corner to their size, and no other', () => {
    fc.assert(
      fc.property(rect, (part) => {
        const cells = inside(part);
        expect(cells).toHaveLength(part.width * part.height);
        expect(boxAround([part])).toEqual(part);
        for (const { x, y } of cells) {
          expect(x - part.x).toBeLessThan(part.width);
          expect(x).toBeGreaterThanOrEqual(part.x);
          expect(y - part.y).toBeLessThan(part.height);
          expect(y).toBeGreaterThanOrEqual(part.y);
        }
      }),
    );
  });

  it('overlap in the squares that both hold, and lie in one box', () => {
    fc.assert(
      fc.property(rect, rect, (a, b) => {
        const both = inside(a).filter((cell) => isInside(b, cell));
        const overlap = overlapOf(a, b);
        expect(overlap === null ? [] : inside(overlap)).toEqual(both);
        const box = boxAround([a, b]);
        expect([...inside(a), ...inside(b)].every((cell) => isInside(box, cell))).toBe(true);
        expect(box.x).toBe(Math.min(a.x, b.x));
        expect(box.y + box.height).toBe(Math.max(a.y + a.height, b.y + b.height));
        expect(box.x + box.width).toBe(Math.max(a.x + a.width, b.x + b.width));
        expect(box.y).toBe(Math.min(a.y, b.y));
      }),
    );
  });

  it('are gone through square by square until one passes', () => {
    fc.assert(
      fc.property(rect, (part) => {
        const seen: number[] = [];
        expect(someCell(16, part, (cell) => seen.push(cell) < 0)).toBe(false);
        expect(seen).toEqual(inside(part).map(({ x, y }) => y * 16 + x));
        expect(someCell(16, part, (cell) => cell === seen.at(-1))).toBe(true);
      }),
    );
    const apart = {
      ...{ x: 0, y: 0, width: 4, height: 1 },
      rects: [
        { x: 0, y: 0, width: 1, height: 1 },
        { x: 3, y: 0, width: 1, height: 1 },
      ],
    };
    const seen: number[] = [];
    someCell(4, apart, (cell) => seen.push(cell) < 0);
    expect(seen).toEqual([0, 3]);
    expect([0, 1, 3].map((x) => isInside(apart, { x, y: 0 }))).toEqual([true, false, true]);
  });

  it('are cut to the chart, or cut out of it', () => {
    const chart = chartOfRows('123', '456');
    expect(rectCells(chart, { x: -1, y: -1, width: 3, height: 2 })).toEqual([0, 1]);
    expect(rectCells(chart, { x: 1, y: 1, width: 9, height: 9 })).toEqual([4, 5]);
    expect(rectCells(chart, { x: 3, y: 0, width: 2, height: 2 })).toEqual([]);
    expect([...cropped(chart, { x: 1, y: 0, width: 2, height: 2 }).cells]).toEqual([2, 3, 5, 6]);
  });

  it('have a number for what is laid there, and there alone', () => {
    const laid = emptyBitmap(64);
    const part = { x: 2, y: 2, width: 3, height: 3 };
    const numbers = new Set([printOfLaid(laid, 8, part)]);
    setLaid(laid, 0, true);
    expect(numbers).toContain(printOfLaid(laid, 8, part));
    for (const cell of [18, 20, 36]) {
      setLaid(laid, cell, true);
      numbers.add(printOfLaid(laid, 8, part));
    }
    expect(numbers.size).toBe(4);
    // FNV-1a over one square: (2166136261 ^ 18) · 16777619, as a signed number of 32 bits.
    const one = emptyBitmap(64);
    setLaid(one, 18, true);
    expect(printOfLaid(one, 8, part)).toBe(Number(BigInt.asIntN(32, BigInt(2166136261 ^ 18) * 16777619n)));
  });
});

describe('runs of squares', () => {
  it('name the run that is at fault, counted from 1', () => {
    expect(faultInRuns([0, 2, 5, 1], 6)).toBeNull();
    expect(faultInRuns([0, 2, 5], 6)).toContain('one half is missing');
    expect(faultInRuns([0, 2, 4, 1, 4.5, 1], 9)).toBe(
      'Run 3 is not a whole start and a length of at least 1.',
    );
    expect(faultInRuns([0, 2, 4, 0], 9)).toBe('Run 2 is not a whole start and a length of at least 1.');
    expect(faultInRuns([0, 2, 3, 2, 4, 1], 9)).toBe('Run 3 starts before the one ahead of it ends.');
    expect(faultInRuns([-1, 2], 9)).toBe('Run 1 starts before the one ahead of it ends.');
    expect(faultInRuns([0, 2, 3, 2, 6, 4], 9)).toBe('Run 3 ends beyond the last of 9 squares.');
  });

  it('hold each square once, however often it is named', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60 })), (cells) => {
        const runs = runsFromCells(cells);
        const each = [...new Set(cells)].sort((a, b) => a - b);
        expect([...cellsOfRuns(runs)]).toEqual(each);
        expect(countCells(runs)).toBe(each.length);
        expect(faultInRuns(runs, 61)).toBeNull();
      }),
    );
  });

  it('of a chart with lines beyond the list are not counted', () => {
    expect([...countPerLine(chartOfRows('0129', '1190'), 2)]).toEqual([2, 3, 1]);
  });
});
