import { useEffect, useRef, useSyncExternalStore } from 'react';
import { theScreen } from '../writing/screen';
import { type LiveEvent, theFeed } from './feed';
import { type LivePart, theShown } from './shownParts';

/** Several changes in a row are one reading. */
const GATHER_MS = 120;

/** The canvas that an address belongs to; null for the shelf. */
export function canvasOfUrl(url: string): string | null {
  return /^\/api\/canvases\/([0-9a-f-]{36})\b/.exec(url)?.[1] ?? null;
}

/** Whether an event is of this screen's own doing: its answer shows it. */
function isOwn(event: LiveEvent): boolean {
  const by = event.kind === 'mark' ? event.mark.by : event.kind === 'changed' ? event.by : null;
  return by !== null && by.screen === theScreen().current();
}

/**
 * Reads what a page shows anew when another screen changed it.
 * @param canvasId null for what belongs to the shelf
 * @param parts of the canvas that it shows; none for nothing to follow
 * @param read is called a moment after the change
 */
export function useLive(canvasId: string | null, parts: readonly LivePart[], read: () => void): void {
  const newest = useRef(read);
  newest.current = read;
  const followed = parts.join();
  useEffect(() => {
    const all = followed === '' ? [] : (followed.split(',') as LivePart[]);
    if (all.length === 0) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const soon = () => {
      clearTimeout(timer);
      timer = setTimeout(() => newest.current(), GATHER_MS);
    };
    if (canvasId !== null) theFeed().follow(canvasId);
    const shown = canvasId === null ? () => {} : theShown(canvasId).add(all);
    const stop = theFeed().subscribe((event) => {
      if (event.canvas !== canvasId || event.kind === 'present' || event.kind === 'gone' || isOwn(event))
        return;
      if (event.kind === 'missed') soon();
      else if (
        event.kind === 'mark'
          ? all.includes('marks')
          : event.parts.some((part) => part === 'other' || all.includes(part))
      )
        soon();
    });
    return () => {
      clearTimeout(timer);
      shown();
      stop();
    };
  }, [canvasId, followed]);
}

/** Other devices that have a canvas open, by name. */
export function usePresent(canvasId: string): string[] {
  const names = useSyncExternalStore(
    (listen) =>
      theFeed().subscribe((event) => event.kind === 'present' && event.canvas === canvasId && listen()),
    () => theFeed().devicesOn(canvasId).join('\n'),
  );
  return names === '' ? [] : names.split('\n');
}
