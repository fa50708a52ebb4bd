import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countLaid, emptyBitmap, isLaid, setLaid } from '../../../src/core/cells/bitmap';
import {
  cellsOfRuns,
  countCells,
  faultInRuns,
  runsFromCells,
  runsInParts,
} from '../../../src/core/cells/cellRuns';
import {
  chartFromBytes,
  chartToBytes,
  countDrills,
  countPerLine,
  makeChart,
  plainCloth,
} from '../../../src/core/cells/chart';
import { positionOf } from '../../../src/core/cells/position';
import { chartOfRows } from '../samples';

const anyChart = fc
  .tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 30 }))
  .chain(([width, height]) =>
    fc
      .array(fc.integer({ min: 0, max: 65_535 }), { minLength: width * height, maxLength: width * height })
      .map((cells) => makeChart(width, height, Uint16Array.from(cells))),
  );

describe('chart', () => {
  it('refuses a wrong number of cells', () => {
    expect(() => makeChart(3, 2, new Uint16Array(5))).toThrow('A chart of 3 × 2 has 6 squares, not 5.');
  });

  it('survives the way to bytes and back', () => {
    fc.assert(
      fc.property(anyChart, (chart) => {
        expect(chartFromBytes(chart.width, chart.height, chartToBytes(chart))).toEqual(chart);
      }),
    );
  });

  it('is stored low byte first', () => {
    expect([...chartToBytes(makeChart(2, 1, Uint16Array.of(1, 0x0203)))]).toEqual([1, 0, 3, 2]);
  });

  it('reads bytes that start anywhere in a buffer', () => {
    const bytes = new Uint8Array([9, 5, 0, 6, 0]).subarray(1);
    expect([...chartFromBytes(2, 1, bytes).cells]).toEqual([5, 6]);
  });

  it('counts the drills of each line, bare cells apart', () => {
    const chart = chartOfRows('112.', '2.23');
    expect([...countPerLine(chart, 3)]).toEqual([2, 2, 3, 1]);
    expect(countDrills(chart)).toBe(6);
  });

  // Common practice, no source: a 10 × 10 block is 100 drills; 600 × 440 cells are 264,000.
  it('counts a plain cloth as its area', () => {
    expect(countDrills(plainCloth(10, 10))).toBe(100);
    expect(countDrills(plainCloth(600, 440))).toBe(264_000);
  });
});

describe('bitmap', () => {
  it('remembers exactly the cells that were set', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 499 })), (cells) => {
        const bitmap = emptyBitmap(500);
        for (const cell of cells) setLaid(bitmap, cell, true);
        expect(countLaid(bitmap)).toBe(cells.length);
        const set = new Set(cells);
        for (let cell = 0; cell < 500; cell++) expect(isLaid(bitmap, cell)).toBe(set.has(cell));
        for (const cell of cells) setLaid(bitmap, cell, false);
        expect(countLaid(bitmap)).toBe(0);
      }),
    );
  });

  it('puts the lowest cell into the lowest bit', () => {
    const bitmap = emptyBitmap(9);
    setLaid(bitmap, 0, true);
    setLaid(bitmap, 8, true);
    expect([...bitmap]).toEqual([1, 1]);
  });
});

describe('runs of cells', () => {
  it('come in parts of so many, none lost', () => {
    expect(runsInParts([0, 1, 3, 2, 9, 1], 2)).toEqual([
      [0, 1, 3, 2],
      [9, 1],
    ]);
    expect(runsInParts([], 2)).toEqual([]);
  });

  it('joins neighbours', () => {
    expect(runsFromCells([7, 3, 4, 5, 5, 9])).toEqual([3, 3, 7, 1, 9, 1]);
  });

  it('holds the same cells as it was made from, and is sound', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 999 })), (cells) => {
        const runs = runsFromCells(cells);
        expect([...cellsOfRuns(runs)]).toEqual([...cells].sort((a, b) => a - b));
        expect(countCells(runs)).toBe(cells.length);
        expect(faultInRuns(runs, 1000)).toBeNull();
      }),
    );
  });

  it.each([
    [[1], 'one half is missing'],
    [[0, 0], 'a length of at least 1'],
    [[0.5, 1], 'not a whole start'],
    [[5, 2, 6, 1], 'starts before the one ahead of it ends'],
    [[95, 6], 'beyond the last of 100 squares'],
  ])('finds the fault in %j', (runs, words) => expect(faultInRuns(runs, 100)).toContain(words));
});

describe('position of a cell', () => {
  it('counts from 1 and measures to the middle of the cell', () => {
    const at = positionOf(49, 0, { pitchMm: 2.5 });
    expect(at.column).toBe(50);
    expect(at.row).toBe(1);
    expect(at.cm.fromLeft).toBeCloseTo(12.375, 10);
    expect(at.inches.fromTop).toBeCloseTo(0.0492, 4);
  });
});
