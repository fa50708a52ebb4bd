/*
 * Calendar days are texts, `YYYY-MM-DD`: they have no clock and no zone, so that no change to or from summer time can
 * shift them.
 */

const DAY_MS = 86_400_000;

/** A day as a count of days, for arithmetic. */
function dayNumber(day: string): number {
  return Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
}

/** No canvas was begun before this day; a year that is half typed (0026) lies before it. */
export const FIRST_DAY = '1990-01-01';

/** Whether a text names a day that there is. @example isDay('2026-02-30') // false */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const at = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(text);
}

/** Nobody who reads this lays a drill after it. */
export const LAST_DAY = '2199-12-31';

/** Whether a text names a day on which there can be a canvas. */
export function isLikelyDay(text: string): boolean {
  return isDay(text) && text >= FIRST_DAY && text <= LAST_DAY;
}

/** A day after or before another one; the last of all is 31 December 9999. @example addDays('2026-02-27', 2) // '2026-03-01' */
export function addDays(day: string, days: number): string {
  const number = Math.min(dayNumber(day) + days, dayNumber('9999-12-31'));
  return new Date(number * DAY_MS).toISOString().slice(0, 10);
}

/** Days from one day to another; below 0 where it lies before. */
export function daysBetween(from: string, to: string): number {
  return dayNumber(to) - dayNumber(from);
}

/** 0 for Monday … 6 for Sunday (ISO 8601). */
export function weekdayOf(day: string): number {
  return (((dayNumber(day) + 3) % 7) + 7) % 7;
}

/** The Monday of a week. */
export function mondayOf(day: string): string {
  return addDays(day, -weekdayOf(day));
}

/** Making a formatter takes a thousand times as long as using it. */
const formatters = new Map<string, Intl.DateTimeFormat>();

function formatter(zone: string, what: 'day' | 'hour'): Intl.DateTimeFormat {
  const key = `${what} ${zone}`;
  let made = formatters.get(key);
  if (!made) {
    // The Swedish locale writes dates the ISO way.
    made =
      what === 'day'
        ? new Intl.DateTimeFormat('sv', { timeZone: zone, dateStyle: 'short' })
        : new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' });
    formatters.set(key, made);
  }
  return made;
}

/** The day of a moment in a zone. @param zone IANA name */
export function dayIn(zone: string, moment: Date | number): string {
  return formatter(zone, 'day').format(moment);
}

/** Hour of a moment in a zone, 0…23. */
export function hourIn(zone: string, moment: Date | number): number {
  return Number(formatter(zone, 'hour').format(moment));
}

/** A day as it is read: `Friday, 27 November 2026`. @param year left out where it is plain */
export function dayInWords(day: string, { weekday = false, year = true } = {}): string {
  return new Date(`${day}T12:00:00Z`).toLocaleDateString('en-GB', {
    ...(weekday && { weekday: 'long' as const }),
    day: 'numeric',
    month: 'long',
    ...(year && { year: 'numeric' as const }),
    timeZone: 'UTC',
  });
}
