import { useEffect, useMemo, useSyncExternalStore } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { BenchView } from '../../server/bench/contract';
import type { ClothData } from '../cloth/useClothData';
import { theFeed } from '../live/feed';
import { theShown } from '../live/shownParts';
import { theOutbox } from '../writing/outbox';
import { type MarkState, MarkStore } from './markStore';

/** The marks of the canvas in hand, and ways to make and undo them. */
export function useMarks(
  canvas: Canvas,
  data: ClothData,
  first: BenchView,
): MarkState & { store: MarkStore } {
  const store = useMemo(
    () => new MarkStore(canvas, data, first, theOutbox(), theFeed()),
    [canvas, data, first],
  );
  useEffect(() => store.start(), [store]);
  useEffect(() => theShown(canvas.id).add(['marks']), [canvas.id]);
  const state = useSyncExternalStore(store.subscribe, store.snapshot);
  return { ...state, store };
}
