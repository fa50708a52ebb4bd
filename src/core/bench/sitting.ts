import { Refusal } from '../refusal';
import { FIRST_DAY } from '../words/calendar';

/** When somebody sat at the bench; ISO 8601 moments. */
export interface SittingTimes {
  startedAt: string;
  /** Null while it runs. */
  endedAt: string | null;
}

/** Nobody sits longer without a break that would end it. */
const LONGEST_HOURS = 24;
const MINUTE_MS = 60_000;
/** Clocks of two machines may differ by so much. */
const CLOCKS_DIFFER_MS = 5 * MINUTE_MS;

/** Why these times cannot be right, as a sentence; null where they can. */
export function faultInSitting({ startedAt, endedAt }: SittingTimes, now: Date): string | null {
  const [start, end] = [Date.parse(startedAt), endedAt === null ? now.getTime() : Date.parse(endedAt)];
  if (Number.isNaN(start) || Number.isNaN(end))
    return 'Give the day and the time of both its beginning and its end.';
  if (Math.min(start, end) < Date.parse(FIRST_DAY)) return 'The year of this sitting cannot be right.';
  if (Math.max(start, endedAt === null ? start : end) > now.getTime() + CLOCKS_DIFFER_MS)
    return 'A sitting cannot lie in the future.';
  if (endedAt === null) return null;
  if (end < start) return 'The sitting must end after it begins.';
  if (end - start > LONGEST_HOURS * 60 * MINUTE_MS)
    return `A sitting of more than ${LONGEST_HOURS} hours cannot be right.`;
  return null;
}

/** Whole minutes of a sitting that has ended; a clock that was set back makes none shorter than nothing. */
export function sittingMinutes({ startedAt, endedAt }: SittingTimes): number {
  if (endedAt === null) return 0;
  return Math.max(0, Math.round((Date.parse(endedAt) - Date.parse(startedAt)) / MINUTE_MS));
}

/** A sitting that stands, with its times. */
export interface TimedSitting extends SittingTimes {
  id: string;
}

/**
 * Sittings that lie over one another, each with the next it meets: nobody sits at two benches, but two people may.
 * @param sittings in any order; one that runs is left out
 * @returns pairs, the one that began first in front
 */
export function overlappingSittings<Sitting extends TimedSitting>(
  sittings: readonly Sitting[],
): [Sitting, Sitting][] {
  const ended = sittings
    .filter(({ endedAt }) => endedAt !== null)
    .sort((a, b) => Date.parse(a.startedAt) - Date.parse(b.startedAt));
  const pairs: [Sitting, Sitting][] = [];
  let longest: Sitting | null = null;
  for (const sitting of ended) {
    if (longest && Date.parse(sitting.startedAt) < Date.parse(longest.endedAt!))
      pairs.push([longest, sitting]);
    if (!longest || Date.parse(sitting.endedAt!) > Date.parse(longest.endedAt!)) longest = sitting;
  }
  return pairs;
}

/**
 * A sitting in two, with a pause between.
 * @param pauseFrom @param pauseTo ISO moments within it
 * @throws Refusal
 */
export function splitSitting(
  { startedAt, endedAt }: SittingTimes,
  pauseFrom: string,
  pauseTo: string,
): [SittingTimes, SittingTimes] {
  if (endedAt === null) throw new Refusal('A sitting that goes on cannot be split. Stop it first.');
  const [start, from, to, end] = [startedAt, pauseFrom, pauseTo, endedAt].map((moment) => Date.parse(moment));
  if (Number.isNaN(from) || Number.isNaN(to))
    throw new Refusal('Give the day and the time of both ends of the pause.');
  if (!(start! < from! && from! <= to! && to! < end!))
    throw new Refusal('The pause must lie within the sitting, and end after it begins.');
  return [
    { startedAt, endedAt: new Date(from!).toISOString() },
    { startedAt: new Date(to!).toISOString(), endedAt },
  ];
}
