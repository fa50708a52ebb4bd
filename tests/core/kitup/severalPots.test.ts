import fc from 'fast-check';
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { ALLOT_GOALS, type AllotGoal, type AllotTask, partingFirst } from '../../../src/core/kitup/allotTask';
import { allotBoth, offerOf } from '../../../src/core/kitup/severalPots';
import { sharePots } from '../../../src/core/kitup/sharePots';

const solver = await highsLoader();

function task(drills: number[], capacities: number[], more: Partial<AllotTask> = {}): AllotTask {
  return {
    colours: drills.map((each, i) => ({ line: i + 1, drills: each, firstUse: i + 1 })),
    slots: capacities.map((capacity) => ({ capacity })),
    touching: capacities.slice(1).map((_, i) => [i, i + 1] as const),
    confusable: [],
    goals: ALLOT_GOALS,
    leave: 'fewest drills',
    locked: new Map(),
    ...more,
  };
}

/** Colours that overflow, and then drills outside, as a mixed-integer programme: any pots for any colour, one at least. */
function byMip(drills: number[], capacities: number[]): number[] {
  const x = (r: number, c: number) => `x${r}_${c}`;
  const rules = [
    ...drills.flatMap((_, r) => [
      `${capacities.map((_, c) => x(r, c)).join(' + ')} >= 1`,
      `o${r} + ${capacities.map((capacity, c) => `${capacity} ${x(r, c)}`).join(' + ')} >= ${drills[r]}`,
      `o${r} - ${drills[r]} z${r} <= 0`,
    ]),
    ...capacities.map((_, c) => `${drills.map((_, r) => x(r, c)).join(' + ')} <= 1`),
  ];
  const binaries = drills.flatMap((_, r) => [`z${r}`, ...capacities.map((_, c) => x(r, c))]);
  return ['z', 'o'].map((name) => {
    const objective = drills.map((_, r) => `1 ${name}${r}`).join(' + ');
    const { ObjectiveValue } = solver.solve(
      `Minimize\n obj: ${objective}\nSubject To\n${rules.map((rule, i) => ` r${i}: ${rule}`).join('\n')}\nBinary\n ${binaries.join('\n ')}\nEnd`,
    );
    const value = Math.round(ObjectiveValue);
    rules.push(`${objective} <= ${value}`);
    return value;
  });
}

describe('pots shared out among colours', () => {
  it('are as good as the MIP optimum, goal before goal', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 3, maxLength: 4 }),
        fc.array(fc.constantFrom(3, 5, 8), { minLength: 4, maxLength: 7 }),
        (drills, capacities) => {
          const sizes = [3, 5, 8].map((capacity) => ({
            capacity,
            count: capacities.filter((each) => each === capacity).length,
          }));
          const shared = sharePots(
            drills.map((each) => ({ drills: each, base: 0 })),
            sizes,
            ['closes', 'overflow'],
          )!;
          expect(shared.values).toEqual(byMip(drills, capacities));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('are taken only where they serve, and none where there are too few', () => {
    const fits = [
      { drills: 5, base: 0 },
      { drills: 9, base: 10 },
    ];
    expect(sharePots(fits, [{ capacity: 10, count: 9 }], ['closes', 'overflow', 'refills'])!.pots).toEqual([
      [1],
      [0],
    ]);
    expect(sharePots([fits[0]!, fits[0]!], [{ capacity: 10, count: 1 }], ['closes'])).toBeNull();
  });

  const manySizes = Array.from({ length: 12 }, (_, i) => ({ capacity: 10 + i, count: 3 }));

  it('are never given twice and leave no colour without, where there are too many sizes to try all ways', () => {
    const goals = ['closes', 'overflow', 'refills'] as const;
    fc.assert(
      fc.property(
        fc.array(fc.record({ drills: fc.integer({ min: 0, max: 90 }), base: fc.constantFrom(0, 0, 25) }), {
          minLength: 1,
          maxLength: 24,
        }),
        fc.constantFrom(goals, goals.toReversed()),
        (colours, order) => {
          const { pots, values, isBest } = sharePots(colours, manySizes, order)!;
          expect(isBest).toBe(false);
          for (const [c, { count }] of manySizes.entries())
            expect(pots.reduce((sum, own) => sum + own[c]!, 0)).toBeLessThanOrEqual(count);
          const rooms = pots.map((own, i) =>
            own.reduce((sum, n, c) => sum + n * manySizes[c]!.capacity, colours[i]!.base),
          );
          expect(Math.min(...rooms)).toBeGreaterThan(0);
          const outside = colours.map(({ drills }, i) => Math.max(0, drills - rooms[i]!));
          expect(values[order.indexOf('overflow')]).toBe(outside.reduce((a, b) => a + b));
          expect(values[order.indexOf('closes')]).toBe(outside.filter((each) => each > 0).length);
        },
      ),
    );
  });

  it('close then those that want least, by pots of no more room than that takes', () => {
    const colours = [900, 700, 20].map((drills) => ({ drills, base: drills > 50 ? 100 : 0 }));
    const sizes = [{ capacity: 300, count: 2 }, ...manySizes];
    const { pots, values } = sharePots(colours, sizes, ['closes', 'overflow'])!;
    expect(pots[1]).toEqual([2, ...manySizes.map(() => 0)]);
    // One of 20, and not two of 10.
    expect(pots[2]).toEqual([0, ...manySizes.map(({ capacity }) => Number(capacity === 20))]);
    // The first takes all that is left: three of each size but the one of 20.
    expect(values).toEqual([1, 800 - (3 * (12 * 10 + 66) - 20)]);
    // Where what stays out comes first, the large ones go to the first that can fill them.
    expect(sharePots(colours, sizes, ['overflow', 'closes'])!.pots[0]![0]).toBe(2);
  });
});

describe('several pots for a colour', () => {
  it('stand side by side in the order, and take what would stay outside', () => {
    const both = allotBoth(task([100, 450, 100, 250], Array(7).fill(200)));
    const { one, several } = both;
    expect(offerOf(both)).toEqual({ pots: 3, colours: 2, outside: [300, 0], overflowing: [2, 0] });
    expect(offerOf({ one, several: null })).toBeNull();
    expect(one.results[1]).toEqual({ goal: 'overflow', value: 300, atLeast: 300 });
    expect(Object.fromEntries(several!.slotsOf)).toEqual({ 1: [0], 2: [1, 2, 3], 3: [4], 4: [5, 6] });
    expect(several!.results.map(({ value }) => value)).toEqual([0, 0, 0, 0, 0]);
  });

  it('go where the goals that come first want them', () => {
    const closes = allotBoth(task([900, 250, 250], Array(5).fill(200))).several!;
    expect(closes.results[0]).toEqual({ goal: 'closes', value: 1, atLeast: 1 });
    expect(closes.slotsOf.get(1)).toHaveLength(1);
    const goals: AllotGoal[] = ['overflow', 'closes', 'refills', 'order', 'neighbours'];
    const overflow = allotBoth(task([900, 250, 250], Array(5).fill(200), { goals })).several!;
    expect(overflow.slotsOf.get(1)).toHaveLength(3);
    expect(overflow.results[0]).toEqual({ goal: 'overflow', value: 400, atLeast: 400 });
  });

  it('are not offered where nothing overflows, or no pot is left over', () => {
    expect(allotBoth(task([100, 100], [200, 200, 200])).several).toBeNull();
    expect(allotBoth(task([900, 900], [200, 200])).several).toBeNull();
    expect(allotBoth(task([900, 900, 900], [200, 200])).several).toBeNull();
  });

  it('leave the first pots where they are when their order comes before their size', () => {
    const goals: AllotGoal[] = ['order', 'closes', 'overflow', 'refills', 'neighbours'];
    const { one, several } = allotBoth(
      task([100, 700, 100], [200, 200, 200, 200, 500, 0], { goals, confusable: [[2, 3]] }),
    );
    expect([...one.slotsOf.values()]).toEqual([[0], [1], [2]]);
    expect(Object.fromEntries(several!.slotsOf)).toEqual({ 1: [0], 2: [1, 4], 3: [2] });
    expect(several!.results.at(-1)).toEqual({ goal: 'neighbours', value: 1, atLeast: 0 });
    expect(several!.results.find(({ goal }) => goal === 'overflow')).toEqual({
      goal: 'overflow',
      value: 0,
      atLeast: 0,
    });
  });

  it('are shared out in a moment where there are too many sizes to try all ways, and say what was reached', () => {
    const drills = Array.from({ length: 20 }, (_, i) => 200 + 57 * i);
    const capacities = Array.from({ length: 36 }, (_, i) => 100 + 10 * (i % 12));
    const room = (slots: number[]) => slots.reduce((sum, slot) => sum + capacities[slot]!, 0);
    for (const first of ['closes', 'overflow', 'order'] as const) {
      const goals = [first, ...ALLOT_GOALS.filter((goal) => goal !== first)];
      const { one, several } = allotBoth(task(drills, capacities, { goals }));
      const value = (of: typeof one, goal: AllotGoal) => of.results.find((each) => each.goal === goal)!;
      if (first === 'order') {
        for (const [line, [slot]] of one.slotsOf) expect(several!.slotsOf.get(line)![0]).toBe(slot);
        // They stand by their first pots.
        expect(value(several!, 'order')).toEqual(value(one, 'order'));
      } else expect(value(several!, first).value).toBeLessThan(value(one, first).value);
      // What stays outside overflows all pots together, so none is idle and none is given twice.
      const used = [...several!.slotsOf.values()].flat();
      expect(used.toSorted((a, b) => a - b)).toEqual(capacities.map((_, slot) => slot));
      const outside = drills.map((each, i) => Math.max(0, each - room(several!.slotsOf.get(i + 1)!)));
      const least = drills.reduce((sum, each) => sum + each) - room(used);
      const reached = { goal: 'overflow', value: outside.reduce((a, b) => a + b), atLeast: least };
      expect(value(several!, 'overflow')).toEqual(reached);
      const overflowing = outside.filter((each) => each > 0).length;
      expect(value(several!, 'closes')).toEqual({ goal: 'closes', value: overflowing, atLeast: 0 });
    }
  });

  it('stand near the first one where there are too many to try the place of each', () => {
    const { several } = allotBoth(task([1_000_000, 500_000, 400_000], Array(4000).fill(200)));
    expect(new Set([...several!.slotsOf.values()].flat()).size).toBe(4000);
    const outside = 1_900_000 - 4000 * 200;
    expect(several!.results[1]).toEqual({ goal: 'overflow', value: outside, atLeast: outside });
  });

  it('keep those that are filled already', () => {
    const locked = new Map([[2, [4, 0]]]);
    const { one, several } = allotBoth(task([100, 700, 250], Array(6).fill(200), { locked }));
    expect(one.slotsOf.get(2)).toEqual([4, 0]);
    expect(several!.slotsOf.get(2)).toEqual(expect.arrayContaining([0, 4]));
    const used = [...several!.slotsOf.values()].flat();
    expect(new Set(used).size).toBe(used.length);
  });

  it('part look-alikes in every one of their pots', () => {
    const { several } = allotBoth(
      task([300, 300, 100], Array(8).fill(200), { goals: partingFirst(ALLOT_GOALS), confusable: [[1, 2]] }),
    );
    const [a, b] = [several!.slotsOf.get(1)!, several!.slotsOf.get(2)!];
    expect(a.some((one) => b.some((other) => Math.abs(one - other) === 1))).toBe(false);
  });

  it('use the spare pots of a case: 71 colours in 76 pots', () => {
    const drills = Array.from({ length: 71 }, (_, i) => 200 + ((i * 7919) % 2600));
    const { one, several } = allotBoth(task(drills, Array(76).fill(1000)));
    const outside = (of: typeof one) => of.results.find(({ goal }) => goal === 'overflow')!;
    expect([...several!.slotsOf.values()].flat()).toHaveLength(76);
    expect(outside(several!).value).toBeLessThan(outside(one).value);
    expect(outside(several!).atLeast).toBe(outside(several!).value);
  });
});
