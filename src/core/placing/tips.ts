import { largest } from '../words/numbers';

/** Drills that a pen's tips can take at once, ascending; 1 is the single placer and is always there. */
export type Tips = readonly number[];

/** Sizes of tips that are sold (common practice, no source). */
export const KNOWN_TIPS: Tips = [1, 2, 3, 4, 6, 7, 8, 9, 10, 13, 14, 15];
/** More drills than any tip takes. */
export const WIDEST_TIP = 50;

/** What a tip is made for; `both` where it does for either. */
export const TIP_SHAPES = ['square', 'round', 'both'] as const;

/** A tip in the user's pen case. */
export interface OwnTip {
  /** Drills it takes. */
  size: number;
  shape: (typeof TIP_SHAPES)[number];
  /** Which pen it sits on, in the user's words; empty where that does not matter. */
  pen: string;
  worn: boolean;
}

const tipName = ({ size, shape, pen }: OwnTip) => JSON.stringify([size, shape, pen]);

/**
 * A pen case once one screen's changes of it are made, whatever others put in or took out meanwhile.
 * @param now what is in it
 * @param before what that screen saw in it
 * @param wish what that screen would have in it
 */
export function changedTips(
  now: readonly OwnTip[],
  before: readonly OwnTip[],
  wish: readonly OwnTip[],
): OwnTip[] {
  const wished = new Map(wish.map((tip) => [tipName(tip), tip]));
  const seen = new Map(before.map((tip) => [tipName(tip), tip]));
  const changed = wish.filter((tip) => seen.get(tipName(tip))?.worn !== tip.worn);
  const others = now.filter((tip) => wished.has(tipName(tip)) || !seen.has(tipName(tip)));
  return [...new Map([...others, ...changed].map((tip) => [tipName(tip), tip])).values()];
}

/** Sorted, without repeats, with the single placer. */
export function orderTips(tips: Iterable<number>): number[] {
  return [...new Set([1, ...tips])].sort((a, b) => a - b);
}

/** The tips that do for drills of a shape. */
export function tipsFor(own: readonly OwnTip[], shape: 'square' | 'round'): number[] {
  return orderTips(own.filter((tip) => tip.shape === 'both' || tip.shape === shape).map(({ size }) => size));
}

/** The tip that a bar of so many drills is laid with: the narrowest that holds it. */
export function tipFor(drills: number, tips: Tips): number {
  return tips.find((tip) => tip >= drills) ?? largest(tips, 1);
}
