import { useEffect, useRef, useState } from 'react';
import type { BenchView } from '../../server/bench/contract';
import { keptInTab } from '../../ui/kept';
import { useReadAnew } from '../writing/useView';
import { useWrite } from '../writing/useWrite';

/** A note for the end of a sitting. */
interface TypedNote {
  sitting: string;
  text: string;
}
const noteKey = (canvasId: string) => `oculent-sitting-note-${canvasId}`;

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
  /** Ends the sitting with its note. @param endedAt ISO time; now, where it is left out */
  stop: (endedAt?: string) => void;
  /** What is typed of the sitting that runs; it is kept with its end, whoever ends it. */
  note: string;
  setNote: (note: string) => void;
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
  const [typed, setTyped] = useState(() => keptInTab.json(noteKey(canvasId)) as TypedNote | null);
  useEffect(() => keptInTab.set(noteKey(canvasId), JSON.stringify(typed)), [canvasId, typed]);
  const end = (sitting: string, note: string, endedAt?: string) =>
    void enter<BenchView>(
      `${base}/sittings/${sitting}/end`,
      { note, ...(endedAt && { endedAt }) },
      (view) => {
        shownHere(view);
        setTyped((now) => (now?.sitting === sitting && now.text === note ? null : now));
      },
    );
  const note = running !== null && typed?.sitting === running.id ? typed.text : '';
  const stop = (endedAt?: string) => {
    if (running) end(running.id, note, endedAt);
  };
  // Ended at another screen: what was typed here is added there, and not to the next sitting.
  const left = sittings.some(({ id, endedAt }) => id === typed?.sitting && endedAt !== null) ? typed : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each sitting and text
  useEffect(() => {
    if (left && left.text.trim() !== '') end(left.sitting, left.text);
  }, [left]);
  // The clock stops by itself with the last drill; a mark that is undone afterwards starts none.
  const wasLaid = useRef(allLaid);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what counts is the moment at which all is laid
  useEffect(() => {
    if (allLaid && !wasLaid.current) stop();
    wasLaid.current = allLaid;
  }, [allLaid]);
  return {
    ...{ running, lastMarkAt, thrown, enter, fault, stop, note },
    setNote: (text) => running && setTyped({ sitting: running.id, text }),
    setThrown: (next) => {
      setThrown(next);
      overtakes();
    },
    markedNow: () => setLastMarkAt(new Date().toISOString()),
    start: () => void enter<BenchView>(`${base}/sittings`, {}, shownHere),
  };
}
