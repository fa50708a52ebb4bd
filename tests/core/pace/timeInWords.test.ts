import { describe, expect, it } from 'vitest';
import { hoursInWords, minutesInWords, roughTimeInWords } from '../../../src/core/pace/timeInWords';

describe('a time', () => {
  it('that is foretold has its band', () => {
    expect(minutesInWords({ expected: 41.6, low: 29, high: 54 })).toBe('about 42 min, 29 to 54');
    expect(minutesInWords({ expected: 0.2, low: 0, high: 1 })).toBe('less than a minute');
    expect(minutesInWords({ expected: 0.5, low: 0, high: 1 })).toBe('about 1 min, 0 to 1');
  });

  it('of many sittings is told in minutes up to two hours, then in hours', () => {
    expect([1, 61, 119, 119.4].map(roughTimeInWords)).toEqual([
      '1 minute',
      '61 minutes',
      '119 minutes',
      '119 minutes',
    ]);
    expect([119.7, 120, 150, 60 * 1500].map(roughTimeInWords)).toEqual([
      '2 hours',
      '2 hours',
      '3 hours',
      '1,500 hours',
    ]);
  });

  it('that was measured is told in hours and minutes, never in sixty minutes', () => {
    expect([0, 45, 120, 135].map(hoursInWords)).toEqual(['0 min', '45 min', '2 h', '2 h 15 min']);
    expect([59.6, 119.7, 60.4, 29.5].map(hoursInWords)).toEqual(['1 h', '2 h', '1 h', '30 min']);
  });
});
