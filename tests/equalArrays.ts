import { expect } from 'vitest';

/*
 * Charts and pictures are typed arrays of hundreds of thousands of numbers. Vitest compares them as it would objects, which
 * takes a second for each hundred thousand; what differs is still left to it, for it says where.
 */
expect.addEqualityTesters([
  (a, b) => {
    if (!isNumbers(a) || !isNumbers(b)) return undefined;
    if (Object.getPrototypeOf(a) !== Object.getPrototypeOf(b) || a.length !== b.length) return undefined;
    for (let i = 0; i < a.length; i++) if (!Object.is(a[i], b[i])) return undefined;
    return true;
  },
]);

function isNumbers(value: unknown): value is ArrayLike<number> {
  return ArrayBuffer.isView(value) && !(value instanceof DataView);
}
