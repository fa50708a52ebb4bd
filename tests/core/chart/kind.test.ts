import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellsOfRuns, runsFromCells } from '../../../src/core/cells/cellRuns';
import { makeChart } from '../../../src/core/cells/chart';
import { floodCells } from '../../../src/core/cells/flood';
import { rectCells } from '../../../src/core/cells/rect';
import { applyEdit, inverseOf, sprinkled, suspects } from '../../../src/core/chart/edit';
import { colourRange, kindOf, linesIn, runShares, shareInWords } from '../../../src/core/chart/kind';
import { chartOfRows, line } from '../samples';

describe('the kind of a canvas', () => {
  it('tells confetti, blocks and runs apart', () => {
    // 8 × 5: a block of 5 × 5 ones, a bare column, and a checkerboard of twos and threes.
    const chart = chartOfRows('11111.23', '11111.32', '11111.23', '11111.32', '11111.23');
    const kind = kindOf(chart);
    expect(kind.drills).toBe(35);
    expect(kind.blocks).toBeCloseTo(25 / 35, 10);
    expect(kind.confetti).toBeCloseTo(10 / 35, 10);
    expect(kind.runs[5]).toBe(5);
    expect(kind.runs[1]).toBe(10);
    expect([...kind.heat.colours]).toEqual([3]);
    expect(kind.inWords).toBe(
      'Two thirds of it colour blocks, a quarter confetti; colours meet alike everywhere.',
    );
  });

  it('counts every drill in exactly one run', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 60, maxLength: 60 }), (cells) => {
        const chart = makeChart(10, 6, Uint16Array.from(cells));
        const { runs, drills, confetti, blocks } = kindOf(chart);
        expect(runs.reduce((sum, count, length) => sum + count * length, 0)).toBe(drills);
        expect(confetti + blocks).toBeLessThanOrEqual(1 + 1e-9);
      }),
    );
  });

  it('copes with a bare canvas, and with one colour', () => {
    expect(kindOf(makeChart(3, 3, new Uint16Array(9))).inWords).toBe('No drill goes on this canvas.');
    expect(kindOf(makeChart(9, 9, new Uint16Array(81).fill(1))).inWords).toContain(
      'All of it colour blocks, hardly any confetti',
    );
    expect(shareInWords(0.5)).toBe('half');
  });

  /** Blocks of 10 × 10 squares with so many colours each, in stripes. */
  const ofBlocks = (...rows: string[]) => {
    const width = rows[0]!.length * 10;
    const cells = Uint16Array.from({ length: width * rows.length * 10 }, (_, cell) => {
      const [x, y] = [cell % width, Math.floor(cell / width)];
      const colours = Number(rows[Math.floor(y / 10)]![Math.floor(x / 10)]);
      return colours === 0 ? 0 : 1 + (x % colours);
    });
    return makeChart(width, rows.length * 10, cells);
  };

  it.each([
    [['911', '111', '111'], 'at the top left'],
    [['191', '111', '111'], 'at the top'],
    [['119', '111', '111'], 'at the top right'],
    [['111', '911', '111'], 'on the left'],
    [['111', '191', '111'], 'in the middle'],
    [['111', '119', '111'], 'on the right'],
    [['111', '111', '911'], 'at the bottom left'],
    [['111', '111', '191'], 'at the bottom'],
    [['111', '111', '119'], 'at the bottom right'],
    [['333333', '333333', '333333', '333333', '333399', '333399'], 'at the bottom right'],
    [['333', '393', '333', '333', '333', '333'], 'at the top'],
  ])('says of %j where most colours meet: %s', (rows, where) => {
    const { inWords, heat } = kindOf(ofBlocks(...rows));
    expect([...heat.colours].join('')).toBe(rows.join(''));
    expect(heat).toMatchObject({ columns: rows[0]!.length, rows: rows.length });
    expect(inWords).toContain(`; most colours meet ${where}.`);
  });

  it('says no place where blocks differ by one colour, and one where they differ by two', () => {
    expect(kindOf(ofBlocks('23', '32')).inWords).toContain('; colours meet alike everywhere.');
    expect(kindOf(ofBlocks('24', '22')).inWords).toContain('; most colours meet at the top');
  });

  it('counts runs over no edge, the longest ones together, and a block of 25, not of 24', () => {
    const { runs, confetti } = kindOf(chartOfRows('..1', '1..', '111'));
    expect([runs[1], runs[2], runs[3]]).toEqual([2, 0, 1]);
    expect(confetti).toBeCloseTo(1 / 5, 10);
    const long = kindOf(chartOfRows(`${'1'.repeat(15)}.${'1'.repeat(40)}`));
    expect(long.runs).toHaveLength(16);
    expect(long.runs[15]).toBe(2);
    expect(runShares(long)).toEqual([{ length: 15, runs: 2, share: 1, orLonger: true }]);
    expect(kindOf(chartOfRows('1'.repeat(24))).blocks).toBe(0);
    expect(kindOf(chartOfRows('1'.repeat(25))).blocks).toBe(1);
    // Twelve at the end of a row and thirteen at the beginning of the next do not hang together.
    const apart = [`${'.'.repeat(13)}${'1'.repeat(12)}`, `${'1'.repeat(13)}${'.'.repeat(12)}`];
    expect(kindOf(chartOfRows(...apart)).blocks).toBe(0);
    expect(kindOf(chartOfRows('1'.repeat(12), `${'1'.repeat(12)}`, `1${'.'.repeat(11)}`)).blocks).toBe(1);
  });

  it('lists the colours of each block alone', () => {
    const chart = ofBlocks('12', '34');
    const at = (column: number, row: number) =>
      linesIn(
        chart,
        [1, 2, 3, 4].map((number) => line(number)),
        column,
        row,
      ).length;
    expect([at(0, 0), at(1, 0), at(0, 1), at(1, 1)]).toEqual([1, 2, 3, 4]);
  });

  it('lists the colours of a block', () => {
    const chart = chartOfRows('12', '2.');
    expect(linesIn(chart, [line(1), line(2), line(3)], 0, 0).map((each) => each.line)).toEqual([1, 2]);
  });
});

describe('editing a chart', () => {
  it('gives back exactly what it was when a change is taken back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 30, maxLength: 30 }),
        fc.uniqueArray(fc.integer({ min: 0, max: 29 }), { minLength: 1 }),
        fc.integer({ min: 0, max: 3 }),
        (cells, chosen, to) => {
          const chart = makeChart(6, 5, Uint16Array.from(cells));
          const before = applyEdit(chart, { runs: runsFromCells(chosen), line: to });
          for (const cell of chosen) expect(chart.cells[cell]).toBe(to);
          for (const edit of inverseOf(before)) applyEdit(chart, edit);
          expect([...chart.cells]).toEqual(cells);
        },
      ),
    );
  });

  it('floods one colour, not through corners or over edges', () => {
    const chart = chartOfRows('112', '211', '112');
    expect(floodCells(chart, 0, 0).sort()).toEqual([0, 1, 4, 5, 7, 6].sort());
    expect(floodCells(chart, 2, 0)).toEqual([2]);
    expect(rectCells(chart, { x: 1, y: 1, width: 9, height: 9 })).toEqual([4, 5, 7, 8]);
  });

  it('leads from counts that differ to the colours that were mixed up', () => {
    const legend = [line(1, { neededDrills: 3 }), line(2, { neededDrills: 1 }), line(3, { neededDrills: 2 })];
    // One cell of line 1 was typed as line 2.
    expect(suspects(chartOfRows('112', '233'), legend)).toEqual([
      { line: 1, onChart: 2, onSheet: 3, perhaps: 2 },
      { line: 2, onChart: 2, onSheet: 1, perhaps: 1 },
    ]);
    expect(suspects(chartOfRows('111', '233'), legend)).toEqual([]);
  });

  it('sprinkles a finish by a rule', () => {
    const chart = chartOfRows('1112', '2121', '1222');
    expect(sprinkled(chart, 1, { kind: 'all' })).toEqual([0, 1, 2, 5, 7, 8]);
    expect(sprinkled(chart, 1, { kind: 'alone' })).toEqual([7, 8]);
    expect([...cellsOfRuns(runsFromCells([5, 7, 8]))]).toEqual([5, 7, 8]);
  });
});

describe('a finish that is scattered', () => {
  const side = 40;
  const chart = chartOfRows(...Array.from({ length: side }, () => '1'.repeat(side)));
  const scatter = (n: number, seed: number) => sprinkled(chart, 1, { kind: 'scatter', n, seed });

  it('is the same from the same seed, and another from another', () => {
    expect(scatter(5, 1)).toEqual(scatter(5, 1));
    expect(scatter(5, 1)).not.toEqual(scatter(5, 2));
  });

  it('takes one in n, as many in every part of the area', () => {
    for (const n of [2, 5, 10]) {
      const cells = scatter(n, 7);
      expect(Math.abs(cells.length / side ** 2 - 1 / n)).toBeLessThan(0.02);
      // 16 squares of 10 × 10: chance alone would differ by more than twice as much.
      const perBlock = new Array<number>(16).fill(0);
      for (const cell of cells) {
        perBlock[Math.floor((cell % side) / 10) + 4 * Math.floor(Math.floor(cell / side) / 10)]!++;
      }
      for (const count of perBlock) expect(Math.abs(count - 100 / n)).toBeLessThanOrEqual(9);
    }
  });

  it('makes no stripes: no column and no row has far more than its share', () => {
    const cells = scatter(5, 3);
    const counts = (of: (cell: number) => number) => {
      const found = new Array<number>(side).fill(0);
      for (const cell of cells) found[of(cell)]!++;
      return found;
    };
    // 8 are expected of 40; the binomial law exceeds 18 less than once in ten thousand.
    for (const count of [...counts((cell) => cell % side), ...counts((cell) => Math.floor(cell / side))]) {
      expect(count).toBeLessThanOrEqual(18);
      expect(count).toBeGreaterThan(0);
    }
  });
});

describe('runs and colours in numbers', () => {
  it('shares add up to the whole, the longest with what the others leave', () => {
    const shares = runShares({ runs: [0, 2, 1, 0, 1], drills: 10 });
    expect(shares.map(({ length, runs }) => [length, runs])).toEqual([
      [1, 2],
      [2, 1],
      [4, 1],
    ]);
    expect(shares.map(({ share }) => share)).toEqual([0.2, 0.2, 0.6]);
    expect(shares.map(({ orLonger }) => orLonger)).toEqual([false, false, true]);
  });

  it('the range leaves out blocks where nothing is laid', () => {
    expect(colourRange({ columns: 3, rows: 1, colours: Uint8Array.of(0, 7, 2) })).toEqual({
      fewest: 2,
      most: 7,
    });
    expect(colourRange({ columns: 1, rows: 1, colours: Uint8Array.of(0) })).toEqual({ fewest: 0, most: 0 });
  });
});

describe('confetti and blocks at their edges', () => {
  it('a drill with a like one only below it is no confetti, and 25 connected cells make a block', () => {
    expect(kindOf(chartOfRows('12', '13')).confetti).toBe(0.5);
    expect(kindOf(chartOfRows('1111111111111111111111111')).blocks).toBe(1);
    expect(kindOf(chartOfRows('111111111111111111111111')).blocks).toBe(0);
    // Corner to corner is not connected.
    expect(kindOf(chartOfRows('12', '21')).confetti).toBe(1);
  });
});
