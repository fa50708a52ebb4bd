import { counted } from '../words/numbers';
import type { SittingTimes } from './sitting';

/** What somebody wishes to be told while sitting at the bench; kept by each device for itself. */
export interface ClockWish {
  /** Minutes after which a chime sounds; null for none. */
  minutes: number | null;
  /** Time of day at which it shall end, `22:30`, by the clock of this place; null for none. */
  stopAt: string | null;
  /** Minutes between two reminders to rest; null for none. */
  rest: number | null;
}

const USUAL_CLOCK: ClockWish = { minutes: null, stopAt: null, rest: null };

/** A reminder that is due. Each is told once. */
export interface Reminder {
  /** Tells one from another, so that none is told twice. */
  key: string;
  words: string;
  /** Whether ten more minutes can be asked for. */
  ends: boolean;
}

/** What to do at each rest in turn (common practice, no source; a doctor or therapist knows better). */
const RESTS = [
  'Put the pen down, open and close both hands a few times, and let the wrists hang.',
  'Look at something far away for half a minute, and blink.',
  'Sit back, let the shoulders sink, and turn the head slowly to both sides.',
  'Stand up and walk a few steps; have something to drink.',
] as const;

const MINUTE_MS = 60_000;
/** A moment that was missed by so much (the screen slept) is not told any more. */
const LATE_MS = 30 * MINUTE_MS;

/**
 * What is due at a moment of a sitting, the newest of each kind only.
 * @param more minutes that were added to the end
 * @param told keys of what was told
 * @param today at a time of day of the day on which the sitting began, in the zone of this place
 */
export function dueReminders(
  startedAt: Date,
  now: Date,
  wish: ClockWish,
  more: number,
  told: ReadonlySet<string>,
  today: (timeOfDay: string) => Date,
): Reminder[] {
  const due: Reminder[] = [];
  const passed = (moment: number) => now.getTime() >= moment && now.getTime() < moment + LATE_MS;
  if (wish.minutes !== null) {
    const length = wish.minutes + more;
    const key = `length ${length}`;
    if (passed(startedAt.getTime() + length * MINUTE_MS) && !told.has(key))
      due.push({ key, words: `${counted(length, 'minute')} are over.`, ends: true });
  }
  if (wish.stopAt !== null) {
    const at = nextAt(startedAt, wish.stopAt, today).getTime() + more * MINUTE_MS;
    const key = `stop ${wish.stopAt} ${more}`;
    if (passed(at) && !told.has(key))
      due.push({
        key,
        words: `It is ${wish.stopAt}${more > 0 ? `, and ${more} minutes later` : ''}.`,
        ends: true,
      });
  }
  if (wish.rest !== null && wish.rest > 0) {
    const turn = Math.floor((now.getTime() - startedAt.getTime()) / (wish.rest * MINUTE_MS));
    const key = `rest ${turn}`;
    if (turn > 0 && !told.has(key)) due.push({ key, words: RESTS[(turn - 1) % RESTS.length]!, ends: false });
  }
  return due;
}

/** A time of day that comes after the beginning: today, or tomorrow where it has passed by then. */
function nextAt(startedAt: Date, timeOfDay: string, today: (timeOfDay: string) => Date): Date {
  const at = today(timeOfDay);
  if (at.getTime() > startedAt.getTime()) return at;
  const tomorrow = new Date(at);
  tomorrow.setDate(tomorrow.getDate() + 1);
  return tomorrow;
}

/** After so long (minutes) without a mark a running timer may have been forgotten. */
const FORGOTTEN_AFTER = 60;
/** So much (minutes) is left for what was done after the last mark. */
const AFTER_LAST_MARK = 5;

/**
 * Where a running timer seems to have been forgotten: the moment at which the sitting probably ended, a little after its
 * last mark. Null while somebody may well be at work.
 * @param lastMarkAt ISO moment of the last mark in it; null for none
 */
export function forgottenSince(
  { startedAt, endedAt }: SittingTimes,
  lastMarkAt: string | null,
  now: Date,
): Date | null {
  if (endedAt !== null) return null;
  const start = Date.parse(startedAt);
  const last = Math.max(start, lastMarkAt === null ? start : Date.parse(lastMarkAt));
  if (now.getTime() - last < FORGOTTEN_AFTER * MINUTE_MS) return null;
  return new Date(last + AFTER_LAST_MARK * MINUTE_MS);
}

/** `1:05:09`, or `5:09` within the first hour. @param seconds 0 or more */
export function clockFace(seconds: number): string {
  const two = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor((seconds % 3600) / 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}

/** What was kept, as far as it makes sense. @param kept JSON, perhaps of another version */
export function clockWishOf(kept: string | null): ClockWish {
  try {
    const { minutes, stopAt, rest } = JSON.parse(kept ?? '{}') as Record<string, unknown>;
    const whole = (value: unknown) =>
      typeof value === 'number' && Number.isInteger(value) && value > 0 && value <= 600 ? value : null;
    return {
      minutes: whole(minutes),
      rest: whole(rest),
      stopAt: typeof stopAt === 'string' && /^([01]\d|2[0-3]):[0-5]\d$/.test(stopAt) ? stopAt : null,
    };
  } catch {
    return USUAL_CLOCK;
  }
}
