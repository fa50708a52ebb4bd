import { type SeededRandom, seededRandom } from '../chance/random';
import { addDays, daysBetween, mondayOf, weekdayOf } from '../words/calendar';

/** Work done on a day, in minutes of the time model: less what was lifted, so that it may be below 0. */
export interface DayWork {
  day: string;
  minutes: number;
}

/** When a canvas will be done, as a range in which the true day lies four times in five. */
export interface Forecast {
  early: string;
  likely: string;
  late: string;
  /** Weeks of the user's own that it rests on. */
  weeks: number;
  /** Whether it rests, wholly or in part, on what is usual. */
  usual: boolean;
  /** Days on which each simulated run ended, ascending, as days from today; those beyond the horizon are the horizon. */
  ends: readonly number[];
}

/** Runs of the simulation. */
const RUNS = 600;
/** Nothing is foretold beyond so many weeks. */
const HORIZON_WEEKS = 520;
/** A week counts half as much as one so many weeks later: the hand and the evenings change. */
const HALF_LIFE_WEEKS = 10;
/** Before anything is known: four evenings a week of an hour (common practice, no source). */
const USUAL_WEEK = [60, 0, 60, 0, 60, 0, 60];
const USUAL_SUM = 240;
/** What is usual counts for so many weeks, as long as those of the user are fewer than {@link ENOUGH_WEEKS}. */
const USUAL_WEIGHT = 2;
const ENOUGH_WEEKS = 8;
/** Usual evenings of other people are longer or shorter by this much (standard deviation of the logarithm). */
const USUAL_SPREAD = 0.6;
/** From week to week the pace drifts by so much (standard deviation of the logarithm of a step), before it is known. */
const USUAL_DRIFT = 0.02;
/** That counts for as much as so many blocks of weeks. */
const DRIFT_WEIGHT = 4;
/** Weeks of a block whose mean is compared with the next one's. */
const BLOCK_WEEKS = 4;
/** What is left may be dearer or cheaper than the model says, as a whole (standard deviation of the logarithm). */
const MODEL_SPREAD = 0.08;

/**
 * Foretells when the rest will be done: whole weeks of the user's own, days off among them, are drawn again and again
 * (a Bayesian bootstrap over weeks, Rubin 1981, from memory: weights are drawn anew for each run, so that few weeks tell
 * little), later weeks more often; the pace drifts on as it may. Nothing laid for long shows as empty weeks.
 * @param days with work, in any order
 * @param left minutes of work that are left, by the same measure
 * @param today `YYYY-MM-DD` @param seed of the simulation: the same data give the same days
 * @returns null where nothing is left, or the horizon is not enough for half of the runs
 */
export function forecast(days: readonly DayWork[], left: number, today: string, seed = 1): Forecast | null {
  if (left <= 0) return null;
  const weeks = weeksOf(days, today);
  const sums = weeks.map((week) => week.reduce((sum, minutes) => sum + minutes, 0));
  const weights = weeks.map((_, i) => 0.5 ** ((weeks.length - 1 - i) / HALF_LIFE_WEEKS));
  const past = { weeks, sums, weights, drift: driftOf(sums), gone: weekdayOf(today) + 1 };
  const random = seededRandom(seed);
  const ends: number[] = [];
  for (let run = 0; run < RUNS; run++) ends.push(endOfRun(past, left, random));
  ends.sort((a, b) => a - b);
  const at = (share: number) => addDays(today, ends[Math.min(RUNS - 1, Math.floor(share * RUNS))]!);
  if (ends[RUNS >> 1]! >= HORIZON_WEEKS * 7) return null;
  return {
    early: at(0.1),
    likely: at(0.5),
    late: at(0.9),
    weeks: weeks.length,
    usual: weeks.length < ENOUGH_WEEKS,
    ends,
  };
}

/** The user's weeks from the first with work to the last that is over, each of seven days from Monday, in minutes. */
function weeksOf(days: readonly DayWork[], today: string): number[][] {
  const first = days.reduce((least, { day }) => (least === '' || day < least ? day : least), '');
  if (first === '') return [];
  const begin = mondayOf(first);
  // The week that runs is only part of a week; it counts once it is the only one.
  const over = Math.floor(daysBetween(begin, mondayOf(today)) / 7);
  const weeks = Array.from({ length: Math.max(1, over) }, () => new Array<number>(7).fill(0));
  for (const { day, minutes } of days) {
    const at = daysBetween(begin, day);
    const week = weeks[Math.floor(at / 7)];
    if (week) week[at % 7]! += Math.max(0, minutes);
  }
  // The first week began on its first day of work, not on its Monday: what lies before is no day off.
  const firstWeek = weeks[0]!;
  const missing = daysBetween(begin, first);
  const known = firstWeek.slice(missing);
  const mean = known.reduce((sum, minutes) => sum + minutes, 0) / known.length;
  for (let i = 0; i < missing; i++) firstWeek[i] = mean;
  return weeks;
}

/** What the simulation draws from. */
interface Past {
  weeks: readonly number[][];
  /** Minutes of each week. */
  sums: readonly number[];
  /** How much each week counts. */
  weights: readonly number[];
  drift: number;
  /** Days of the week that runs which are over, today among them. */
  gone: number;
}

/**
 * How much the pace drifts from week to week, learnt from the means of blocks of weeks: the mean of a random walk over a
 * block differs from the next one's with variance s² (2m/3 + 1/3m), and by what weeks differ within a block anyhow.
 */
function driftOf(sums: readonly number[]): number {
  const blocks: { log: number; noise: number }[] = [];
  for (let end = sums.length; end >= BLOCK_WEEKS; end -= BLOCK_WEEKS) {
    const block = sums.slice(end - BLOCK_WEEKS, end);
    const mean = block.reduce((sum, minutes) => sum + minutes, 0) / BLOCK_WEEKS;
    if (mean <= 0) continue;
    const within = block.reduce((sum, minutes) => sum + (minutes - mean) ** 2, 0) / (BLOCK_WEEKS - 1);
    blocks.push({ log: Math.log(mean), noise: within / mean ** 2 / BLOCK_WEEKS });
  }
  const noise = blocks.reduce((sum, block) => sum + block.noise, 0) / Math.max(1, blocks.length);
  const steps = blocks.slice(1).map(({ log }, i) => (log - blocks[i]!.log) ** 2);
  const perStep = (2 * BLOCK_WEEKS) / 3 + 1 / (3 * BLOCK_WEEKS);
  const seen = steps.reduce((sum, square) => sum + square - 2 * noise, 0) / perStep;
  return Math.sqrt(Math.max(0, DRIFT_WEIGHT * USUAL_DRIFT ** 2 + seen) / (DRIFT_WEIGHT + steps.length));
}

/** Days from today until all is done, in one run of the simulation. */
function endOfRun({ weeks, sums, weights, drift, gone }: Past, left: number, random: SeededRandom): number {
  // Where each week ends on a line of all weights; what is usual lies behind them.
  const upTo = new Float64Array(weeks.length);
  let all = 0;
  for (let i = 0; i < weeks.length; i++) {
    all += exponential(random) * weights[i]!;
    upTo[i] = all;
  }
  if (weeks.length < ENOUGH_WEEKS) for (let i = 0; i < USUAL_WEIGHT; i++) all += exponential(random);
  const usualLevel = Math.exp(USUAL_SPREAD * random.normal());
  let level = 1;
  let rest = left * Math.exp(MODEL_SPREAD * random.normal());
  for (let week = 0; week < HORIZON_WEEKS; week++) {
    level *= Math.exp(drift * random.normal());
    const pick = random.uniform() * all;
    const drawn = firstAbove(upTo, pick);
    const own = weeks[drawn];
    const share = own ? level : level * usualLevel;
    const from = week === 0 ? gone : 0;
    const whole = (own ? sums[drawn]! : USUAL_SUM) * share;
    if (from === 0 && whole < rest) {
      rest -= whole;
      continue;
    }
    for (let day = from; day < 7; day++) {
      rest -= (own ?? USUAL_WEEK)[day]! * share;
      if (rest <= 1e-9) return week * 7 + day + 1 - gone;
    }
  }
  return HORIZON_WEEKS * 7;
}

/** Index of the first of ascending values that is above a given one; their number where none is. */
function firstAbove(values: Float64Array, limit: number): number {
  let [low, high] = [0, values.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle]! <= limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

function exponential(random: SeededRandom): number {
  return -Math.log(1 - random.uniform());
}

/** Chance, 0…1, that all is done by a day. */
export function chanceBy({ ends }: Pick<Forecast, 'ends'>, today: string, day: string): number {
  const within = daysBetween(today, day);
  return ends.filter((end) => end <= within).length / ends.length;
}

/** What it takes to be done by a day: minutes a week from now on; null where the day has passed. */
export function minutesAWeek(left: number, today: string, day: string): number | null {
  const days = daysBetween(today, day) + 1;
  return days < 1 ? null : left / (days / 7);
}

/** Mean minutes of work a week over the last weeks that are over, days off among them; null before there is one. */
export function usualMinutesAWeek(days: readonly DayWork[], today: string, most = 6): number | null {
  const weeks = weeksOf(days, today);
  if (weeks.length === 0) return null;
  const last = weeks.slice(-most);
  return last.reduce((sum, week) => sum + week.reduce((all, minutes) => all + minutes, 0), 0) / last.length;
}
