import { describe, expect, it } from 'vitest';
import {
  causeOfDoubt,
  countDoubtful,
  doubtOf,
  FLAGGED_FROM,
  faultInDoubt,
} from '../../../src/core/reading/doubt';

const doubt = (margin: number, fit: number) =>
  doubtOf({ margin: Float32Array.of(margin), fit: Float32Array.of(fit) })[0]!;

describe('the doubt of a square', () => {
  it('is less, the farther its line is ahead and the better its symbol fits', () => {
    for (const [near, far] of [
      [0, 5],
      [5, 15],
      [15, 30],
    ] as const)
      for (const fit of [0.3, 0.6, 0.9]) expect(doubt(far, fit)).toBeLessThan(doubt(near, fit));
    for (const margin of [0, 10, 30]) expect(doubt(margin, 0.9)).toBeLessThan(doubt(margin, 0.6));
    // Beyond that, a line that is farther ahead is not surer: whole regions were far ahead and wrong.
    expect(doubt(300, 0.8)).toBe(doubt(30, 0.8));
  });

  it('shows what lies between two lines or hardly fits, and not what is clear', () => {
    expect(doubt(0, 0.5)).toBeGreaterThan(0.9);
    // Of such squares of drawn pictures in bad light some 3 % were wrong (bench/reading.ts), so somebody has to look.
    expect(doubt(20, 0.85)).toBeGreaterThan(FLAGGED_FROM);
    expect(doubt(30, 0.97)).toBeLessThan(0.005);
    expect(
      countDoubtful(doubtOf({ margin: Float32Array.of(0, 20, 30), fit: Float32Array.of(0.5, 0.85, 0.97) })),
    ).toBe(2);
  });

  it('is told in words where much of a photo is in doubt, and refuses one that is nearly all', () => {
    expect(causeOfDoubt(80, 1000)).toBeNull();
    expect(causeOfDoubt(81, 1000)).toContain('drills');
    expect(faultInDoubt(600, 1000)).toBeNull();
    expect(faultInDoubt(601, 1000)).toContain('601 of 1,000');
  });
});
