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
