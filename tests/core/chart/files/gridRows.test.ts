import { describe, expect, it } from 'vitest';
import { gridRows, leftOutInWords, withoutNumbers } from '../../../../src/core/chart/files/gridRows';

describe('the rows of a grid', () => {
  it('are parted by whichever sign parts all of them alike', () => {
    for (const sign of [',', ';', '\t', '|']) {
      expect(gridRows(`A${sign}B\nB${sign}A\n`)).toEqual([
        ['A', 'B'],
        ['B', 'A'],
      ]);
    }
    // The other signs are symbols.
    expect(gridRows('A\t,\t;\n;\tA\t|\n')).toEqual([
      ['A', ',', ';'],
      [';', 'A', '|'],
    ]);
  });

  it('are quoted as RFC 4180 has it, or not at all where the quotation mark is a symbol', () => {
    expect(gridRows('A,"""",","\n",",A,B\r\n')).toEqual([
      ['A', '"', ','],
      [',', 'A', 'B'],
    ]);
    expect(gridRows('"\tA\t"\nA\t"\tB\n')).toEqual([
      ['"', 'A', '"'],
      ['A', '"', 'B'],
    ]);
  });

  it('begin behind a byte order mark and end before empty lines; an empty line among them stays', () => {
    expect(gridRows('\uFEFFA,B\nB,A\n\n\n')).toHaveLength(2);
    expect(gridRows('A,B\n\nB,A')[1]).toEqual(['']);
  });
});

describe('numbers of columns and rows', () => {
  const count = (n: number, from = 1) => Array.from({ length: n }, (_, i) => String(from + i));
  const rows = (n: number, width: number) =>
    Array.from({ length: n }, () => new Array<string>(width).fill('A'));

  it('above, to the left, or both are left out', () => {
    const grid = rows(9, 8);
    expect(withoutNumbers([count(8), ...grid])).toEqual({ rows: grid, leftOut: ['first row'] });
    expect(withoutNumbers(grid.map((row, y) => [String(y + 1), ...row]))).toEqual({
      rows: grid,
      leftOut: ['first column'],
    });
    const both = [['', ...count(8)], ...grid.map((row, y) => [String(y + 1), ...row])];
    expect(withoutNumbers(both)).toEqual({ rows: grid, leftOut: ['first row', 'first column'] });
  });

  it('that are few, have a gap, or begin elsewhere may be symbols, and stay', () => {
    for (const top of [count(7), [...count(7), '9'], count(8, 2)]) {
      const grid = [top, ...rows(9, top.length)];
      expect(withoutNumbers(grid)).toEqual({ rows: grid, leftOut: [] });
    }
    // Both from one corner: neither is beside the other.
    const table = [count(8), ...count(7, 2).map((each) => [each, ...new Array<string>(7).fill('A')])];
    expect(withoutNumbers(table).leftOut).toEqual([]);
  });

  it('are told of', () => {
    expect(leftOutInWords(['first row'])).toBe(
      'The first row of the grid numbers its squares and was left out.',
    );
    expect(leftOutInWords(['first row', 'first column'])).toBe(
      'The first row and the first column of the grid number its squares and were left out.',
    );
  });
});
