import type { LegendLine } from '../canvas/legend';
import { compareCodes } from '../codes/codes';
import { Refusal } from '../refusal';

export type PackingGoal = 'fewest bags' | 'least surplus';

/** What to put into a kit for one colour: so many bags of each size. */
export interface PackedLine {
  line: LegendLine;
  /** Drills to reach: the need with its spare. */
  wantedDrills: number;
  bags: { size: number; count: number }[];
  packedDrills: number;
}

/** More than this no kit asks of one colour; it bounds the table of sums below. */
const MAX_WANTED = 2_000_000;

/**
 * A packing list in pick order, by code.
 * @param sizes drills per bag of the sizes in stock
 * @param sparePercent what goes in beyond the need, in percent
 * @throws Refusal with a sentence when a size or the spare makes no sense
 */
export function packingList(
  legend: readonly LegendLine[],
  sizes: readonly number[],
  sparePercent: number,
  goal: PackingGoal,
): PackedLine[] {
  const stock = [...new Set(sizes)].sort((a, b) => b - a);
  if (stock.length === 0) throw new Refusal('Name at least one bag size that is in stock.');
  if (stock.some((size) => !Number.isInteger(size) || size < 1 || size > 100_000)) {
    throw new Refusal('A bag holds a whole number of drills, from 1 to 100,000.');
  }
  if (!(sparePercent >= 0 && sparePercent <= 100))
    throw new Refusal('The spare is between 0 and 100 percent.');
  return [...legend]
    .sort((a, b) => compareCodes(a.code, b.code) || a.line - b.line)
    .map((line) => {
      const wantedDrills = Math.min(
        MAX_WANTED,
        Math.ceil(line.neededDrills * (1 + sparePercent / 100) - 1e-9),
      );
      const bags = chooseBags(wantedDrills, stock, goal);
      return {
        line,
        wantedDrills,
        bags,
        packedDrills: bags.reduce((sum, bag) => sum + bag.size * bag.count, 0),
      };
    });
}

/** A packing list added up. */
export function packingSum(list: readonly PackedLine[]): {
  bags: number;
  packedDrills: number;
  neededDrills: number;
} {
  const sum = { bags: 0, packedDrills: 0, neededDrills: 0 };
  for (const { line, bags, packedDrills } of list) {
    for (const { count } of bags) sum.bags += count;
    sum.packedDrills += packedDrills;
    sum.neededDrills += line.neededDrills;
  }
  return sum;
}

/**
 * The bags that reach a number of drills: with the fewest bags (then the least surplus), or with the least surplus
 * (then the fewest bags). Exact, by a table of the fewest bags for every sum (coin change).
 * @param stock sizes, largest first
 */
export function chooseBags(
  wanted: number,
  stock: readonly number[],
  goal: PackingGoal,
): { size: number; count: number }[] {
  if (wanted <= 0) return [];
  const unit = stock.reduce(greatestCommonDivisor);
  const sizes = stock.map((size) => size / unit);
  const least = Math.ceil(wanted / unit);
  const most = least + sizes[0]! - 1;
  const fewest = new Uint32Array(most + 1).fill(0xffffffff);
  const lastSize = new Uint32Array(most + 1);
  fewest[0] = 0;
  for (let sum = 1; sum <= most; sum++) {
    for (const size of sizes) {
      if (size <= sum && fewest[sum - size]! !== 0xffffffff && fewest[sum - size]! + 1 < fewest[sum]!) {
        fewest[sum] = fewest[sum - size]! + 1;
        lastSize[sum] = size;
      }
    }
  }
  let best = most;
  for (let sum = most; sum >= least; sum--) {
    if (fewest[sum] === 0xffffffff) continue;
    if (goal === 'least surplus' || fewest[sum]! <= fewest[best]!) best = sum;
  }
  const counts = new Map<number, number>();
  for (let sum = best; sum > 0; sum -= lastSize[sum]!) {
    const size = lastSize[sum]! * unit;
    counts.set(size, (counts.get(size) ?? 0) + 1);
  }
  return stock.flatMap((size) => (counts.has(size) ? [{ size, count: counts.get(size)! }] : []));
}

function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestCommonDivisor(b, a % b);
}
