import Color from 'colorjs.io';
import { converter, differenceCiede2000 } from 'culori';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { colourDifference } from '../../../src/core/colour/difference';

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

const part = fc.double({ min: 0, max: 1, noNaN: true });

it('agrees with a second library, colorjs.io, over random colours of the CIELAB space', () => {
  const lab = fc.tuple(
    fc.double({ min: 0, max: 100, noNaN: true }),
    fc.double({ min: -100, max: 100, noNaN: true }),
    fc.double({ min: -100, max: 100, noNaN: true }),
  );
  fc.assert(
    fc.property(lab, lab, (first, second) => {
      const ours = differenceCiede2000()(
        { mode: 'lab65', l: first[0], a: first[1], b: first[2] },
        { mode: 'lab65', l: second[0], a: second[1], b: second[2] },
      );
      const reference = new Color('lab', first).deltaE(new Color('lab', second), '2000') as number;
      // Beside the grey axis the two round the hue apart in the seventh digit.
      expect(Math.abs(ours - reference)).toBeLessThan(1e-5);
    }),
  );
});

// IEC 61966-2-1 and CIE 15 under D65; the two libraries carry the white point to different decimals.
it('takes sRGB to CIELAB as the second library does', () => {
  fc.assert(
    fc.property(part, part, part, (r, g, b) => {
      const ours = converter('lab65')({ mode: 'rgb', r, g, b });
      const [l, a, bb] = new Color('srgb', [r, g, b]).to('lab-d65').coords as [number, number, number];
      for (const [mine, other] of [
        [ours.l, l],
        [ours.a, a],
        [ours.b, bb],
      ] as const) {
        expect(Math.abs(mine - other)).toBeLessThan(0.05);
      }
    }),
  );
});

it('is what our own difference of two sRGB colours comes to', () => {
  const byte = fc.integer({ min: 0, max: 255 });
  const rgb = fc.tuple(byte, byte, byte);
  fc.assert(
    fc.property(rgb, rgb, (first, second) => {
      const lab = ([r, g, b]: [number, number, number]) =>
        new Color(
          'lab',
          new Color('srgb', [r / 255, g / 255, b / 255]).to('lab-d65').coords as [number, number, number],
        );
      const reference = lab(first).deltaE(lab(second), '2000') as number;
      expect(Math.abs(colourDifference(first, second) - reference)).toBeLessThan(0.1);
    }),
  );
});
