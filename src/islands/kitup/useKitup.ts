import { useCallback, useEffect, useState } from 'react';
import type { KitupView } from '../../server/kitup/contract';
import { getJson } from '../writing/api';
import { useWrite } from '../writing/useWrite';

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
  busy: boolean;
  /** @returns whether it was done */
  plan(wish: KitupWish): Promise<boolean>;
  note(event: { line: number; kind: 'fill' | 'take back' | 'put away'; drills?: number }): Promise<boolean>;
  undo(id: string): void;
  redo(id: string): void;
}

/** The kit-up of a canvas as the server sees it, and ways to change it. */
export function useKitup(canvasId: string, first: KitupView): Kitup {
  const [view, setView] = useState(first);
  const { busy, fault, write, enter } = useWrite(canvasId);
  const base = `/api/canvases/${canvasId}/kitup`;
  const plan = useCallback((wish: KitupWish) => write('PUT', base, wish, setView), [write, base]);
  const note = useCallback<Kitup['note']>((event) => enter(`${base}/pots`, event, setView), [enter, base]);
  const undo = useCallback(
    (id: string) => void enter(`${base}/pots`, { undoes: id }, setView),
    [enter, base],
  );
  const redo = useCallback(
    (id: string) => void enter(`${base}/pots`, { redoes: id }, setView),
    [enter, base],
  );
  useEffect(() => {
    // The page was made before this screen had a name; undo goes by it.
    getJson<KitupView>(base).then(setView, () => {});
  }, [base]);
  return { view, fault, busy, plan, note, undo, redo };
}
