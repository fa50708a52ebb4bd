import { useEffect, useRef, useState } from 'react';
import type { BenchView } from '../../server/bench/contract';
import { useReadAnew } from '../writing/useView';
import { useWrite } from '../writing/useWrite';

type Thrown = Pick<BenchView, 'trash' | 'trashRecords'>;

/**
 * What is on record beside the marks: sittings and what was thrown away, as here and on other screens.
 * @param allLaid whether the last drill is laid, which ends the sitting
 */
export function useBenchRecord(
  canvasId: string,
  first: BenchView,
  allLaid: boolean,
): {
  running: BenchView['sittings'][number] | null;
  lastMarkAt: string | null;
  /** Something was marked just now. */
  markedNow: () => void;
  start: () => void;
  /** @param endedAt ISO time; now, where it is left out */
  stop: (note: string, endedAt?: string) => void;
  thrown: Thrown;
  setThrown: (thrown: Thrown) => void;
  enter: ReturnType<typeof useWrite>['enter'];
  fault: string | null;
} {
  const { fault, enter } = useWrite(canvasId);
  const [sittings, setSittings] = useState(first.sittings);
  const [lastMarkAt, setLastMarkAt] = useState(first.lastMarkAt);
  const [thrown, setThrown] = useState<Thrown>(first);
  const shown = (view: BenchView) => {
    setSittings(view.sittings);
    setLastMarkAt(view.lastMarkAt);
  };
  const base = `/api/canvases/${canvasId}`;
  const overtakes = useReadAnew<BenchView>(`${base}/marks`, ['sittings', 'trash'], (view) => {
    shown(view);
    setThrown(view);
  });
  const shownHere = (view: BenchView) => {
    shown(view);
    overtakes();
  };
  const running = sittings.find((sitting) => sitting.endedAt === null) ?? null;
  const stop = (note: string, endedAt?: string) => {
    if (!running) return;
    void enter<BenchView>(
      `${base}/sittings/${running.id}/end`,
      { note, ...(endedAt && { endedAt }) },
      shownHere,
    );
  };
  // The clock stops by itself with the last drill; a mark that is undone afterwards starts none.
  const wasLaid = useRef(allLaid);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what counts is the moment at which all is laid
  useEffect(() => {
    if (allLaid && !wasLaid.current) stop('');
    wasLaid.current = allLaid;
  }, [allLaid]);
  return {
    ...{ running, lastMarkAt, thrown, enter, fault, stop },
    setThrown: (next) => {
      setThrown(next);
      overtakes();
    },
    markedNow: () => setLastMarkAt(new Date().toISOString()),
    start: () => void enter<BenchView>(`${base}/sittings`, {}, shownHere),
  };
}
