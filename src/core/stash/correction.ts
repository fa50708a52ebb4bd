/**
 * What a correction changes of the amount of a leftover, while others take from it too.
 * @param said drills as the correction has them
 * @param seen drills that stood there when it was begun; null where that is not known
 * @param now drills that are there
 * @returns the difference; null where the amount was corrected and is another one by now, so that nobody can say
 * @example correctionOf(400, 400, 250) // 0: only the name was corrected
 */
export function correctionOf(said: number, seen: number | null, now: number): number | null {
  if (seen !== null && said === seen) return 0;
  return seen === null || seen === now ? said - now : null;
}
