import type { Effort } from '../pace/effort';
import type { TimeModel } from '../pace/timeModel';

/** Squares in which about two thirds of a kit's colours are met (common practice, no source). */
const SPREAD_SQUARES = 1500;

/**
 * Colours that a section of a canvas without a chart opens, as a guess: few in a small one, nearly all in a large one.
 * @param colours of the kit
 * @example guessedColours(400, 32) // about 7.5
 */
export function guessedColours(squares: number, colours: number): number {
  return colours * (1 - Math.exp(-squares / SPREAD_SQUARES));
}

/** What is guessed of a section in which nobody knows where the colours lie: drills one by one, and the colours. */
export function guessedEffort(drills: number, colours: number): Effort {
  return {
    colours: drills === 0 ? 0 : guessedColours(drills, colours),
    singles: drills,
    shortBars: 0,
    longBars: 0,
    turns: 0,
    confetti: 0,
  };
}

/** Squares that are laid in so many seconds, openings included, on a canvas without a chart; at least one. */
export function squaresInSitting(
  seconds: number,
  colours: number,
  { seconds: each }: Pick<TimeModel, 'seconds'>,
): number {
  const takes = (squares: number) => squares * each.singles + guessedColours(squares, colours) * each.colours;
  let [low, high] = [1, Math.max(2, seconds / each.singles)];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (takes(middle) < seconds) low = middle;
    else high = middle;
  }
  return low;
}
