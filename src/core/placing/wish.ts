import type { LegendLine } from '../canvas/legend';
import { labOf } from '../colour/difference';
import { hexToRgb } from '../colour/rgb';
import type { School } from './schools';

/** What a plan is to make least of. */
export const GOALS = ['placements', 'minutes'] as const;
/** Rows and columns as they come, one of them where both save nothing; both only where that saves enough; one direction for each colour of a section. */
export const DIRECTIONS = ['free', 'sparing', 'one'] as const;

/**
 * All of a colour at once; every second row (or column) of all colours first, then the gaps; or single drills like the dark
 * squares of a checkerboard first, then the light ones. Two passes keep squares from drifting.
 */
export const PASSES = ['one', 'rows', 'checkerboard'] as const;

/** How the user likes to lay. Every wish but the school has its price in placements or minutes. */
export interface PlacingWish {
  goal: (typeof GOALS)[number];
  direction: (typeof DIRECTIONS)[number];
  /** With `sparing`: a colour is laid along rows and columns only where that saves more than so many placements. */
  turnWorth: number;
  /** No break between two bars lies beside a break of the row before, so that no seam shows. */
  staggered: boolean;
  passes: (typeof PASSES)[number];
  /** All bars of a colour with one tip before the tip is changed; else row by row, whatever the tip. */
  tipByTip: boolean;
  /** Colours lighter than this are laid one by one: CIE lightness L*, 0…100; null for none. */
  singlesAbove: number | null;
  /** Bars of at most so many drills, for hands that tremble; null for as many as the tips take. */
  longest: number | null;
  /** Squares beside the next section are laid one by one. */
  edgeSingles: boolean;
  school: School;
  /** With the school `own`: lines in the order in which they are laid; others follow as on the sheet. */
  ownOrder: number[];
}

export const USUAL_PLACING: Readonly<PlacingWish> = {
  goal: 'placements',
  direction: 'free',
  turnWorth: 3,
  staggered: false,
  passes: 'one',
  tipByTip: true,
  singlesAbove: null,
  longest: null,
  edgeSingles: false,
  school: 'most',
  ownOrder: [],
};

/** L* from which on a colour shows every uneven line (common practice, no source). */
export const LIGHT_FROM = 85;

/** Whether a colour is light enough to be laid one by one. One without a known colour is not. */
export function isLight(line: Pick<LegendLine, 'hex'>, above: number): boolean {
  return line.hex !== null && labOf(hexToRgb(line.hex)).l > above;
}
