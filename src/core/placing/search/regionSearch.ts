import type { Regions } from '../regions';
import type { BarCosts } from './barCosts';
import type { BarTable } from './barTable';
import { boundOf, type ClimbGround, type Climbs, kernelClimbs, PlainClimbs } from './boundClimb';
import { ChainMessages } from './chainMessages';
import { ALONG, DOWN } from './chains';
import { LabelMoves } from './labelMoves';

/** Between two looks at the clock. */
const CELLS_AT_ONCE = 1_000_000;

/**
 * The search for the cheapest bars of one region at a time, with what is proven of it. Where rows pay a price λ for each
 * cell along and columns for each cell down, less Σλ, rows and columns can be minimised each by itself, and the sum is a
 * lower bound for every λ (Lagrangean decomposition: Guignard and Kim 1987).
 *
 * - Messages along the chains bring both to agree on λ (sequential tree-reweighted message passing, Kolmogorov 2006), and
 *   give labels on the way;
 * - subgradient steps (Polyak 1969) raise the bound further.
 *
 * λ is floating; what it proves is reckoned in whole parts of a unit, without an error (see {@link boundOf}).
 */
export class RegionSearch extends LabelMoves {
  private readonly lambda: Float32Array;
  private readonly climbs: Climbs;
  private readonly rows = new ChainMessages();
  private readonly columns = new ChainMessages();

  /** See {@link LabelMoves}. */
  constructor(regions: Regions, bars: (line: number) => BarCosts, unit: number, isOver?: () => boolean) {
    super(regions, bars, unit, isOver);
    const { length } = regions.cells;
    this.lambda = new Float32Array(length);
    this.climbs = kernelClimbs() ?? new PlainClimbs(this.chain);
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
    const table = this.tableOf(region);
    const { bars } = table;
    const { starts } = this.regions;
    for (const way of [this.rows, this.columns]) way.begin(starts[region + 1]! - starts[region]!, bars);
    this.passBack(region, bars, false);
    for (let sweep = 0; sweep < sweeps && !this.isOver(); sweep++) {
      this.passOn(region, bars);
      this.settle(region, table);
      this.passBack(region, bars, true);
      this.certify(region, table);
      if (this.isClosed(region)) return;
    }
  }

  /** There: sets λ by what comes from before and from behind, and labels greedily. */
  private passOn(region: number, bars: BarCosts): void {
    const { regions, trial, lambda, before, rows, columns } = this;
    const { up, left, starts } = regions;
    const [rowMessages, columnMessages] = [rows.messages, columns.messages];
    const from = starts[region]!;
    const to = starts[region + 1]!;
    const states = bars.length;
    const widest = states - 1;
    const first = bars[1]!;
    for (let place = from; place < to; place++) {
      const at = (place - from) * states;
      const above = up[place]!;
      const beforeInRow = left[place] === 1 ? at - states : -1;
      const beforeInColumn = above === -1 ? -1 : (above - from) * states;

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
      lambda[place]! -= (rows.preferenceOn(beforeInRow, at) + columns.preferenceOn(beforeInColumn, at)) / 2;
      rows.sendOn(beforeInRow, at, lambda[place]!);
      columns.sendOn(beforeInColumn, at, lambda[place]!);
    }
  }

  /** Back: the same from the other side, without labels. @param update whether λ is set; else the messages alone are */
  private passBack(region: number, bars: BarCosts, update: boolean): void {
    const { regions, lambda, rows, columns } = this;
    const { down, left, starts } = regions;
    const from = starts[region]!;
    const to = starts[region + 1]!;
    const states = bars.length;
    for (let place = to - 1; place >= from; place--) {
      const at = (place - from) * states;
      const below = down[place]!;
      const behindInRow = place + 1 < to && left[place + 1] === 1 ? at + states : -1;
      const behindInColumn = below === -1 ? -1 : (below - from) * states;
      const preferred = rows.preferenceBack(behindInRow, at) + columns.preferenceBack(behindInColumn, at);
      if (update) lambda[place]! -= preferred / 2;
      rows.sendBack(behindInRow, at, lambda[place]!);
      columns.sendBack(behindInColumn, at, lambda[place]!);
    }
  }

  private certify(region: number, table: BarTable): void {
    this.prove(region, boundOf(this.groundOf(region, table), this.chain, null) / table.scale);
  }

  private groundOf(region: number, table: BarTable): ClimbGround {
    return { regions: this.regions, region, table, lambda: this.lambda };
  }

  private prove(region: number, bound: number): void {
    const whole = this.roundedUp(bound);
    if (whole > this.bounds[region]!) this.bounds[region] = whole;
  }

  /**
   * Raises the bound by subgradient steps with momentum whose length falls to nothing, the best prices kept.
   * @param stride of the first step
   */
  raise(region: number, steps: number, stride: number): void {
    const table = this.tableOf(region);
    const ground = this.groundOf(region, table);
    const climb = this.climbs.begin(ground);
    const strides = Float32Array.from({ length: steps }, (_, step) => stride * (1 - step / steps));
    // From here on it is rounded up to what the best plan costs.
    const enough = (this.costs[region]! - this.unit * (1 - 2e-6)) * table.scale;
    const { starts } = this.regions;
    const atOnce = Math.max(1, Math.floor(CELLS_AT_ONCE / (starts[region + 1]! - starts[region]!)));
    let top = -Infinity;
    for (let step = 0; step < steps && top < enough && !this.isOver(); step += atOnce) {
      top = climb.go(strides, step, Math.min(steps, step + atOnce), enough);
    }
    climb.end();
    if (top > -Infinity) this.prove(region, top / table.scale);
  }
}
