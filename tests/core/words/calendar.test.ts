import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  dayIn,
  daysBetween,
  hourIn,
  isDay,
  isLikelyDay,
  mondayOf,
  weekdayOf,
} from '../../../src/core/words/calendar';

// Reference: Temporal (ECMA-262 proposal), by the package temporal-polyfill; its zones are those of the platform (IANA).
const day = fc
  .date({ min: new Date('1990-01-01'), max: new Date('2080-12-31'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));

describe('calendar days', () => {
  it('are counted as Temporal counts them', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: -5000, max: 5000 }), (from, days) => {
        const plain = Temporal.PlainDate.from(from);
        const there = plain.add({ days });
        expect(addDays(from, days)).toBe(there.toString());
        expect(daysBetween(from, there.toString())).toBe(days);
        expect(weekdayOf(from)).toBe(plain.dayOfWeek - 1);
        expect(mondayOf(from)).toBe(plain.subtract({ days: plain.dayOfWeek - 1 }).toString());
      }),
    );
  });

  it('of a moment are those of the zone, over every change to and from summer time', () => {
    // Half-hour zones, zones beyond the date line, and Lord Howe, whose clocks change by half an hour.
    const zones = [
      'Europe/Lisbon',
      'America/New_York',
      'Pacific/Auckland',
      'Asia/Kolkata',
      'Australia/Lord_Howe',
      'Pacific/Kiritimati',
      'UTC',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: Date.parse('2000-01-01'), max: Date.parse('2035-12-31') }),
        (zone, at) => {
          const there = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone);
          expect(dayIn(zone, at)).toBe(there.toPlainDate().toString());
          expect(hourIn(zone, at)).toBe(there.hour);
        },
      ),
      { numRuns: 400 },
    );
    // The hour that comes twice in the autumn of 2026, and the one that is left out in spring.
    expect([
      hourIn('Europe/Lisbon', Date.parse('2026-10-25T00:30Z')),
      hourIn('Europe/Lisbon', Date.parse('2026-10-25T01:30Z')),
    ]).toEqual([1, 1]);
    expect(hourIn('Europe/Lisbon', Date.parse('2026-03-29T01:00Z'))).toBe(2);
  });

  it('are told from what is none', () => {
    expect(['1990-01-01', '2026-12-31'].every(isLikelyDay)).toBe(true);
    expect(['0026-11-30', '1989-12-31', '2026-02-30', '2200-01-01', '9999-12-31'].some(isLikelyDay)).toBe(
      false,
    );
    expect(isLikelyDay('2199-12-31')).toBe(true);
    // Years of five figures would be no days any more.
    expect(addDays('9999-12-30', 400)).toBe('9999-12-31');
    expect(isDay('0026-11-30')).toBe(true);
    expect(['2024-02-29', '2026-12-31'].every(isDay)).toBe(true);
    expect(['2026-02-29', '2026-13-01', '2026-1-1', 'tomorrow', '', '2026-12-31T00:00'].some(isDay)).toBe(
      false,
    );
  });
});
