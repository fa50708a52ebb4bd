import { type SeededRandom, seededRandom } from '../../../src/core/chance/random';
import type { DayWork } from '../../../src/core/progress/forecast';
import { addDays } from '../../../src/core/words/calendar';

/** How an invented maker works: the truth that a forecast does not know. */
export interface MakerKind {
  /** Standard deviation of the logarithm by which the pace steps from week to week. */
  drift: number;
  /** Standard deviation of the logarithm of what the second half costs against the model (confetti left for last). */
  confettiLast: number;
}

/** A canvas of an invented maker, from its first day to its last. */
export interface MadeCanvas {
  days: DayWork[];
  /** Minutes of the model that were left after each day. */
  left: number[];
  last: string;
}

const FIRST = '2024-01-03';

/** A canvas worked to its end: evenings by weekday, long and short ones, weeks off now and then. */
export function madeCanvas(seed: number, { drift, confettiLast }: MakerKind): MadeCanvas {
  const random = seededRandom(seed);
  const chances = Array.from({ length: 7 }, () => 0.15 + 0.7 * random.uniform());
  const evening = 25 + 80 * random.uniform();
  const weeksWanted = 12 + 50 * random.uniform();
  const all = weeksWanted * evening * chances.reduce((sum, chance) => sum + chance, 0);
  const dearer = Math.exp(confettiLast * random.normal());
  const days: DayWork[] = [];
  const left: number[] = [];
  let rest = all;
  let level = 1;
  let off = 0;
  for (let i = 0; rest > 0 && i < 5000; i++) {
    if (i % 7 === 0) {
      level *= Math.exp(drift * random.normal());
      if (off === 0 && random.uniform() < 0.05) off = 1 + Math.floor(2 * random.uniform());
      else if (off > 0) off--;
    }
    const works = off === 0 && random.uniform() < chances[i % 7]!;
    const minutes = works ? evening * level * Math.exp(0.4 * random.normal()) : 0;
    // In the second half a minute of the model takes longer, or less long, than it says.
    const done = rest < all / 2 ? minutes / dearer : minutes;
    rest -= done;
    if (done > 0) days.push({ day: addDays(FIRST, i), minutes: done });
    left.push(Math.max(0, rest));
  }
  return { days, left, last: addDays(FIRST, left.length - 1) };
}

/** A day in the midst of the work on which somebody asks when it will be done. */
export function askedOn(
  made: MadeCanvas,
  random: SeededRandom,
): { today: string; days: DayWork[]; left: number } {
  const at = Math.floor(made.left.length * (0.2 + 0.6 * random.uniform()));
  const today = addDays(FIRST, at);
  return { today, days: made.days.filter(({ day }) => day <= today), left: made.left[at]! };
}
