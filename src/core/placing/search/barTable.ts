import { type BarCosts, runCosts } from './barCosts';

/** Costs stay far below what 32 bits hold, even where prices are four times what the dearest bar costs. */
const COST_BITS = 28;

/**
 * What bars and runs cost in a region, also in whole numbers, of which `scale` make a unit: those are exact, and the least
 * of two of them is found without a branch.
 */
export class BarTable {
  /** By length from 0, as {@link runCosts} has it. */
  readonly runCost: Float64Array;
  /** Parts of a unit; a power of two. */
  readonly scale: number;
  /** Bits that hold the drills of a bar. */
  readonly drillBits: number;
  /** By drills: the cost in parts, above the drills in the lowest bits. */
  readonly barParts: Int32Array;
  readonly runParts: Int32Array;
  /** Whether all bars cost the same. */
  readonly isEven: boolean;

  /** @param longest cells of the longest run */
  constructor(
    readonly bars: BarCosts,
    longest: number,
  ) {
    this.runCost = runCosts(bars, longest);
    this.drillBits = 32 - Math.clz32(bars.length - 1);
    const dearest = bars.reduce((most, cost) => Math.max(most, cost), 0);
    this.scale = 2 ** Math.floor(COST_BITS - this.drillBits - Math.log2(dearest * longest));
    // Rounded down, if at all, so that a bound that is proven with them stays one.
    const parts = Float64Array.from(bars, (cost) => Math.floor(cost * this.scale));
    this.barParts = Int32Array.from(parts, (cost, drills) => (cost << this.drillBits) | drills);
    this.isEven = bars.every((cost, drills) => drills === 0 || cost === bars[1]);
    this.runParts = Int32Array.from(runCosts(parts, longest));
  }
}
