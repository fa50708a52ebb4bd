import { describe, expect, it } from 'vitest';
import { normalCdf } from '../../../src/core/chance/distributions';
import { seededRandom } from '../../../src/core/chance/random';

describe('random numbers from a seed', () => {
  it('are those of the generator mulberry32', () => {
    // First numbers of the generator as published by its author, T. Ettinger (from memory).
    const of = (seed: number, count: number) => {
      const random = seededRandom(seed);
      return Array.from({ length: count }, () => random.uniform());
    };
    expect(of(0, 3)).toEqual([0.26642920868471265, 0.0003297457005828619, 0.2232720274478197]);
    expect(of(1, 2)).toEqual([0.6270739405881613, 0.002735721180215478]);
    // Seeds count modulo 2³².
    expect(of(-1, 3)).toEqual(of(2 ** 32 - 1, 3));
  });

  it('are spread as the normal law says', () => {
    const random = seededRandom(20260501);
    const values = Float64Array.from({ length: 20_000 }, () => random.normal()).sort();
    // The largest gap between the two is below 1.95 ÷ √n but once in a thousand times (Kolmogorov and Smirnov, from memory).
    const gap = values.reduce(
      (most, value, i) =>
        Math.max(
          most,
          Math.abs(normalCdf(value, 0, 1) - i / 20_000),
          Math.abs(normalCdf(value, 0, 1) - (i + 1) / 20_000),
        ),
      0,
    );
    expect(gap).toBeLessThan(1.95 / Math.sqrt(20_000));
  });
});
