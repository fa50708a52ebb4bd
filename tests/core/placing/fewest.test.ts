import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countDrills, makeChart } from '../../../src/core/cells/chart';
import { roundsFor } from '../../../src/core/placing/plan';
import { regionsOf } from '../../../src/core/placing/regions';
import { onePerPlacement } from '../../../src/core/placing/search/barCosts';
import { PlacementSearch, searchRegions } from '../../../src/core/placing/search/fewest';
import { chartOfRows } from '../samples';
import { fewestByHighs, grownRegion, likePairs, maximumMatching } from './outside';

/** As many as a small section gets. */
const ROUNDS = roundsFor(400);

function searched(chart: Parameters<typeof regionsOf>[0], widest: number, rounds = ROUNDS) {
  const bars = onePerPlacement(widest);
  const search = new PlacementSearch(regionsOf(chart, null), () => bars, 1);
  search.run(rounds);
  return { cost: Math.round(search.cost), bound: Math.round(search.bound), search };
}

describe('the fewest placements', () => {
  it('are as known where they can be counted by hand', () => {
    const fewest = (rows: string[], widest: number) => searched(chartOfRows(...rows), widest);
    expect(fewest(['111', '111', '111'], 3)).toMatchObject({ cost: 3, bound: 3 });
    // Nine squares, two at a time: four and one.
    expect(fewest(['111', '111', '111'], 2)).toMatchObject({ cost: 5, bound: 5 });
    // A cross of five with bars of three: the long way, then each arm.
    expect(fewest(['.1.', '111', '.1.'], 3)).toMatchObject({ cost: 3, bound: 3 });
    // A frame takes its four sides.
    expect(fewest(['1111', '1..1', '1..1', '1111'], 4)).toMatchObject({ cost: 4, bound: 4 });
    // Rows alone and columns alone take four.
    expect(fewest(['1111', '1...', '1...', '1...'], 4)).toMatchObject({ cost: 2, bound: 2 });
    expect(fewest(['1'], 15)).toMatchObject({ cost: 1, bound: 1 });
  });

  it('agree with mixed-integer programming on 160 regions, the bound never above', async () => {
    let proven = 0;
    let all = 0;
    let over = 0;
    for (let seed = 1; seed <= 160; seed++) {
      const widest = [2, 3, 4, 5, 7, 10][seed % 6]!;
      const chart = grownRegion(seed, 8 + (seed % 37));
      const { cost, bound } = searched(chart, widest);
      const optimum = await fewestByHighs(chart, widest);
      expect(bound, `bound, seed ${seed}`).toBeLessThanOrEqual(optimum);
      expect(cost, `cost, seed ${seed}`).toBeGreaterThanOrEqual(optimum);
      all += optimum;
      over += cost - optimum;
      if (cost === bound) proven++;
    }
    // Regions of this size are nearly always solved, and seldom left without proof.
    expect(over / all).toBeLessThan(0.001);
    expect(proven).toBeGreaterThan(150);
  }, 120_000);

  it('are all squares less a maximum matching where a bar takes two (domino cover)', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const chart = grownRegion(seed, 60, 20);
      const { across, down } = likePairs(chart);
      const dark = (cell: number) => ((cell % 20) + Math.floor(cell / 20)) % 2 === 0;
      const next: number[][] = Array.from({ length: 400 }, () => []);
      for (const [a, b] of [...across, ...down]) next[dark(a) ? a : b]!.push(dark(a) ? b : a);
      const optimum = countDrills(chart) - maximumMatching(next);
      const { cost, bound } = searched(chart, 2);
      expect(bound).toBeLessThanOrEqual(optimum);
      expect(cost).toBe(optimum);
    }
  });

  it('with bars without end are as König’s theorem has them: joined pairs that do not cross', () => {
    // A pair across and a pair down that share a square cannot both be joined; of the rest as many as can be.
    for (let seed = 1; seed <= 60; seed++) {
      const chart = grownRegion(seed, 70, 20);
      const { across, down } = likePairs(chart);
      const next = across.map((pair) =>
        down.flatMap((other, i) => (other.some((cell) => pair.includes(cell)) ? [i] : [])),
      );
      const joined = across.length + down.length - maximumMatching(next);
      const optimum = countDrills(chart) - joined;
      const { cost, bound } = searched(chart, 50);
      expect(bound).toBeLessThanOrEqual(optimum);
      expect(cost).toBe(optimum);
    }
  });

  it('never get more with more rounds, nor the bound lower, and are the same when asked again', () => {
    const cells = fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 120, maxLength: 120 });
    fc.assert(
      fc.property(cells, fc.integer({ min: 1, max: 9 }), (lines, widest) => {
        const chart = makeChart(12, 10, Uint16Array.from(lines));
        let before = searched(chart, widest, -1);
        for (const rounds of [0, 1, 2]) {
          const now = searched(chart, widest, rounds);
          expect(now.cost).toBeLessThanOrEqual(before.cost);
          expect(now.bound).toBeGreaterThanOrEqual(before.bound);
          expect(now.bound).toBeLessThanOrEqual(now.cost);
          before = now;
        }
        expect(searched(chart, widest, 2).search.search.labels).toEqual(before.search.search.labels);
      }),
      { numRuns: 60 },
    );
  });

  it('can be stopped at any moment with a whole plan, and gone on with', () => {
    const chart = grownRegion(5, 300, 30);
    const bars = onePerPlacement(4);
    const search = new PlacementSearch(regionsOf(chart, null), () => bars, 1);
    const first = search.cost;
    expect(search.run(ROUNDS, () => true)).toBe(true);
    expect(search.cost).toBeLessThanOrEqual(first);
    search.run(ROUNDS);
    const whole = searched(chart, 4);
    expect(search.cost).toBeLessThan(first);
    expect(search.bound).toBe(whole.bound);
  });

  it('cost by weight what the labels say, and no less than the bound', () => {
    // Singles cheap, bars dear: nothing is gained by bars.
    const dear = Float64Array.from([0, 1, 5, 5]);
    const chart = chartOfRows('111', '111');
    const search = searchRegions(regionsOf(chart, null), () => dear, 1, { rounds: 3 });
    expect(search.costs[0]).toBe(6);
    expect(search.bounds[0]).toBe(6);
  });
});

describe('regions', () => {
  it('are of one colour, hang together and end at borders', () => {
    const chart = chartOfRows('1122', '1.22', '3312');
    const { lines, starts, cells } = regionsOf(chart, null);
    expect([...lines]).toEqual([1, 2, 3, 1]);
    expect([...starts]).toEqual([0, 3, 8, 10, 11]);
    expect([...cells.subarray(0, 3)]).toEqual([0, 1, 4]);
    const borders = Int32Array.from(
      [0, 0, 1, 1, 0, 0, 1, 1, 0, 0, 1, 1].map((owner, i) => (i === 2 ? 5 : owner)),
    );
    expect([...regionsOf(chart, borders).lines]).toEqual([1, 2, 2, 3, 1]);
  });

  it('of a million squares of one colour are planned at once and proven', () => {
    const chart = makeChart(1000, 1000, new Uint16Array(1_000_000).fill(1));
    expect(searched(chart, 10)).toMatchObject({ cost: 100_000, bound: 100_000 });
  });
});
