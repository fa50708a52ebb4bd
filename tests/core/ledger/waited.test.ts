import { expect, it } from 'vitest';
import { madeAt } from '../../../src/core/ledger/waited';

const now = new Date('2026-05-02T10:00:00Z');

it.each([
  [3_600_000, '2026-05-02T09:00:00.000Z'],
  [2_001, '2026-05-02T09:59:57.999Z'],
  [400 * 86_400_000, '2025-03-28T10:00:00.000Z'],
])('what waited %d ms was made so long before', (waited, made) => {
  expect(madeAt(now, waited).toISOString()).toBe(made);
});

it.each([0, 2_000, -3_600_000, 400 * 86_400_000 + 1, Number.NaN, Number.POSITIVE_INFINITY])(
  'a wait of %d ms is none',
  (waited) => {
    expect(madeAt(now, waited)).toBe(now);
  },
);
