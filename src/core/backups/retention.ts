import { Refusal } from '../refusal';
import { counted } from '../words/numbers';

/** Why a backup was made. */
const BACKUP_REASONS = ['daily', 'before an update', 'by hand'] as const;
export type BackupReason = (typeof BACKUP_REASONS)[number];

/** A backup as its name tells it. */
export interface BackupName {
  name: string;
  /** In UTC, ISO 8601. */
  madeAt: string;
  why: BackupReason;
}

const WORDS: Record<BackupReason, string> = {
  daily: 'daily',
  'before an update': 'update',
  'by hand': 'hand',
};

/** @example backupName(new Date('2026-05-01T10:00:00Z'), 'daily') // '2026-05-01T100000Z-daily.zip' */
export function backupName(moment: Date, why: BackupReason): string {
  return `${moment.toISOString().slice(0, 19).replace(/:/g, '')}Z-${WORDS[why]}.zip`;
}

/** @returns null for a name that is none of ours */
export function readBackupName(name: string): BackupName | null {
  const found = /^(\d{4}-\d\d-\d\dT)(\d\d)(\d\d)(\d\d)Z-(\w+)\.zip$/.exec(name);
  const why = BACKUP_REASONS.find((each) => WORDS[each] === found?.[5]);
  if (!found || why === undefined) return null;
  const madeAt = new Date(`${found[1]}${found[2]}:${found[3]}:${found[4]}Z`);
  return Number.isNaN(madeAt.getTime()) ? null : { name, madeAt: madeAt.toISOString(), why };
}

/** How many daily backups are kept: the last of each of so many days, weeks and months that have one. */
export interface Retention {
  days: number;
  weeks: number;
  months: number;
}
const USUAL_RETENTION: Retention = { days: 7, weeks: 4, months: 12 };

/**
 * How many are kept, as a person sets it: `7,4,12` for days, weeks and months; nothing for the usual.
 * @returns null where none are made by themselves (`off`)
 * @throws Refusal for anything else
 */
export function readRetention(text: string | undefined): Retention | null {
  if (text === undefined || text === '') return USUAL_RETENTION;
  if (text === 'off') return null;
  const [, days, weeks, months] = /^(\d{1,3}),(\d{1,3}),(\d{1,3})$/.exec(text.replace(/\s/g, '')) ?? [];
  if (days === undefined) {
    throw new Refusal(
      `OCULENT_BACKUPS is “off”, or says how many days, weeks and months are kept, as in 7,4,12; not “${text}”.`,
    );
  }
  return { days: Number(days), weeks: Number(weeks), months: Number(months) };
}

/** @example retentionInWords({ days: 7, weeks: 4, months: 12 }) // '7 days, 4 weeks and 12 months' */
export function retentionInWords({ days, weeks, months }: Retention): string {
  return `${counted(days, 'day')}, ${counted(weeks, 'week')} and ${counted(months, 'month')}`;
}

/** Backups before updates that are kept. */
const UPDATES_KEPT = 3;

/** The Monday of a moment's week, by UTC. */
function weekOf(madeAt: string): string {
  const day = new Date(`${madeAt.slice(0, 10)}T00:00:00Z`);
  day.setUTCDate(day.getUTCDate() - ((day.getUTCDay() + 6) % 7));
  return day.toISOString().slice(0, 10);
}

/**
 * Backups that may go. Those made by hand stay until a person deletes them, and the newest of all stays always.
 * @returns their names
 */
export function outdated(backups: readonly BackupName[], keep: Retention = USUAL_RETENTION): string[] {
  const newestFirst = [...backups].sort((a, b) => (a.madeAt < b.madeAt ? 1 : -1));
  const kept = new Set(newestFirst.slice(0, 1).map(({ name }) => name));
  const daily = newestFirst.filter(({ why }) => why === 'daily');
  const periods: [most: number, of: (madeAt: string) => string][] = [
    [keep.days, (madeAt) => madeAt.slice(0, 10)],
    [keep.weeks, weekOf],
    [keep.months, (madeAt) => madeAt.slice(0, 7)],
  ];
  for (const [most, of] of periods) {
    const seen = new Set<string>();
    for (const { name, madeAt } of daily) {
      const period = of(madeAt);
      if (seen.has(period) || seen.size >= most) continue;
      seen.add(period);
      kept.add(name);
    }
  }
  for (const { name, why } of newestFirst) if (why === 'by hand') kept.add(name);
  for (const { name } of newestFirst.filter(({ why }) => why === 'before an update').slice(0, UPDATES_KEPT)) {
    kept.add(name);
  }
  return backups.filter(({ name }) => !kept.has(name)).map(({ name }) => name);
}

/** Whether it is time for the daily backup: none was made on this day yet (by UTC). @param newest moment of the last one */
export function isDue(newest: string | null, now: Date): boolean {
  return newest === null || newest.slice(0, 10) !== now.toISOString().slice(0, 10);
}
