import { wcagContrast, wcagLuminance } from 'culori';
import { asCulori, type Rgb } from './rgb';

/** Relative luminance 0…1 of an sRGB colour (WCAG 2.2, "relative luminance"). */
export function relativeLuminance(rgb: Rgb): number {
  return wcagLuminance(asCulori(rgb));
}

/** Contrast ratio 1…21 between two sRGB colours (WCAG 2.2, "contrast ratio"). */
export function contrastRatio(first: Rgb, second: Rgb): number {
  return wcagContrast(asCulori(first), asCulori(second));
}

const DARK_INK = '#17130f';
const LIGHT_INK = '#ffffff';

/**
 * The ink, dark or light, that reads better on this ground.
 * @example inkOn([255, 224, 96]) // '#17130f': dark ink on yellow
 */
export function inkOn(ground: Rgb): typeof DARK_INK | typeof LIGHT_INK {
  return contrastRatio(ground, [23, 19, 15]) >= contrastRatio(ground, [255, 255, 255]) ? DARK_INK : LIGHT_INK;
}
