import { many } from '../words/numbers';

/** A sitting as far as its pace goes. */
export interface SittingPace {
  /** ISO moment. */
  startedAt: string;
  minutes: number;
  /** Drills laid less those lifted. */
  drills: number;
  /** Those among them that have no neighbour of their colour. */
  confetti: number;
  /** Placements that were marked one by one: drills of each, and seconds since the one before. */
  placements: { drills: number; seconds: number }[];
}

/** Pace of a group of sittings or placements. */
export interface PaceGroup {
  name: string;
  drillsAnHour: number;
  /** Sittings, or placements, that it rests on. */
  from: number;
}

/** What is no sitting to judge by. */
const SENSIBLE = { minutes: 3, drills: 10 };
/** Sittings of a kind, and placements of a length, from which on a pace is told. */
const ENOUGH_SITTINGS = 4;
const ENOUGH_PLACEMENTS = 20;
/** From this share of confetti on a sitting was mostly confetti; below the other, mostly blocks. */
const MOSTLY_CONFETTI = 0.3;
const MOSTLY_BLOCKS = 0.1;

/** Drills an hour of each sitting that is long enough to tell, oldest first. */
export function paceBySitting(
  sittings: readonly SittingPace[],
): { startedAt: string; drillsAnHour: number }[] {
  return sensible(sittings)
    .map(({ startedAt, minutes, drills }) => ({ startedAt, drillsAnHour: (drills / minutes) * 60 }))
    .sort((a, b) => Date.parse(a.startedAt) - Date.parse(b.startedAt));
}

/** Drills an hour over all sittings that are long enough to tell; null without any. */
export function paceOfAll(sittings: readonly SittingPace[]): number | null {
  const told = sensible(sittings);
  const minutes = told.reduce((sum, sitting) => sum + sitting.minutes, 0);
  return minutes === 0 ? null : (told.reduce((sum, sitting) => sum + sitting.drills, 0) / minutes) * 60;
}

/** A trend below this share of the pace is none. */
const STEADY = 0.005;

/** @example trendInWords(12, 600) // 'quicker by about 12 with each sitting' */
export function trendInWords(trend: number, pace: number): string {
  if (Math.abs(trend) < pace * STEADY) return 'steady';
  const by = many(Math.max(1, Math.round(Math.abs(trend))));
  return `${trend > 0 ? 'quicker' : 'slower'} by about ${by} with each sitting`;
}

function sensible(sittings: readonly SittingPace[]): SittingPace[] {
  return sittings.filter(({ minutes, drills }) => minutes >= SENSIBLE.minutes && drills >= SENSIBLE.drills);
}

/**
 * The trend of the pace from sitting to sitting: the median of all slopes between two of them, which a few odd ones do not
 * bend (Theil 1950, Sen 1968, from memory).
 * @returns drills an hour more (or less) with each sitting; null for fewer than five
 */
export function trendOf(paces: readonly { drillsAnHour: number }[]): number | null {
  if (paces.length < 5) return null;
  const slopes: number[] = [];
  for (let i = 0; i < paces.length; i++) {
    for (let j = i + 1; j < paces.length; j++)
      slopes.push((paces[j]!.drillsAnHour - paces[i]!.drillsAnHour) / (j - i));
  }
  return median(slopes);
}

/** Pace where the work was mostly colour blocks, mostly confetti, and mixed; kinds with too few sittings are left out. */
export function paceByKind(sittings: readonly SittingPace[]): PaceGroup[] {
  return grouped(sittings, ({ confetti, drills }) => {
    const share = confetti / drills;
    return share >= MOSTLY_CONFETTI
      ? 'Mostly confetti'
      : share <= MOSTLY_BLOCKS
        ? 'Mostly colour blocks'
        : 'Mixed';
  });
}

/** Pace by the time of day at which a sitting began. @param hourOf hour of a moment, 0…23, by the clock of the place */
export function paceByHour(
  sittings: readonly SittingPace[],
  hourOf: (moment: string) => number,
): PaceGroup[] {
  return grouped(sittings, ({ startedAt }) => {
    const hour = hourOf(startedAt);
    if (hour < 6) return 'At night (0 to 6)';
    if (hour < 12) return 'In the morning (6 to 12)';
    return hour < 18 ? 'In the afternoon (12 to 18)' : 'In the evening (18 to 24)';
  });
}

function grouped(sittings: readonly SittingPace[], nameOf: (sitting: SittingPace) => string): PaceGroup[] {
  const groups = new Map<string, { drills: number; minutes: number; from: number }>();
  for (const sitting of sensible(sittings)) {
    const name = nameOf(sitting);
    const group = groups.get(name) ?? { drills: 0, minutes: 0, from: 0 };
    group.drills += sitting.drills;
    group.minutes += sitting.minutes;
    group.from++;
    groups.set(name, group);
  }
  return [...groups]
    .filter(([, { from }]) => from >= ENOUGH_SITTINGS)
    .map(([name, { drills, minutes, from }]) => ({ name, drillsAnHour: (drills / minutes) * 60, from }))
    .sort((a, b) => b.drillsAnHour - a.drillsAnHour);
}

/** Pace by the bar, from placements that were marked one by one: the median time of each; bars seldom used are left out. */
export function paceByTip(sittings: readonly SittingPace[]): PaceGroup[] {
  const byDrills = new Map<number, number[]>();
  for (const { placements } of sittings) {
    for (const { drills, seconds } of placements)
      byDrills.set(drills, [...(byDrills.get(drills) ?? []), seconds]);
  }
  return [...byDrills]
    .filter(([, times]) => times.length >= ENOUGH_PLACEMENTS)
    .sort(([a], [b]) => a - b)
    .map(([drills, times]) => ({
      name: drills === 1 ? 'Single drills' : `Bars of ${drills}`,
      drillsAnHour: (drills / Math.max(0.1, median(times))) * 3600,
      from: times.length,
    }));
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
