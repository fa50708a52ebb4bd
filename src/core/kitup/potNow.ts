import { drillsFor, goodOf } from '../checkin/goodDrills';
import { counted, many } from '../words/numbers';

/** What is known of a colour in its pots. Amounts in drills. */
export interface PotFill {
  /** What there is of the colour in all: in its pots and in its overflow bag. */
  stored: number;
  /** Room of its pots together; 0 where it has none and lives in a bag. */
  capacity: number;
  /** Drills of it that are laid. */
  laid: number;
  /** Share of bad drills, 0…1, which are taken out of the pot too. */
  trashShare: number;
}

/** How a colour's pots stand, as far as it can be reckoned. */
export interface PotNow {
  inPot: number;
  inBag: number;
  /** Good drills that can be laid before the pot is empty and the bag is due; null where no bag stands beside it. */
  untilRefill: number | null;
}

/** What is in a pot after so many drills were taken: it is filled again from the overflow bag whenever it runs empty. */
export function potLevel({ capacity, drills }: { capacity: number; drills: number }, taken: number): number {
  const left = Math.max(0, drills - taken);
  if (capacity <= 0) return left;
  return Math.min(left, capacity - (taken % capacity));
}

/**
 * What lies in the pots of a colour now: what was filled in, less what was laid and the bad ones among that. The pot is
 * filled again from its bag whenever it runs empty.
 * @example potNow({ stored: 900, capacity: 400, laid: 100, trashShare: 0 }) // { inPot: 300, inBag: 500, untilRefill: 300 }
 */
export function potNow({ stored, capacity, laid, trashShare }: PotFill): PotNow {
  const taken = drillsFor(laid, trashShare);
  const left = Math.max(0, stored - taken);
  if (capacity <= 0) return { inPot: 0, inBag: left, untilRefill: null };
  const inPot = potLevel({ capacity, drills: stored }, taken);
  const inBag = left - inPot;
  return { inPot, inBag, untilRefill: inBag > 0 ? goodOf(inPot, trashShare) : null };
}

/** Good drills of a colour that are still there for its squares: those that came, less bad ones, less what is laid. */
export function goodLeft({ stored, laid, trashShare }: Omit<PotFill, 'capacity'>): number {
  return Math.max(0, goodOf(stored, trashShare) - laid);
}

/**
 * The same in a sentence. @param bag number of the bag beside the pot @param leftHere drills still to lay in this section
 * @example potNowInWords({ inPot: 300, inBag: 500, untilRefill: 300 }, 3, 195) // 'About 300 in the pot, 500 in bag 3.'
 */
export function potNowInWords(
  { inPot, inBag, untilRefill }: PotNow,
  bag: number | null,
  leftHere: number,
): string {
  if (inPot === 0 && inBag === 0) return 'By the count nothing is left of it.';
  if (inPot === 0) return `About ${many(inBag)} in ${bag === null ? 'its bag' : `bag ${bag}`}.`;
  const pot = `About ${many(inPot)} in the pot`;
  if (untilRefill === null) return `${pot}.`;
  const from = bag === null ? 'its bag' : `bag ${bag}`;
  return untilRefill < leftHere
    ? `${pot}: fill up from ${from} after ${counted(untilRefill, 'drill')} more.`
    : `${pot}, ${many(inBag)} in ${from}.`;
}
