import { useCallback, useEffect, useRef, useState } from 'react';
import type { BenchView } from '../../server/bench/contract';
import { keptInTab } from '../../ui/kept';
import { theMachineClock } from '../writing/machineClock';
import { theOutbox } from '../writing/outbox';
import { useReadAnew } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { type SittingAct, sittingActOf, withWaiting } from './waitingSittings';

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
  const { waiting, add, drop } = useWaitingSittings(canvasId, shownHere);
  const running = withWaiting(sittings, waiting).find((sitting) => sitting.endedAt === null) ?? null;
  // A second press comes before the first one shows.
  const begun = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once one runs, or none any more, the next may begin
  useEffect(() => {
    begun.current = false;
  }, [running?.id]);
  const [typed, setTyped] = useState(() => keptInTab.json(noteKey(canvasId)) as TypedNote | null);
  useEffect(() => keptInTab.set(noteKey(canvasId), JSON.stringify(typed)), [canvasId, typed]);
  const end = (sitting: string, note: string, endedAt?: string) => {
    const act = add('end', sitting, endedAt);
    void enter<BenchView>(
      `${base}/sittings/${sitting}/end`,
      { note, ...(endedAt && { endedAt }) },
      () => setTyped((now) => (now?.sitting === sitting && now.text === note ? null : now)),
      false,
      () => drop(act),
    );
  };
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
    markedNow: () => setLastMarkAt(theMachineClock().now().toISOString()),
    start: () => {
      if (begun.current) return;
      begun.current = true;
      const id = crypto.randomUUID();
      const act = add('begin', id);
      void enter<BenchView>(
        `${base}/sittings`,
        { id },
        () => {},
        false,
        () => drop(act),
      );
    },
  };
}

/**
 * What was done to sittings here, or on a page before a reload, and still waits for the server.
 * @param onAnswer told what the server says of each
 */
function useWaitingSittings(canvasId: string, onAnswer: (view: BenchView) => void) {
  const [waiting, setWaiting] = useState<SittingAct[]>([]);
  const drop = useCallback(
    ({ act, sitting }: SittingAct) =>
      setWaiting((now) => now.filter((each) => each.act !== act || each.sitting !== sitting)),
    [],
  );
  const heard = useRef(onAnswer);
  useEffect(() => {
    heard.current = onAnswer;
  });
  useEffect(() => {
    let here = true;
    const outbox = theOutbox();
    void outbox.waitingFor(canvasId).then((writes) => {
      const before = writes.flatMap((write) => sittingActOf(write) ?? []);
      const isNew = (now: SittingAct[]) => (each: SittingAct) =>
        !now.some(({ act, sitting }) => act === each.act && sitting === each.sitting);
      if (here && before.length > 0) setWaiting((now) => [...before.filter(isNew(now)), ...now]);
    });
    const leave = outbox.onAnswer((canvas, answer, _own, write) => {
      const act = canvas === canvasId ? sittingActOf(write) : null;
      if (act === null) return;
      heard.current(answer as BenchView);
      drop(act);
    });
    return () => {
      here = false;
      leave();
    };
  }, [canvasId, drop]);
  const add = (act: SittingAct['act'], sitting: string, at = theMachineClock().now().toISOString()) => {
    const done = { act, sitting, at };
    setWaiting((now) => [...now, done]);
    return done;
  };
  return { waiting, add, drop };
}
