import { Refusal } from '../refusal';
import { counted } from '../words/numbers';
/** A scale, and how alike the drills are that lie on it. */
export interface WeighingSetup {
  /** Smallest step of the display, in grams. */
  resolutionGrams: number;
  /** Standard deviation of one drill's mass as a share of the mean mass. */
  drillVariation: number;
}

/** A counted sample: so many pieces, and what they weigh without any bag. */
export interface WeighedSample {
  pieces: number;
  grams: number;
}

/** A result with its standard uncertainty, both in drills. */
export interface WeighedCount {
  drills: number;
  uncertainty: number;
}

/** Usual variation of one drill's mass: 5 % (common practice, no source). */
export const USUAL_DRILL_VARIATION = 0.05;

/** Covers about 95 % of results (JCGM 100, 6.3.3). */
const COVERAGE = 2;
const LEAST_SAMPLE = 10;
const MOST_SAMPLE = 500;

/**
 * Drills in a bag from its weight: N = pieces × net ÷ sample.
 *
 * Uncertainty by the first-order rule for a product (JCGM 100, 5.1.6): the relative variances of net and sample
 * weight, of the sample's mean drill and of the bag's own drills add up. A reading is uncertain by resolution ÷ √12
 * (JCGM 100, 4.3.7); the net weight stands on two readings.
 * @throws Refusal with a sentence when a weight or the sample makes no sense
 */
export function countByWeight(
  sample: WeighedSample,
  grossGrams: number,
  bagGrams: number,
  setup: WeighingSetup,
): WeighedCount {
  if (!(sample.pieces >= 1 && sample.grams > 0)) {
    throw new Refusal('Weigh a counted sample first: at least one drill, and more than 0 grams.');
  }
  const netGrams = grossGrams - bagGrams;
  if (!(netGrams > 0)) throw new Refusal('The full bag must weigh more than the empty one.');
  const drills = (sample.pieces * netGrams) / sample.grams;
  const relative = Math.sqrt(
    (2 * readingVariance(setup)) / netGrams ** 2 +
      readingVariance(setup) / sample.grams ** 2 +
      setup.drillVariation ** 2 / sample.pieces +
      setup.drillVariation ** 2 / drills,
  );
  return { drills, uncertainty: drills * relative };
}

/** Half width of the interval that holds about 95 % of results, in drills. */
export function expanded(count: WeighedCount): number {
  return COVERAGE * count.uncertainty;
}

/**
 * How many drills to count for a sample, so that the weight of the bag settles whether enough are in it.
 * @param expectedDrills what is thought to be in the bag
 * @param neededDrills what must be in it
 * @param drillGrams mass of one drill, roughly
 * @returns the least sample; null where no sensible sample settles it, because both numbers are too close
 */
export function sampleToSettle(
  expectedDrills: number,
  neededDrills: number,
  drillGrams: number,
  setup: WeighingSetup,
): number | null {
  const margin = Math.abs(expectedDrills - neededDrills);
  const settles = (pieces: number) => {
    const sample = { pieces, grams: pieces * drillGrams };
    return expanded(countByWeight(sample, expectedDrills * drillGrams, 0, setup)) <= margin;
  };
  if (!settles(MOST_SAMPLE)) return null;
  let low = LEAST_SAMPLE;
  let high = MOST_SAMPLE;
  // The uncertainty falls with every piece, so halving finds the least sample.
  while (low < high) {
    const middle = (low + high) >> 1;
    if (settles(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Which sample settles whether the drills that a colour lacks are in an ordinary packet, in words.
 * @param drillGrams mass of one drill, roughly
 */
export function sampleInWords(
  lackingDrills: number,
  packetDrills: number,
  drillGrams: number,
  setup: WeighingSetup,
): string {
  if (lackingDrills === 0) return 'This colour lacks nothing at the moment.';
  const settle = `whether the ${counted(lackingDrills, 'drill')} it lacks are in an ordinary packet`;
  const pieces = sampleToSettle(packetDrills, lackingDrills, drillGrams, setup);
  return pieces === null
    ? `To settle ${settle}, no sample is large enough: the numbers are too close. Count the bag.`
    : `A sample of ${pieces} settles ${settle}.`;
}

/** A weighed count in words: `1,236 drills, give or take 22`. */
export function weighedInWords(count: WeighedCount): string {
  return `${Math.round(count.drills).toLocaleString('en')} drills, give or take ${Math.ceil(expanded(count)).toLocaleString('en')}`;
}

function readingVariance(setup: WeighingSetup): number {
  return setup.resolutionGrams ** 2 / 12;
}
