// @vitest-environment happy-dom
import { renderHook } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { DOUBLE_CLICK_MS } from '../../src/ui/movedClicks';
import { TOO_SOON_MS, useTooSoon } from '../../src/ui/useTooSoon';

afterEach(() => vi.restoreAllMocks());

function acts(ms?: number) {
  const now = vi.spyOn(performance, 'now').mockReturnValue(50);
  const { result, rerender } = renderHook(() => useTooSoon(ms));
  return (at: number) => {
    now.mockReturnValue(at);
    rerender();
    return !result.current();
  };
}

it('of two acts that come at once the first one counts', () => {
  const counts = acts();
  expect([counts(50), counts(200), counts(200 + TOO_SOON_MS)]).toEqual([true, false, true]);
});

it('a key that is held down is one act, however long', () => {
  const counts = acts();
  const held = Array.from({ length: 100 }, (_, i) => counts(1000 + i * 33));
  expect(held.filter(Boolean)).toEqual([true]);
  expect(held[0]).toBe(true);
  expect(counts(1000 + 99 * 33 + TOO_SOON_MS)).toBe(true);
});

it('what is told at a glance may follow sooner, but not as soon as a double click', () => {
  const counts = acts(DOUBLE_CLICK_MS);
  expect([counts(50), counts(50 + DOUBLE_CLICK_MS - 1), counts(49 + 2 * DOUBLE_CLICK_MS)]).toEqual([
    true,
    false,
    true,
  ]);
});
