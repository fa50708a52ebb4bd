import { type Rgb as CuloriRgb, formatHex, parseHex } from 'culori';

/** sRGB, each part 0…255. */
export type Rgb = readonly [red: number, green: number, blue: number];

/** What a drill is drawn as when its sheet names no colour. */
export const UNKNOWN_COLOUR = '#b8b0a4';

/**
 * Reads `#rgb`, `rgb`, `#rrggbb` or `rrggbb`; gives `#rrggbb` in lower case, or null.
 * @example readHex('F80') // '#ff8800'
 */
export function readHex(text: string): string | null {
  const digits = text.trim().replace(/^#/, '');
  // The library also reads colours with a share of transparency, which no drill has.
  if (digits.length !== 3 && digits.length !== 6) return null;
  const colour = parseHex(`#${digits}`);
  return colour ? formatHex(colour) : null;
}

/** @param hex `#rrggbb` */
export function hexToRgb(hex: string): Rgb {
  const { r, g, b } = parseHex(hex) ?? { r: 0, g: 0, b: 0 };
  return [Math.round(r * 255), Math.round(g * 255), Math.round(b * 255)];
}

export function rgbToHex(rgb: Rgb): string {
  return formatHex(asCulori(rgb));
}

/** The same colour as the colour library takes it. */
export function asCulori([r, g, b]: Rgb): CuloriRgb {
  return { mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 };
}

/** Straight mix of two colours in sRGB; `share` of the second, 0…1. */
export function mix(first: Rgb, second: Rgb, share: number): Rgb {
  return [0, 1, 2].map((i) => Math.round(first[i]! + (second[i]! - first[i]!) * share)) as unknown as Rgb;
}
