import { describe, expect, it } from 'vitest';
import { locksIn, locksOf, withLocks } from '../../../src/core/kitup/locks';
import { type PotRow, potStates } from '../../../src/core/kitup/potLedger';
import { nextPot, nextToPutAway } from '../../../src/core/kitup/walk';
import { line } from '../samples';

describe('locks', () => {
  const cases = [
    {
      storage: { id: 'a' },
      slots: [
        { slot: 's1', line: 3, locked: true },
        { slot: 's2', line: 1, locked: false },
        { slot: 's3', line: null, locked: true },
      ],
    },
    { storage: { id: 'b' }, slots: [{ slot: 's1', line: 2, locked: true }] },
  ];

  it('are the colours that are kept, over all cases', () => {
    expect(locksOf(cases)).toEqual([
      { line: 3, storageId: 'a', slot: 's1' },
      { line: 2, storageId: 'b', slot: 's1' },
    ]);
  });

  it('of one colour are replaced or let go, the others stay', () => {
    const locks = locksOf(cases);
    const moved = withLocks(locks, 3, [{ line: 3, storageId: 'b', slot: 's9' }]);
    expect(moved.map(({ line: of, slot }) => [of, slot])).toEqual([
      [2, 's1'],
      [3, 's9'],
    ]);
    expect(withLocks(locks, 3, []).map(({ line: of }) => of)).toEqual([2]);
    expect(locksIn(locks, ['b', 'c']).map(({ line: of }) => of)).toEqual([2]);
  });
});

describe('pot after pot', () => {
  const slots = [{ line: 4 }, { line: null }, { line: 2 }, { line: 1 }];

  it('is filled in the order of the slots', () => {
    expect(nextPot(slots, new Set())).toBe(4);
    expect(nextPot(slots, new Set([4, 1]))).toBe(2);
    expect(nextPot(slots, new Set([4, 1, 2]))).toBeNull();
  });

  it('is put away in the order of the sheet, also one that lost its slot', () => {
    const legend = [line(1), line(2), line(3), line(4)];
    const next = (filled: number[], away: number[]) =>
      nextToPutAway(legend, slots, new Set(filled), new Set(away))?.line ?? null;
    expect(next([], [])).toBe(1);
    expect(next([], [1, 2])).toBe(4);
    expect(next([3], [1, 2])).toBe(3);
    expect(next([], [1, 2, 4])).toBeNull();
  });
});

describe('the pot ledger', () => {
  it('tells what became of each pot last, without what was undone', () => {
    const row = (id: string, of: number, kind: PotRow['kind'], undoes: string | null = null): PotRow => ({
      id,
      line: of,
      kind,
      undoes,
    });
    const rows = [row('a', 1, 'fill'), row('b', 2, 'fill'), row('c', 1, 'put away')];
    expect([...potStates(rows)]).toEqual([
      [1, 'put away'],
      [2, 'fill'],
    ]);
    const undone = [...rows, row('d', 1, 'put away', 'c'), row('e', 2, 'fill', 'b')];
    expect([...potStates(undone)]).toEqual([[1, 'fill']]);
  });
});
