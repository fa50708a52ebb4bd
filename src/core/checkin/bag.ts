/** How the number of drills in a bag is known. */
export type BagMeasure = 'nominal' | 'counted' | 'weighed';

/** Where a bag came from: out of the kit, sent by the seller later, from the stash, or bought. */
export const BAG_ORIGINS = ['kit', 'seller', 'stash', 'bought'] as const;
export type BagOrigin = (typeof BAG_ORIGINS)[number];

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
  origin: BagOrigin;
}
