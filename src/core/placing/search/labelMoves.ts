import type { Regions } from '../regions';
import type { BarCosts } from './barCosts';
import { BarTable } from './barTable';
import { ALONG, DOWN } from './chains';
import { KernelSteps } from './kernelSteps';
import { PlainSteps } from './plainSteps';
import type { RegionSteps } from './regionSteps';

const LARGE_CELLS = 2000;
/** Bands are piled up again while they save this share. */
const PILED_ENOUGH = 0.0005;

/**
 * Labels for the cells of one region at a time: along or down. Given the labels the plan is forced, each maximal run costs
 * what `runCosts` says. Rows are chains and columns are chains, tied only by the labels: with all columns fixed, the best
 * labels of a whole row follow by dynamic programming, and so for columns (see {@link RegionSteps}).
 */
export class LabelMoves {
  /** Best labels found, by place. */
  readonly labels: Uint8Array;
  /** What they cost, by region. */
  readonly costs: Float64Array;
  /** No labels cost less, by region. */
  readonly bounds: Float64Array;
  /** What each region costs with rows only, and with columns only. */
  readonly alongCosts: Float64Array;
  readonly downCosts: Float64Array;
  /** Longest run of each region: wider bars are never full there. */
  protected readonly widths: Int32Array;
  protected readonly steps: RegionSteps;
  private readonly tables = new Map<BarCosts, Map<number, BarTable>>();

  /**
   * @param bars costs by the line of a region, see {@link BarCosts}
   * @param unit all costs are multiples of it, so that a bound may be rounded up to one
   */
  constructor(
    readonly regions: Regions,
    protected readonly bars: (line: number) => BarCosts,
    protected readonly unit: number,
    /** Asked between steps; once true, the search ends where it is. */
    protected readonly isOver: () => boolean = () => false,
  ) {
    const { cells, lines } = regions;
    this.labels = new Uint8Array(cells.length);
    this.costs = new Float64Array(lines.length);
    this.bounds = new Float64Array(lines.length);
    this.alongCosts = new Float64Array(lines.length);
    this.downCosts = new Float64Array(lines.length);
    this.widths = new Int32Array(lines.length);
    this.steps = KernelSteps.of(regions) ?? new PlainSteps(regions);
  }

  /** Whether most of a region lies far from its rim. */
  isLarge(region: number): boolean {
    const { starts } = this.regions;
    return starts[region + 1]! - starts[region]! > LARGE_CELLS;
  }

  isClosed(region: number): boolean {
    return this.costs[region]! <= this.bounds[region]! + this.unit / 2;
  }

  /** The first plan: all along or all down, whichever is cheaper; a straight region is done with that. */
  start(region: number): void {
    const { regions, labels } = this;
    const from = regions.starts[region]!;
    const to = regions.starts[region + 1]!;
    const { wide, tall, ends, feet } = this.measured(region);
    const straight = wide === to - from || tall === to - from;
    this.widths[region] = Math.max(wide, tall);
    const { runCost } = this.tableOf(region);
    const sum = (lengths: readonly number[]) => lengths.reduce((cost, length) => cost + runCost[length]!, 0);
    const [along, down] = [sum(ends), sum(feet)];
    labels.fill(DOWN, from, to);
    if (along <= down) labels.fill(ALONG, from, to);
    this.alongCosts[region] = along;
    this.downCosts[region] = down;
    this.costs[region] = Math.min(along, down);
    this.bounds[region] = straight ? this.costs[region]! : this.plainBound(region, to - from);
  }

  /** Longest run along and longest one down, and the lengths of all runs along and of all runs down. */
  private measured(region: number) {
    const { starts, left, up, down } = this.regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    const tallness = new Int32Array(to - from);
    const [ends, feet]: [number[], number[]] = [[], []];
    let run = 0;
    for (let place = from; place < to; place++) {
      run = left[place] === 1 ? run + 1 : 1;
      if (place + 1 === to || left[place + 1] !== 1) ends.push(run);
      const above = up[place]!;
      const height = above === -1 ? 1 : tallness[above - from]! + 1;
      tallness[place - from] = height;
      if (down[place] === -1) feet.push(height);
    }
    const longest = (lengths: readonly number[]) =>
      lengths.reduce((most, length) => Math.max(most, length), 1);
    return { wide: longest(ends), tall: longest(feet), ends, feet };
  }

  /** Takes what was found for the same region before. */
  recall(region: number, { labels, cost, bound }: { labels: Uint8Array; cost: number; bound: number }): void {
    this.labels.set(labels, this.regions.starts[region]!);
    this.costs[region] = cost;
    this.bounds[region] = bound;
  }

  /** Whatever the labels, no bar lays more than the widest, nor cheaper a drill than the cheapest. */
  private plainBound(region: number, drills: number): number {
    return this.roundedUp(this.cheapestDrill(region) * drills);
  }

  /** What a drill costs in the bar that lays them cheapest. */
  protected cheapestDrill(region: number): number {
    const { bars } = this.tableOf(region);
    let each = Infinity;
    for (let size = 1; size < bars.length; size++) each = Math.min(each, bars[size]! / size);
    return each;
  }

  protected roundedUp(bound: number): number {
    return Math.ceil(bound / this.unit - 1e-6) * this.unit;
  }

  /** What bars and runs cost in a region. */
  protected tableOf(region: number): BarTable {
    const bars = this.bars(this.regions.lines[region]!);
    const longest = this.widths[region]!;
    let byLength = this.tables.get(bars);
    if (!byLength) {
      byLength = new Map();
      this.tables.set(bars, byLength);
    }
    let table = byLength.get(longest);
    if (!table) {
      table = new BarTable(bars.subarray(0, longest + 1), longest);
      byLength.set(longest, table);
    }
    return table;
  }

  /** Takes the labels that are being tried where they are cheaper. @returns their cost */
  private take(region: number): number {
    const cost = this.steps.cost();
    if (cost < this.costs[region]! - this.unit / 4) {
      this.costs[region] = cost;
      this.labels.set(this.steps.tried(), this.regions.starts[region]!);
    }
    return cost;
  }

  /** Begins with a region, and with the best labels that it has. */
  private again(region: number): BarTable {
    const { starts } = this.regions;
    const table = this.tableOf(region);
    this.steps.begin(region, table);
    this.steps.tryOut(this.labels.subarray(starts[region]!, starts[region + 1]!));
    return table;
  }

  /** Moves without noise until nothing is gained, from the labels that are being tried. */
  protected settle(region: number): void {
    let cost = Infinity;
    for (let round = 0; round < 20 && !this.isOver(); round++) {
      this.steps.moveRows(0);
      this.steps.moveColumns(0);
      const now = this.take(region);
      if (now >= cost - this.unit / 4) return;
      cost = now;
    }
  }

  /** Moves from the simple start until nothing is gained. */
  descend(region: number): void {
    this.again(region);
    this.settle(region);
  }

  /** Moves of bands of every height from the best labels, until little is gained. @param times at most */
  pile(region: number, times: number): void {
    const table = this.again(region);
    for (let time = 0; time < times && !this.isOver(); time++) {
      const before = this.costs[region]!;
      for (let height = table.bars.length - 1; height > 1; height--) this.steps.moveBands(height, 0);
      this.settle(region);
      if (before - this.costs[region]! < before * PILED_ENOUGH) return;
    }
  }

  /**
   * Moves with noise that fades, from the best labels.
   * @param rounds of rows and columns
   */
  anneal(region: number, rounds: number, hot: number, cold: number): void {
    const table = this.again(region);
    const { steps } = this;
    const large = this.isLarge(region);
    const heights = table.bars.length - 2;
    steps.restartNoise();
    for (let round = 0; round < rounds && !this.isOver(); round++) {
      const heat = hot * (cold / hot) ** (rounds === 1 ? 1 : round / (rounds - 1));
      // Bands take most of the time, and every second round gains as much by them.
      if (large && heights > 0 && round % 2 === 1)
        steps.moveBands(table.bars.length - 1 - ((round >> 1) % heights), heat);
      steps.moveRows(heat);
      steps.moveColumns(heat);
      if (round > rounds / 2) this.take(region);
    }
    this.settle(region);
  }
}
