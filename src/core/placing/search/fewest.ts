import type { Regions } from '../regions';
import type { BarCosts } from './barCosts';
import { RegionSearch } from './regionSearch';

/**
 * What is done in each round with the regions that are still open: noise from the best labels, prices raised, and messages
 * for the labels that those prices give; in rounds after the last one here twice as much of it each time. Tried on charts of
 * many kinds: bounds come to their end after about a thousand steps, plans gain by noise for as long as there is time.
 */
const ROUNDS = [
  { sweeps: 1, steps: 60, after: 2, noise: 0 },
  { sweeps: 0, steps: 300, after: 4, noise: 4 },
  { sweeps: 0, steps: 600, after: 8, noise: 8 },
  { sweeps: 0, steps: 0, after: 4, noise: 64 },
  { sweeps: 0, steps: 0, after: 4, noise: 96 },
  { sweeps: 0, steps: 100, after: 4, noise: 128 },
];
/** In large regions messages neither raise the bound further nor find better labels than bands. */
const LARGE_ROUNDS = [
  { sweeps: 0, steps: 60, after: 1, noise: 0 },
  { sweeps: 0, steps: 300, after: 1, noise: 24 },
  { sweeps: 0, steps: 600, after: 1, noise: 48 },
  { sweeps: 0, steps: 300, after: 1, noise: 96 },
  { sweeps: 0, steps: 100, after: 1, noise: 192 },
];
/** Length of the first step up, for small regions and for large ones, in prices of a single placement. */
const STRIDE = { small: 0.2, large: 0.1 };
/** Heat of the noise at first and at last, in the same. */
const HEAT = { small: { hot: 0.1, cold: 0.03 }, large: { hot: 0.12, cold: 0.02 } };

/** A region that was searched before. */
export interface Known {
  labels: Uint8Array;
  cost: number;
  bound: number;
}

/** How far to search. */
export interface SearchLimits {
  /** Rounds for the regions that stay open; 0 for rows or columns settled by exact moves, without a bound worth the name. */
  rounds: number;
  /** Asked between steps; once true, the search ends where it is. */
  isOver?: () => boolean;
  /** What is known of a region from before, which is then not searched again. */
  known?: ((region: number) => Known | undefined) | undefined;
}

/**
 * The search for the cheapest bars of all regions, which can be stopped and gone on with at any time: the best labels so
 * far and what is proven of them stand in `regions`.
 */
export class PlacementSearch {
  readonly search: RegionSearch;
  /** What the best plan so far costs, and what no plan costs less than. */
  cost = 0;
  bound = 0;
  private open: number[] = [];
  /** Place in `open` of the region that is next, and the round; −1 is the settling before the first. */
  private next = 0;
  private round = -1;
  private over: () => boolean = () => false;

  /**
   * Begins with rows or columns for each region, whichever is cheaper.
   * @param bars costs by line
   * @param unit all costs are multiples of it
   */
  constructor(
    regions: Regions,
    private readonly bars: (line: number) => BarCosts,
    unit: number,
    known?: SearchLimits['known'],
  ) {
    this.search = new RegionSearch(regions, bars, unit, () => this.over());
    const { search } = this;
    for (let region = 0; region < regions.lines.length; region++) {
      search.start(region);
      const before = known?.(region);
      if (before) search.recall(region, before);
      else if (!search.isClosed(region)) this.open.push(region);
      this.cost += search.costs[region]!;
      this.bound += search.bounds[region]!;
    }
    // The small ones first: they are soon proven, and when time runs short most of the canvas is.
    const { starts } = regions;
    const size = (region: number) => starts[region + 1]! - starts[region]!;
    this.open.sort((a, b) => size(a) - size(b) || a - b);
  }

  /**
   * Goes on with the search.
   * @param rounds to reach, counted from the beginning
   * @param isOver asked between steps within a region, whose work then stays as it is
   * @param isEnough asked between regions
   * @returns whether anything is left to do in those rounds
   */
  run(rounds: number, isOver: () => boolean = () => false, isEnough: () => boolean = isOver): boolean {
    this.over = isOver;
    while (this.round < rounds && this.open.length > 0) {
      for (; this.next < this.open.length; this.next++) {
        if (isEnough()) return true;
        this.work(this.open[this.next]!);
      }
      this.next = 0;
      this.round++;
      this.open = this.open.filter((region) => !this.search.isClosed(region));
    }
    return false;
  }

  private work(region: number): void {
    const { search } = this;
    if (search.isClosed(region)) return;
    this.cost -= search.costs[region]!;
    this.bound -= search.bounds[region]!;
    if (this.round === -1) search.descend(region);
    else {
      const size = search.isLarge(region) ? 'large' : 'small';
      const rounds = size === 'large' ? LARGE_ROUNDS : ROUNDS;
      const last = rounds.length - 1;
      const more = 2 ** Math.max(0, this.round - last);
      const { sweeps, steps, after, noise } = rounds[Math.min(this.round, last)]!;
      const single = this.bars(search.regions.lines[region]!)[1]!;
      const { hot, cold } = HEAT[size];
      if (noise > 0) search.anneal(region, noise * more, hot * single, cold * single);
      if (this.round === 0 && size === 'large') search.pile(region, 6);
      if (sweeps > 0 && !search.isClosed(region)) search.pass(region, sweeps);
      if (steps > 0 && !search.isClosed(region)) search.raise(region, steps * more, STRIDE[size] * single);
      if (!search.isClosed(region)) search.pass(region, after);
    }
    this.cost += search.costs[region]!;
    this.bound += search.bounds[region]!;
  }
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
  { rounds, isOver, known }: SearchLimits,
): RegionSearch {
  const search = new PlacementSearch(regions, bars, unit, known);
  search.run(rounds, isOver);
  return search.search;
}
