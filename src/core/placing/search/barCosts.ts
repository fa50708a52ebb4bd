/**
 * What laying a bar of so many drills costs: index 1 for a single one, up to the widest tip; index 0 is not used.
 * One each counts placements; seconds count time.
 */
export type BarCosts = Float64Array;

/** Every placement counts one, whatever it lays. @param widest drills of the widest tip */
export function onePerPlacement(widest: number): BarCosts {
  return new Float64Array(widest + 1).fill(1);
}

/**
 * What a whole run costs, split in the cheapest way, by its length from 0.
 * With one a placement that is ⌈length ÷ widest⌉.
 */
export function runCosts(bars: BarCosts, longest: number): Float64Array {
  const costs = new Float64Array(longest + 1);
  for (let length = 1; length <= longest; length++) {
    let best = Infinity;
    for (let drills = Math.min(length, bars.length - 1); drills > 0; drills--) {
      best = Math.min(best, costs[length - drills]! + bars[drills]!);
    }
    costs[length] = best;
  }
  return costs;
}
