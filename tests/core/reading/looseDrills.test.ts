import { describe, expect, it } from 'vitest';
import type { Rgb } from '../../../src/core/colour/rgb';
import { countedLoose } from '../../../src/core/reading/looseDrills';
import { takeTrayPhoto } from '../../../src/core/reading/simulatedTray';

const RED: Rgb = [190, 40, 50];
const WHITE: Rgb = [240, 240, 236];
const tray = (shape: 'square' | 'round', drills: number, touching: number, seed: number, on = WHITE) =>
  takeTrayPhoto({ shape, drills, touching, drill: RED, tray: on, seed });

describe('loose drills on a tray', () => {
  it.each([
    ['square', 137],
    ['round', 212],
  ] as const)('that lie apart are counted to the drill (%s)', (shape, drills) => {
    const found = countedLoose(tray(shape, drills, 0, 5), shape);
    expect([found.count, found.unsure, found.heaps.length]).toEqual([drills, null, drills]);
    expect(found.spread).toBeLessThan(0.5);
  });

  it.each([
    ['square', 21],
    ['round', 22],
  ] as const)('of which half touch are counted within the uncertainty (%s)', (shape, seed) => {
    const found = countedLoose(tray(shape, 180, 0.5, seed), shape);
    expect(found.unsure).toBeNull();
    expect(Math.abs(found.count - 180)).toBeLessThanOrEqual(Math.max(2, 2 * found.spread));
    expect(found.heaps.reduce((sum, { drills }) => sum + drills, 0)).toBe(found.count);
  });

  it('that nearly all touch are said to be unsure', () => {
    expect(countedLoose(tray('square', 200, 0.985, 31), 'square').unsure).not.toBeNull();
  });

  it('on a tray of their own colour, or on none, are told in a sentence', () => {
    expect(() => countedLoose(tray('square', 60, 0, 41, [185, 42, 52]), 'square')).toThrow('another colour');
    expect(() => countedLoose(tray('square', 0, 0, 42), 'square')).toThrow(/hardly stand out|No drills/);
  });
});
