import type { Regions } from '../regions';
import type { BarCosts } from './barCosts';
import { RegionSearch } from './regionSearch';

/**
 * What is done in each round with the regions that are still open. Tried on charts of many kinds: messages first, prices
 * raised, messages again for the labels that those prices give, then noise; from round to round twice as much of each.
 */
const ROUNDS = [
  { sweeps: 2, steps: 60, settled: 3, noise: 0 },
  { sweeps: 0, steps: 200, settled: 6, noise: 30 },
  { sweeps: 0, steps: 400, settled: 20, noise: 60 },
];
/** Length of the first step up, and heat of the noise, in prices of a single placement. */
const STRIDE = 0.2;
const HEAT = { hot: 0.2, cold: 0.03 };

/** How far to search. */
export interface SearchLimits {
  /** Rounds for the regions that stay open; 0 for rows or columns settled by exact moves, without a bound worth the name. */
  rounds: number;
  /** Asked between steps, see {@link RegionSearch}. */
  isOver?: () => boolean;
  /** Told the sum of all costs and bounds now and then: after the start and whenever a region is done with. */
  onBetter?: (cost: number, bound: number) => void;
}

/**
 * Searches the cheapest labels of all regions.
 * @param bars costs by line
 * @param unit all costs are multiples of it
 * @returns the search as it stands at its end: labels, costs and bounds
 */
export function searchRegions(
  regions: Regions,
  bars: (line: number) => BarCosts,
  unit: number,
  { rounds, isOver = () => false, onBetter }: SearchLimits,
): RegionSearch {
  const search = new RegionSearch(regions, bars, unit, isOver);
  const count = regions.lines.length;
  let cost = 0;
  let bound = 0;
  for (let region = 0; region < count; region++) {
    search.start(region);
    cost += search.costs[region]!;
    bound += search.bounds[region]!;
  }
  onBetter?.(cost, bound);
  const open: number[] = [];
  for (let region = 0; region < count; region++) if (!search.isClosed(region)) open.push(region);
  const work = (region: number, doIt: () => void) => {
    cost -= search.costs[region]!;
    bound -= search.bounds[region]!;
    doIt();
    cost += search.costs[region]!;
    bound += search.bounds[region]!;
    onBetter?.(cost, bound);
  };
  for (const region of open) {
    if (isOver()) return search;
    work(region, () => search.descend(region));
  }
  for (let round = 0; round < rounds; round++) {
    const last = ROUNDS.length - 1;
    const more = 2 ** Math.max(0, round - last);
    const { sweeps, steps, settled, noise } = ROUNDS[Math.min(round, last)]!;
    let left = 0;
    for (const region of open) {
      if (isOver()) return search;
      if (search.isClosed(region)) continue;
      left++;
      const single = bars(regions.lines[region]!)[1]!;
      work(region, () => {
        if (noise > 0) search.anneal(region, noise * more, HEAT.hot * single, HEAT.cold * single);
        if (sweeps > 0) search.pass(region, sweeps);
        if (!search.isClosed(region)) search.raise(region, steps * more, STRIDE * single);
        if (!search.isClosed(region)) search.pass(region, settled);
      });
    }
    if (left === 0) break;
  }
  return search;
}
