// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { watchForMissingParts } from '../../src/ui/wholePage';

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] });
});
afterEach(() => {
  vi.useRealTimers();
});

/** A page with so many islands that do not stand yet. */
function page(islands: number): { slip: HTMLElement; stands(): void; again: () => void; end: () => void } {
  document.body.innerHTML = `<div id="slip" hidden><button>Load again</button></div>${'<astro-island ssr></astro-island>'.repeat(islands)}`;
  const slip = document.getElementById('slip')!;
  const again = vi.fn<() => void>();
  return {
    slip,
    again,
    stands: () => document.querySelector('astro-island[ssr]')!.removeAttribute('ssr'),
    end: watchForMissingParts(slip, again),
  };
}

it('a part that does not come is told after a while, and that it came all the same', () => {
  const { slip, stands, again } = page(2);
  vi.advanceTimersByTime(7900);
  expect(slip.hidden).toBe(true);
  vi.advanceTimersByTime(600);
  expect(slip.hidden).toBe(false);
  stands();
  vi.advanceTimersByTime(1000);
  expect(slip.hidden).toBe(false);
  slip.querySelector('button')!.click();
  expect(again).toHaveBeenCalledTimes(1);
  stands();
  vi.advanceTimersByTime(500);
  expect(slip.hidden).toBe(true);
  expect(vi.getTimerCount()).toBe(0);
});

it('nothing is told of a page that came whole, nor looked for any more', () => {
  const { slip } = page(0);
  vi.advanceTimersByTime(500);
  expect(vi.getTimerCount()).toBe(0);
  vi.advanceTimersByTime(20_000);
  expect(slip.hidden).toBe(true);
});

it('looking for it can be ended', () => {
  const { slip, end } = page(1);
  end();
  vi.advanceTimersByTime(20_000);
  expect(slip.hidden).toBe(true);
});
