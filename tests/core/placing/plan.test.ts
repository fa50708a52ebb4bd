import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Bitmap, emptyBitmap, isLaid, setLaid } from '../../../src/core/cells/bitmap';
import { type Chart, makeChart } from '../../../src/core/cells/chart';
import { type CellPart, isInside, wholeRect } from '../../../src/core/cells/rect';
import { USUAL_SECONDS } from '../../../src/core/pace/timeModel';
import { countSeams } from '../../../src/core/placing/cutting';
import { type Placement, placementRect } from '../../../src/core/placing/placement';
import { type PlacingGround, PlacingPlanner } from '../../../src/core/placing/plan';
import { SWITCH_NAMES, secondsOfPlan, switched, wishPrice } from '../../../src/core/placing/prices';
import {
  cellsOfPlacement,
  isToLay,
  placementOn,
  stepBehind,
  stepIn,
  withInHand,
} from '../../../src/core/placing/stepping';
import { orderTips } from '../../../src/core/placing/tips';
import { type PlacingWish, USUAL_PLACING } from '../../../src/core/placing/wish';
import { chartOfRows, line } from '../samples';

const legend = [line(1, { hex: '#101010' }), line(2, { hex: '#f8f8f8' }), line(3, { hex: '#808080' })];

function groundOf(chart: Chart, more: Partial<PlacingGround> = {}): PlacingGround {
  return {
    chart,
    laid: emptyBitmap(chart.cells.length),
    legend,
    parts: [wholeRect(chart)],
    tips: [1, 3],
    seconds: USUAL_SECONDS,
    hand: 'right',
    ...more,
  };
}

function planOf(chart: Chart, wish: Partial<PlacingWish> = {}, more: Partial<PlacingGround> = {}) {
  return new PlacingPlanner().plan(groundOf(chart, more), { ...USUAL_PLACING, ...wish });
}

/** How often each cell is laid. */
function timesLaid(chart: Chart, placements: ReturnType<typeof planOf>['placements']): number[] {
  const times = new Array<number>(chart.cells.length).fill(0);
  for (const placement of placements) {
    for (const cell of cellsOfPlacement(placement, chart.width)) times[cell]!++;
  }
  return times;
}

const wishes: fc.Arbitrary<PlacingWish> = fc.record({
  goal: fc.constantFrom('placements', 'minutes'),
  direction: fc.constantFrom('free', 'sparing', 'one'),
  turnWorth: fc.integer({ min: 0, max: 5 }),
  staggered: fc.boolean(),
  passes: fc.constantFrom('one', 'rows', 'checkerboard'),
  tipByTip: fc.boolean(),
  singlesAbove: fc.constantFrom(null, 50, 90),
  longest: fc.constantFrom(null, 1, 4),
  edgeSingles: fc.boolean(),
  school: fc.constantFrom('most', 'dark', 'light', 'sheet', 'own'),
  ownOrder: fc.constantFrom([], [3, 1]),
});

describe('a plan', () => {
  it('lays every square that is left exactly once, whatever is wished, and crosses no border', () => {
    const cells = fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 96, maxLength: 96 });
    const done = fc.uniqueArray(fc.integer({ min: 0, max: 95 }), { maxLength: 30 });
    const tips = fc.uniqueArray(fc.integer({ min: 1, max: 15 }), { maxLength: 4 }).map(orderTips);
    fc.assert(
      fc.property(cells, done, tips, wishes, fc.boolean(), (lines, laidCells, own, wish, cut) => {
        const chart = makeChart(12, 8, Uint16Array.from(lines));
        const laid = emptyBitmap(96);
        for (const cell of laidCells) setLaid(laid, cell, true);
        // A section in steps and the rest, or all of it.
        const steps: CellPart = {
          x: 0,
          y: 0,
          width: 7,
          height: 8,
          rects: [
            { x: 0, y: 0, width: 5, height: 4 },
            { x: 0, y: 4, width: 7, height: 4 },
          ],
        };
        const rest: CellPart = {
          x: 5,
          y: 0,
          width: 7,
          height: 8,
          rects: [
            { x: 5, y: 0, width: 7, height: 4 },
            { x: 7, y: 4, width: 5, height: 4 },
          ],
        };
        const parts = cut ? [steps, rest] : [wholeRect(chart)];
        const plan = planOf(chart, wish, { laid, tips: own, parts });
        const wanted = lines.map((each, cell) => (each !== 0 && !isLaid(laid, cell) ? 1 : 0));
        expect(timesLaid(chart, plan.placements)).toEqual(wanted);
        expect(plan.drills).toBe(wanted.filter((each) => each === 1).length);
        expect(plan.lowerBound).toBeLessThanOrEqual(plan.placements.length);
        for (const placement of plan.placements) {
          for (const cell of cellsOfPlacement(placement, 12)) expect(chart.cells[cell]).toBe(placement.line);
          expect(placement.length).toBeLessThanOrEqual(plan.widest);
          expect(own).toContain(placement.tip);
          expect(placement.tip).toBeGreaterThanOrEqual(placement.length);
          const { x, y, width, height } = placementRect(placement);
          const ends = [
            { x, y },
            { x: x + width - 1, y: y + height - 1 },
          ];
          expect(parts.some((part) => ends.every((end) => isInside(part, end)))).toBe(true);
        }
        const efforts = plan.effort.singles + plan.effort.shortBars + plan.effort.longBars;
        expect(efforts).toBe(plan.placements.length);
        const colours = plan.colours.flat();
        expect(colours.reduce((sum, each) => sum + each.placements, 0)).toBe(plan.placements.length);
        expect(colours.reduce((sum, each) => sum + each.drills, 0)).toBe(plan.drills);
      }),
      { numRuns: 150 },
    );
  });

  it('mixes rows and columns where that saves', () => {
    const plan = planOf(chartOfRows('111', '1..', '1..'));
    expect(plan.placements.map(({ orientation, length }) => [orientation, length])).toContainEqual(['h', 3]);
    expect(plan.placements).toHaveLength(2);
    expect(plan.lowerBound).toBe(2);
    expect(plan.colours[0]).toEqual([
      { line: 1, drills: 5, placements: 2, along: 1, down: 1, rowsOnly: 3, columnsOnly: 3 },
    ]);
  });

  it('stands single tips, a tip wider than the canvas, bare cells and a canvas that is laid', () => {
    const chart = chartOfRows('111', '1.1', '111');
    expect(planOf(chart, {}, { tips: [1] })).toMatchObject({ widest: 1, lowerBound: 8 });
    expect(planOf(chart, {}, { tips: [1] }).placements).toHaveLength(8);
    expect(planOf(chart, {}, { tips: [1, 15] }).placements).toHaveLength(4);
    const laid = emptyBitmap(9).fill(255) as Bitmap;
    expect(planOf(chart, {}, { laid })).toMatchObject({ placements: [], lowerBound: 0, drills: 0, turns: 0 });
    expect(planOf(chartOfRows('...')).placements).toEqual([]);
  });

  it('follows a mark: only the region of the mark is planned anew, and as from the beginning', () => {
    const chart = chartOfRows('11112222', '11112222', '11112222');
    const planner = new PlacingPlanner();
    const ground = groundOf(chart);
    const before = planner.plan(ground, USUAL_PLACING);
    const laid = emptyBitmap(24);
    setLaid(laid, 9, true);
    const after = planner.plan({ ...ground, laid }, USUAL_PLACING);
    expect(after).toEqual(new PlacingPlanner().plan({ ...ground, laid }, USUAL_PLACING));
    const ofTwo = (plan: typeof before) => plan.placements.filter((each) => each.line === 2);
    expect(ofTwo(after)).toEqual(ofTwo(before));
    expect(placementOn(after.placements, { x: 1, y: 1 })).toBe(-1);
  });

  it('is quick for what changed, and keeps what is remembered', () => {
    const chart = chartOfRows('1112222222', '1112222222', '1112222222', '3333333333', '3333333333');
    const planner = new PlacingPlanner();
    const ground = groundOf(chart, { tips: [1, 4] });
    const before = planner.plan(ground, USUAL_PLACING);
    expect(planner.plan(ground, USUAL_PLACING, 'quick')).toEqual(before);
    const laid = emptyBitmap(50);
    setLaid(laid, 14, true);
    const quick = planner.plan({ ...ground, laid }, USUAL_PLACING, 'quick');
    expect(timesLaid(chart, quick.placements)[14]).toBe(0);
    const others = (plan: typeof before) => plan.placements.filter((each) => each.line !== 2);
    expect(others(quick)).toEqual(others(before));
    // A quick plan is not remembered as the plan.
    expect(planner.plan({ ...ground, laid }, USUAL_PLACING)).toEqual(
      new PlacingPlanner().plan({ ...ground, laid }, USUAL_PLACING),
    );
  });

  it('does not change when it is searched again beside other plans', () => {
    const chart = chartOfRows('1111', '1221', '1111');
    const planner = new PlacingPlanner();
    const first = planner.plan(groundOf(chart), USUAL_PLACING);
    const narrow = groundOf(chart, { tips: [1, 2] });
    const other: PlacingWish = { ...USUAL_PLACING, goal: 'minutes', staggered: true };
    expect(planner.plan(narrow, other)).toEqual(new PlacingPlanner().plan(narrow, other));
    expect(planner.plan(groundOf(chart), USUAL_PLACING)).toEqual(first);
  });
});

describe('wishes', () => {
  it('one direction lays each colour along rows or columns alone', () => {
    const plan = planOf(chartOfRows('111', '1..', '1..'), { direction: 'one' });
    expect(
      new Set(plan.placements.filter(({ length }) => length > 1).map((each) => each.orientation)).size,
    ).toBe(1);
    expect(plan.placements).toHaveLength(3);
    expect(plan.lowerBound).toBe(2);
  });

  it('both directions in one colour must save something', () => {
    // Four squares in a square: two bars along, two down, and one of each is no better.
    for (const rows of [
      ['11', '11'],
      ['111', '111', '111'],
      ['1111', '1111'],
    ]) {
      const plan = planOf(chartOfRows(...rows), {}, { tips: [1, 2] });
      const bars = plan.placements.filter(({ length }) => length > 1);
      const both = new Set(bars.map(({ orientation }) => orientation)).size > 1;
      const { rowsOnly, columnsOnly, placements } = plan.colours[0]![0]!;
      expect(both).toBe(Math.min(rowsOnly, columnsOnly) > placements);
    }
  });

  it('least minutes turns only where that saves the seconds of a turn', () => {
    const chart = chartOfRows('111', '1..', '1..');
    const minutes = (turns: number) =>
      planOf(chart, { goal: 'minutes' }, { seconds: { ...USUAL_SECONDS, turns } }).placements.length;
    // Two bars of three, or one bar and two singles.
    const saved = 2 * USUAL_SECONDS.singles - USUAL_SECONDS.shortBars;
    expect(minutes(saved - 0.1)).toBe(2);
    expect(minutes(saved + 0.1)).toBe(3);
  });

  it('turning must save what it is worth', () => {
    const chart = chartOfRows('111', '1..', '1..');
    expect(planOf(chart, { direction: 'sparing', turnWorth: 0 }).placements).toHaveLength(2);
    expect(planOf(chart, { direction: 'sparing', turnWorth: 1 }).placements).toHaveLength(3);
  });

  it('staggered ends leave no break beside a break', () => {
    const rows = Array.from({ length: 6 }, () => '1'.repeat(9));
    const plain = planOf(chartOfRows(...rows), { direction: 'one' });
    expect(plain.seams).toBeGreaterThan(0);
    const plan = planOf(chartOfRows(...rows), { direction: 'one', staggered: true });
    expect(plan.seams).toBe(0);
    // Every second row gives up one full bar.
    expect(plan.placements.length).toBe(plain.placements.length + 3);
    // Bars of four leave each row another way, in regions of any shape, along and down, one behind the other.
    const lines = fc.array(fc.constantFrom(1, 1, 1, 2), { minLength: 117, maxLength: 117 });
    fc.assert(
      fc.property(lines, fc.constantFrom('free', 'one'), (cells, direction) => {
        const chart = makeChart(13, 9, Uint16Array.from(cells));
        const { placements, seams } = planOf(chart, { direction, staggered: true }, { tips: [1, 4] });
        expect(countSeams(placements)).toBe(0);
        expect(seams).toBe(0);
      }),
      { numRuns: 40 },
    );
  });

  it('every second row first lays rows 1, 3, 5 of all colours before the gaps', () => {
    const plan = planOf(chartOfRows('111', '111', '222', '222', '222'), { passes: 'rows' });
    expect(plan.placements.map(({ y, line: own }) => [own, y])).toEqual([
      [2, 2],
      [2, 4],
      [1, 0],
      [2, 3],
      [1, 1],
    ]);
    expect(plan.effort.colours).toBe(4);
  });

  it('a checkerboard lays singles, the dark squares first', () => {
    const plan = planOf(chartOfRows('111', '111'), { passes: 'checkerboard' });
    expect(plan.placements).toHaveLength(6);
    expect(plan.placements.map(({ x, y }) => (x + y) % 2)).toEqual([0, 0, 0, 1, 1, 1]);
  });

  it('light colours one by one, short bars, singles beside the next section', () => {
    const chart = chartOfRows('111222', '111222');
    const light = planOf(chart, { singlesAbove: 85 });
    expect(light.placements.filter((each) => each.line === 2)).toHaveLength(6);
    expect(light.placements.filter((each) => each.line === 1)).toHaveLength(2);
    expect(light.lowerBound).toBe(8);
    expect(planOf(chart, { longest: 2 }).widest).toBe(2);
    const edge = planOf(
      chartOfRows('111111'),
      { edgeSingles: true },
      { parts: [{ x: 0, y: 0, width: 4, height: 1 }] },
    );
    expect(edge.placements.map(({ x, length }) => [x, length])).toEqual([
      [0, 3],
      [3, 1],
    ]);
    // Between two sections of a plan both sides are laid one by one.
    const two = planOf(
      chartOfRows('111111'),
      { edgeSingles: true },
      {
        parts: [
          { x: 0, y: 0, width: 3, height: 1 },
          { x: 3, y: 0, width: 3, height: 1 },
        ],
      },
    );
    expect(two.placements.map(({ x, length }) => [x, length])).toEqual([
      [0, 2],
      [2, 1],
      [4, 2],
      [3, 1],
    ]);
    // At the rim of the canvas and beside bare squares nothing meets.
    const rim = planOf(
      chartOfRows('1111..'),
      { edgeSingles: true },
      { parts: [{ x: 0, y: 0, width: 4, height: 1 }] },
    );
    expect(rim.placements.map(({ length }) => length)).toEqual([3, 1]);
    expect(planOf(chartOfRows('111...'), { edgeSingles: true }).placements).toHaveLength(1);
  });

  it('the left hand works from the right', () => {
    const chart = chartOfRows('111111', '......', '111111');
    const xs = (hand: 'right' | 'left') =>
      planOf(chart, { tipByTip: false }, { hand }).placements.map(({ x, y }) => `${x} ${y}`);
    expect(xs('right')).toEqual(['0 0', '3 0', '0 2', '3 2']);
    expect(xs('left')).toEqual(['3 0', '0 0', '3 2', '0 2']);
  });

  it('one tip after the other changes tips less often', () => {
    const chart = chartOfRows('11111', '22222', '11111', '22222', '11111');
    const mixed = planOf(chart, { tipByTip: false });
    const sorted = planOf(chart, { tipByTip: true });
    expect(sorted.placements).toHaveLength(mixed.placements.length);
    expect(sorted.tipChanges).toBeLessThanOrEqual(mixed.tipChanges);
    const single = chartOfRows('1111', '....', '1111');
    expect(planOf(single, { tipByTip: false }).tipChanges).toBe(3);
    expect(planOf(single, { tipByTip: true }).tipChanges).toBe(1);
  });

  it('least minutes never takes longer than the fewest placements, in placements alone', () => {
    const seconds = { ...USUAL_SECONDS, singles: 1, shortBars: 9, longBars: 9 };
    const chart = chartOfRows('1111', '1111');
    const plan = planOf(chart, { goal: 'minutes' }, { seconds });
    expect(plan.placements).toHaveLength(8);
    expect(plan.lowerBound).toBeLessThan(8);
  });

  it('have the price that the plans with and without them differ by', () => {
    const chart = chartOfRows('111222', '1..222', '1..222');
    const ground = groundOf(chart);
    const planner = new PlacingPlanner();
    const now = planner.plan(ground, USUAL_PLACING);
    for (const name of SWITCH_NAMES) {
      const other = planOf(chart, switched(USUAL_PLACING, name, name !== 'tipByTip'));
      const sign = name === 'tipByTip' ? -1 : 1;
      const price = wishPrice(planner, ground, USUAL_PLACING, now, name);
      expect(price.placements, name).toBe(sign * (other.placements.length - now.placements.length) || 0);
      expect(price.seconds, name).toBeCloseTo(
        sign * (secondsOfPlan(other, USUAL_SECONDS) - secondsOfPlan(now, USUAL_SECONDS)),
      );
    }
    expect(wishPrice(planner, ground, USUAL_PLACING, now, 'one').placements).toBe(1);
  });
});

describe('stepping', () => {
  const { placements } = planOf(chartOfRows('111222', '333333'));

  it('finds the placement of a square, else the colour in hand, else the first', () => {
    expect(placements[placementOn(placements, { x: 4, y: 0 })]).toMatchObject({ line: 2, x: 3 });
    expect(placementOn(placements, { x: 9, y: 9 })).toBe(-1);
    expect(placements[stepIn(placements, { x: 5, y: 1 }, 1, 6)]!.line).toBe(3);
    expect(placements[stepIn(placements, { x: 9, y: 9 }, 2, 6)]!.line).toBe(2);
    expect(stepIn(placements, null, 77, 6)).toBe(0);
    expect(stepIn([], null, null, 6)).toBe(0);
  });

  it('knows what is still to lay: bare squares of its colour, all of them', () => {
    const chart = chartOfRows('111222', '333333');
    const [first] = planOf(chart).placements.filter(({ line }) => line === 1);
    const laid = emptyBitmap(12);
    expect(isToLay(first!, chart, laid)).toBe(true);
    expect(isToLay({ ...first!, line: 2 }, chart, laid)).toBe(false);
    setLaid(laid, 3, true);
    expect(isToLay(first!, chart, laid)).toBe(true);
    setLaid(laid, 2, true);
    expect(isToLay(first!, chart, laid)).toBe(false);
  });

  describe('once a placement is laid', () => {
    const bar = (x: number, y: number, length: number, orientation: 'h' | 'v' = 'h', of = 1): Placement => ({
      ...{ x, y, length, orientation, line: of, tip: 3 },
    });
    const rows = [bar(0, 0, 3), bar(0, 1, 3), bar(0, 2, 3), bar(3, 0, 3, 'h', 2)];

    it('goes on with the first of what is left, also where that is planned another way', () => {
      const { place, line } = stepBehind(rows, 0, 6);
      expect(line).toBe(1);
      // Until the plan is made anew the one laid is in it still.
      expect(stepIn(rows, place, line, 6)).toBe(1);
      // The next row's first square is now in the last of two columns.
      const columns = [bar(2, 1, 2, 'v'), bar(1, 1, 2, 'v'), bar(0, 1, 2, 'v'), rows[3]!];
      expect(stepIn(columns, place, line, 6)).toBe(0);
    });

    it('leaves behind what was passed over, until nothing else of the colour is left', () => {
      const { place, line } = stepBehind(rows, 1, 6);
      expect(stepIn([rows[0]!, rows[2]!, rows[3]!], place, line, 6)).toBe(1);
      expect(stepIn([rows[3]!, rows[0]!], place, line, 6)).toBe(1);
    });

    it('goes on with the next colour behind the last of one, and rests behind the last of all', () => {
      expect(stepBehind(rows, 2, 6)).toEqual({ place: { x: 3, y: 0 }, line: 2 });
      expect(stepBehind(rows, 3, 6)).toEqual({ place: { x: 0, y: 2 }, line: 1 });
      expect(stepBehind(rows.slice(0, 1), 0, 6)).toEqual({ place: null, line: 1 });
      expect(stepBehind([], 0, 6)).toEqual({ place: null, line: null });
    });
  });

  it('keeps the bar in hand in a plan that was made anew: each square is laid once, by no longer bars', () => {
    const bars = fc.record({
      rows: fc.array(fc.array(fc.integer({ min: 1, max: 2 }), { minLength: 8, maxLength: 8 }), {
        minLength: 6,
        maxLength: 6,
      }),
      which: fc.nat(),
      direction: fc.constantFrom('free', 'one'),
    });
    fc.assert(
      fc.property(bars, ({ rows, which, direction }) => {
        const chart = chartOfRows(...rows.map((row) => row.join('')));
        const first = planOf(chart).placements;
        const inHand = first[which % first.length]!;
        const anew = planOf(chart, { ...USUAL_PLACING, direction: direction as 'free' | 'one' }).placements;
        const tips = [1, 2, 3, 6];
        const kept = withInHand(anew, inHand, tips, chart.width);
        expect(kept.filter((each) => each === inHand)).toHaveLength(1);
        expect(timesLaid(chart, kept)).toEqual(new Array(chart.cells.length).fill(1));
        const longest = Math.max(...anew.map(({ length }) => length), inHand.length);
        for (const { line, length, tip, ...place } of kept) {
          expect(chart.cells[place.y * chart.width + place.x]).toBe(line);
          expect(length).toBeLessThanOrEqual(longest);
          expect(tip).toBeGreaterThanOrEqual(length);
        }
      }),
      { numRuns: 60 },
    );
    // A bar across in the middle of one along leaves a piece on each side; the single has a tip of its own.
    const [along, across] = [
      { x: 0, y: 1, length: 5, orientation: 'h', line: 1, tip: 6 },
      { x: 1, y: 0, length: 2, orientation: 'v', line: 1, tip: 2 },
    ] as const;
    const single = { x: 1, y: 0, length: 1, orientation: 'h', line: 1, tip: 1 } as const;
    expect(withInHand([along, single], across, [1, 2, 3, 6], 6)).toEqual([
      across,
      { ...along, length: 1, tip: 1 },
      { ...along, x: 2, length: 3, tip: 3 },
    ]);
  });
});
