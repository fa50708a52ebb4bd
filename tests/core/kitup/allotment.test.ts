import fc from 'fast-check';
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { allot } from '../../../src/core/kitup/allotment';
import { ALLOT_GOALS, type AllotGoal, type AllotTask, partingFirst } from '../../../src/core/kitup/allotTask';
import { assign } from '../../../src/core/kitup/assignment';
import { refillsOf } from '../../../src/core/kitup/sharePots';

const solver = await highsLoader();

function task(more: Partial<AllotTask> = {}): AllotTask {
  return {
    colours: [],
    slots: [],
    touching: [],
    confusable: [],
    goals: ALLOT_GOALS,
    leave: 'fewest drills',
    locked: new Map(),
    ...more,
  };
}

const colours = (...drills: number[]) => drills.map((d, i) => ({ line: i + 1, drills: d, firstUse: i + 1 }));
const slots = (...capacities: number[]) => capacities.map((capacity) => ({ capacity }));
const row = (n: number) => Array.from({ length: n - 1 }, (_, i) => [i, i + 1] as const);

describe('the linear assignment problem', () => {
  it('is solved as every permutation shows, goal before goal', () => {
    const permutations = (n: number): number[][] =>
      n === 0
        ? [[]]
        : permutations(n - 1).flatMap((rest) =>
            rest.concat(n - 1).map((_, at) => rest.toSpliced(at, 0, n - 1)),
          );
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 50, maxLength: 50 }), (numbers) => {
        const cost = Float64Array.from(numbers);
        const sums = (columns: ArrayLike<number>) =>
          [0, 1].map((g) => Array.from(columns).reduce((sum, c, r) => sum + cost[(r * 5 + c) * 2 + g]!, 0));
        const best = permutations(5)
          .map(sums)
          .sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!)[0];
        expect(sums(assign(5, 5, 2, cost))).toEqual(best);
      }),
      { numRuns: 60 },
    );
  });

  it('refuses more rows than columns', () => {
    expect(() => assign(3, 2, 1, new Float64Array(6))).toThrow('more rows than columns');
  });
});

/** The same task as a mixed-integer programme, solved goal after goal; every goal reached is held for the next. */
function byMip(problem: AllotTask): number[] {
  const x = (r: number, c: number) => `x${r}_${c}`;
  const cells = problem.colours.flatMap((_, r) => problem.slots.map((_, c) => [r, c] as const));
  const pairs = problem.confusable.flatMap(([a, b], p) => {
    const [ra, rb] = [a, b].map((line) => problem.colours.findIndex((colour) => colour.line === line));
    return problem.touching.flatMap(([s, t]) => [
      { y: `y${p}`, terms: [x(ra!, s), x(rb!, t)] },
      { y: `y${p}`, terms: [x(ra!, t), x(rb!, s)] },
    ]);
  });
  const objective = (goal: AllotGoal): string => {
    if (goal === 'neighbours') return problem.confusable.map((_, p) => `1 y${p}`).join(' + ') || '0 x0_0';
    const cost = ([r, c]: readonly [number, number]) => {
      const { drills } = problem.colours[r]!;
      const { capacity } = problem.slots[c]!;
      if (goal === 'closes') return Number(drills > capacity);
      if (goal === 'overflow') return Math.max(0, drills - capacity);
      return goal === 'refills' ? Math.max(0, Math.ceil(drills / capacity) - 1) : (r - c) ** 2;
    };
    return cells.map(([r, c]) => `${cost([r, c])} ${x(r, c)}`).join(' + ');
  };
  const rules = [
    ...problem.colours.map((_, r) => `${problem.slots.map((_, c) => x(r, c)).join(' + ')} = 1`),
    ...problem.slots.map((_, c) => `${problem.colours.map((_, r) => x(r, c)).join(' + ')} <= 1`),
    ...[...problem.locked].map(
      ([line, [c]]) =>
        `${x(
          problem.colours.findIndex((l) => l.line === line),
          c!,
        )} = 1`,
    ),
    ...pairs.map(({ y, terms }) => `${terms.join(' + ')} - ${y} <= 1`),
  ];
  const binaries = [...cells.map(([r, c]) => x(r, c)), ...problem.confusable.map((_, p) => `y${p}`)];
  return problem.goals.map((goal) => {
    const found = solver.solve(
      `Minimize\n obj: ${objective(goal)}\nSubject To\n${rules.map((rule, i) => ` r${i}: ${rule}`).join('\n')}\nBinary\n ${binaries.join('\n ')}\nEnd`,
    );
    const value = Math.round(found.ObjectiveValue);
    rules.push(`${objective(goal)} <= ${value}`);
    return value;
  });
}

describe('an allotment', () => {
  it('is never better than the MIP optimum and never further from it than its stated gap', () => {
    const goalOrders: AllotGoal[][] = [
      [...ALLOT_GOALS],
      ['order', 'closes', 'overflow', 'refills', 'neighbours'],
      ['closes', 'neighbours', 'order', 'overflow', 'refills'],
      ['neighbours', 'overflow', 'order', 'closes', 'refills'],
    ];
    const line = fc.integer({ min: 1, max: 4 });
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 4, maxLength: 4 }),
        fc.array(fc.integer({ min: 2, max: 7 }), { minLength: 5, maxLength: 5 }),
        fc.uniqueArray(
          fc.tuple(line, line).filter(([a, b]) => a < b),
          {
            maxLength: 4,
            selector: ([a, b]) => a * 9 + b,
          },
        ),
        fc.constantFrom(...goalOrders),
        fc.option(fc.integer({ min: 0, max: 4 }), { nil: undefined }),
        (drills, capacities, confusable, goals, lock) => {
          const problem = task({
            colours: colours(...drills),
            slots: slots(...capacities),
            touching: row(5),
            confusable,
            goals,
            locked: lock === undefined ? new Map() : new Map([[2, [lock]]]),
          });
          const { results } = allot(problem);
          const optimum = byMip(problem);
          for (const [g, { goal, value, atLeast }] of results.entries()) {
            expect(atLeast, goal).toBeLessThanOrEqual(optimum[g]!);
            expect(value, goal).toBeGreaterThanOrEqual(optimum[g]!);
            // Later goals are only comparable while all before are as good.
            if (value > optimum[g]!) break;
          }
        },
      ),
      { numRuns: 60 },
    );
  }, 120_000);

  it('keeps the chosen order where that goes first', () => {
    const { slotsOf } = allot(
      task({ colours: colours(9, 1, 5), slots: slots(1, 5, 9), goals: ['order', 'closes'] }),
    );
    expect([...slotsOf.values()]).toEqual([[0], [1], [2]]);
  });

  it('puts what is most into the largest slot where closing goes first, and says what stays out', () => {
    const { slotsOf, results } = allot(
      task({ colours: colours(900, 100, 450), slots: slots(100, 500, 800) }),
    );
    expect(Object.fromEntries(slotsOf)).toEqual({ 1: [2], 2: [0], 3: [1] });
    // 900 into 800: one lid does not close, 100 drills stay out, the pot is filled twice.
    expect(results.slice(0, 3).map(({ value }) => value)).toEqual([1, 100, 1]);
    expect(results.every(({ value, atLeast }) => value === atLeast)).toBe(true);
  });

  it('parts confusable neighbours and proves it', () => {
    const { slotsOf, results } = allot(
      task({ colours: colours(1, 1, 1), slots: slots(5, 5, 5, 5), touching: row(4), confusable: [[1, 2]] }),
    );
    // Order goes first here, so they stay beside each other, and the result owns up to it.
    expect(slotsOf.get(2)![0]! - slotsOf.get(1)![0]!).toBe(1);
    expect(results.at(-1)).toEqual({ goal: 'neighbours', value: 1, atLeast: 1 });
    const parted = allot(
      task({
        colours: colours(1, 1, 1),
        slots: slots(5, 5, 5, 5),
        touching: row(4),
        confusable: [[1, 2]],
        goals: ['closes', 'neighbours', 'order'],
      }),
    );
    expect(Math.abs(parted.slotsOf.get(2)![0]! - parted.slotsOf.get(1)![0]!)).toBeGreaterThan(1);
    expect(parted.results.every(({ value, atLeast }) => value === atLeast)).toBe(true);
  });

  it('leaves the fewest drills, or the last used, in their bags', () => {
    const four = task({ colours: colours(50, 10, 30, 20), slots: slots(99, 99) });
    expect(allot(four).left).toEqual([4, 2]);
    expect(allot({ ...four, leave: 'last used' }).left).toEqual([3, 4]);
    expect(allot({ ...four, locked: new Map([[2, [0]]]) }).left).toEqual([3, 4]);
  });

  it('parts look-alikes before the order where that is asked', () => {
    expect(partingFirst(ALLOT_GOALS)).toEqual(['closes', 'overflow', 'refills', 'neighbours', 'order']);
    expect(partingFirst(['order', 'closes'])).toEqual(['neighbours', 'order', 'closes']);
  });

  it('goes on exchanging where no allotment is free of conflict, and says what is open', () => {
    // Six colours that are all alike fill all six places of a row: five pairs touch, whatever the order.
    const everyPair = [1, 2, 3, 4, 5, 6].flatMap((a) =>
      [1, 2, 3, 4, 5, 6].flatMap((b) => (a < b ? [[a, b] as const] : [])),
    );
    const { results } = allot(
      task({
        colours: colours(1, 1, 1, 1, 1, 1),
        slots: slots(5, 5, 5, 5, 5, 5),
        touching: row(6),
        confusable: everyPair,
        goals: ['neighbours', 'order'],
      }),
    );
    expect(results[0]!.value).toBe(5);
    expect(results[0]!.atLeast).toBeLessThanOrEqual(5);
  });

  it('exchanges down to the fewest conflicts and, among those, the order nearest to the chosen one', () => {
    // Three that are alike and one that is not, in a row of four: each of the 24 orders is looked at here.
    const problem = task({
      colours: colours(1, 1, 1, 1),
      slots: slots(5, 5, 5, 5),
      touching: row(4),
      confusable: [
        [1, 2],
        [2, 3],
        [1, 3],
      ],
      goals: ['neighbours', 'order'],
    });
    const orders = [0, 1, 2, 3].flatMap((a) =>
      [0, 1, 2, 3].flatMap((b) => [0, 1, 2, 3].map((c) => [a, b, c, 6 - a - b - c])),
    );
    const values = orders
      .filter((order) => new Set(order).size === 4)
      .map((order) => [
        [0, 1, 2].flatMap((a) => [0, 1, 2].filter((b) => b > a && Math.abs(order[a]! - order[b]!) === 1))
          .length,
        order.reduce((sum, column, r) => sum + (column - r) ** 2, 0),
      ]);
    const [best] = values.sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
    expect(best).toEqual([1, 2]);
    const { results } = allot(problem);
    expect(results.map(({ value }) => value)).toEqual(best);
    expect(results[0]!.atLeast).toBe(1);
  });

  it('ends where no exchange of a colour that is in conflict makes it better', () => {
    const goals: AllotGoal[] = ['closes', 'neighbours', 'overflow', 'order'];
    const confusable = [1, 2, 3, 4, 5].flatMap((a) =>
      [2, 3, 4, 5].flatMap((b) => (a < b ? [[a, b] as const] : [])),
    );
    const number = fc.integer({ min: 1, max: 6 });
    fc.assert(
      fc.property(
        fc.array(number, { minLength: 5, maxLength: 5 }),
        fc.array(number, { minLength: 7, maxLength: 7 }),
        fc.integer({ min: 0, max: 6 }),
        (drills, capacities, lock) => {
          const { slotsOf, results } = allot(
            task({
              colours: colours(...drills),
              slots: slots(...capacities),
              touching: row(7),
              confusable,
              goals,
              locked: new Map([[2, [lock]]]),
            }),
          );
          const touches = (at: number[], r: number) => at.some((slot) => Math.abs(slot - at[r]!) === 1);
          const valuesOf = (at: number[]) => {
            const outside = at.map((slot, r) => Math.max(0, drills[r]! - capacities[slot]!));
            const sum = (values: number[]) => values.reduce((a, b) => a + b);
            return [
              outside.filter((each) => each > 0).length,
              at.filter((slot) => at.includes(slot + 1)).length,
              sum(outside),
              sum(at.map((slot, r) => (slot - r) ** 2)),
            ];
          };
          const reached = drills.map((_, r) => slotsOf.get(r + 1)![0]!);
          const values = valuesOf(reached);
          expect(results.map(({ value }) => value)).toEqual(values);
          for (const r of [0, 2, 3, 4].filter((each) => touches(reached, each))) {
            for (const column of capacities.keys()) {
              if (column === lock) continue;
              const moved = reached.map((slot) => (slot === column ? reached[r]! : slot)).with(r, column);
              const [less = 0] = valuesOf(moved).flatMap((value, g) => value - values[g]! || []);
              expect(less).toBeGreaterThanOrEqual(0);
            }
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('keeps a locked colour and plans round it', () => {
    const { slotsOf } = allot(
      task({ colours: colours(1, 1, 1), slots: slots(5, 5, 5), locked: new Map([[3, [0]]]) }),
    );
    expect(slotsOf.get(3)).toEqual([0]);
    expect(new Set([...slotsOf.values()].flat()).size).toBe(3);
  });

  it('copes with nothing at all, one colour, and 200 colours in 400 slots', () => {
    expect(allot(task()).slotsOf.size).toBe(0);
    expect(allot(task({ colours: colours(7) })).left).toEqual([1]);
    expect(allot(task({ colours: colours(7), slots: slots(9) })).slotsOf.get(1)).toEqual([0]);
    const many = allot(
      task({
        colours: colours(...Array.from({ length: 200 }, (_, i) => (i * 7919) % 3001)),
        slots: slots(...Array.from({ length: 400 }, (_, i) => [600, 1500, 4000][i % 3]!)),
        touching: row(400),
        confusable: [
          [3, 4],
          [10, 11],
          [40, 41],
        ],
        goals: ['closes', 'overflow', 'refills', 'neighbours', 'order'],
      }),
    );
    expect(new Set([...many.slotsOf.values()].flat()).size).toBe(200);
    expect(many.results[3]!.value).toBe(0);
  });
});

describe('refills', () => {
  // Common practice, no source: a pot of 300 with 800 drills is filled, refilled with 300, and with 200.
  it('count the fillings after the first', () => {
    expect(refillsOf(800, 300)).toBe(2);
    expect(refillsOf(300, 300)).toBe(0);
    expect(refillsOf(0, 300)).toBe(0);
  });
});
