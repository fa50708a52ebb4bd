import { useEffect, useState } from 'react';
import { showPercent } from '../../ui/headerFigures';
import { getJson } from '../writing/api';
import { theOutbox } from '../writing/outbox';

/** How a page that was left open stands: as it was, changed at another page, or from another day. */
export type Freshness = 'fresh' | 'changed' | 'yesterday';

const ASK_MS = 10_000;
/** A difference is looked at twice: in between, the answer to a write of this page may come in. */
const CONFIRM_MS = 1500;
/** A page that shows by itself what others did says so, so that nobody is told of it once more. */
const SHOWN = 'oculent:shown';

export function announceShown(): void {
  window.dispatchEvent(new Event(SHOWN));
}

/** The calendar day here, `2026-05-01`. */
function dayHere(): string {
  // The Swedish locale writes dates the ISO way.
  return new Intl.DateTimeFormat('sv', { dateStyle: 'short' }).format(new Date());
}

/**
 * Notices that a page is no longer what it was: somebody changed the canvas at another page or device, or the day has
 * turned, also the wrong way round when a clock is set back. What this page writes itself does not count.
 */
export function useFreshness(canvasId: string): Freshness {
  const [freshness, setFreshness] = useState<Freshness>('fresh');
  useEffect(() => {
    const day = dayHere();
    let known: string | null = null;
    let asked = 0;
    let confirming: ReturnType<typeof setTimeout> | undefined;
    const ask = (adopt: boolean, seen: string | null = null) => {
      clearTimeout(confirming);
      if (dayHere() !== day) setFreshness('yesterday');
      const mine = ++asked;
      getJson<{ stamp: string; percent: number }>(`/api/canvases/${canvasId}/stamp`).then(
        ({ stamp, percent }) => {
          // Only the newest question counts: an older answer may lie before this page's own write.
          if (mine !== asked) return;
          // What waits here is counted by the station already.
          if (theOutbox().current().waiting === 0) showPercent(percent);
          if (known === null || adopt || stamp === known) known = stamp;
          else if (stamp === seen && theOutbox().current().waiting === 0) setFreshness('changed');
          else confirming = setTimeout(() => ask(false, stamp), CONFIRM_MS);
        },
        // Whether the server answers at all is told elsewhere.
        () => {},
      );
    };
    const look = () => {
      if (!document.hidden) ask(false);
    };
    const adopt = () => ask(true);
    ask(true);
    const timer = setInterval(look, ASK_MS);
    document.addEventListener('visibilitychange', look);
    window.addEventListener(SHOWN, adopt);
    const stop = theOutbox().onAnswer((of, _, own) => {
      if (of === canvasId || of === null) ask(own);
    });
    return () => {
      asked++;
      clearTimeout(confirming);
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
      window.removeEventListener(SHOWN, adopt);
      stop();
    };
  }, [canvasId]);
  return freshness;
}
