/** More than rounding errors make of a whole number, and less than a drill. */
const HAIR = 1e-6;

/**
 * Good ones of so many drills, the likeliest whole number.
 * @param trashShare bad ones among all, 0…1
 * @example goodOf(1000, 0.07) // 930
 */
export function goodOf(drills: number, trashShare: number): number {
  return Math.round(drills * (1 - trashShare) + HAIR);
}

/**
 * Drills that it takes for so many good ones: to have, to tip out, or gone from a pot.
 * @param trashShare bad ones among all, 0…1
 * @example drillsFor(465, 0.07) // 500
 */
export function drillsFor(good: number, trashShare: number): number {
  // Where all were bad so far, a hundred times as many are as good a guess as any.
  return Math.ceil(good / Math.max(0.01, 1 - trashShare) - HAIR);
}
