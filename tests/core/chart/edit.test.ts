import { describe, expect, it } from 'vitest';
import { cellsOfRuns, runsFromCells } from '../../../src/core/cells/cellRuns';
import { applyEdit, inverseOf, runsOfLine, sprinkled, suspects } from '../../../src/core/chart/edit';
import { repairInWords } from '../../../src/core/chart/repairInWords';
import { chartOfRows, line } from '../samples';

describe('a change of the chart', () => {
  it('is taken back by its inverse, whatever stood there', () => {
    const chart = chartOfRows('1122', '3.12');
    const before = [...chart.cells];
    const changed = applyEdit(chart, { runs: runsFromCells([0, 1, 2, 3, 4, 5]), line: 2 });
    expect([...chart.cells]).toEqual([2, 2, 2, 2, 2, 2, 1, 2]);
    // What was so already was not changed.
    expect([...changed]).toEqual([
      [1, [0, 1]],
      [3, [4]],
      [0, [5]],
    ]);
    for (const edit of inverseOf(changed)) applyEdit(chart, edit);
    expect([...chart.cells]).toEqual(before);
  });

  it('of some squares concerns those that want a line', () => {
    const chart = chartOfRows('1122', '3.12');
    expect([...cellsOfRuns(runsOfLine(chart, runsFromCells([0, 2, 3, 6, 7]), 2))]).toEqual([2, 3, 7]);
    expect(runsOfLine(chart, runsFromCells([0]), 2)).toEqual([]);
  });
});

describe('colours that were likely typed for each other', () => {
  const legend = [1, 2, 3, 4].map((number) => line(number, { neededDrills: [4, 3, 2, 7][number - 1]! }));

  it('have as many too many as the other has too few; the largest difference comes first', () => {
    // On the chart: 1 four times, 2 five times, 3 never, 4 eight times.
    const chart = chartOfRows('111122222', '44444444.');
    expect(suspects(chart, legend)).toEqual([
      { line: 2, onChart: 5, onSheet: 3, perhaps: 3 },
      { line: 3, onChart: 0, onSheet: 2, perhaps: 2 },
      { line: 4, onChart: 8, onSheet: 7, perhaps: null },
    ]);
    expect(suspects(chartOfRows('1111222334444444'), legend)).toEqual([]);
  });
});

describe('drills of another finish', () => {
  it('are all of a colour, or those without a neighbour of theirs on any side', () => {
    const chart = chartOfRows('1.1', '...', '11.', '..1', '1.1');
    expect(sprinkled(chart, 1, { kind: 'all' })).toEqual([0, 2, 6, 7, 11, 12, 14]);
    expect(sprinkled(chart, 1, { kind: 'alone' })).toEqual([0, 2, 12]);
    // The end of a row and the beginning of the next are no neighbours.
    expect(sprinkled(chartOfRows('..1', '1..', '..1'), 1, { kind: 'alone' })).toEqual([2, 3, 8]);
    expect(sprinkled(chartOfRows('1', '1', '.', '1'), 1, { kind: 'alone' })).toEqual([3]);
  });

  it('are one in n, evenly: every quarter of a plain canvas has its share', () => {
    const side = 32;
    const chart = chartOfRows(...Array.from({ length: side }, () => '1'.repeat(side)));
    for (const n of [4, 16]) {
      const picked = sprinkled(chart, 1, { kind: 'scatter', n, seed: 3 });
      expect(picked).toHaveLength(side ** 2 / n);
      expect(picked).toEqual([...new Set(picked)].sort((a, b) => a - b));
      // Blocks of n along the curve are squares of √n a side, and each has one.
      const block = Math.sqrt(n);
      const blocks = picked.map((cell) => {
        const [x, y] = [cell % side, Math.floor(cell / side)];
        return Math.floor(y / block) * side + Math.floor(x / block);
      });
      expect(new Set(blocks).size).toBe(picked.length);
    }
    const again = (seed: number) => sprinkled(chart, 1, { kind: 'scatter', n: 16, seed });
    expect(again(3)).toEqual(again(3));
    expect(again(3)).not.toEqual(again(4));
  });

  it('of the last few, fewer than n, one is taken as often as they are many', () => {
    const chart = chartOfRows('111');
    const taken = Array.from({ length: 400 }, (_, seed) =>
      sprinkled(chart, 1, { kind: 'scatter', n: 12, seed }),
    );
    expect(taken.every((cells) => cells.length <= 1 && cells.every((cell) => cell < 3))).toBe(true);
    // Three of twelve: 100 of 400, with a standard deviation of 8.7.
    const some = taken.filter((cells) => cells.length === 1).length;
    expect(Math.abs(some - 100)).toBeLessThan(4 * 8.7);
    expect(sprinkled(chart, 2, { kind: 'scatter', n: 2, seed: 1 })).toEqual([]);
  });
});

describe('a change of the chart in words', () => {
  const legend = [line(1, { code: '412' }), line(2, { code: '98' })];
  const said = (more: object) =>
    repairInWords({ kind: 'repair', cells: 1, cell: 13, from: 1, to: 2, ...more }, legend, 10);

  it.each([
    [{}, '1 square set to 98, at column 4, row 2'],
    [{ cells: 3 }, '3 squares set to 98, from column 4, row 2 on'],
    [{ cells: 1200, to: 0 }, '1,200 squares set to no drill, from column 4, row 2 on'],
    [{ kind: 'finish', cells: 1 }, '1 drill of 412 became 98'],
    [{ kind: 'finish', cells: 7, from: 2, to: 1 }, '7 drills of 98 became 412'],
  ])('%j', (more, words) => {
    expect(said(more)).toBe(words);
  });
});
