import { describe, expect, it } from 'vitest';
import {
  backupName,
  isDue,
  outdated,
  readBackupName,
  readRetention,
  retentionInWords,
} from '../../../src/core/backups/retention';

const at = (day: string, why: Parameters<typeof backupName>[1] = 'daily') =>
  readBackupName(backupName(new Date(`${day}T12:00:00Z`), why))!;

/** A backup on each of so many days before one. */
function everyDay(last: string, days: number) {
  return Array.from({ length: days }, (_, i) => {
    const day = new Date(`${last}T12:00:00Z`);
    day.setUTCDate(day.getUTCDate() - i);
    return at(day.toISOString().slice(0, 10));
  });
}

describe('names of backups', () => {
  it('tell when and why, and are read again', () => {
    const name = backupName(new Date('2026-05-01T10:20:30.400Z'), 'before an update');
    expect(name).toBe('2026-05-01T102030Z-update.zip');
    expect(readBackupName(name)).toEqual({
      name,
      madeAt: '2026-05-01T10:20:30.000Z',
      why: 'before an update',
    });
  });

  it.each([
    'notes.zip',
    '2026-05-01T102030Z-other.zip',
    '2026-13-01T102030Z-daily.zip',
    '../2026-05-01T102030Z-daily.zip',
    '2026-05-01T102030Z-daily.zip.part',
  ])('of others are none: %s', (name) => expect(readBackupName(name)).toBeNull());
});

describe('of daily backups', () => {
  it('the last of 7 days, 4 weeks and 12 months stay', () => {
    const all = everyDay('2026-11-27', 500);
    const gone = new Set(outdated(all));
    const kept = all.map(({ madeAt, name }) => (gone.has(name) ? null : madeAt.slice(0, 10))).filter(Boolean);
    expect(kept).toEqual([
      // A Friday and the six days before it.
      '2026-11-27',
      '2026-11-26',
      '2026-11-25',
      '2026-11-24',
      '2026-11-23',
      '2026-11-22',
      '2026-11-21',
      // The Sundays that end the two weeks before those; this week and the last are there already.
      '2026-11-15',
      '2026-11-08',
      // The last days of the eleven months before this one.
      '2026-10-31',
      '2026-09-30',
      '2026-08-31',
      '2026-07-31',
      '2026-06-30',
      '2026-05-31',
      '2026-04-30',
      '2026-03-31',
      '2026-02-28',
      '2026-01-31',
      '2025-12-31',
    ]);
  });

  it('those of days without work do not count', () => {
    const all = ['2026-11-27', '2026-03-02', '2026-03-01', '2024-01-05'].map((day) => at(day));
    expect(outdated(all)).toEqual([]);
  });

  it('of one day the last stays', () => {
    const early = readBackupName('2026-11-27T010000Z-daily.zip')!;
    const late = readBackupName('2026-11-27T230000Z-daily.zip')!;
    expect(outdated([early, late])).toEqual([early.name]);
  });
});

it('backups made by hand stay, of those before updates the last three', () => {
  const hand = everyDay('2026-11-27', 20).map(({ madeAt }) => at(madeAt.slice(0, 10), 'by hand'));
  const updates = everyDay('2025-01-31', 5).map(({ madeAt }) => at(madeAt.slice(0, 10), 'before an update'));
  expect(outdated([...hand, ...updates])).toEqual(updates.slice(3).map(({ name }) => name));
});

it('the newest of all is never outdated', () => {
  expect(outdated([at('2026-11-27')], { days: 0, weeks: 0, months: 0 })).toEqual([]);
});

it('one is due once a day', () => {
  const now = new Date('2026-11-27T00:10:00Z');
  expect(isDue(null, now)).toBe(true);
  expect(isDue('2026-11-26T23:59:00.000Z', now)).toBe(true);
  expect(isDue('2026-11-27T00:01:00.000Z', now)).toBe(false);
});

it('how many are kept can be set, or that none are made', () => {
  expect(readRetention(undefined)).toEqual({ days: 7, weeks: 4, months: 12 });
  expect(readRetention('')).toEqual(readRetention('7,4,12'));
  expect(readRetention('14, 0, 1')).toEqual({ days: 14, weeks: 0, months: 1 });
  expect(readRetention('off')).toBeNull();
  for (const text of ['on', '7', '7,4', '7,4,x', '-1,4,12', '7,4,12,1']) {
    expect(() => readRetention(text), text).toThrow('days, weeks and months');
  }
  expect(retentionInWords({ days: 1, weeks: 4, months: 0 })).toBe('1 day, 4 weeks and 0 months');
  const all = everyDay('2026-11-27', 40);
  const gone = new Set(outdated(all, { days: 2, weeks: 0, months: 1 }));
  expect(all.filter(({ name }) => !gone.has(name)).map(({ madeAt }) => madeAt.slice(0, 10))).toEqual([
    '2026-11-27',
    '2026-11-26',
  ]);
});
