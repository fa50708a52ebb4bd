import { formatHex, parse } from 'culori';
import { hexToRgb, mix, type Rgb, rgbToHex } from './rgb';

const WHITE: Rgb = [255, 255, 255];
const BLACK: Rgb = [0, 0, 0];
/** Words that people put before a colour, and how far they move it towards white or black. */
const SHADES: Record<string, { towards: Rgb; share: number }> = {
  'very light': { towards: WHITE, share: 0.6 },
  pale: { towards: WHITE, share: 0.45 },
  light: { towards: WHITE, share: 0.35 },
  dark: { towards: BLACK, share: 0.4 },
  deep: { towards: BLACK, share: 0.3 },
  'very dark': { towards: BLACK, share: 0.6 },
};

/**
 * The colour that a name means: the named colours of CSS (CSS Color Module Level 4, 6.1), in any letter case and with
 * blanks, also with light, pale, dark or deep before them.
 * @returns `#rrggbb`, or null for a name that is not known
 * @example readColourName('Dark Sea Green') // '#8fbc8f'
 */
export function readColourName(name: string): string | null {
  const words = name.trim().toLowerCase().replace(/\s+/g, ' ');
  if (!/^[a-z ]+$/.test(words)) return null;
  const whole = named(words);
  if (whole) return whole;
  for (const [shade, { towards, share }] of Object.entries(SHADES)) {
    const base = words.startsWith(`${shade} `) ? named(words.slice(shade.length + 1)) : null;
    if (base !== null) return rgbToHex(mix(hexToRgb(base), towards, share));
  }
  return null;
}

function named(words: string): string | null {
  const colour = parse(words.replaceAll(' ', ''));
  // “transparent” is no colour of a drill.
  return colour && (colour.alpha ?? 1) === 1 ? formatHex(colour) : null;
}
