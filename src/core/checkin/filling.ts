import type { CountedBag } from './bag';
import { spreadOfSum } from './weighing';

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
 * conjugate case; Gelman et al., Bayesian Data Analysis, section 2.5, from memory). Bags weighed against one sample err
 * together, so that all of them tell no more than their mean with that common error.
 * @param sizes usual sizes of bags, in drills
 */
export function learnedFilling(bags: readonly CountedBag[], sizes: readonly number[]): Filling {
  let precision = 1 / FILLING_START.spread ** 2;
  let weighted = FILLING_START.deviation * precision;
  let learned = 0;
  for (const told of bagsBySample(bags, sizes).values()) {
    const known = told.reduce((sum, bag) => sum + 1 / bag.variance, 0);
    const mean = told.reduce((sum, bag) => sum + bag.deviation / bag.variance, 0) / known;
    const common = told.reduce((sum, bag) => sum + bag.common / bag.variance, 0) / known;
    const weight = 1 / (1 / known + common ** 2);
    precision += weight;
    weighted += weight * mean;
    learned += told.length;
  }
  return { deviation: weighted / precision, spread: Math.sqrt(1 / precision), bags: learned };
}

/** What one bag tells of the filler, all as shares of its printed number. */
interface ToldByBag {
  deviation: number;
  /** Of what the bag errs by itself. */
  variance: number;
  /** Standard deviation of what it errs by with others of its sample. */
  common: number;
}

/** Bags whose number is known by hand or by weight, those weighed against one sample together. */
function bagsBySample(
  bags: readonly CountedBag[],
  sizes: readonly number[],
): ReadonlyMap<string, ToldByBag[]> {
  const told = new Map<string, ToldByBag[]>();
  for (const { how, origin, drills, spread, shared } of bags) {
    if (how === 'nominal' || (origin !== 'kit' && origin !== 'seller')) continue;
    const size = sizes.find((each) => Math.abs(drills / each - 1) <= NEAR_SIZE);
    if (size === undefined) continue;
    const sample = shared[0]?.source ?? '';
    const bag = {
      deviation: drills / size - 1,
      variance: OWN_SPREAD ** 2 + (spread / size) ** 2,
      common: spreadOfSum([{ spread: 0, shared }]) / size,
    };
    told.set(sample, [...(told.get(sample) ?? []), bag]);
  }
  return told;
}
