import { describe, expect, it } from 'vitest';
import { betaCdf, betaQuantile, normalCdf } from '../../../src/core/chance/distributions';

/** n over k, exactly for small n. */
function choose(n: number, k: number): number {
  let value = 1;
  for (let i = 1; i <= k; i++) value = (value * (n - k + i)) / i;
  return value;
}

describe('the normal law', () => {
  // Abramowitz & Stegun, Handbook of Mathematical Functions, table 26.1 (values from memory).
  it.each([
    [0, 0.5],
    [0.5, 0.691462461274],
    [1, 0.841344746069],
    [1.96, 0.975002104852],
    [3, 0.998650101968],
    [-2, 0.022750131948],
  ])('lies below %d standard deviations with %d', (z, p) => {
    expect(normalCdf(5 + 2 * z, 5, 2)).toBeCloseTo(p, 11);
  });

  // The same book, table 26.2: −log₁₀ Q(x) of the far tail (values from memory).
  it.each([
    [7, 11.89285],
    [10, 23.11805],
  ])('has the tail of the table at %d', (z, digits) => {
    expect(-Math.log10(normalCdf(-z, 0, 1))).toBeCloseTo(digits, 4);
    expect(normalCdf(z, 0, 1)).toBeCloseTo(1, 11);
  });
});

describe('the beta law', () => {
  // NIST Digital Library of Mathematical Functions, 8.17.5: whole parameters are a binomial sum.
  it('is the binomial sum for whole parameters', () => {
    for (const [m, n, x] of [
      [1, 5, 0.3],
      [3, 7, 0.62],
      [6, 199, 0.03],
      [20, 40, 0.5],
    ] as const) {
      let sum = 0;
      for (let j = m; j <= n; j++) sum += choose(n, j) * x ** j * (1 - x) ** (n - j);
      expect(betaCdf(x, m, n - m + 1)).toBeCloseTo(sum, 11);
    }
  });

  // NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.3, upper critical values of the F distribution at 5 %
  // (values from memory); with x = ν₁F ÷ (ν₁F + ν₂), F is beta with ν₁ ÷ 2 and ν₂ ÷ 2.
  it.each([
    [1, 1, 161.448],
    [2, 10, 4.103],
    [5, 10, 3.326],
    [10, 20, 2.348],
  ])('gives the critical value of F with %d and %d degrees of freedom', (first, second, critical) => {
    const x = betaQuantile(0.95, first / 2, second / 2);
    expect((second * x) / (first * (1 - x))).toBeCloseTo(critical, first === 1 ? 1 : 2);
  });

  it('is nothing below 0 and certain from 1 on', () => {
    expect([-0.5, 0, 1, 1.5].map((x) => betaCdf(x, 2, 3))).toEqual([0, 0, 1, 1]);
  });

  it('finds the share again whose probability it was', () => {
    for (const p of [0.0025, 0.2, 0.5, 0.9975]) {
      for (const [a, b] of [
        [6, 194],
        [0.5, 3],
        [100, 4900],
      ] as const) {
        expect(betaCdf(betaQuantile(p, a, b), a, b)).toBeCloseTo(p, 11);
      }
    }
    expect([betaCdf(0, 2, 3), betaCdf(1, 2, 3)]).toEqual([0, 1]);
  });
});
