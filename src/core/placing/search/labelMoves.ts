import type { Regions } from '../regions';
import { BandMoves } from './bandMoves';
import type { BarCosts } from './barCosts';
import { BarTable } from './barTable';
import { ChainSplit } from './chainSplit';
import { ALONG, type ChainWay, chainWays, DOWN } from './chains';

const LARGE_CELLS = 2000;
/** Bands are piled up again while they save this share. */
const PILED_ENOUGH = 0.0005;

/** The logistic distribution at evenly spaced chances. */
const LOGISTIC = Float64Array.from({ length: 4096 }, (_, i) => {
  const chance = (i + 0.5) / 4096;
  return Math.log(chance / (1 - chance));
});

/**
 * Labels for the cells of one region at a time: along or down. Given the labels the plan is forced, each maximal run costs
 * what `runCosts` says. Rows are chains and columns are chains, tied only by the labels: with all columns fixed, the best
 * labels of a whole row follow by dynamic programming (`moveRows`), and so for columns.
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
  protected readonly trial: Uint8Array;
  /** Longest run of each region: wider bars are never full there. */
  protected readonly widths: Int32Array;
  /** Lengths of the runs beside a cell, towards the lower and towards the higher places. */
  protected readonly before: Int32Array;
  protected readonly after: Int32Array;
  protected readonly chain: ChainSplit;
  private readonly tables = new Map<BarCosts, Map<number, BarTable>>();
  private drawn = 1;
  /** Only large regions need them. */
  private banding: { bands: BandMoves; ways: readonly ChainWay[] } | null = null;

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
    const { cells, starts, lines } = regions;
    this.labels = new Uint8Array(cells.length);
    this.trial = new Uint8Array(cells.length);
    this.costs = new Float64Array(lines.length);
    this.bounds = new Float64Array(lines.length);
    this.alongCosts = new Float64Array(lines.length);
    this.downCosts = new Float64Array(lines.length);
    this.widths = new Int32Array(lines.length);
    let most = 0;
    for (let region = 0; region < lines.length; region++) {
      most = Math.max(most, starts[region + 1]! - starts[region]!);
    }
    this.chain = new ChainSplit(most);
    this.before = new Int32Array(cells.length);
    this.after = new Int32Array(cells.length);
  }

  /** Rows and columns of a number that change together, see {@link BandMoves}. */
  private moveBands(region: number, height: number, { bars, runCost }: BarTable, heat: number): void {
    const { starts } = this.regions;
    const part = [starts[region]!, starts[region + 1]!] as const;
    const noise = heat > 0 ? () => this.noise() * heat : () => 0;
    this.banding ??= {
      bands: new BandMoves(this.before, this.after),
      ways: chainWays(this.regions),
    };
    const { bands, ways } = this.banding;
    for (const way of ways) bands.move(this.trial, way, part, height, bars, runCost, noise);
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
    let [tall, wide] = [1, 1];
    for (let place = from; place < to; place++) {
      const beside = regions.left[place]! === 1;
      const above = regions.up[place]!;
      this.before[place] = beside ? this.before[place - 1]! + 1 : 1;
      this.after[place] = above === -1 ? 1 : this.after[above]! + 1;
      wide = Math.max(wide, this.before[place]!);
      tall = Math.max(tall, this.after[place]!);
    }
    const straight = wide === to - from || tall === to - from;
    this.widths[region] = Math.max(wide, tall);
    const { runCost } = this.tableOf(region);
    const along = this.costOf(region, labels.fill(ALONG, from, to), runCost);
    const down = this.costOf(region, labels.fill(DOWN, from, to), runCost);
    if (along <= down) labels.fill(ALONG, from, to);
    this.alongCosts[region] = along;
    this.downCosts[region] = down;
    this.costs[region] = Math.min(along, down);
    this.bounds[region] = straight ? this.costs[region]! : this.plainBound(region, to - from);
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

  private costOf(region: number, labels: Uint8Array, runCost: Float64Array): number {
    const { up, down, left, starts } = this.regions;
    const { before } = this;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    let cost = 0;
    let run = 0;
    for (let place = from; place < to; place++) {
      if (labels[place] === ALONG) {
        if (left[place] === 1 && run > 0) run++;
        else {
          cost += runCost[run]!;
          run = 1;
        }
      } else {
        cost += runCost[run]!;
        run = 0;
        const above = up[place]!;
        const length = above !== -1 && labels[above] === DOWN ? before[above]! + 1 : 1;
        before[place] = length;
        const below = down[place]!;
        if (below === -1 || labels[below] === ALONG) cost += runCost[length]!;
      }
    }
    return cost + runCost[run]!;
  }

  /** Takes the labels that are being tried where they are cheaper. @returns their cost */
  private take(region: number, runCost: Float64Array): number {
    const cost = this.costOf(region, this.trial, runCost);
    if (cost < this.costs[region]! - this.unit / 4) {
      this.costs[region] = cost;
      const from = this.regions.starts[region]!;
      const to = this.regions.starts[region + 1]!;
      this.labels.set(this.trial.subarray(from, to), from);
    }
    return cost;
  }

  /** Each row in turn gets the best labels that the columns above and below leave it. @param heat of the noise; 0 for none */
  private moveRows(region: number, table: BarTable, heat: number): void {
    const { regions, trial, before, after, chain } = this;
    const { price, taken } = chain;
    const { runParts } = table;
    const hot = heat * table.scale;
    const { up, down, left, starts } = regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    for (let place = to - 1; place >= from; place--) {
      if (trial[place] === ALONG) after[place] = 0;
      else {
        const below = down[place]!;
        after[place] = below === -1 ? 1 : after[below]! + 1;
      }
    }
    for (let start = from; start < to; ) {
      let end = start;
      do {
        const above = up[end]!;
        const below = down[end]!;
        const a = above === -1 ? 0 : before[above]!;
        const b = below === -1 ? 0 : after[below]!;
        let cost = runParts[a + b + 1]! - runParts[a]! - runParts[b]!;
        if (hot > 0) cost += this.noise() * hot;
        price[end - start] = cost;
        end++;
      } while (end < to && left[end] === 1);
      const length = end - start;
      chain.solve(length, table);
      chain.choose(length);
      for (let i = 0; i < length; i++) {
        const place = start + i;
        const above = up[place]!;
        trial[place] = taken[i] === 1 ? ALONG : DOWN;
        before[place] = taken[i] === 1 ? 0 : above === -1 ? 1 : before[above]! + 1;
      }
      start = end;
    }
  }

  /** As `moveRows`, for columns. */
  private moveColumns(region: number, table: BarTable, heat: number): void {
    const { regions, trial, before, after, chain } = this;
    const { price, taken } = chain;
    const { runParts } = table;
    const hot = heat * table.scale;
    const { down, left, starts, byColumn } = regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    for (let place = to - 1; place >= from; place--) {
      if (trial[place] === DOWN) after[place] = 0;
      else after[place] = place + 1 < to && left[place + 1] === 1 ? after[place + 1]! + 1 : 1;
    }
    for (let start = from; start < to; ) {
      let end = start;
      do {
        const place = byColumn[end]!;
        const a = left[place] === 1 ? before[place - 1]! : 0;
        const b = place + 1 < to && left[place + 1] === 1 ? after[place + 1]! : 0;
        let cost = runParts[a + b + 1]! - runParts[a]! - runParts[b]!;
        if (hot > 0) cost += this.noise() * hot;
        price[end - start] = cost;
        end++;
        if (down[place] === -1) break;
      } while (end < to);
      const length = end - start;
      chain.solve(length, table);
      chain.choose(length);
      for (let i = 0; i < length; i++) {
        const place = byColumn[start + i]!;
        trial[place] = taken[i] === 1 ? DOWN : ALONG;
        before[place] = taken[i] === 1 ? 0 : left[place] === 1 ? before[place - 1]! + 1 : 1;
      }
      start = end;
    }
  }

  /** Standard logistic, drawn from a table: xorshift (Marsaglia 2003) chooses the entry. */
  private noise(): number {
    let state = this.drawn;
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    this.drawn = state;
    return LOGISTIC[state & (LOGISTIC.length - 1)]!;
  }

  /** Moves without noise until nothing is gained, from the labels that are being tried. */
  protected settle(region: number, table: BarTable): void {
    let cost = Infinity;
    for (let round = 0; round < 20 && !this.isOver(); round++) {
      this.moveRows(region, table, 0);
      this.moveColumns(region, table, 0);
      const now = this.take(region, table.runCost);
      if (now >= cost - this.unit / 4) return;
      cost = now;
    }
  }

  /** Moves from the simple start until nothing is gained. */
  descend(region: number): void {
    const { starts } = this.regions;
    this.trial.set(this.labels.subarray(starts[region]!, starts[region + 1]!), starts[region]!);
    this.settle(region, this.tableOf(region));
  }

  /** Moves of bands of every height from the best labels, until little is gained. @param times at most */
  pile(region: number, times: number): void {
    const { starts } = this.regions;
    const table = this.tableOf(region);
    this.trial.set(this.labels.subarray(starts[region]!, starts[region + 1]!), starts[region]!);
    for (let time = 0; time < times && !this.isOver(); time++) {
      const before = this.costs[region]!;
      for (let height = table.bars.length - 1; height > 1; height--) this.moveBands(region, height, table, 0);
      this.settle(region, table);
      if (before - this.costs[region]! < before * PILED_ENOUGH) return;
    }
  }

  /**
   * Moves with noise that fades, from the best labels.
   * @param rounds of rows and columns
   */
  anneal(region: number, rounds: number, hot: number, cold: number): void {
    const { starts } = this.regions;
    const table = this.tableOf(region);
    this.trial.set(this.labels.subarray(starts[region]!, starts[region + 1]!), starts[region]!);
    const large = this.isLarge(region);
    const heights = table.bars.length - 2;
    // The noise follows from the region alone, so that the same region always gets the same plan.
    this.drawn = 0x9e3779b9 | 0;
    for (let round = 0; round < rounds && !this.isOver(); round++) {
      const heat = hot * (cold / hot) ** (rounds === 1 ? 1 : round / (rounds - 1));
      if (large && heights > 0)
        this.moveBands(region, table.bars.length - 1 - (round % heights), table, heat);
      this.moveRows(region, table, heat);
      this.moveColumns(region, table, heat);
      if (round > rounds / 2) this.take(region, table.runCost);
    }
    this.settle(region, table);
  }
}
