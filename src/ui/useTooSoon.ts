import { useCallback, useEffect, useRef } from 'react';

/** So soon (ms) after an act nobody has looked at what came forward. */
export const TOO_SOON_MS = 600;

/**
 * A double click, a key that is held down, or a scanner that ends a line twice is one act: what comes forward next is not
 * meant by it.
 * @param ms for what is told at a glance, one after the other, no more than DOUBLE_CLICK_MS of movedClicks.ts
 * @param shown what an act is about: where it changes by itself, for another screen was at work or an answer came late,
 * an act on its way was meant for what was there before
 * @returns asked at each act, whether it comes too soon after the one before
 */
export function useTooSoon(ms = TOO_SOON_MS, shown: number | null = null): () => boolean {
  const last = useRef(Number.NEGATIVE_INFINITY);
  const before = useRef(shown);
  useEffect(() => {
    if (before.current !== shown) last.current = performance.now();
    before.current = shown;
  }, [shown]);
  return useCallback(() => {
    const now = performance.now();
    const since = now - last.current;
    last.current = now;
    return since < ms;
  }, [ms]);
}
