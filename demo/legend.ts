import { converter } from 'culori';
import type { LegendLine } from '../src/core/canvas/legend';
import { packetsFor } from '../src/core/checkin/supply';
import type { Finish } from '../src/core/colour/finish';
import { type Rgb, rgbToHex } from '../src/core/colour/rgb';
import { between, pick, type Random, shuffled } from './random';

const toOklch = converter('oklch');

/** Glyphs of the demo kits; each has a shape in the fonts that ship. */
const GLYPHS = [
  ...'ABCDEFGHJKLMNPRSTUVWXYZ2345678●■▲▼◆★◐◧◩▣▤▦◎⊕⊗△▽◇☆♥♣♠+=#%&@?ΔΩΣΠΨΞ∞√∩∪→↑↓←⬢⬟abdehknrtwy<>$~',
];

/** Pairs that the eye takes for each other, planted in one kit for the symbol check. */
export const LIKE_PAIRS = ['(', ')', '−', '∕', 'O', '0'];

/** Ways in which the codes of the invented range mark a finish. */
const PREFIX: Partial<Record<Finish, string>> = { iridescent: 'SH', metallic: 'MT' };

export interface LegendWish {
  palette: readonly Rgb[];
  counts: ArrayLike<number>;
  packetDrills: number;
  /** Palette index → finish, for those that are not plain. */
  finishes: ReadonlyMap<number, Finish>;
  firstGlyphs: readonly string[];
}

/**
 * An invented inventory sheet: codes of three or four digits, names from the colours' own hue and lightness,
 * and as many packets as cover the need with a little over.
 */
export function inventLegend(wish: LegendWish, random: Random): LegendLine[] {
  const glyphs = [...wish.firstGlyphs, ...shuffled(random, GLYPHS)];
  const codes = new Set<string>();
  const names = new Set<string>();
  return wish.palette.map((rgb, i) => {
    const finish = wish.finishes.get(i) ?? 'plain';
    let code: string;
    do {
      code = `${PREFIX[finish] ?? ''}${Math.floor(random() < 0.55 ? between(random, 104, 998) : between(random, 1003, 4988))}`;
    } while (codes.has(code));
    codes.add(code);
    const neededDrills = wish.counts[i]!;
    return {
      line: i + 1,
      keyNumber: String(i + 1),
      symbol: glyphs[i]!,
      code,
      name: freshName(rgb, names, random),
      hex: rgbToHex(rgb),
      finish,
      neededDrills,
      packets: packetsFor(neededDrills * 1.06, wish.packetDrills),
    };
  });
}

const HUES: [upTo: number, nouns: string[]][] = [
  [20, ['rosehip', 'beetroot', 'peony', 'foxglove']],
  [50, ['brick', 'clay', 'ember', 'poppy']],
  [75, ['apricot', 'amber', 'copper', 'chestnut']],
  [105, ['straw', 'honey', 'broom', 'mustard']],
  [130, ['lichen', 'pear', 'willow', 'gorse']],
  [165, ['fern', 'moss', 'ivy', 'nettle']],
  [205, ['verdigris', 'mint', 'pond', 'spruce']],
  [245, ['lagoon', 'teal', 'reed pool', 'glacier']],
  [275, ['river', 'cornflower', 'slate', 'dusk']],
  [310, ['ink', 'iris', 'night', 'bluebell']],
  [345, ['violet', 'heather', 'plum', 'thistle']],
  [361, ['mallow', 'sweet pea', 'damson', 'clover']],
];
const GREYS = ['pebble', 'flint', 'ash', 'chalk', 'linen', 'graphite'];

function freshName(rgb: Rgb, taken: Set<string>, random: Random): string {
  const { l, c, h } = toOklch({ mode: 'rgb', r: rgb[0] / 255, g: rgb[1] / 255, b: rgb[2] / 255 });
  const nouns = c < 0.025 ? GREYS : HUES.find(([upTo]) => (h ?? 0) < upTo)![1];
  const depth =
    l < 0.3
      ? ['Deep', 'Midnight', 'Dark']
      : l < 0.5
        ? ['Shaded', 'Old', 'Rich']
        : l < 0.7
          ? ['Soft', 'Clear', 'Field']
          : l < 0.86
            ? ['Light', 'Pale', 'Morning']
            : ['Faint', 'Milk', 'White'];
  for (let attempt = 0; ; attempt++) {
    const name = `${pick(random, depth)} ${pick(random, nouns)}${attempt > 20 ? ` ${attempt - 19}` : ''}`;
    if (taken.has(name)) continue;
    taken.add(name);
    return name;
  }
}
