import { useEffect, useState } from 'react';
import { showPercent } from '../../ui/headerFigures';
import { theFeed } from '../live/feed';
import type { LivePart } from '../live/shownParts';
import { theShown } from '../live/shownParts';
import { getJson } from '../writing/api';
import { theOutbox } from '../writing/outbox';
import { theScreen } from '../writing/screen';

/** How a page that was left open stands: as it was, changed at another page, from another day, or of a canvas that is gone. */
export type Freshness =
  | { kind: 'fresh' }
  /** `by` is the device by its name; null where that is not known. */
  | { kind: 'changed'; part: LivePart; by: string | null }
  | { kind: 'yesterday' }
  | { kind: 'deleted' };

const FRESH: Freshness = { kind: 'fresh' };
const LOOK_AT_CLOCK_MS = 10_000;
const GATHER_MS = 400;
/** Where nobody knows who wrote, what was answered here so shortly before is taken for it. */
const OWN_MS = 3000;

/** The calendar day here, `2026-05-01`. */
function dayHere(): string {
  // The Swedish locale writes dates the ISO way.
  return new Intl.DateTimeFormat('sv', { dateStyle: 'short' }).format(new Date());
}

/**
 * Notices that a page is no longer what it was: somebody changed at another page or device what this page does not show
 * by itself, or the day has turned, also the wrong way round when a clock is set back.
 */
export function useFreshness(canvasId: string): Freshness {
  const [freshness, setFreshness] = useState<Freshness>(FRESH);
  useEffect(() => {
    const day = dayHere();
    let answered = Number.NEGATIVE_INFINITY;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const showLaid = () => {
      getJson<{ percent: number }>(`/api/canvases/${canvasId}/stamp`).then(
        // What waits here is counted by the station already.
        ({ percent }) => theOutbox().current().waiting === 0 && showPercent(percent),
        // Whether the server answers at all is told elsewhere.
        () => {},
      );
    };
    const showSoon = () => {
      clearTimeout(timer);
      timer = setTimeout(showLaid, GATHER_MS);
    };
    const look = () => {
      if (dayHere() !== day) setFreshness({ kind: 'yesterday' });
    };
    const stops = [
      theOutbox().onAnswer((of, _, own) => {
        if (own && (of === canvasId || of === null)) answered = performance.now();
        showSoon();
      }),
      theFeed().subscribe((event) => {
        if (event.canvas !== canvasId || event.kind === 'present') return;
        if (event.kind === 'gone') {
          setFreshness({ kind: 'deleted' });
          return;
        }
        showSoon();
        const parts: LivePart[] =
          event.kind === 'mark' ? ['marks'] : event.kind === 'changed' ? event.parts : ['marks'];
        const by = event.kind === 'mark' ? event.mark.by : event.kind === 'changed' ? event.by : null;
        if (by !== null && by.screen === theScreen().current()) return;
        const part = parts.find((each) => !theShown(canvasId).has(each));
        if (part === undefined) return;
        // The answer to this page's own write may come a moment later.
        setTimeout(
          () => {
            if (by === null && performance.now() - answered < OWN_MS) return;
            setFreshness((before) =>
              before.kind === 'fresh' ? { kind: 'changed', part, by: by?.device ?? null } : before,
            );
          },
          by === null ? OWN_MS / 2 : 0,
        );
      }),
    ];
    theFeed().follow(canvasId);
    showLaid();
    const clock = setInterval(look, LOOK_AT_CLOCK_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearTimeout(timer);
      clearInterval(clock);
      document.removeEventListener('visibilitychange', look);
      for (const stop of stops) stop();
    };
  }, [canvasId]);
  return freshness;
}
