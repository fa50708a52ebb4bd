import fc from 'fast-check';
import { expect, it } from 'vitest';
import { medianOf } from '../../../src/core/reading/median';

it('the middle one is the one that stands there once all are sorted', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 1, maxLength: 40 }), (values) => {
      const sorted = Float32Array.from(values).sort();
      expect(medianOf(Float32Array.from(values))).toBe(sorted[values.length >> 1]);
    }),
  );
  expect(medianOf(Float32Array.of(3, 1, 2))).toBe(2);
  expect(medianOf(Float32Array.of(1, 1, 1, 1))).toBe(1);
});
