import { useCallback, useRef, useState } from 'react';
import type { KitupView } from '../../server/kitup/contract';
import { inWords, NoAnswer, sendJson } from '../writing/api';

/** What the user asks for when pots are planned; see `kitupSchema`. */
interface KitupWish {
  storageIds: string[];
  order: string;
  leave: string;
  goals: readonly string[];
  locks: { line: number; storageId: string; slot: string }[];
}

export interface Kitup {
  view: KitupView;
  fault: string | null;
  /** @returns whether it was done */
  plan(wish: KitupWish): Promise<boolean>;
  note(event: { line: number; kind: 'fill' | 'take back' | 'put away'; drills?: number }): Promise<boolean>;
  busy: boolean;
}

/** The kit-up of a canvas as the server sees it, and ways to change it. */
export function useKitup(canvasId: string, first: KitupView): Kitup {
  const [view, setView] = useState(first);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const attempt = useRef<{ entry: string; id: string } | null>(null);
  const ask = useCallback(async (work: () => Promise<KitupView>) => {
    setFault(null);
    setBusy(true);
    try {
      setView(await work());
      return true;
    } catch (error) {
      if (!(error instanceof NoAnswer)) attempt.current = null;
      setFault(inWords(error));
      return false;
    } finally {
      setBusy(false);
    }
  }, []);
  const plan = useCallback(
    (wish: KitupWish) => ask(() => sendJson('PUT', `/api/canvases/${canvasId}/kitup`, wish)),
    [ask, canvasId],
  );
  const note = useCallback<Kitup['note']>(
    (event) =>
      ask(async () => {
        // A try whose answer was lost may have been committed: the same event again keeps its id.
        const entry = JSON.stringify(event);
        if (attempt.current?.entry !== entry) attempt.current = { entry, id: crypto.randomUUID() };
        const { id } = attempt.current;
        const next = await sendJson<KitupView>('POST', `/api/canvases/${canvasId}/kitup/pots`, {
          id,
          ...event,
        });
        attempt.current = null;
        return next;
      }),
    [ask, canvasId],
  );
  return { view, fault, plan, note, busy };
}
