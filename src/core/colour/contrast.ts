import type { Rgb } from './rgb';

/** Relative luminance 0…1 of an sRGB colour (WCAG 2.2, "relative luminance"). */
export function relativeLuminance(rgb: Rgb): number {
  const [red, green, blue] = rgb.map((part) => {
    const share = part / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
}

/** Contrast ratio 1…21 between two sRGB colours (WCAG 2.2, "contrast ratio"). */
export function contrastRatio(first: Rgb, second: Rgb): number {
  const [lighter, darker] = [relativeLuminance(first), relativeLuminance(second)].sort((a, b) => b - a);
  return (lighter! + 0.05) / (darker! + 0.05);
}

const DARK_INK = '#17130f';
const LIGHT_INK = '#ffffff';

/** The ink, dark or light, that reads better on this ground. */
export function inkOn(ground: Rgb): typeof DARK_INK | typeof LIGHT_INK {
  return contrastRatio(ground, [23, 19, 15]) >= contrastRatio(ground, [255, 255, 255]) ? DARK_INK : LIGHT_INK;
}
