import { learnedTrash, type TrashTally } from '../checkin/chance';
import type { LineSupply } from '../checkin/supply';
import { many } from '../words/numbers';

/** What a finished colour leaves over, in drills, with its uncertainty. */
export interface LeftoverEstimate {
  line: number;
  received: number;
  laid: number;
  /** Bad ones among what was received, as far as is known. */
  bad: number;
  /** Whole drills, never below 0. */
  left: number;
  /** Standard deviation of `left`. */
  spread: number;
}

/**
 * Received less laid less bad ones. Uncertain are the bags (which hold more or less than they should), which of the drills
 * were bad, and the share of bad ones itself; the three are independent (JCGM 100: variances add).
 * @param received drills in all bags of the colour, with their standard deviation
 * @param trash records of bad drills
 * @example leftoverOf({ line: 1, suppliedDrills: 400, spread: 8 }, 300, []).left // 88: 12 of 400 are bad, 300 laid
 */
export function leftoverOf(
  { line, suppliedDrills, spread }: Pick<LineSupply, 'line' | 'suppliedDrills' | 'spread'>,
  laid: number,
  trash: readonly TrashTally[],
): LeftoverEstimate {
  const { share, handled } = learnedTrash(trash);
  const bad = suppliedDrills * share;
  const shareVariance = (share * (1 - share)) / (handled + 1);
  const variance =
    ((1 - share) * spread) ** 2 + suppliedDrills * share * (1 - share) + suppliedDrills ** 2 * shareVariance;
  return {
    line,
    received: suppliedDrills,
    laid,
    bad: Math.round(bad),
    left: Math.max(0, Math.round(suppliedDrills - bad - laid)),
    spread: Math.sqrt(variance),
  };
}

/** Four times in five within so many standard deviations. */
const BAND = 1.2816;

/** @example leftInWords({ left: 88, spread: 10 }) // 'about 88 (75 to 101)' */
export function leftInWords({ left, spread }: Pick<LeftoverEstimate, 'left' | 'spread'>): string {
  const band = Math.round(BAND * spread);
  if (band === 0) return many(left);
  return `about ${many(left)} (${many(Math.max(0, left - band))} to ${many(left + band)})`;
}
