import type { PaceGroup } from '../../core/progress/pace';
import type { RunningOut } from '../../core/progress/runningOut';
import type { TickedLaid } from '../../core/progress/tickedLaid';
import { isDay, isLikelyDay } from '../../core/words/calendar';
import { boolean, makerSchema, object, string } from '../http/schema';

/** A calendar day, `YYYY-MM-DD`. */
export const daySchema = (what: string, fits = isDay) =>
  string().test(
    'day',
    `Give ${what} as year-month-day, such as 2026-11-27.`,
    (day) => day == null || fits(day),
  );

export const progressQuery = object({
  zone: string()
    .default('UTC')
    .test('zone', 'This is not the name of a time zone, like Europe/Lisbon.', (zone) => {
      try {
        new Intl.DateTimeFormat('en', { timeZone: zone });
        return true;
      } catch {
        return false;
      }
    }),
  /** Whose days and sittings: the id of a device, or `desk`; everybody's without it. */
  maker: makerSchema,
});

export const finishBySchema = object({
  finishBy: daySchema('the day', isLikelyDay).nullable().default(null),
});

/** The page of a week: any day of it. */
export const weekQuery = progressQuery.shape({
  day: daySchema('the day', isLikelyDay),
  paper: string()
    .oneOf(['a4', 'letter'] as const)
    .default('a4'),
});

const photoNote = string().trim().max(500, 'A note has at most 500 characters.').default('');

/** What is said of a photo in the address under which it is sent. */
export const photoQuery = object({
  id: string().uuid().required('A photo needs an id, so that a repeated request adds nothing.'),
  takenOn: daySchema('the day of the photo').required('Say on which day it was taken.'),
  note: photoNote,
});

export const photoSchema = object({
  takenOn: daySchema('the day of the photo').required('Say on which day it was taken.'),
  note: photoNote,
  removed: boolean().default(false),
});

/** When a canvas will be done, what it takes, and what may run out. */
export interface ForecastView {
  today: string;
  /** Days with work: drills, and minutes of the time model. */
  days: { day: string; drills: number; minutes: number }[];
  minutesLeft: number;
  /** Null where all is laid, or it cannot be foretold. */
  forecast: { early: string; likely: string; late: string; weeks: number; usual: boolean } | null;
  /** Wished day; null where nobody said. */
  finishBy: string | null;
  /** Chance to be done by the wished day, 0…1; null without one. */
  chance: number | null;
  /** Minutes a week that it would take; null where the day has passed, or without one. */
  minutesAWeek: number | null;
  /** Minutes a week of the last weeks; null before the first. */
  usualMinutesAWeek: number | null;
  runningOut: RunningOut[];
  pace: {
    sittings: { startedAt: string; drillsAnHour: number }[];
    /** Drills an hour over all sittings; null without any. */
    ofAll: number | null;
    /** Drills an hour more with each sitting; null for too few. */
    trend: number | null;
    kinds: PaceGroup[];
    hours: PaceGroup[];
    tips: PaceGroup[];
  };
}

/** A photo of the work. */
export interface PhotoView {
  id: string;
  takenOn: string;
  note: string;
  /** When it was removed; null while it is kept. */
  removedAt: string | null;
}

/** A sitting as it was corrected last. */
export interface SittingRecord {
  id: string;
  startedAt: string;
  endedAt: string | null;
  note: string;
  drills: number;
  /** It was a mistake; kept, but not reckoned with. */
  removed: boolean;
  /** The device at which it began, by name; left out where there is but one. */
  device?: string;
}

export interface ProgressView {
  today: string;
  laidToday: number;
  /** From Monday on. */
  laidThisWeek: number;
  /** What is in front: its number, and how far it is; null where nothing was yet. */
  section: { number: number; drills: number; laid: number } | null;
  /** Without a chart: what is laid by sections and ticks, with its uncertainty; null with one. */
  estimate: TickedLaid | null;
  laid: number;
  drills: number;
  percent: number;
  /** Drills that were laid before the canvas was kept here; they are of no day. */
  laidBefore: number;
  /** Total at the end of each day with work. */
  burnUp: { day: string; total: number }[];
  /** Null for a canvas without a chart, where colours are not known cell by cell. */
  colours: { line: number; drills: number; left: number }[] | null;
  /** Percent of the canvas in which a colour was ticked as done; only on a canvas without a chart. */
  ticked: { line: number; percent: number }[] | null;
  /** How far each panel is; none for an undivided canvas. */
  panels: { panel: number; drills: number; laid: number; percent: number }[];
  /** Who has marked on this canvas, where it is more than one: devices by id, and `desk`. */
  makers: { id: string; name: string; drills: number }[];
  sittings: SittingRecord[];
}
