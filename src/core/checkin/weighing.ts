import { Refusal } from '../refusal';
import { counted, many, readNumber } from '../words/numbers';
import { plainSigns } from '../words/plainSigns';
import type { SharedError } from './bag';

/** A scale, as far as its display tells. */
export interface ScaleSetup {
  /** Smallest step of the display, in grams. */
  stepGrams: number;
}

/** A mass with its standard uncertainty, both in grams. */
export interface Weight {
  grams: number;
  uncertainty: number;
}

/** What a display showed with the load on the pan, and with nothing on it. */
export interface ScaleDisplay {
  load: Weight;
  zero: Weight;
  /** Time between the two, in minutes. */
  minutesSinceZero: number;
}

/** One number read off a display: uncertain by step ÷ √12 (JCGM 100, 4.3.7). */
export function readOff(grams: number, { stepGrams }: ScaleSetup): Weight {
  return { grams, uncertainty: stepGrams / Math.sqrt(12) };
}

/** No bag of drills weighs more. */
const MOST_GRAMS = 5000;

/**
 * What somebody typed off a display, in grams, with a decimal comma or point. Places that the display does not have are
 * refused: either its step is another one, or the comma parts thousands.
 * @example readDisplay('1,24', { stepGrams: 0.01 }) // { grams: 1.24 }
 */
export function readDisplay(text: string, { stepGrams }: ScaleSetup): { grams: number } | { fault: string } {
  const grams = readNumber(text);
  if (grams === null || grams < 0 || grams > MOST_GRAMS) return { fault: `0 to ${many(MOST_GRAMS)} g` };
  const places = /[.,٫](\d*)$/.exec(plainSigns(text).trim())?.[1]?.length ?? 0;
  return places > Math.round(-Math.log10(stepGrams))
    ? { fault: `A display in steps of ${stepGrams} g does not show ${text.trim()}.` }
    : { grams };
}

/** A counted sample: so many pieces, and what they weigh without any bag. The id is the source of its error in bags. */
export interface WeighedSample extends Weight {
  id: string;
  pieces: number;
}

/** The empty bag, or the dish into which every bag is poured. */
export interface Tare extends Weight {
  id: string;
  /** Bags are weighed as they are, and no two empty ones are quite alike. */
  eachItsOwn: boolean;
}

/** Drills by weight, with the standard deviations of what the count errs by, in drills. */
export interface WeighedCount {
  drills: number;
  /** By itself. */
  spread: number;
  /** Together with all others that were weighed against the same sample or empty bag. */
  shared: readonly SharedError[];
}

/** Usual variation of one drill's mass: 5 % (common practice, no source). */
export const USUAL_DRILL_VARIATION = 0.05;

/** Empty bags of one kit differ by about 2 % of their weight (common practice, no source). */
const BAG_VARIATION = 0.02;

/** While a scale warms up its zero wanders by at most two steps of its display a minute (common practice, no source). */
const DRIFT_STEPS_A_MINUTE = 2;

/** A zero older than this says too little; the pan is to be emptied and the scale zeroed again. */
const ZERO_LASTS_MINUTES = 2;

/** Covers about 95 % of results (JCGM 100, 6.3.3). */
const COVERAGE = 2;
const LEAST_SAMPLE = 10;
const MOST_SAMPLE = 500;

/**
 * The mass on the pan: what is shown, less what was shown with nothing on it.
 *
 * Beside both readings the zero is uncertain by what it may have wandered since: anything up to
 * `DRIFT_STEPS_A_MINUTE`, equally likely, hence ÷ √3 (JCGM 100, 4.3.7).
 * @throws Refusal when the zero is too old
 */
export function weightOf(display: ScaleDisplay, { stepGrams }: ScaleSetup): Weight {
  const { load, zero, minutesSinceZero } = display;
  if (minutesSinceZero > ZERO_LASTS_MINUTES) {
    throw new Refusal(
      `The zero is more than ${ZERO_LASTS_MINUTES} minutes old, and a scale drifts. Empty the pan and zero it again.`,
    );
  }
  const wandered = (DRIFT_STEPS_A_MINUTE * stepGrams * Math.max(0, minutesSinceZero)) / Math.sqrt(3);
  return {
    grams: load.grams - zero.grams,
    uncertainty: Math.hypot(load.uncertainty, zero.uncertainty, wandered),
  };
}

/**
 * Drills in a bag from its weight: N = pieces × (full − empty) ÷ sample.
 *
 * Uncertainty by the first-order rule (JCGM 100, 5.1.2), its parts kept apart, because bags that were weighed against
 * one sample all err to the same side: the sample's own weight and the drills that happen to be in it; the empty bag,
 * where one stands for all; and by itself each bag's weight, its own drills and its own empty bag.
 * @throws Refusal with a sentence when a weight or the sample makes no sense
 */
export function countByWeight(
  sample: WeighedSample,
  full: Weight,
  tare: Tare,
  drillVariation = USUAL_DRILL_VARIATION,
): WeighedCount {
  if (!(sample.pieces >= 1 && sample.grams > 0)) {
    throw new Refusal('Weigh a counted sample first: at least one drill, and more than 0 grams.');
  }
  const net = full.grams - tare.grams;
  if (!(net > 0)) throw new Refusal('The full bag must weigh more than the empty one.');
  const perGram = sample.pieces / sample.grams;
  const drills = perGram * net;
  const bagGrams = tare.eachItsOwn ? BAG_VARIATION * tare.grams : 0;
  return {
    drills,
    spread: Math.hypot(perGram * full.uncertainty, drillVariation * Math.sqrt(drills), perGram * bagGrams),
    shared: [
      {
        source: sample.id,
        spread:
          drills * Math.hypot(sample.uncertainty / sample.grams, drillVariation / Math.sqrt(sample.pieces)),
      },
      // The empty bag that was weighed is itself one of those that differ.
      { source: tare.id, spread: perGram * Math.hypot(tare.uncertainty, bagGrams) },
    ],
  };
}

/** What bags err by, each by itself and some together. */
export type ErringBag = Pick<WeighedCount, 'spread' | 'shared'>;

/**
 * Standard deviation of a sum of bags, in drills: what bags err by themselves adds up in squares, what they err by
 * together adds up as it is.
 */
export function spreadOfSum(bags: readonly ErringBag[]): number {
  const bySource = new Map<string, number>();
  let variance = 0;
  for (const { spread, shared } of bags) {
    variance += spread ** 2;
    for (const each of shared) bySource.set(each.source, (bySource.get(each.source) ?? 0) + each.spread);
  }
  for (const spread of bySource.values()) variance += spread ** 2;
  return Math.sqrt(variance);
}

/** Half width of the interval that holds the sum of bags in about 95 % of cases, in drills. */
export function expanded(bags: readonly ErringBag[]): number {
  return COVERAGE * spreadOfSum(bags);
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
  scale: ScaleSetup,
): number | null {
  const margin = Math.abs(expectedDrills - neededDrills);
  const weighed = (grams: number): Weight =>
    weightOf({ load: readOff(grams, scale), zero: readOff(0, scale), minutesSinceZero: 0 }, scale);
  const tare: Tare = { id: 'tare', ...weighed(0), eachItsOwn: false };
  const settles = (pieces: number) => {
    const sample = { id: 'sample', pieces, ...weighed(pieces * drillGrams) };
    return expanded([countByWeight(sample, weighed(expectedDrills * drillGrams), tare)]) <= margin;
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
  scale: ScaleSetup,
): string {
  if (lackingDrills === 0) return 'Nothing of this colour is missing at the moment.';
  const settle = `whether the ${counted(lackingDrills, 'drill')} that are missing are in an ordinary bag`;
  const pieces = sampleToSettle(packetDrills, lackingDrills, drillGrams, scale);
  return pieces === null
    ? `To settle ${settle}, no sample is large enough: the numbers are too close. Count the bag.`
    : `A sample of ${pieces} settles ${settle}.`;
}

/**
 * Weighed bags together, in words.
 * @example weighedInWords([count]) // '1,236 drills, give or take 22'
 */
export function weighedInWords(bags: readonly WeighedCount[]): string {
  const drills = bags.reduce((sum, bag) => sum + bag.drills, 0);
  return `${counted(Math.round(drills), 'drill')}, give or take ${many(Math.ceil(expanded(bags)))}`;
}
