import { converter, differenceCiede2000, type Lab65 } from 'culori';
import { asCulori, type Rgb } from './rgb';

const ciede2000 = differenceCiede2000();

/**
 * Colour difference ΔE00 of two sRGB colours, by the library `culori`
 * (formula: Sharma, Wu & Dalal, 2005). About 1 is the least that a trained eye tells apart.
 */
export function colourDifference(first: Rgb, second: Rgb): number {
  return ciede2000(asCulori(first), asCulori(second));
}

/** A colour in CIELAB under D65, to be compared many times. */
export type Lab = Readonly<Lab65>;

const toLab = converter('lab65');

export function labOf(rgb: Rgb): Lab {
  return toLab(asCulori(rgb));
}

/** ΔE00 of two colours that are in CIELAB already. */
export function labDifference(first: Lab, second: Lab): number {
  return ciede2000(first, second);
}

/**
 * What a ΔE00 means to the eye (common practice, no source).
 * @example differenceInWords(3) // 'a shade apart'
 */
export function differenceInWords(difference: number): string {
  if (difference < 1) return 'cannot be told apart by eye';
  if (difference < 2) return 'seen only side by side';
  if (difference < 4) return 'a shade apart';
  if (difference < 7) return 'clearly another shade';
  if (difference < 15) return 'a different colour of the same kind';
  return 'a very different colour';
}
