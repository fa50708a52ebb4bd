import type { Regions } from '../regions';
import type { BarCosts } from './barCosts';
import { fromBefore, fromBehind, preference, send } from './chainMessages';
import { ALONG, DOWN } from './chains';
import { LabelMoves } from './labelMoves';

/**
 * The search for the cheapest bars of one region at a time, with what is proven of it. Where rows pay a price λ for each
 * cell along and columns for each cell down, less Σλ, rows and columns can be minimised each by itself, and the sum is a
 * lower bound for every λ (Lagrangean decomposition: Guignard and Kim 1987).
 *
 * - Messages along the chains bring both to agree on λ (sequential tree-reweighted message passing, Kolmogorov 2006), and
 *   give labels on the way;
 * - subgradient steps (Polyak 1969) raise the bound further.
 *
 * λ and sums are floating; their error stays far below the millionth of a unit that `roundedUp` leaves to spare.
 */
export class RegionSearch extends LabelMoves {
  private readonly lambda: Float32Array;
  private readonly trialLambda: Float32Array;
  private readonly direction: Float32Array;
  private readonly slope: Int8Array;
  private readonly ends: Float64Array;
  private readonly spare: Float64Array;
  private rowMessages = new Float32Array(0);
  private columnMessages = new Float32Array(0);

  /** See {@link LabelMoves}. */
  constructor(regions: Regions, bars: (line: number) => BarCosts, unit: number, isOver?: () => boolean) {
    super(regions, bars, unit, isOver);
    const { length } = regions.cells;
    this.lambda = new Float32Array(length);
    this.trialLambda = new Float32Array(length);
    this.direction = new Float32Array(length);
    this.slope = new Int8Array(length);
    this.ends = new Float64Array(this.best.length);
    this.spare = new Float64Array(this.best.length);
  }

  /** As `LabelMoves.start`. In a large region each drill is worth about what it costs in the best bar: there its price begins. */
  override start(region: number): void {
    super.start(region);
    if (this.isLarge(region)) {
      const { starts } = this.regions;
      this.lambda.fill(-this.cheapestDrill(region), starts[region]!, starts[region + 1]!);
    }
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
      const above = up[place]!;
      fromBefore(rowMessages, left[place] === 1 ? at - states : -1, bars, row);
      fromBefore(columnMessages, above === -1 ? -1 : (above - from) * states, bars, column);

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

      // The price at which row and column agree; both hold the old one already.
      lambda[place]! -= (preference(row, rowMessages, at) + preference(column, columnMessages, at)) / 2;
      send(row, rowMessages, at, lambda[place]!);
      send(column, columnMessages, at, lambda[place]!);
    }
  }

  /** Back: the same from the other side, without labels. @param update whether λ is set; else the messages alone are */
  private passBack(region: number, bars: BarCosts, update: boolean): void {
    const { regions, lambda, rowMessages, columnMessages } = this;
    const { down, left, starts } = regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    const states = bars.length;
    const [row, column] = [new Float64Array(states), new Float64Array(states)];
    for (let place = to - 1; place >= from; place--) {
      const at = (place - from) * states;
      const below = down[place]!;
      fromBehind(rowMessages, place + 1 < to && left[place + 1] === 1 ? at + states : -1, bars, row);
      fromBehind(columnMessages, below === -1 ? -1 : (below - from) * states, bars, column);
      if (update) {
        lambda[place]! -= (preference(row, rowMessages, at) + preference(column, columnMessages, at)) / 2;
      }
      send(row, rowMessages, at, lambda[place]!);
      send(column, columnMessages, at, lambda[place]!);
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
      const most = Math.min(i, widest);
      // Which bar it was is found on the way back.
      for (let drills = 2; drills <= most; drills++)
        least = Math.min(least, spare[i - drills]! + bars[drills]!);
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
    const { trialLambda, slope, lambda, direction } = this;
    trialLambda.set(lambda.subarray(from, to), from);
    direction.fill(0, from, to);
    let top = -Infinity;
    for (let count = 0; count < steps && !this.isOver(); count++) {
      const bound = this.boundAt(region, bars, trialLambda, slope);
      if (bound > top + 1e-6) {
        if (count > 0) lambda.set(trialLambda.subarray(from, to), from);
        top = bound;
        const whole = this.roundedUp(bound);
        if (whole > this.bounds[region]!) this.bounds[region] = whole;
        if (this.isClosed(region)) return;
      }
      const length = stride * (1 - count / steps);
      for (let place = from; place < to; place++) {
        direction[place] = 0.9 * direction[place]! + 0.1 * slope[place]!;
        trialLambda[place]! += length * direction[place]!;
      }
    }
  }
}
