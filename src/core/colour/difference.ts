import { type Rgb as CuloriRgb, differenceCiede2000 } from 'culori';
import type { Rgb } from './rgb';

const ciede2000 = differenceCiede2000();

/**
 * Colour difference ΔE00 of two sRGB colours, by the library `culori`
 * (formula: Sharma, Wu & Dalal, 2005). About 1 is the least that a trained eye tells apart.
 */
export function colourDifference(first: Rgb, second: Rgb): number {
  return ciede2000(asCulori(first), asCulori(second));
}

function asCulori([r, g, b]: Rgb): CuloriRgb {
  return { mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 };
}
