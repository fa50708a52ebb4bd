import type { Shape } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { looseCode } from '../codes/codes';
import { colourDifference, differenceInWords } from '../colour/difference';
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

/** Offers for a colour that lacks drills: the same code first, then the nearest colours of the same shape. */
export function coverOffers(
  line: LegendLine,
  shape: Shape,
  lackingDrills: number,
  stash: readonly StashItem[],
): CoverOffer[] {
  const usable = stash.filter((item) => item.shape === shape && item.drills > 0);
  const offers = usable.flatMap((item): CoverOffer[] => {
    const enough = item.drills >= lackingDrills;
    if (looseCode(item.code) === looseCode(line.code) && item.finish === line.finish) {
      return [{ item, as: 'same', difference: 0, inWords: 'the same code and finish', enough }];
    }
    if (item.hex === null || line.hex === null) return [];
    const difference = colourDifference(hexToRgb(item.hex), hexToRgb(line.hex));
    if (difference > MOST_DIFFERENCE) return [];
    const finish = item.finish === line.finish ? '' : `, but ${item.finish} instead of ${line.finish}`;
    return [{ item, as: 'near', difference, inWords: differenceInWords(difference) + finish, enough }];
  });
  const rank = (offer: CoverOffer) =>
    (offer.as === 'same' ? -1000 : 0) + (offer.difference ?? 0) + (offer.item.finish === line.finish ? 0 : 5);
  return offers.sort((a, b) => rank(a) - rank(b)).slice(0, OFFERS);
}

/** What is taken from the stash for a shortage: what is short, at most what is there. */
export function drillsToTake({ item }: CoverOffer, shortDrills: number): number {
  return Math.min(item.drills, shortDrills);
}
