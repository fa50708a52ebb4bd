import { describe, expect, it } from 'vitest';
import { type LightField, labOfLight } from '../../../src/core/reading/light';
import { tintJudge } from '../../../src/core/reading/tint';

type Tint = [number, number, number];
const known = (light: Tint) => ({ light, lab: labOfLight(...light) });
const RED = known([0.5, 0.05, 0.06]);
const PINK = known([0.7, 0.3, 0.32]);
const GREEN = known([0.1, 0.5, 0.08]);
const BLUE = known([0.05, 0.1, 0.5]);

/** How one cell is judged that shows a tint in light of the half, with a reflection over it. */
function judged(tint: Tint, glare: number, veil = 0) {
  const light: LightField = { gain: new Float32Array(3).fill(0.5), veil: new Float32Array(3).fill(veil) };
  const seen = Float32Array.from(tint, (value) => Math.min(1, 0.5 * value + glare));
  return tintJudge(seen, light, 2)(0);
}

describe('a tint', () => {
  it('is likeliest where it is what is seen, and others are the less so the more they differ', () => {
    const of = judged(RED.light as Tint, 0);
    expect(of(RED)).toBeCloseTo(0, 4);
    // Student's t of three dimensions with four degrees of freedom, and the spread of 2 squared.
    const far = PINK.lab.reduce((sum, value, i) => sum + (value - RED.lab[i]!) ** 2, 0);
    expect(of(PINK)).toBeCloseTo(-3.5 * Math.log(1 + far / 4 / 4), 3);
    expect(of(BLUE)).toBeLessThan(of(PINK));
  });

  it('is known below a reflection, at a price', () => {
    const of = judged(RED.light as Tint, 0.3);
    expect(of(RED)).toBeGreaterThan(of(GREEN) + 2);
    expect(of(RED)).toBeGreaterThan(of(BLUE) + 2);
    // Ten times the usual one.
    expect(of(RED)).toBeCloseTo(-Math.log(1 + 10 ** 2), 3);
    expect(of(RED)).toBeLessThan(judged(RED.light as Tint, 0.05)(RED));
    // Nobody asks for the reflection where its price is more than the answer is worth.
    expect(of(RED, -4)).toBeLessThan(-4.7);
  });

  it('costs nothing where the light of the place holds the reflection already', () => {
    expect(judged(RED.light as Tint, 0.3, 0.3)(RED)).toBeCloseTo(0, 4);
  });

  it('is not taken for a dark one below a reflection where it is what is seen', () => {
    // Grey in plain light could be black in a reflection.
    const [grey, black] = [known([0.4, 0.4, 0.4]), known([0.02, 0.02, 0.02])];
    const of = judged(grey.light as Tint, 0);
    expect(of(grey)).toBeGreaterThan(of(black) + 3);
  });

  it('is not darker than what is seen by a reflection that takes light away', () => {
    const of = judged([0.1, 0.1, 0.1], 0);
    expect(of(known([0.4, 0.4, 0.4]))).toBeLessThan(-5);
  });

  it('is told by the channels that are not full', () => {
    // Red is full: green and blue tell orange from violet.
    const of = judged([0.9, 0.5, 0.1], 0.6);
    expect(of(known([0.9, 0.5, 0.1]))).toBeCloseTo(-Math.log(1 + 20 ** 2), 3);
    expect(of(known([0.9, 0.1, 0.5]))).toBeLessThan(of(known([0.9, 0.5, 0.1])) - 2);
    // All are full: nothing is said but what is seen.
    const white = judged([1, 1, 1], 0.6);
    expect(white(known([0.9, 0.9, 0.9]))).toBeGreaterThan(white(BLUE));
  });
});
