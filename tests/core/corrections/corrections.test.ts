import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellsOfRuns } from '../../../src/core/cells/cellRuns';
import { changesInWords, faultInList, identified } from '../../../src/core/corrections/colourList';
import { resizedRuns } from '../../../src/core/corrections/facts';
import { line } from '../samples';

describe('which colour a row is', () => {
  const before = [line(1), line(2), line(7)];

  it('is what it says, else what its code, or its key number and symbol, say; else it is new', () => {
    const rows = [
      { ...line(9, { code: '407' }), line: null },
      { ...line(9, { code: '999', keyNumber: '1', symbol: 'A' }), line: null },
      { ...line(9, { code: '888' }), line: 2 },
      { ...line(9, { code: '777' }), line: null },
    ];
    expect(identified(before, rows, 12).map((row) => row.line)).toEqual([7, 1, 2, 12]);
  });

  it('gives no number twice, whatever the rows are', () => {
    const row = fc.record({
      code: fc.constantFrom('401', '402', '407', '500'),
      keyNumber: fc.constantFrom('1', '2', '7'),
      symbol: fc.constantFrom('A', 'B', null),
    });
    fc.assert(
      fc.property(fc.array(row, { maxLength: 6 }), (rows) => {
        const found = identified(
          before,
          rows.map((each) => ({ ...line(9, each), line: null })),
          8,
        ).map((each) => each.line);
        expect(new Set(found).size).toBe(found.length);
        for (const number of found)
          expect(number >= 8 || before.some((each) => each.line === number)).toBe(true);
      }),
    );
  });
});

it('a list is refused with what hangs on the colour that would go', () => {
  const uses = new Map([[1, { bags: 2, squares: 1240, pot: true }]]);
  expect(faultInList([line(1)], [], uses)).toContain(
    '401 has 2 bags and 1,240 squares of the chart and a filled pot',
  );
  expect(faultInList([line(1)], [], new Map())).toBeNull();
});

it('changes are told in a few words', () => {
  const before = [line(1), line(2), line(3)];
  const after = [line(3), line(1, { neededDrills: 1240, name: '' }), line(4)];
  expect(changesInWords(before, after)).toEqual([
    '402 deleted',
    'name of 401: Colour 1 → none',
    'drills of 401: 100 → 1,240',
    '404 added',
    'the order changed',
  ]);
  expect(changesInWords(before, before)).toEqual([]);
});

it('squares of a mark keep their column and row on a canvas of another size', () => {
  const size = fc.record({ width: fc.integer({ min: 1, max: 9 }), height: fc.integer({ min: 1, max: 9 }) });
  fc.assert(
    fc.property(size, size, fc.array(fc.nat(80), { maxLength: 8 }), (from, to, picks) => {
      const cells = [...new Set(picks.filter((cell) => cell < from.width * from.height))].sort(
        (a, b) => a - b,
      );
      const runs: number[] = [];
      for (const cell of cells) {
        if (runs.length > 0 && runs.at(-2)! + runs.at(-1)! === cell) runs[runs.length - 1]! += 1;
        else runs.push(cell, 1);
      }
      const expected = cells
        .map((cell) => ({ x: cell % from.width, y: Math.floor(cell / from.width) }))
        .filter(({ x, y }) => x < to.width && y < to.height)
        .map(({ x, y }) => y * to.width + x);
      expect([...cellsOfRuns(resizedRuns(runs, from.width, to))]).toEqual(expected);
    }),
  );
});
