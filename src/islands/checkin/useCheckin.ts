import { useCallback, useEffect, useRef, useState } from 'react';
import type { CheckinView } from '../../server/checkin/contract';
import { getJson, inWords, NoAnswer, sendJson } from '../writing/api';

/** Other people may count at another screen, so the view is asked for anew every few seconds. */
const REFRESH_MS = 4000;

export interface Checkin {
  view: CheckinView;
  fault: string | null;
  /** Sends an entry for a ledger of this canvas. @returns the new view, or null when it was refused */
  post(ledger: 'bags' | 'trash', body: object): Promise<CheckinView | null>;
}

export function useCheckin(canvasId: string, first: CheckinView): Checkin {
  const [view, setView] = useState(first);
  const [fault, setFault] = useState<string | null>(null);
  const posts = useRef(0);
  const attempt = useRef<{ entry: string; id: string } | null>(null);
  const post = useCallback(
    async (ledger: 'bags' | 'trash', body: object) => {
      setFault(null);
      posts.current++;
      // A try whose answer was lost may have been committed: the same entry again keeps its id and counts once.
      const entry = JSON.stringify([ledger, body]);
      if (attempt.current?.entry !== entry) attempt.current = { entry, id: crypto.randomUUID() };
      try {
        const next = await sendJson<CheckinView>('POST', `/api/canvases/${canvasId}/${ledger}`, {
          id: attempt.current.id,
          ...body,
        });
        attempt.current = null;
        setView(next);
        return next;
      } catch (error) {
        if (!(error instanceof NoAnswer)) attempt.current = null;
        setFault(inWords(error));
        return null;
      }
    },
    [canvasId],
  );
  useEffect(() => {
    const refresh = () => {
      if (document.hidden) return;
      // A miss does no harm: the next one, or the next bag, brings the view up to date.
      const before = posts.current;
      // An answer that was on its way while a bag was counted is older than what is shown.
      const show = (next: CheckinView) => before === posts.current && setView(next);
      getJson<CheckinView>(`/api/canvases/${canvasId}/bags`).then(show, () => {});
    };
    const timer = setInterval(refresh, REFRESH_MS);
    return () => clearInterval(timer);
  }, [canvasId]);
  return { view, fault, post };
}
