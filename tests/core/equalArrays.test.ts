import { expect, it } from 'vitest';

it('typed arrays that differ are never taken for equal', () => {
  const cells = Uint16Array.from({ length: 1000 }, (_, i) => i % 7);
  expect(cells).toEqual(cells.slice());
  expect({ of: [cells] }).toEqual({ of: [cells.slice()] });
  expect(cells).not.toEqual(cells.with(999, 9));
  expect({ of: [cells] }).not.toEqual({ of: [cells.with(0, 9)] });
  expect(cells).not.toEqual(cells.slice(1));
  expect(new Uint8Array([1, 2])).not.toStrictEqual(new Int8Array([1, 2]));
  expect(new Float64Array([Number.NaN, 0])).toEqual(new Float64Array([Number.NaN, 0]));
  expect(new Float64Array([0])).not.toEqual(new Float64Array([-0]));
  expect(() => expect(cells).toEqual(cells.with(500, 9))).toThrow(/to deeply equal/);
});
