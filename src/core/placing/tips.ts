/** Drills that a pen's tips can take at once, ascending; 1 is the single placer and is always there. */
export type Tips = readonly number[];

/** Sizes of tips that are sold (common practice, no source). */
export const KNOWN_TIPS: Tips = [1, 2, 3, 4, 6, 7, 8, 9, 10, 13, 14, 15];

/** Sorted, without repeats, with the single placer. */
export function orderTips(tips: Iterable<number>): number[] {
  return [...new Set([1, ...tips])].sort((a, b) => a - b);
}
