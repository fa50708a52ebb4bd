import { EFFORTS, type Effort } from './effort';

/**
 * Seconds that one of each effort takes before anything is known of the user: opening a colour is finding its pot, filling
 * the tray and putting it back (common practice, no source).
 */
export const USUAL_SECONDS: Readonly<Effort> = {
  colours: 45,
  singles: 2.8,
  shortBars: 4,
  longBars: 6,
  turns: 8,
  confetti: 1.2,
};

/** Share by which a single sitting strays from what its effort takes, before anything is known (common practice, no source). */
const USUAL_SPREAD = 0.25;
/** The usual spread counts for as much as so many sittings. */
const SPREAD_WEIGHT = 6;
/** How far a hand may be from the usual: as a whole, and in each effort by itself. Shares of the usual seconds. */
const PRIOR = { common: 0.4, own: 0.35 };
/** Four times in five what it takes lies within so many standard deviations (the normal distribution's 0.9 quantile). */
const BAND = 1.2816;
/**
 * A sitting that strays further than so many spreads counts less (Huber 1964): the clock ran on, or the telephone rang.
 */
const TRUSTED = 1.5;
const ROUNDS = 20;

/** A sitting: what was done in it and how long it took. */
export interface TimedEffort {
  effort: Effort;
  minutes: number;
}

/** How long this hand takes, learnt from sittings, and how sure that is. */
export interface TimeModel {
  /** Seconds that one of each effort takes; never below 0. */
  seconds: Effort;
  /** Covariance of those seconds, s², in the order of {@link EFFORTS}. */
  covariance: number[][];
  /** Share by which a single sitting strays. */
  spread: number;
  /** Sittings that it was learnt from. */
  sittings: number;
}

/** Minutes with a band in which the true time lies four times in five. */
export interface Minutes {
  expected: number;
  low: number;
  high: number;
}

/**
 * Learns from sittings: least squares of the relative error under seconds ≥ 0, sittings far off counting less, drawn towards the usual seconds as long as
 * the sittings are few (a normal prior, Gelman et al., Bayesian Data Analysis, ch. 14, from memory).
 */
export function fitTimeModel(sittings: readonly TimedEffort[]): TimeModel {
  const usual = EFFORTS.map((kind) => USUAL_SECONDS[kind]);
  const rows = sittings.map(({ effort }) => EFFORTS.map((kind) => effort[kind]));
  const taken = sittings.map(({ minutes }) => minutes * 60);
  const prior = inverse(priorCovariance(usual));
  let seconds = [...usual];
  let spread = USUAL_SPREAD;
  let precision = prior;
  for (let round = 0; round < ROUNDS; round++) {
    const expected = rows.map((row) => Math.max(1, dot(row, seconds)));
    precision = prior.map((line) => [...line]);
    const pull = prior.map((line) => dot(line, usual));
    rows.forEach((row, i) => {
      const strayed = Math.abs(taken[i]! / expected[i]! - 1) / spread;
      const weight = Math.min(1, TRUSTED / Math.max(strayed, 1e-9)) / (spread * expected[i]!) ** 2;
      for (let a = 0; a < usual.length; a++) {
        pull[a]! += weight * row[a]! * taken[i]!;
        for (let b = 0; b < usual.length; b++) precision[a]![b]! += weight * row[a]! * row[b]!;
      }
    });
    seconds = leastSquaresAboveZero(precision, pull, seconds);
    const strayed = rows.reduce((sum, row, i) => {
      const off = Math.abs(taken[i]! / Math.max(1, dot(row, seconds)) - 1);
      return sum + Math.min(off, TRUSTED * spread) * off;
    }, 0);
    spread = Math.sqrt((SPREAD_WEIGHT * USUAL_SPREAD ** 2 + strayed) / (SPREAD_WEIGHT + rows.length));
  }
  return {
    seconds: Object.fromEntries(EFFORTS.map((kind, i) => [kind, seconds[i]!])) as Effort,
    covariance: inverse(precision),
    spread,
    sittings: sittings.length,
  };
}

/** Before anything is known. */
export const USUAL_MODEL: TimeModel = fitTimeModel([]);

/** How long a piece of work takes. */
export function minutesFor({ seconds, covariance, spread }: TimeModel, effort: Effort): Minutes {
  const row = EFFORTS.map((kind) => effort[kind]);
  const expected = dot(
    row,
    EFFORTS.map((kind) => seconds[kind]),
  );
  const unsure = dot(
    row,
    covariance.map((line) => dot(line, row)),
  );
  const band = BAND * Math.sqrt(Math.max(0, unsure) + (spread * expected) ** 2);
  return { expected: expected / 60, low: Math.max(0, expected - band) / 60, high: (expected + band) / 60 };
}

/** A sitting as it was foretold from all those before it, and as it was. */
export interface Foretold {
  foretold: Minutes;
  minutes: number;
}

/**
 * How well the last sittings would have been foretold, each from those before it alone.
 * @param sittings oldest first
 */
export function foretold(sittings: readonly TimedEffort[], last = 10): Foretold[] {
  const from = Math.max(0, sittings.length - last);
  return sittings.slice(from).map(({ effort, minutes }, i) => ({
    foretold: minutesFor(fitTimeModel(sittings.slice(0, from + i)), effort),
    minutes,
  }));
}

/**
 * Minimum of ½ sᵀPs − qᵀs over s ≥ 0, one coordinate after the other until none moves: P is positive definite, so that
 * there is one minimum and this finds it.
 */
export function leastSquaresAboveZero(
  precision: readonly (readonly number[])[],
  pull: readonly number[],
  start: readonly number[],
): number[] {
  const found = [...start];
  for (let round = 0; round < 2000; round++) {
    let moved = 0;
    for (let a = 0; a < found.length; a++) {
      const line = precision[a]!;
      const rest = pull[a]! - dot(line, found) + line[a]! * found[a]!;
      const next = Math.max(0, rest / line[a]!);
      moved = Math.max(moved, Math.abs(next - found[a]!) / (1e-9 + Math.abs(found[a]!)));
      found[a] = next;
    }
    if (moved < 1e-10) break;
  }
  return found;
}

function priorCovariance(usual: readonly number[]): number[][] {
  return usual.map((a, i) =>
    usual.map((b, j) => PRIOR.common ** 2 * a * b + (i === j ? (PRIOR.own * a) ** 2 : 0)),
  );
}

function dot(a: readonly number[], b: readonly number[]): number {
  return a.reduce((sum, value, i) => sum + value * b[i]!, 0);
}

/** Inverse of a positive definite matrix of a handful of rows, by Gauss and Jordan. */
function inverse(matrix: readonly (readonly number[])[]): number[][] {
  const size = matrix.length;
  const work = matrix.map((row, i) => [...row, ...row.map((_, j) => (i === j ? 1 : 0))]);
  for (let column = 0; column < size; column++) {
    const pivot = work[column]!;
    const by = pivot[column]!;
    for (let j = 0; j < 2 * size; j++) pivot[j]! /= by;
    work.forEach((row, i) => {
      if (i === column) return;
      const factor = row[column]!;
      for (let j = 0; j < 2 * size; j++) row[j]! -= factor * pivot[j]!;
    });
  }
  return work.map((row) => row.slice(size));
}
