import { useCallback, useEffect, useRef, useState } from 'react';
import { withAnswer } from '../../core/checkin/bagAnswer';
import type { BagAnswer, CheckinView } from '../../server/checkin/contract';
import { announceShown } from '../freshness/useFreshness';
import { getChanged } from '../writing/api';
import { useWrite } from '../writing/useWrite';
import type { TrashWish } from './TrashSlip';

/** Others may count at another screen: every few seconds it is asked whether anything has changed. */
const REFRESH_MS = 4000;

export interface Checkin {
  view: CheckinView;
  fault: string | null;
  /** Enters a bag, or takes an entry back. @param then gets the view with it, also when it comes late */
  enterBag(body: object, then?: (view: CheckinView) => void): void;
  recordTrash(record: TrashWish): Promise<boolean>;
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
    (record) => enter<CheckinView>(`${base}/trash`, record, show),
    [enter, base, show],
  );
  useEffect(() => {
    let tag: string | null = null;
    const refresh = () => {
      if (document.hidden) return;
      // A miss does no harm: the next try, or the next bag, brings the view up to date.
      getChanged<CheckinView>(`${base}/bags`, tag).then(
        (changed) => {
          if (!changed) return;
          // The first answer only confirms what came with the page.
          if (tag !== null) announceShown();
          tag = changed.tag;
          show(changed.answer);
        },
        () => {},
      );
    };
    refresh();
    const timer = setInterval(refresh, REFRESH_MS);
    return () => clearInterval(timer);
  }, [base, show]);
  return { view, fault, enterBag, recordTrash };
}
