import type { Shape } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { looseCode } from '../codes/codes';
import { differenceInWords, labDifference, labOf } from '../colour/difference';
import type { Finish } from '../colour/finish';
import { hexToRgb } from '../colour/rgb';

/** Leftover drills of one colour. */
export interface StashItem {
  id: string;
  code: string;
  name: string;
  hex: string | null;
  finish: Finish;
  shape: Shape;
  drills: number;
}

/** A way to cover a shortage from the stash. */
export interface CoverOffer {
  item: StashItem;
  /** The same code, shape and finish, or only a near colour. */
  as: 'same' | 'near';
  /** ΔE00 between the two colours; 0 for the same code; null where one has no colour. */
  difference: number | null;
  inWords: string;
  enough: boolean;
}

/** Colours farther off than this are no help. */
const MOST_DIFFERENCE = 10;
const OFFERS = 4;

/**
 * A ΔE00 is the difference of lightness at least, weighed by S_L; so far it goes down to black and white (Sharma, Wu &
 * Dalal, 2005).
 */
const MOST_S_L = 1 + (0.015 * 50 ** 2) / Math.sqrt(20 + 50 ** 2);
/** How much nearer a colour of the same finish is taken to be. */
const OTHER_FINISH = 5;

/** What the stash has for one colour after the other. */
export interface CoverFinder {
  /** Offers where drills are lacking: the same code first, then the nearest colours of the same shape; four at most. */
  offers(line: LegendLine, lackingDrills: number): CoverOffer[];
  /** Drills of the same code and finish, in all its items together. */
  sameDrills(line: LegendLine): number;
}

/**
 * Makes ready what lies in the stash, for a kit asks about one colour after the other, and there may be thousands.
 * @example coverFinder(stash, 'square').offers(line, 200)
 */
export function coverFinder(stash: readonly StashItem[], shape: Shape): CoverFinder {
  const usable = stash.flatMap((item, place) =>
    item.shape === shape && item.drills > 0 ? [{ item, place, loose: looseCode(item.code) }] : [],
  );
  const byCode = new Map<string, typeof usable>();
  for (const each of usable) byCode.set(each.loose, [...(byCode.get(each.loose) ?? []), each]);
  const byLightness = usable
    .flatMap(({ item, place, loose }) =>
      item.hex === null ? [] : [{ item, place, loose, lab: labOf(hexToRgb(item.hex)) }],
    )
    .sort((a, b) => a.lab.l - b.lab.l);
  const sameAs = (line: LegendLine) =>
    (byCode.get(looseCode(line.code)) ?? []).filter(({ item }) => item.finish === line.finish);
  const offers: CoverFinder['offers'] = (line, lackingDrills) => {
    const loose = looseCode(line.code);
    const found: { offer: CoverOffer; place: number; rank: number }[] = [];
    for (const { item, place } of sameAs(line)) {
      const enough = item.drills >= lackingDrills;
      const offer = { item, as: 'same' as const, difference: 0, inWords: 'the same code and finish', enough };
      found.push({ offer, place, rank: -1000 });
    }
    const best = () => {
      found.sort((a, b) => a.rank - b.rank || a.place - b.place).splice(OFFERS);
      return found;
    };
    if (line.hex === null) return best().map(({ offer }) => offer);
    const lab = labOf(hexToRgb(line.hex));
    // From its own lightness outwards, until nothing can be nearer than what was found.
    let up = lightnessAt(byLightness, lab.l);
    let down = up - 1;
    for (;;) {
      const below = down >= 0 ? lab.l - byLightness[down]!.lab.l : Number.POSITIVE_INFINITY;
      const above = up < byLightness.length ? byLightness[up]!.lab.l - lab.l : Number.POSITIVE_INFINITY;
      const farthest = Math.min(MOST_DIFFERENCE, best()[OFFERS - 1]?.rank ?? MOST_DIFFERENCE);
      if (Math.min(below, above) / MOST_S_L > farthest) break;
      const each = byLightness[below <= above ? down-- : up++]!;
      if (each.loose === loose && each.item.finish === line.finish) continue;
      const difference = labDifference(each.lab, lab);
      if (difference > MOST_DIFFERENCE) continue;
      const { item, place } = each;
      const isLike = item.finish === line.finish;
      const inWords = `${differenceInWords(difference)}${isLike ? '' : `, but ${item.finish} instead of ${line.finish}`}`;
      const offer = { item, as: 'near' as const, difference, inWords, enough: item.drills >= lackingDrills };
      found.push({ offer, place, rank: difference + (isLike ? 0 : OTHER_FINISH) });
    }
    return best().map(({ offer }) => offer);
  };
  return {
    offers,
    sameDrills: (line) => sameAs(line).reduce((sum, { item }) => sum + item.drills, 0),
  };
}

/** The first place whose lightness is not below. */
function lightnessAt(sorted: readonly { lab: { l: number } }[], lightness: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]!.lab.l < lightness) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** What is taken from the stash for a shortage: what is short, at most what is there. */
export function drillsToTake({ item }: CoverOffer, shortDrills: number): number {
  return Math.min(item.drills, shortDrills);
}
