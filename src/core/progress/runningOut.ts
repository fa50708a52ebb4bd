import type { LineSupply } from '../checkin/supply';
import { goodLeft } from '../kitup/potNow';
import { addDays } from '../words/calendar';

/** A colour that may not reach its last drill. */
export interface RunningOut {
  line: number;
  /** Drills of it that are left to lay. */
  left: number;
  /** Good drills of it that are left, as far as it can be reckoned; never below 0. */
  goodLeft: number;
  /** Chance that it runs out, 0…1. */
  chance: number;
  /** Section in which it would show; null where that is not known. */
  section: number | null;
  /** Day about which it would show, `YYYY-MM-DD`; null where nothing foretells it. */
  day: string | null;
  /** Whether it is time to write to the seller. */
  urgent: boolean;
}

/** From this chance on a colour is told of. */
const TOLD_FROM = 0.05;
/** Days that a letter and a parcel take (common practice, no source). */
const POST_DAYS = 28;

/**
 * Colours that may run out, the most likely first: what is left to lay against what lies in pots and bags. What was thrown
 * out so far is not counted drill by drill, so the chance is that of the whole colour.
 * @param left drills to lay, by line @param section where it would show, by line
 * @param dayOf about when that section is reached, days from today; null where nothing foretells it
 */
export function runningOut(
  supply: readonly LineSupply[],
  left: (line: number) => number,
  trashShare: number,
  dayOf: (section: number) => number | null,
  today: string,
): RunningOut[] {
  return supply
    .filter(({ line, chance }) => chance >= TOLD_FROM && left(line) > 0)
    .map(({ line, chance, suppliedDrills, neededDrills, lastsUntilSection }) => {
      const days = lastsUntilSection === null ? null : dayOf(lastsUntilSection);
      const laid = Math.max(0, neededDrills - left(line));
      return {
        line,
        left: left(line),
        goodLeft: goodLeft({ stored: suppliedDrills, laid, trashShare }),
        chance,
        section: lastsUntilSection,
        day: days === null ? null : addDays(today, days),
        urgent: days === null || days <= POST_DAYS,
      };
    })
    .sort((a, b) => b.chance - a.chance || a.line - b.line);
}
