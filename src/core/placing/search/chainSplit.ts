import type { Regions } from '../regions';
import type { BarTable } from './barTable';

/** More than any chain costs, and little enough to be added to. */
export const NEVER = 1 << 28;

/**
 * The cheapest way to lay a chain of cells of which each is left to the chain across, at its price, or belongs to a bar:
 * dynamic programming from the start of the chain, and the way back. Of ways that cost the same a cell is left sooner than
 * laid, and the last bar is the shortest.
 */
export class ChainSplit {
  /** What it costs to leave each cell of the chain to the one across, in parts; set before {@link solve}. */
  readonly price: Int32Array;
  /** By {@link choose}: 1 for each cell of the chain that belongs to a bar, else 0. */
  readonly taken: Uint8Array;
  /** What the cells up to each place cost. */
  private readonly cost: Int32Array;
  /** Drills of the bar that ends at each place; 0 where the cell before it is left. */
  private readonly drills: Uint8Array;

  /** @param longest cells of the longest chain */
  constructor(longest: number) {
    this.price = new Int32Array(longest);
    this.taken = new Uint8Array(longest);
    this.cost = new Int32Array(longest + 1);
    this.drills = new Uint8Array(longest + 1);
  }

  /** For all chains of all regions. */
  static within({ starts }: Regions): ChainSplit {
    let most = 0;
    for (let region = 0; region + 1 < starts.length; region++) {
      most = Math.max(most, starts[region + 1]! - starts[region]!);
    }
    return new ChainSplit(most);
  }

  /** @returns the least cost of the first cells of `price`, in parts */
  solve(length: number, table: BarTable): number {
    if (table.barParts.length <= 5) return this.solveNarrow(length, table);
    return table.isEven ? this.solveEven(length, table) : this.solveWide(length, table);
  }

  /**
   * With bars of up to four drills, what the last four places cost is at hand. Without a branch, for which of two ways is
   * cheaper is as good as chance for a processor that guesses.
   */
  private solveNarrow(length: number, { barParts, drillBits }: BarTable): number {
    const { price, drills } = this;
    const whole = -1 << drillBits;
    const one = barParts[1]!;
    const two = barParts.length > 2 ? barParts[2]! : NEVER;
    const three = barParts.length > 3 ? barParts[3]! : NEVER;
    const four = barParts.length > 4 ? barParts[4]! : NEVER;
    let [last, second, third, fourth] = [0, NEVER, NEVER, NEVER];
    for (let i = 0; i < length; i++) {
      let least = (last + (price[i]! << drillBits)) | 0;
      let more = (last + one - least) | 0;
      least = (least + (more & (more >> 31))) | 0;
      more = (second + two - least) | 0;
      least = (least + (more & (more >> 31))) | 0;
      more = (third + three - least) | 0;
      least = (least + (more & (more >> 31))) | 0;
      more = (fourth + four - least) | 0;
      least = (least + (more & (more >> 31))) | 0;
      fourth = third;
      third = second;
      second = last;
      last = least & whole;
      drills[i + 1] = least & ~whole;
    }
    return last >> drillBits;
  }

  /**
   * Where all bars cost the same, the cheapest place before a bar is the least of a window that moves along: a cell takes
   * as long for wide bars as for short ones.
   */
  private solveEven(length: number, { barParts, drillBits }: BarTable): number {
    const { price, cost, drills } = this;
    const most = barParts.length - 1;
    const each = barParts[1]! >> drillBits;
    let last = 0;
    cost[0] = 0;
    // Of several places the last, for the shortest bar.
    let from = 0;
    let least = 0;
    for (let i = 1; i <= length; i++) {
      const left = last + price[i - 1]!;
      const laid = least + each;
      if (left <= laid) {
        last = left;
        drills[i] = 0;
      } else {
        last = laid;
        drills[i] = i - from;
      }
      cost[i] = last;
      if (last <= least) {
        least = last;
        from = i;
      } else if (i - from === most) {
        least = last;
        from = i;
        for (let place = i - 1; place > i - most; place--) {
          if (cost[place]! < least) {
            least = cost[place]!;
            from = place;
          }
        }
      }
    }
    return last;
  }

  private solveWide(length: number, { barParts, drillBits }: BarTable): number {
    const { price, cost, drills } = this;
    let last = 0;
    cost[0] = 0;
    for (let i = 1; i <= length; i++) {
      last += price[i - 1]!;
      let best = 0;
      const most = Math.min(i, barParts.length - 1);
      for (let size = 1; size <= most; size++) {
        const laid = cost[i - size]! + (barParts[size]! >> drillBits);
        if (laid < last) {
          last = laid;
          best = size;
        }
      }
      cost[i] = last;
      drills[i] = best;
    }
    return last;
  }

  /** After {@link solve}: tells in `taken` which cells belong to a bar. */
  choose(length: number): void {
    const { drills, taken } = this;
    let left = 0;
    for (let i = length; i > 0; i--) {
      // Drills left of the bar that the cell is in, or those of the one that ends with it.
      left |= drills[i]! & ((left - 1) >> 31);
      const isIn = -left >>> 31;
      left -= isIn;
      taken[i - 1] = isIn;
    }
  }
}
