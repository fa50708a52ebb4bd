import { describe, expect, it } from 'vitest';
import { faultInSitting, sittingMinutes } from '../../../src/core/bench/sitting';

const NOW = new Date('2026-05-02T12:00:00Z');
const fault = (startedAt: string, endedAt: string | null) => faultInSitting({ startedAt, endedAt }, NOW);

describe('the times of a sitting', () => {
  it('may be any that lie behind us', () => {
    expect(fault('2026-05-02T10:00:00Z', '2026-05-02T11:00:00Z')).toBeNull();
    expect(fault('2026-05-02T10:00:00Z', null)).toBeNull();
    // The clock of a tablet may be some minutes ahead.
    expect(fault('2026-05-02T11:00:00Z', '2026-05-02T12:04:00Z')).toBeNull();
  });

  it.each([
    ['2026-05-02T11:00:00Z', '2026-05-02T10:59:00Z', 'must end after it begins'],
    ['2026-05-01T11:00:00Z', '2026-05-02T11:01:00Z', 'more than 24 hours'],
    ['2026-05-02T11:00:00Z', '2026-05-02T12:06:00Z', 'in the future'],
    ['2026-05-02T12:06:00Z', null, 'in the future'],
    // A year of which two figures were typed.
    ['0026-05-02T10:00:00Z', '0026-05-02T11:00:00Z', 'The year of this sitting'],
    ['0026-05-02T10:00:00Z', null, 'The year of this sitting'],
    ['yesterday', null, 'Give the day and the time'],
  ])('are refused where they cannot be: %s to %s', (start, end, words) => {
    expect(fault(start, end)).toContain(words);
  });

  it('give whole minutes, and none below nothing when a clock was set back', () => {
    expect(sittingMinutes({ startedAt: '2026-05-02T10:00:00Z', endedAt: '2026-05-02T11:29:40Z' })).toBe(90);
    expect(sittingMinutes({ startedAt: '2026-05-02T10:00:00Z', endedAt: '2026-04-30T10:00:00Z' })).toBe(0);
    expect(sittingMinutes({ startedAt: '2026-05-02T10:00:00Z', endedAt: null })).toBe(0);
  });
});
