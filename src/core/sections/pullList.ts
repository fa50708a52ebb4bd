import type { Bitmap } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { countInPart } from '../cells/rect';
import { drillsFor } from '../checkin/goodDrills';
import { potLevel } from '../kitup/potNow';
import { counted, many } from '../words/numbers';
import { numbersInWords } from './coverInWords';
import type { Section } from './section';

/** A colour's pot as it was filled. Drills. */
export interface PullPot {
  line: number;
  /** What the pot takes; 0 where the colour stays in its bag. */
  capacity: number;
  /** All that there is of the colour, in the pot and in its overflow bag. */
  drills: number;
}

/** A colour to take out for some sections. Drills. */
export interface Pull {
  line: number;
  /** Left to lay in those sections. */
  toLay: number;
  /** To tip into the tray, with bad ones among them. */
  toTip: number;
  /** In the pot now, as reckoned from what is laid. */
  inPot: number;
  /** In the pot when the sections are done; after a refill where one is due. */
  after: number;
  /** The overflow bag is needed on the way. */
  refill: boolean;
  /** Even with all that is left, this runs short. */
  short: number;
}

/**
 * What to take out for some sections: as many drills as are left in them, and a share of bad ones on top.
 * @param pots what is known of pots, by line; colours that are not named have all they need
 * @param laidOf drills of a line that are laid on the whole canvas
 * @param trashShare 0…1
 */
export function pullList(
  chart: Chart,
  laid: Bitmap,
  sections: readonly Section[],
  lines: number,
  pots: ReadonlyMap<number, PullPot>,
  laidOf: (line: number) => number,
  trashShare: number,
): Pull[] {
  const toLay = new Uint32Array(lines + 1);
  for (const section of sections) {
    const here = countInPart(chart, section, lines, laid);
    for (let line = 1; line <= lines; line++) toLay[line]! += here[line]!;
  }
  const pulls: Pull[] = [];
  for (let line = 1; line <= lines; line++) {
    if (toLay[line] === 0) continue;
    const pot = pots.get(line);
    const toTip = drillsFor(toLay[line]!, trashShare);
    const used = drillsFor(laidOf(line), trashShare);
    const inPot = pot ? potLevel(pot, used) : 0;
    const rest = pot ? pot.drills - used - toTip : 0;
    pulls.push({
      line,
      toLay: toLay[line]!,
      toTip,
      inPot,
      after: pot ? potLevel(pot, used + toTip) : 0,
      refill: pot !== undefined && pot.capacity > 0 && toTip > inPot && pot.drills - used > inPot,
      short: pot ? Math.max(0, -rest) : 0,
    });
  }
  return pulls;
}

/** @example pulledFor([{ number: 4, name: null }]) // 'section 4' */
export function pulledFor(sections: readonly { number: number; name: string | null }[]): string {
  const [only] = sections;
  if (sections.length === 1 && only) {
    return `section ${many(only.number)}${only.name === null ? '' : `, ${only.name}`}`;
  }
  return `sections ${numbersInWords(sections.map(({ number }) => number))}`;
}

/** What else to know of a colour that is taken out; empty for nothing. */
export function pullNote(bag: number | null, short: number): string {
  return [bag !== null && `open bag ${many(bag)}`, short > 0 && `${counted(short, 'drill')} short`]
    .filter(Boolean)
    .join(', ');
}
