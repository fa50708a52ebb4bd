/** How the number of drills in a bag is known. */
export const BAG_MEASURES = ['nominal', 'counted', 'weighed', 'photographed'] as const;
export type BagMeasure = (typeof BAG_MEASURES)[number];

/** Whether the number is an estimate that brings its own uncertainty along. */
export function isEstimated(how: BagMeasure): boolean {
  return how === 'weighed' || how === 'photographed';
}

/** Where a bag came from: out of the kit, sent by the seller later, from the stash, or bought. */
export const BAG_ORIGINS = ['kit', 'seller', 'stash', 'bought'] as const;
export type BagOrigin = (typeof BAG_ORIGINS)[number];

/** A part of an error that bags have in common, because they were weighed against one sample or one empty bag. */
export interface SharedError {
  /** Id of what they were weighed against. */
  source: string;
  /** Standard deviation that it brings to this bag, in drills; all bags of one source err the same way. */
  spread: number;
}

/** A bag in the check-in ledger; `line` is null for a bag that belongs to no line. */
export interface CountedBag {
  id: string;
  line: number | null;
  /** What was typed or picked, as it stands on the bag. */
  label: string;
  drills: number;
  how: BagMeasure;
  /** Standard deviation of `drills` by itself: 0 when counted, from the weighing when weighed, else `nominalSpread`. */
  spread: number;
  /** What it errs by together with other bags, beside `spread`. */
  shared: readonly SharedError[];
  origin: BagOrigin;
}
