import type { Regions } from '../regions';
import type { BarCosts } from './barCosts';
import type { BarTable } from './barTable';
import { type ClimbGround, type Climbs, kernelClimbs, PlainClimbs } from './boundClimb';
import { ChainSplit } from './chainSplit';
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

  /** See {@link LabelMoves}. */
  constructor(regions: Regions, bars: (line: number) => BarCosts, unit: number, isOver?: () => boolean) {
    super(regions, bars, unit, isOver);
    const { length } = regions.cells;
    this.lambda = new Float32Array(length);
    this.climbs = kernelClimbs() ?? new PlainClimbs(ChainSplit.within(regions));
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
    const { starts } = this.regions;
    const lambda = this.lambda.subarray(starts[region]!, starts[region + 1]!);
    const { steps } = this;
    steps.begin(region, table);
    steps.price(lambda);
    steps.passBack(false);
    for (let sweep = 0; sweep < sweeps && !this.isOver() && !this.isClosed(region); sweep++) {
      steps.passOn();
      this.settle(region);
      steps.passBack(true);
      this.prove(region, steps.bound() / table.scale);
    }
    lambda.set(steps.priced());
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
