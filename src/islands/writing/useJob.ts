import { useCallback, useEffect, useRef, useState } from 'react';
import { getJson, inWords, sendJson } from './api';

/** Shorter work needs no word. */
const PATIENCE_MS = 600;

/** Long work on the server, as the page that asked for it sees it. */
interface RunningJob {
  /** Steps done and in all; `of` is 0 while that is not known. */
  done: number;
  of: number;
}

export interface Jobs {
  /** Null while nothing runs, or nothing that takes long. */
  running: RunningJob | null;
  busy: boolean;
  fault: string | null;
  /** Does work that sends the id of the job in its address (`job=`). @returns whether it went well */
  run(work: (job: string, signal: AbortSignal) => Promise<void>): Promise<boolean>;
  /** Ends it, here and on the server. */
  cancel(): void;
}

/** Long work with its progress, which can be ended. */
export function useJob(): Jobs {
  const [running, setRunning] = useState<RunningJob | null>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const current = useRef<{ id: string; controller: AbortController } | null>(null);

  const run = useCallback<Jobs['run']>(async (work) => {
    const mine = { id: crypto.randomUUID(), controller: new AbortController() };
    current.current = mine;
    setBusy(true);
    setFault(null);
    const timer = setInterval(() => {
      getJson<RunningJob>(`/api/jobs/${mine.id}`).then(
        (job) => current.current === mine && setRunning(job),
        // It has just ended, or has not begun: the work itself tells.
        () => {},
      );
    }, PATIENCE_MS);
    try {
      await work(mine.id, mine.controller.signal);
      return true;
    } catch (error) {
      if (!mine.controller.signal.aborted) setFault(inWords(error));
      return false;
    } finally {
      clearInterval(timer);
      if (current.current === mine) {
        current.current = null;
        setBusy(false);
        setRunning(null);
      }
    }
  }, []);
  const cancel = useCallback(() => {
    const mine = current.current;
    if (!mine) return;
    mine.controller.abort();
    sendJson('DELETE', `/api/jobs/${mine.id}`).catch(() => {
      // It is over already.
    });
  }, []);
  useEffect(() => cancel, [cancel]);
  return { running, busy, fault, run, cancel };
}
