import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type LegendLine, MAX_LEGEND_LINES } from '../../../src/core/canvas/legend';
import { cellsOfRuns } from '../../../src/core/cells/cellRuns';
import {
  changesInWords,
  faultInList,
  identified,
  withoutNumbers,
} from '../../../src/core/corrections/colourList';
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

describe('a row that does not say which colour it is', () => {
  const which = (before: LegendLine[], row: Partial<LegendLine>) =>
    identified(before, [{ ...line(9, row), line: null }], 20)[0]!.line;

  it('is another colour where the code is the same and the finish is not', () => {
    expect(which([line(1, { finish: 'metallic' })], { code: '401', finish: 'plain' })).toBe(20);
    expect(which([line(1), line(2, { code: '401', finish: 'metallic' })], { code: '401' })).toBe(1);
  });

  it('needs key number and symbol together, and a symbol that is there', () => {
    const before = [line(1, { symbol: null }), line(2)];
    expect(which(before, { code: '9', keyNumber: '2', symbol: 'Z' })).toBe(20);
    expect(which(before, { code: '9', keyNumber: '7', symbol: 'B' })).toBe(20);
    expect(which(before, { code: '9', keyNumber: '1', symbol: null })).toBe(20);
    expect(which(before, { code: '9', keyNumber: '2', symbol: 'B' })).toBe(2);
  });

  it('is new where two colours fit', () =>
    expect(which([line(1, { code: '5' }), line(2, { code: '5' })], { code: '5', keyNumber: '8' })).toBe(20));

  it('keeps what it says of itself against its code', () => {
    const rows = [{ ...line(2, { code: '401' }) }];
    expect(identified([line(1), line(2)], rows, 20)[0]!.line).toBe(2);
  });

  it('has no number where it was read from a sheet', () =>
    expect(withoutNumbers([line(3)])).toEqual([{ ...line(3), line: undefined }]));
});

it('a list is refused where two colours cannot be told apart, or there are too many', () => {
  const none = new Map();
  const twins = [line(1), line(2, { code: '4 01' })];
  expect(faultInList([], twins, none)).toBe(
    'Code 4 01 stands there twice, with key numbers 1 and 2. Give the two different codes or finishes, or delete one.',
  );
  expect(faultInList([], [line(1), line(2, { code: '401', finish: 'metallic' })], none)).toBeNull();
  expect(faultInList([], [line(1), line(1, { code: '9' })], none)).toBe(
    'Two rows claim to be 9. Load the list again.',
  );
  const many = Array.from({ length: MAX_LEGEND_LINES }, (_, i) => line(i + 1));
  expect(faultInList([], many, none)).toBeNull();
  expect(faultInList([], [...many, line(MAX_LEGEND_LINES + 1)], none)).toBe(
    `A canvas can have at most ${MAX_LEGEND_LINES} colours.`,
  );
});

it.each([
  [{ bags: 1, squares: 0, pot: false }, '401 has 1 bag, so'],
  [{ bags: 0, squares: 1, pot: false }, '401 has 1 square of the chart, so'],
  [{ bags: 0, squares: 0, pot: true }, '401 has a filled pot, so'],
])('a colour with %j stays in the list', (use, words) =>
  expect(faultInList([line(1)], [], new Map([[1, use]]))).toContain(words),
);

it('a colour that nothing uses may go, whatever the next one has', () => {
  const nothing = { bags: 0, squares: 0, pot: false };
  expect(faultInList([line(1)], [], new Map([[1, nothing]]))).toBeNull();
  const uses = new Map([
    [1, nothing],
    [2, { ...nothing, bags: 1 }],
  ]);
  expect(faultInList([line(1), line(2)], [line(2)], uses)).toBeNull();
  expect(faultInList([line(1), line(2)], [], uses)).toContain('402 has 1 bag');
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
  expect(changesInWords([line(1)], [line(1, { code: '9', hex: null, symbol: '★', packets: 12 })])).toEqual([
    '401 is now 9',
    'symbol of 9: A → ★',
    'colour of 9: #2f6f8f → none',
    'bags of 9: 1 → 12',
  ]);
  // Ten colours and more: the numbers of two lines never read as one.
  expect(changesInWords([line(1), line(12)], [line(12), line(1)])).toEqual(['the order changed']);
  expect(changesInWords([line(1), line(2)], [line(2)])).toEqual(['401 deleted']);
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
