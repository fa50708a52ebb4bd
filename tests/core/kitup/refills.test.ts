import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inColourOrder } from '../../../src/core/codes/colourOrder';
import { firstUses, refillPlan } from '../../../src/core/kitup/refills';
import { sortingHelp } from '../../../src/core/kitup/sorting';
import { line } from '../samples';

const perSection = (...sections: number[][]) => ({
  perSection: sections.map((s) => Uint32Array.from([0, ...s])),
});

describe('the refill plan', () => {
  it('names the section in which a pot runs empty', () => {
    // Line 1 takes 100 drills in each of four sections, line 2 takes 50. A pot of 150 with 400 drills:
    // empty in the middle of section 2, then (150 more) at the end of section 3.
    const use = perSection([100, 50], [100, 50], [100, 50], [100, 50]);
    const plan = refillPlan([{ line: 1, capacity: 150, drills: 400 }], () => 400, use, 0);
    expect(plan).toEqual([
      { line: 1, nth: 1, section: 2, laid: 150, workDone: 225 / 600, drills: 150 },
      { line: 1, nth: 2, section: 4, laid: 300, workDone: 450 / 600, drills: 100 },
    ]);
  });

  it('comes earlier the more drills are thrown out', () => {
    const use = perSection([100], [100], [100], [100]);
    const section = (trash: number) =>
      refillPlan([{ line: 1, capacity: 250, drills: 450 }], () => 400, use, trash)[0]!.section;
    expect(section(0)).toBe(3);
    expect(section(0.3)).toBe(2);
  });

  it('tells the refills of all colours in the order of the work, with what bad drills leave of each', () => {
    const use = perSection([10, 90], [90, 10], [50, 50]);
    const pots = [
      { line: 1, capacity: 60, drills: 200 },
      { line: 2, capacity: 60, drills: 200 },
      { line: 2, capacity: 0, drills: 40 },
    ];
    const plan = refillPlan(pots, () => 150, use, 0.1);
    // 54 good drills a pot. Line 2: 54 of 90 in section 1, 8 of 10 more in section 2 … line 1: 44 of 90 in section 2.
    expect(plan.map(({ line, nth, section, laid }) => [line, nth, section, laid])).toEqual([
      [2, 1, 1, 54],
      [1, 1, 2, 54],
      [1, 2, 3, 108],
      [2, 2, 3, 108],
    ]);
    expect(plan.map(({ workDone }) => Math.round(workDone * 300))).toEqual([60, 149, 216, 216]);
  });

  it('asks for none where the pot lasts to the end, and reckons by shares without a chart', () => {
    expect(refillPlan([{ line: 1, capacity: 500, drills: 600 }], () => 480, null, 0)).toEqual([]);
    const [only] = refillPlan([{ line: 1, capacity: 300, drills: 600 }], () => 400, null, 0);
    expect(only).toMatchObject({ section: null, workDone: 0.75, drills: 300 });
  });

  it('never pours out more than was left outside', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 900 }),
        fc.integer({ min: 1, max: 5000 }),
        fc.integer({ min: 1, max: 5000 }),
        (capacity, drills, needed) => {
          const plan = refillPlan([{ line: 1, capacity, drills }], () => needed, null, 0.03);
          const poured = plan.reduce((sum, refill) => sum + refill.drills, 0);
          expect(poured).toBeLessThanOrEqual(Math.max(0, drills - capacity));
          for (const { workDone } of plan) expect(workDone).toBeLessThanOrEqual(1);
        },
      ),
    );
  });

  it('knows when a colour is first needed', () => {
    expect(firstUses(perSection([0, 4, 0], [2, 1, 0]), 3).slice(1)).toEqual([2, 1, 0]);
  });
});

describe('orders of colours', () => {
  const legend = [
    line(1, { code: '1204', keyNumber: '2', symbol: 'B', hex: '#ffffff', neededDrills: 5 }),
    line(2, { code: '98', keyNumber: '10', symbol: null, hex: '#000000', neededDrills: 50 }),
    line(3, { code: 'SH12', keyNumber: '1', symbol: 'A', hex: '#808080', neededDrills: 20 }),
  ];
  it.each([
    ['code', [2, 1, 3]],
    ['key', [3, 1, 2]],
    ['frequency', [2, 3, 1]],
    ['dark', [2, 3, 1]],
    ['symbol', [3, 1, 2]],
  ] as const)('by %s', (order, lines) => {
    expect(inColourOrder(legend, order).map((each) => each.line)).toEqual(lines);
  });
});

describe('sorting a heap', () => {
  const lines = (bags: number, codes = 48) =>
    Array.from({ length: codes }, (_, i) => ({ code: String(104 + i * 61), keyNumber: String(i + 1), bags }));

  it('makes about √n piles of about √n bags', () => {
    const help = sortingHelp(lines(2));
    expect(help.bags).toBe(96);
    expect(help.piles).toHaveLength(10);
    expect(help.largest).toBe(10);
    expect(help.piles.reduce((sum, pile) => sum + pile.bags, 0)).toBe(96);
  });

  it('keeps at most twelve piles, in code order, none split within a code', () => {
    const help = sortingHelp(lines(9));
    expect(help.piles).toHaveLength(12);
    for (const [i, pile] of help.piles.entries()) {
      expect(Number(pile.from)).toBeLessThanOrEqual(Number(pile.to));
      if (i > 0) expect(Number(pile.from)).toBeGreaterThan(Number(help.piles[i - 1]!.to));
      expect(pile.bags % 9).toBe(0);
    }
  });

  it('prefers borders between two hundreds where piles are equal', () => {
    const help = sortingHelp(
      ['101', '102', '199', '201', '204', '299'].map((code) => ({ code, keyNumber: 'x', bags: 1 })),
    );
    expect(help.piles.map(({ from, to }) => `${from}–${to}`)).toEqual(['101–199', '201–299']);
  });

  it('makes no larger piles than there must be, and of those the fewest borders inside a hundred', () => {
    /** All ways to cut so many codes into so many piles. */
    const cutsOf = (n: number, piles: number, from = 0): number[][] =>
      piles === 1
        ? [[from]]
        : Array.from({ length: n - from - piles + 1 }, (_, i) => from + i + 1).flatMap((next) =>
            cutsOf(n, piles - 1, next).map((rest) => [from, ...rest]),
          );
    const heap = fc.uniqueArray(
      fc.record({ code: fc.integer({ min: 100, max: 520 }), bags: fc.integer({ min: 0, max: 6 }) }),
      { selector: ({ code }) => code, minLength: 1, maxLength: 11 },
    );
    fc.assert(
      fc.property(heap, (given) => {
        const help = sortingHelp(
          given.map(({ code, bags }) => ({ code: String(code), keyNumber: 'x', bags })),
        );
        const sorted = given.filter(({ bags }) => bags > 0).sort((a, b) => a.code - b.code);
        const codes = sorted.map(({ code }) => code);
        const judged = (starts: readonly number[]) => {
          const piles = starts.map((start, i) => sorted.slice(start, starts[i + 1]));
          const rough = starts.filter(
            (at) => at > 0 && Math.floor(codes[at]! / 100) === Math.floor(codes[at - 1]! / 100),
          );
          return {
            largest: Math.max(0, ...piles.map((pile) => pile.reduce((sum, { bags }) => sum + bags, 0))),
            rough: rough.length,
          };
        };
        expect(help.bags).toBe(sorted.reduce((sum, { bags }) => sum + bags, 0));
        if (sorted.length === 0) return;
        const own = judged(help.piles.map(({ from }) => codes.indexOf(Number(from))));
        const all = cutsOf(sorted.length, help.piles.length).map(judged);
        const largest = Math.min(...all.map((each) => each.largest));
        expect(own.largest).toBe(largest);
        expect(help.largest).toBe(largest);
        expect(own.rough).toBe(
          Math.min(...all.filter((each) => each.largest === largest).map(({ rough }) => rough)),
        );
      }),
    );
  });

  it('sorts by the digits of key numbers as a radix sort does', () => {
    const { digits } = sortingHelp(lines(1));
    expect(digits).toEqual({ first: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9], second: [0, 1, 2, 3, 4] });
    // Last digit first, then the first digit: stable passes leave every key in its place.
    const keys = Array.from({ length: 48 }, (_, i) => ((i * 29) % 48) + 1);
    const passes = digits!.first.flatMap((d) => keys.filter((key) => key % 10 === d));
    const sorted = digits!.second.flatMap((d) => passes.filter((key) => Math.floor(key / 10) === d));
    expect(sorted).toEqual([...keys].sort((a, b) => a - b));
    expect(sortingHelp(lines(1).map((each) => ({ ...each, keyNumber: 'A' }))).digits).toBeNull();
    // One odd key is in the way of all, and so are three digits; of ten bags nobody makes two passes.
    for (const odd of ['A', 'A1', '1A', '123', '']) {
      const keyed = lines(1).map((each, i) => (i === 7 ? { ...each, keyNumber: odd } : each));
      expect(sortingHelp(keyed).digits, odd).toBeNull();
    }
    expect(sortingHelp(lines(1, 10)).digits).toBeNull();
    expect(sortingHelp(lines(1, 11)).digits).toEqual({
      first: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9],
      second: [0, 1],
    });
  });

  it('has nothing to say of nothing', () => {
    expect(sortingHelp([])).toEqual({ bags: 0, piles: [], largest: 0, digits: null });
  });
});
