import { many } from '../words/numbers';
import type { Verdicts } from './classify';

/** Somebody looks at cells that are wrong with more than this chance. */
export const FLAGGED_FROM = 0.03;

/**
 * Fitted to simulated photographs, two usual and four bad ones, of 30 to 60 colours; then made three times as doubtful, as
 * photographs of drawn pictures in bad light that nothing was fitted to turned out to be. See docs/reading.md.
 */
const WEIGHTS = { base: -11.6, margin: 0.182, fit: 13 };
/** Beyond it a margin says no more. */
const MOST_MARGIN = 30;

/**
 * The chance that each cell is wrong: a logistic curve over how much likelier its line is than the next one (as a logarithm)
 * and how well its glyph fits.
 */
export function doubtOf({ margin, fit }: Pick<Verdicts, 'margin' | 'fit'>): Float32Array {
  return Float32Array.from(margin, (value, cell) => {
    const sure = WEIGHTS.base + WEIGHTS.margin * Math.min(MOST_MARGIN, value) + WEIGHTS.fit * fit[cell]!;
    return 1 / (1 + Math.exp(sure));
  });
}

/** From this share of cells in doubt on, a photograph is taken to be of something else. */
const TOO_MUCH = 0.6;

/** That nearly nothing of a photograph could be read, as a sentence; null where enough was. */
export function faultInDoubt(flagged: number, cells: number): string | null {
  if (flagged <= cells * TOO_MUCH) return null;
  return `Nearly nothing of it could be read: ${many(flagged)} of ${many(cells)} squares are in doubt. Is it this canvas, without drills, and are columns and rows counted right? Nothing of it was kept.`;
}

/** More than this share of a usual photograph is not in doubt. */
const MUCH = 0.08;

/**
 * What is likely to be the matter with a photograph of which much is in doubt, as a sentence; null where that is little.
 * Squares with drills on them show no symbol, and are all in doubt.
 */
export function causeOfDoubt(doubtful: number, cells: number): string | null {
  if (doubtful <= cells * MUCH) return null;
  return 'Are drills laid there already? Their squares show no symbol, and have to be looked at one by one. If not, look whether the lines lie on the printed ones, or take it again with the lamp moved.';
}

/** Cells that somebody has to look at. */
export function countDoubtful(doubt: ArrayLike<number>): number {
  let n = 0;
  for (let cell = 0; cell < doubt.length; cell++) if (doubt[cell]! > FLAGGED_FROM) n++;
  return n;
}
