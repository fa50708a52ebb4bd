import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drillsFor, goodOf } from '../../../src/core/checkin/goodDrills';

// Checked in whole numbers of any size, which have no rounding errors.
describe('good drills', () => {
  const counts = fc.nat(500_000);
  const percents = fc.integer({ min: 0, max: 98 });

  it('of some are those that are not bad, to the nearest', () => {
    fc.assert(
      fc.property(counts, percents, (drills, percent) => {
        const hundredfold = BigInt(drills) * BigInt(100 - percent);
        expect(BigInt(goodOf(drills, percent / 100))).toBe((hundredfold + 50n) / 100n);
      }),
    );
  });

  it('take the fewest drills that hold as many', () => {
    fc.assert(
      fc.property(counts, percents, (good, percent) => {
        const share = BigInt(100 - percent);
        expect(BigInt(drillsFor(good, percent / 100))).toBe((BigInt(good) * 100n + share - 1n) / share);
      }),
    );
    // As decimal fractions these come out a drill too many.
    expect(drillsFor(465, 0.07)).toBe(500);
    expect(drillsFor(930, 0.07)).toBe(1000);
    expect(drillsFor(238_872, 0.92)).toBe(2_985_900);
    expect(goodOf(1000, 0.07)).toBe(930);
  });

  it('are none where all are bad, and still a number of drills to look through', () => {
    expect(goodOf(200, 1)).toBe(0);
    expect(drillsFor(2, 1)).toBe(200);
  });
});
