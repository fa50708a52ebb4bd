import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type Bitmap, isLaid } from '../../core/cells/bitmap';
import { cellsOfRuns } from '../../core/cells/cellRuns';
import { theFeed } from '../live/feed';
import { getJson } from '../writing/api';

/** Several lifts in a row are one reading. */
const GATHER_MS = 400;

/**
 * Squares whose drill came off and that are bare since: those that the ledger tells, and those that were said here just
 * now. @param version changes with every change of the bitmap, which is changed in place
 */
export function usePopped(
  canvasId: string,
  laid: Bitmap,
  version: number,
): { popped: readonly number[]; add: (cells: readonly number[]) => void } {
  const [known, setKnown] = useState<ReadonlySet<number>>(new Set());
  const asked = useRef(0);
  const read = useCallback(() => {
    const mine = ++asked.current;
    getJson<{ runs: number[] }>(`/api/canvases/${canvasId}/popped`).then(
      ({ runs }) => mine === asked.current && setKnown(new Set(cellsOfRuns(runs))),
      () => {},
    );
  }, [canvasId]);
  useEffect(() => {
    read();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = theFeed().subscribe((event) => {
      const lifts = event.kind === 'mark' && event.mark.kind === 'lift';
      if (event.canvas !== canvasId || !(lifts || event.kind === 'missed')) return;
      clearTimeout(timer);
      timer = setTimeout(read, GATHER_MS);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [canvasId, read]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place, see `version`
  const popped = useMemo(() => [...known].filter((cell) => !isLaid(laid, cell)), [known, laid, version]);
  const add = useCallback(
    (cells: readonly number[]) => setKnown((before) => new Set([...before, ...cells])),
    [],
  );
  return { popped, add };
}
