import type { Regions } from '../regions';
import { type BarCosts, runCosts } from './barCosts';

/** A cell is laid by a bar along its row, or by one down its column. */
export const ALONG = 0;
export const DOWN = 1;

/** The logistic distribution at evenly spaced chances. */
const LOGISTIC = Float64Array.from({ length: 4096 }, (_, i) => {
  const chance = (i + 0.5) / 4096;
  return Math.log(chance / (1 - chance));
});

/**
 * The search for the cheapest bars of one region at a time. Each cell has a label, along or down; given the labels, each
 * maximal run costs what `runCosts` says. Rows are chains and columns are chains, tied only by the labels:
 *
 * - with all columns fixed, the best labels of a whole row follow by dynamic programming, and so for columns (`moveRows`, `moveColumns`);
 * - where rows pay a price λ for each cell along and columns for each cell down, less Σλ, rows and columns can be
 *   minimised each by itself, and the sum is a lower bound for every λ (Lagrange, cost splitting: Guignard and Kim 1987);
 * - messages along the chains bring both to agree on λ (sequential tree-reweighted message passing, Kolmogorov 2006), and
 *   give labels on the way; subgradient steps (Polyak 1969) raise the bound further.
 */
export class RegionSearch {
  /** Best labels found, by place. */
  readonly labels: Uint8Array;
  /** What they cost, by region. */
  readonly costs: Float64Array;
  /** No labels cost less, by region. */
  readonly bounds: Float64Array;
  /** What each region costs with rows only, and with columns only. */
  readonly alongCosts: Float64Array;
  readonly downCosts: Float64Array;
  private readonly trial: Uint8Array;
  private readonly lambda: Float32Array;
  /** Longest run of each region: wider bars are never full there. */
  private readonly widths: Int32Array;
  /** Lengths of the runs beside a cell, towards the lower and towards the higher places. */
  private readonly before: Int32Array;
  private readonly after: Int32Array;
  private readonly best: Float64Array;
  private readonly ends: Float64Array;
  private readonly spare: Float64Array;
  private readonly price: Float64Array;
  private drawn = 1;
  private rowMessages = new Float32Array(0);
  private columnMessages = new Float32Array(0);

  /**
   * @param bars costs by the line of a region, see {@link BarCosts}
   * @param unit all costs are multiples of it, so that a bound may be rounded up to one
   */
  constructor(
    readonly regions: Regions,
    private readonly bars: (line: number) => BarCosts,
    private readonly unit: number,
    /** Asked between steps; once true, the search ends where it is. */
    private readonly isOver: () => boolean = () => false,
  ) {
    const { cells, starts, lines } = regions;
    this.labels = new Uint8Array(cells.length);
    this.trial = new Uint8Array(cells.length);
    this.lambda = new Float32Array(cells.length);
    this.costs = new Float64Array(lines.length);
    this.bounds = new Float64Array(lines.length);
    this.alongCosts = new Float64Array(lines.length);
    this.downCosts = new Float64Array(lines.length);
    this.widths = new Int32Array(lines.length);
    let most = 0;
    for (let region = 0; region < lines.length; region++) {
      most = Math.max(most, starts[region + 1]! - starts[region]!);
    }
    this.before = new Int32Array(cells.length);
    this.after = new Int32Array(cells.length);
    this.best = new Float64Array(most + 1);
    this.ends = new Float64Array(most + 1);
    this.spare = new Float64Array(most + 1);
    this.price = new Float64Array(most + 1);
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
    const costs = this.runCosts(region);
    const along = this.costOf(region, labels.fill(ALONG, from, to), costs);
    const down = this.costOf(region, labels.fill(DOWN, from, to), costs);
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
    const bars = this.barsOf(region);
    let each = Infinity;
    for (let size = 1; size < bars.length; size++) each = Math.min(each, bars[size]! / size);
    return this.roundedUp(each * drills);
  }

  private roundedUp(bound: number): number {
    return Math.ceil(bound / this.unit - 1e-6) * this.unit;
  }

  private barsOf(region: number): BarCosts {
    const bars = this.bars(this.regions.lines[region]!);
    const widest = Math.min(bars.length - 1, this.widths[region]!);
    return bars.length - 1 === widest ? bars : bars.subarray(0, widest + 1);
  }

  private runCosts(region: number): Float64Array {
    return runCosts(this.barsOf(region), this.widths[region]!);
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
  private moveRows(region: number, bars: BarCosts, runCost: Float64Array, heat: number): void {
    const { regions, trial, before, after, price } = this;
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
        let cost = runCost[a + b + 1]! - runCost[a]! - runCost[b]!;
        if (heat > 0) cost += this.noise() * heat;
        price[end - start] = cost;
        end++;
      } while (end < to && left[end] === 1);
      const length = end - start;
      this.cheapestLabels(length, bars);
      for (let i = length; i > 0; ) {
        const drills = this.barBefore(i, bars);
        if (drills === 0) trial[start + --i] = DOWN;
        else for (const low = i - drills; i > low; ) trial[start + --i] = ALONG;
      }
      for (let place = start; place < end; place++) {
        if (trial[place] === ALONG) before[place] = 0;
        else {
          const above = up[place]!;
          before[place] = above === -1 ? 1 : before[above]! + 1;
        }
      }
      start = end;
    }
  }

  /** As `moveRows`, for columns. */
  private moveColumns(region: number, bars: BarCosts, runCost: Float64Array, heat: number): void {
    const { regions, trial, before, after, price } = this;
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
        let cost = runCost[a + b + 1]! - runCost[a]! - runCost[b]!;
        if (heat > 0) cost += this.noise() * heat;
        price[end - start] = cost;
        end++;
        if (down[place] === -1) break;
      } while (end < to);
      const length = end - start;
      this.cheapestLabels(length, bars);
      for (let i = length; i > 0; ) {
        const drills = this.barBefore(i, bars);
        if (drills === 0) trial[byColumn[start + --i]!] = ALONG;
        else for (const low = i - drills; i > low; ) trial[byColumn[start + --i]!] = DOWN;
      }
      for (let at = start; at < end; at++) {
        const place = byColumn[at]!;
        if (trial[place] === DOWN) before[place] = 0;
        else before[place] = left[place] === 1 ? before[place - 1]! + 1 : 1;
      }
      start = end;
    }
  }

  /** The least that a chain of cells costs of which each is left to the chain across, at its price, or belongs to a bar. */
  private cheapestLabels(length: number, bars: BarCosts): void {
    const { price, best } = this;
    const widest = bars.length - 1;
    best[0] = 0;
    for (let i = 1; i <= length; i++) {
      let least = best[i - 1]! + price[i - 1]!;
      const most = i < widest ? i : widest;
      for (let drills = 1; drills <= most; drills++) least = Math.min(least, best[i - drills]! + bars[drills]!);
      best[i] = least;
    }
  }

  /** On the way back from `cheapestLabels`: the drills of the bar that ends before place i of the chain; 0 for a cell left over. */
  private barBefore(i: number, bars: BarCosts): number {
    const { price, best } = this;
    if (best[i - 1]! + price[i - 1]! === best[i]) return 0;
    let drills = 1;
    while (best[i - drills]! + bars[drills]! !== best[i]) drills++;
    return drills;
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
  private settle(region: number, bars: BarCosts, runCost: Float64Array): void {
    let cost = Infinity;
    for (let round = 0; round < 20 && !this.isOver(); round++) {
      this.moveRows(region, bars, runCost, 0);
      this.moveColumns(region, bars, runCost, 0);
      const now = this.take(region, runCost);
      if (now >= cost - this.unit / 4) return;
      cost = now;
    }
  }

  /** Moves from the simple start until nothing is gained. */
  descend(region: number): void {
    const { starts } = this.regions;
    this.trial.set(this.labels.subarray(starts[region]!, starts[region + 1]!), starts[region]!);
    this.settle(region, this.barsOf(region), this.runCosts(region));
  }

  /**
   * Moves with noise that fades, from the best labels.
   * @param rounds of rows and columns
   */
  anneal(region: number, rounds: number, hot: number, cold: number): void {
    const { starts } = this.regions;
    const bars = this.barsOf(region);
    const runCost = this.runCosts(region);
    this.trial.set(this.labels.subarray(starts[region]!, starts[region + 1]!), starts[region]!);
    // The noise follows from the region alone, so that the same region always gets the same plan.
    this.drawn = 0x9e3779b9 | 0;
    for (let round = 0; round < rounds && !this.isOver(); round++) {
      const heat = hot * (cold / hot) ** (rounds === 1 ? 1 : round / (rounds - 1));
      this.moveRows(region, bars, runCost, heat);
      this.moveColumns(region, bars, runCost, heat);
      if (round > rounds / 2) this.take(region, runCost);
    }
    this.settle(region, bars, runCost);
  }

  /**
   * Messages there and back, labels on each way there, settled at the end of each.
   * @param sweeps there and back
   */
  pass(region: number, sweeps: number): void {
    const bars = this.barsOf(region);
    const runCost = this.runCosts(region);
    const states = bars.length;
    const { starts } = this.regions;
    const size = (starts[region + 1]! - starts[region]!) * states;
    if (this.rowMessages.length < size) {
      this.rowMessages = new Float32Array(size);
      this.columnMessages = new Float32Array(size);
    }
    this.passBack(region, bars, false);
    for (let sweep = 0; sweep < sweeps && !this.isOver(); sweep++) {
      this.passOn(region, bars);
      this.settle(region, bars, runCost);
      this.passBack(region, bars, true);
      this.certify(region, bars);
      if (this.isClosed(region)) return;
    }
  }

  /** There: sets λ by what comes from before and from behind, and labels greedily. */
  private passOn(region: number, bars: BarCosts): void {
    const { regions, trial, lambda, before, rowMessages, columnMessages } = this;
    const { up, left, starts } = regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    const states = bars.length;
    const widest = states - 1;
    const first = bars[1]!;
    const [row, column] = [new Float64Array(states), new Float64Array(states)];
    for (let place = from; place < to; place++) {
      const at = (place - from) * states;
      const old = lambda[place]!;
      // Row: state 0 is down, state p the p-th drill of a bar.
      let rowOn = Infinity;
      if (left[place] === 1) {
        const was = at - states;
        let least = rowMessages[was]!;
        for (let p = 1; p < widest; p++) {
          const cost = rowMessages[was + p]!;
          if (cost < least) least = cost;
          row[p + 1] = cost + bars[p + 1]! - bars[p]!;
        }
        if (rowMessages[was + widest]! < least) least = rowMessages[was + widest]!;
        row[0] = least;
        row[1] = least + first;
      } else {
        row[0] = 0;
        row[1] = first;
        for (let p = 2; p <= widest; p++) row[p] = 1e9;
      }
      const rowOff = row[0]! + rowMessages[at]!;
      for (let p = 1; p <= widest; p++) {
        const cost = row[p]! + rowMessages[at + p]!;
        if (cost < rowOn) rowOn = cost;
      }
      // Column: state 0 is along, state p the p-th drill of a bar.
      const above = up[place]!;
      let columnOn = Infinity;
      if (above !== -1) {
        const was = (above - from) * states;
        let least = columnMessages[was]!;
        for (let p = 1; p < widest; p++) {
          const cost = columnMessages[was + p]!;
          if (cost < least) least = cost;
          column[p + 1] = cost + bars[p + 1]! - bars[p]!;
        }
        if (columnMessages[was + widest]! < least) least = columnMessages[was + widest]!;
        column[0] = least;
        column[1] = least + first;
      } else {
        column[0] = 0;
        column[1] = first;
        for (let p = 2; p <= widest; p++) column[p] = 1e9;
      }
      const columnOff = column[0]! + columnMessages[at]!;
      for (let p = 1; p <= widest; p++) {
        const cost = column[p]! + columnMessages[at + p]!;
        if (cost < columnOn) columnOn = cost;
      }

      // Labels: what follows from those before, with what the messages foretell.
      const rowWas = left[place] === 1 && trial[place - 1] === ALONG ? before[place - 1]! : 0;
      const columnWas = above !== -1 && trial[above] === DOWN ? before[above]! : 0;
      let [along, alongAt] = [first + rowMessages[at + 1]!, 1];
      if (rowWas > 0 && rowWas < widest) {
        const on = bars[rowWas + 1]! - bars[rowWas]! + rowMessages[at + rowWas + 1]!;
        if (on <= along) [along, alongAt] = [on, rowWas + 1];
      }
      let [downwards, downAt] = [first + columnMessages[at + 1]!, 1];
      if (columnWas > 0 && columnWas < widest) {
        const on = bars[columnWas + 1]! - bars[columnWas]! + columnMessages[at + columnWas + 1]!;
        if (on <= downwards) [downwards, downAt] = [on, columnWas + 1];
      }
      if (along + columnMessages[at]! <= downwards + rowMessages[at]!) {
        trial[place] = ALONG;
        before[place] = alongAt;
      } else {
        trial[place] = DOWN;
        before[place] = downAt;
      }

      // The price at which row and column agree. Both "on" hold the old price of this cell once.
      const price = old - (rowOn - rowOff + columnOn - columnOff) / 2;
      lambda[place] = price;
      const rowBase = row[0]!;
      rowMessages[at] = 0;
      for (let p = 1; p <= widest; p++) rowMessages[at + p] = row[p]! - rowBase + price;
      const columnBase = column[0]!;
      columnMessages[at] = 0;
      for (let p = 1; p <= widest; p++) columnMessages[at + p] = column[p]! - columnBase + price;
    }
  }

  /** Back: the same from the other side, without labels. @param update whether λ is set; else the messages alone are */
  private passBack(region: number, bars: BarCosts, update: boolean): void {
    const { regions, lambda, rowMessages, columnMessages } = this;
    const { down, left, starts } = regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    const states = bars.length;
    const widest = states - 1;
    const first = bars[1]!;
    const [row, column] = [new Float64Array(states), new Float64Array(states)];
    for (let place = to - 1; place >= from; place--) {
      const at = (place - from) * states;
      if (place + 1 < to && left[place + 1] === 1) {
        const was = at + states;
        const next = Math.min(rowMessages[was]!, rowMessages[was + 1]! + first);
        for (let p = 1; p < widest; p++) {
          const on = rowMessages[was + p + 1]! + bars[p + 1]! - bars[p]!;
          row[p] = on < next ? on : next;
        }
        row[0] = next;
        row[widest] = next;
      } else row.fill(0);
      const below = down[place]!;
      if (below !== -1) {
        const was = (below - from) * states;
        const next = Math.min(columnMessages[was]!, columnMessages[was + 1]! + first);
        for (let p = 1; p < widest; p++) {
          const on = columnMessages[was + p + 1]! + bars[p + 1]! - bars[p]!;
          column[p] = on < next ? on : next;
        }
        column[0] = next;
        column[widest] = next;
      } else column.fill(0);
      let price = lambda[place]!;
      if (update) {
        const rowOff = row[0]! + rowMessages[at]!;
        const columnOff = column[0]! + columnMessages[at]!;
        let rowOn = Infinity;
        let columnOn = Infinity;
        for (let p = 1; p <= widest; p++) {
          const a = row[p]! + rowMessages[at + p]!;
          if (a < rowOn) rowOn = a;
          const b = column[p]! + columnMessages[at + p]!;
          if (b < columnOn) columnOn = b;
        }
        price -= (rowOn - rowOff + columnOn - columnOff) / 2;
        lambda[place] = price;
      }
      rowMessages[at] = 0;
      for (let p = 1; p <= widest; p++) rowMessages[at + p] = row[p]! - row[0]! + price;
      columnMessages[at] = 0;
      for (let p = 1; p <= widest; p++) columnMessages[at + p] = column[p]! - column[0]! + price;
    }
  }

  /**
   * The bound that some prices prove: rows and columns at their cheapest, each by itself.
   * @param slope where given, gets by place how the bound changes with the price of each cell: −1, 0 or 1
   */
  private boundAt(region: number, bars: BarCosts, lambda: Float32Array, slope: Int8Array | null): number {
    const { left, down, starts, byColumn } = this.regions;
    const { price } = this;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    let bound = 0;
    for (let place = from; place < to; place++) bound -= lambda[place]!;
    slope?.fill(-1, from, to);
    for (let start = from; start < to; ) {
      let length = 0;
      do {
        price[length] = lambda[start + length]!;
        length++;
      } while (start + length < to && left[start + length] === 1);
      bound += this.cheapestBars(length, bars);
      if (slope) {
        for (let i = length; i > 0; ) {
          const drills = this.pieceBefore(i, bars);
          if (drills === 0) i--;
          else for (const low = i - drills; i > low; ) slope[start + --i]!++;
        }
      }
      start += length;
    }
    for (let start = from; start < to; ) {
      let length = 0;
      let place: number;
      do {
        place = byColumn[start + length]!;
        price[length++] = lambda[place]!;
      } while (down[place] !== -1);
      bound += this.cheapestBars(length, bars);
      if (slope) {
        for (let i = length; i > 0; ) {
          const drills = this.pieceBefore(i, bars);
          if (drills === 0) i--;
          else for (const low = i - drills; i > low; ) slope[byColumn[start + --i]!]!++;
        }
      }
      start += length;
    }
    return bound;
  }

  /**
   * The least that a chain of cells costs whose prices stand in `price`: each is left out for nothing, or belongs to a bar
   * and pays its price.
   */
  private cheapestBars(length: number, bars: BarCosts): number {
    const { price, best, spare, ends } = this;
    const widest = bars.length - 1;
    const single = bars[1]!;
    let paid = 0;
    let last = 0;
    best[0] = 0;
    // The cost up to a cell less the prices paid up to it, so that a bar's prices are a difference.
    spare[0] = 0;
    for (let i = 1; i <= length; i++) {
      paid += price[i - 1]!;
      let least = spare[i - 1]! + single;
      const most = i < widest ? i : widest;
      // Which bar it was is found on the way back: a minimum without branches is several times as quick.
      for (let drills = 2; drills <= most; drills++) least = Math.min(least, spare[i - drills]! + bars[drills]!);
      ends[i] = least;
      last = Math.min(last, least + paid);
      best[i] = last;
      spare[i] = last - paid;
    }
    return last;
  }

  /** On the way back from `cheapestBars`: the drills of the bar that ends before place i of the chain; 0 for a cell left out. */
  private pieceBefore(i: number, bars: BarCosts): number {
    const { best, spare, ends } = this;
    if (best[i] === best[i - 1]) return 0;
    let drills = 1;
    while (spare[i - drills]! + bars[drills]! !== ends[i]) drills++;
    return drills;
  }

  private certify(region: number, bars: BarCosts): void {
    const bound = this.roundedUp(this.boundAt(region, bars, this.lambda, null));
    if (bound > this.bounds[region]!) this.bounds[region] = bound;
  }

  /**
   * Raises the bound by subgradient steps with momentum whose length falls to nothing, the best prices kept.
   * @param stride of the first step
   */
  raise(region: number, steps: number, stride: number): void {
    const bars = this.barsOf(region);
    const { starts } = this.regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    if (!this.trialLambda) {
      this.trialLambda = new Float32Array(this.lambda.length);
      this.direction = new Float32Array(this.lambda.length);
      this.slope = new Int8Array(this.lambda.length);
    }
    const { trialLambda, slope, lambda } = this;
    const direction = this.direction!;
    trialLambda.set(lambda.subarray(from, to), from);
    direction.fill(0, from, to);
    let top = -Infinity;
    for (let count = 0; count < steps && !this.isOver(); count++) {
      const bound = this.boundAt(region, bars, trialLambda, slope!);
      if (bound > top + 1e-6) {
        if (count > 0) lambda.set(trialLambda.subarray(from, to), from);
        top = bound;
        const whole = this.roundedUp(bound);
        if (whole > this.bounds[region]!) this.bounds[region] = whole;
        if (this.isClosed(region)) return;
      }
      const length = stride * (1 - count / steps);
      for (let place = from; place < to; place++) {
        direction[place] = 0.9 * direction[place]! + 0.1 * slope![place]!;
        trialLambda[place]! += length * direction[place]!;
      }
    }
  }

  private trialLambda: Float32Array | null = null;
  private direction: Float32Array | null = null;
  private slope: Int8Array | null = null;
}
