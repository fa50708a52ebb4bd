import { useCallback, useEffect, useRef, useState } from 'react';
import { withAnswer } from '../../core/checkin/bagAnswer';
import type { BagAnswer, CheckinView } from '../../server/checkin/contract';
import { useLive } from '../live/useLive';
import { getJson } from '../writing/api';
import { useWrite } from '../writing/useWrite';
import type { TrashWish } from './TrashSlip';

export interface Checkin {
  view: CheckinView;
  fault: string | null;
  /** Enters a bag, or takes an entry back. @param then gets the view with it, also when it comes late */
  enterBag(body: object, then?: (view: CheckinView) => void): void;
  recordTrash(record: TrashWish, refused?: () => void): void;
}

export function useCheckin(canvasId: string, first: CheckinView): Checkin {
  const [view, setView] = useState(first);
  const shown = useRef(first);
  const { fault, enter } = useWrite(canvasId);
  const base = `/api/canvases/${canvasId}`;
  const show = useCallback((next: CheckinView) => {
    // An answer that was on its way while something was entered is older than what is shown.
    if (next.revision < shown.current.revision) return;
    shown.current = next;
    setView(next);
  }, []);
  const enterBag = useCallback<Checkin['enterBag']>(
    (body, then) => {
      // The same bag twice is two bags.
      void enter<BagAnswer>(
        `${base}/bags`,
        body,
        (answer) => {
          show(withAnswer(shown.current, answer));
          then?.(shown.current);
        },
        true,
      );
    },
    [enter, base, show],
  );
  const recordTrash = useCallback<Checkin['recordTrash']>(
    (record, refused) => void enter<CheckinView>(`${base}/trash`, record, show, true, refused),
    [enter, base, show],
  );
  const asked = useRef(0);
  const refresh = useCallback(() => {
    const mine = ++asked.current;
    // A miss does no harm: the next change, or the next bag, brings the view up to date.
    getJson<CheckinView>(`${base}/bags`).then(
      (answer) => mine === asked.current && show(answer),
      () => {},
    );
  }, [base, show]);
  useEffect(refresh, [refresh]);
  useLive(canvasId, ['bags', 'trash', 'sheet', 'other'], refresh);
  return { view, fault, enterBag, recordTrash };
}
