import { differenceCiede2000 } from 'culori';
import { expect, it } from 'vitest';

/**
 * Test pairs of Sharma, Wu & Dalal (2005), "The CIEDE2000 color-difference formula: implementation notes,
 * supplementary test data, and mathematical observations" (from memory).
 */
const PAIRS: [first: [number, number, number], second: [number, number, number], difference: number][] = [
  [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
  [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
  [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
  [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
  [[50, 0, 0], [50, -1, 2], 2.3669],
  [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
  [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
  [[50, 2.5, 0], [73, 25, -18], 27.1492],
  [[50, 2.5, 0], [58, 24, 15], 19.4535],
  [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
  [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
];

it.each(PAIRS)('the formula behind our differences: %j and %j', (first, second, expected) => {
  const lab = ([l, a, b]: [number, number, number]) => ({ mode: 'lab65' as const, l, a, b });
  expect(differenceCiede2000()(lab(first), lab(second))).toBeCloseTo(expected, 3);
});
