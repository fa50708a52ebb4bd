import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chooseBags, packingList, packingSum } from '../../../src/core/packing/packing';
import { line } from '../samples';

const amount = (bags: { size: number; count: number }[]) =>
  bags.reduce((sum, bag) => sum + bag.size * bag.count, 0);
const number = (bags: { size: number; count: number }[]) => bags.reduce((sum, bag) => sum + bag.count, 0);

/** Every sensible combination of bags, tried one by one. */
function bruteForce(wanted: number, sizes: number[]): { bags: number; surplus: number }[] {
  const found: { bags: number; surplus: number }[] = [];
  const tryFrom = (at: number, sum: number, bags: number) => {
    if (sum >= wanted) {
      found.push({ bags, surplus: sum - wanted });
      return;
    }
    for (let i = at; i < sizes.length; i++) tryFrom(i, sum + sizes[i]!, bags + 1);
  };
  tryFrom(0, 0, 0);
  return found;
}

describe('choosing bags', () => {
  // Common practice, no source: small packets of about 200 and big bags of about 1,000.
  it.each([
    [1240, 'fewest bags', [{ size: 1000, count: 2 }]],
    [
      1240,
      'least surplus',
      [
        { size: 1000, count: 1 },
        { size: 200, count: 2 },
      ],
    ],
    [900, 'fewest bags', [{ size: 1000, count: 1 }]],
    [700, 'least surplus', [{ size: 200, count: 4 }]],
    [700, 'fewest bags', [{ size: 1000, count: 1 }]],
    [0, 'fewest bags', []],
  ] as const)('%i with the %s', (wanted, goal, bags) =>
    expect(chooseBags(wanted, [1000, 200], goal)).toEqual(bags),
  );

  it('is never worse than trying every combination', () => {
    const sizes = fc.uniqueArray(fc.integer({ min: 2, max: 30 }), { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), sizes, (wanted, stock) => {
        const sorted = [...stock].sort((a, b) => b - a);
        const all = bruteForce(wanted, sorted);
        const few = chooseBags(wanted, sorted, 'fewest bags');
        const leastBags = Math.min(...all.map((each) => each.bags));
        expect(number(few)).toBe(leastBags);
        expect(amount(few) - wanted).toBe(
          Math.min(...all.filter((each) => each.bags === leastBags).map((each) => each.surplus)),
        );
        const lean = chooseBags(wanted, sorted, 'least surplus');
        const leastSurplus = Math.min(...all.map((each) => each.surplus));
        expect(amount(lean) - wanted).toBe(leastSurplus);
        expect(number(lean)).toBe(
          Math.min(...all.filter((each) => each.surplus === leastSurplus).map((each) => each.bags)),
        );
      }),
    );
  });
});

describe('a packing list', () => {
  it('adds the spare and goes by code', () => {
    const list = packingList(
      [line(1, { code: '1204', neededDrills: 1000 }), line(2, { code: '98', neededDrills: 180 })],
      [200, 1000],
      10,
      'fewest bags',
    );
    expect(list.map((each) => [each.line.code, each.wantedDrills, each.packedDrills])).toEqual([
      ['98', 198, 200],
      ['1204', 1100, 1200],
    ]);
  });

  it.each([
    [[], 10, 'at least one bag size'],
    [[0], 10, 'whole number of drills'],
    [[-5], 10, 'whole number of drills'],
    [[200.5], 10, 'whole number of drills'],
    [[200, 100_001], 10, 'whole number of drills'],
    [[Number.NaN], 10, 'whole number of drills'],
    [[200], -1, 'between 0 and 100'],
    [[200], 101, 'between 0 and 100'],
    [[200], Number.NaN, 'between 0 and 100'],
  ])('refuses sizes %j with spare %d', (sizes, spare, words) => {
    expect(() => packingList([line(1)], sizes, spare, 'fewest bags')).toThrow(words);
  });

  it('takes sizes and spares to their very limits', () => {
    const bagsOf = (needed: number, sizes: number[], spare: number) => {
      const [one] = packingList([line(1, { neededDrills: needed })], sizes, spare, 'least surplus');
      return [one!.wantedDrills, one!.packedDrills];
    };
    expect(bagsOf(3, [1], 0)).toEqual([3, 3]);
    expect(bagsOf(3, [1], 100)).toEqual([6, 6]);
    expect(bagsOf(3, [100_000], 0)).toEqual([3, 100_000]);
    // No kit asks for more of one colour.
    expect(bagsOf(1_999_999, [100_000], 10)).toEqual([2_000_000, 2_000_000]);
  });

  it('has a size but once, lines of one code in their order, and nothing for a colour that needs none', () => {
    const list = packingList(
      [
        line(3, { code: '98', neededDrills: 150 }),
        line(2, { code: '98', neededDrills: 0 }),
        line(1, { code: '98', neededDrills: 350 }),
      ],
      [200, 200],
      0,
      'fewest bags',
    );
    expect(list.map((each) => [each.line.line, each.bags])).toEqual([
      [1, [{ size: 200, count: 2 }]],
      [2, []],
      [3, [{ size: 200, count: 1 }]],
    ]);
    expect(packingSum(list)).toEqual({ bags: 3, packedDrills: 600, neededDrills: 500 });
    expect(packingSum([])).toEqual({ bags: 0, packedDrills: 0, neededDrills: 0 });
  });
});
