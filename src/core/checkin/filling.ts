import type { CountedBag } from './bag';

/**
 * How far bags are from their printed number. All bags of a kit come from one filler, so most of the error is common to
 * them: 3 % either way, and 1 % for each bag by itself (common practice, no source). Bags that add up to much do not
 * average the common part out.
 */
export const FILLING_START = { deviation: 0, spread: 0.03 };
const OWN_SPREAD = 0.01;

/** A counted or weighed bag within this share of a usual size is one of that size. */
const NEAR_SIZE = 0.15;

/** What is known of the filler. */
export interface Filling {
  /** Mean of drills ÷ printed number − 1. */
  deviation: number;
  /** Standard deviation of that mean, common to all bags of printed number. */
  spread: number;
  /** Counted or weighed bags that it was learned from. */
  bags: number;
}

/** Standard deviation of one bag of printed number around what its filler usually fills, in drills. */
export function nominalSpread(drills: number): number {
  return OWN_SPREAD * drills;
}

/**
 * Learns the filler's error from bags that were counted or weighed: the mean of a normal law with a normal prior (the
 * conjugate case; Gelman et al., Bayesian Data Analysis, section 2.5, from memory).
 * @param sizes usual sizes of bags, in drills
 */
export function learnedFilling(bags: readonly CountedBag[], sizes: readonly number[]): Filling {
  let precision = 1 / FILLING_START.spread ** 2;
  let weighted = FILLING_START.deviation * precision;
  let learned = 0;
  for (const bag of bags) {
    if (bag.how === 'nominal' || (bag.origin !== 'kit' && bag.origin !== 'seller')) continue;
    const size = sizes.find((each) => Math.abs(bag.drills / each - 1) <= NEAR_SIZE);
    if (size === undefined) continue;
    const weight = 1 / (OWN_SPREAD ** 2 + (bag.spread / size) ** 2);
    precision += weight;
    weighted += weight * (bag.drills / size - 1);
    learned++;
  }
  return { deviation: weighted / precision, spread: Math.sqrt(1 / precision), bags: learned };
}
