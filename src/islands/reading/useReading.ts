import { useEffect, useMemo } from 'react';
import type { ReadingPhoto, ReadingView } from '../../server/reading/contract';
import { useView } from '../writing/useView';
import { useWrite, type Writing } from '../writing/useWrite';
import { ReadingThreads } from './threads';

export const addressOfReading = (canvasId: string) => `/api/canvases/${canvasId}/reading`;

/** Where a photo's picture is fetched: as it came, or its squares where it is no longer kept. */
export function pictureOf(canvasId: string, { id, kept }: Pick<ReadingPhoto, 'id' | 'kept'>): string {
  return `${addressOfReading(canvasId)}/photos/${id}/${kept ? 'photo' : 'squares'}.jpg`;
}

/** What is known of a canvas's photos, kept up with other screens, and the way to change it. */
export function useReading(
  canvasId: string,
  first: ReadingView,
): { view: ReadingView; show: (next: ReadingView) => void; writing: Writing; base: string } {
  const base = addressOfReading(canvasId);
  const [view, show] = useView<ReadingView>(base, first, ['other', 'sheet']);
  const writing = useWrite(canvasId);
  return { view, show, writing, base };
}

/** Threads that end with the page. */
export function useThreads(): ReadingThreads {
  const threads = useMemo(() => new ReadingThreads(), []);
  useEffect(() => () => threads.stop(), [threads]);
  return threads;
}
