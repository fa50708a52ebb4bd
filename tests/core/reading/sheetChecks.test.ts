import { describe, expect, it } from 'vitest';
import type { ColumnMapping } from '../../../src/core/checkin/sheetColumns';
import { doubtfulEntries } from '../../../src/core/reading/sheetChecks';

const COLUMNS = { keyNumber: 0, code: 1, neededDrills: 2, packets: 3 } as ColumnMapping;

/** Checks a sheet of bags of 200 whose drills are those of the canvas, unless other squares are said. */
function check(
  cells: string[][],
  {
    squares,
    columns = COLUMNS,
    confidence = [] as number[][],
  }: {
    squares?: number;
    columns?: Partial<ColumnMapping>;
    confidence?: number[][];
  } = {},
) {
  const rows = cells.map((row, i) => ({ cells: row, row: i + 1 }) as never);
  const own = cells.reduce((sum, row) => sum + (Number(row[2]) || 0), 0);
  const { entries, sum } = doubtfulEntries(
    rows,
    confidence,
    { ...COLUMNS, ...columns },
    {
      squares: squares ?? own,
      packetDrills: 200,
    },
  );
  return { told: entries.map(({ row, column, why }) => [row, column, why]), sum };
}
const GOOD = [
  ['1', '412', '190', '1'],
  ['2', '98', '401', '3'],
  ['3', '1204', '90', '1'],
];
const with_ = (row: number, column: number, text: string) =>
  GOOD.map((cells, r) => cells.map((cell, c) => (r === row && c === column ? text : cell)));

describe('a sheet that was read from a photo', () => {
  it('agrees with itself', () => {
    expect(check(GOOD)).toEqual({ told: [], sum: null });
    expect(check([], { squares: 0 })).toEqual({ told: [], sum: null });
  });

  it('says where nothing was read, and where it was hard to read', () => {
    expect(check(with_(1, 1, '')).told).toEqual([[1, 1, 'Nothing was read here.']]);
    const confidence = GOOD.map(() => [90, 75, 90, 90]);
    expect(check(GOOD, { confidence }).told).toEqual([]);
    confidence[2]![1] = 74;
    confidence[0]![3] = 10;
    expect(check(GOOD, { confidence }).told).toEqual([
      [0, 3, 'It was hard to read.'],
      [2, 1, 'It was hard to read.'],
    ]);
    // A column that is none of the list is not looked at.
    expect(check(GOOD, { confidence, columns: { packets: null } }).told).toHaveLength(1);
  });

  it('counts its rows where most of them do', () => {
    expect(check(with_(1, 0, '7')).told).toEqual([[1, 0, 'Row 2 would be number 2.']]);
    expect(check(with_(1, 0, 'Z')).told).toEqual([[1, 0, 'Row 2 would be number 2.']]);
    // One that does not count from 1 has numbers of its own.
    const own = GOOD.map((cells, i) => [String(40 + 3 * i), ...cells.slice(1)]);
    expect(check(own).told).toEqual([]);
    // Three of five is not most of them; four are.
    const five = ['1', '2', '3', '9', '9'].map((key, i) => [key, `4${i}`, '100', '1']);
    expect(check(five).told).toEqual([]);
    five[3]![0] = '4';
    expect(check(five).told).toEqual([[4, 0, 'Row 5 would be number 5.']]);
    expect(check(with_(1, 0, '7'), { columns: { keyNumber: null } }).told).toEqual([]);
  });

  it('has as many bags as its drills take, or one more than usual spares', () => {
    const why = (bags: number) => `401 drills would be 3 bags of 200, not ${bags}.`;
    for (const bags of [3, 4]) expect(check(with_(1, 3, String(bags))).told, String(bags)).toEqual([]);
    // 401 × 1.35 are 2.7 bags; one more than those three is usual.
    for (const bags of [2, 5]) {
      expect(check(with_(1, 3, String(bags))).told).toEqual([
        [1, 2, why(bags)],
        [1, 3, why(bags)],
      ]);
    }
    expect(check([['1', '412', '200', '1']]).told).toEqual([]);
    expect(check([['1', '412', '201', '1']]).told[0]![2]).toBe('201 drills would be 2 bags of 200, not 1.');
    expect(check([['1', '412', '1,900', '1']], { columns: { packets: null } }).told).toEqual([
      [0, 2, 'This is no number.'],
    ]);
    expect(check(with_(2, 3, 'l')).told).toEqual([[2, 3, 'This is no number.']]);
    expect(check(with_(1, 3, '9'), { columns: { neededDrills: null } }).told).toEqual([]);
  });

  it('adds up to the canvas, where every number was read', () => {
    expect(check(GOOD, { squares: 682 }).sum).toBe(
      'The drills add up to 681; the canvas has 682 squares. Some number may have been misread, or the sheet counts spare drills.',
    );
    expect(check(with_(0, 2, '19O'), { squares: 682 }).sum).toBeNull();
    expect(check(GOOD, { squares: 682, columns: { neededDrills: null } }).sum).toBeNull();
  });
});
