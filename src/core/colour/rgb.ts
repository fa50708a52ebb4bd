/** sRGB, each part 0…255. */
export type Rgb = readonly [red: number, green: number, blue: number];

/** What a drill is drawn as when its sheet names no colour. */
export const UNKNOWN_COLOUR = '#b8b0a4';

/** Reads `#rgb`, `rgb`, `#rrggbb` or `rrggbb`; gives `#rrggbb` in lower case, or null. */
export function readHex(text: string): string | null {
  const digits = text.trim().replace(/^#/, '').toLowerCase();
  if (/^[0-9a-f]{6}$/.test(digits)) return `#${digits}`;
  if (/^[0-9a-f]{3}$/.test(digits)) return `#${[...digits].map((d) => d + d).join('')}`;
  return null;
}

/** @param hex `#rrggbb` */
export function hexToRgb(hex: string): Rgb {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

export function rgbToHex([red, green, blue]: Rgb): string {
  return `#${((1 << 24) | (red << 16) | (green << 8) | blue).toString(16).slice(1)}`;
}

/** Straight mix of two colours in sRGB; `share` of the second, 0…1. */
export function mix(first: Rgb, second: Rgb, share: number): Rgb {
  return [0, 1, 2].map((i) => Math.round(first[i]! + (second[i]! - first[i]!) * share)) as unknown as Rgb;
}
