import { useCallback } from 'react';
import type { PotEventKind } from '../../core/kitup/potLedger';
import type { KitupView } from '../../server/kitup/contract';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';

/** What the user asks for when pots are planned; see `kitupSchema`. */
interface KitupWish {
  storageIds: string[];
  order: string;
  leave: string;
  goals: readonly string[];
  several: boolean;
  locks: { line: number; storageId: string; slot: string }[];
}

export interface Kitup {
  view: KitupView;
  fault: string | null;
  busy: boolean;
  /** @returns whether it was done */
  plan(wish: KitupWish): Promise<boolean>;
  note(event: { line: number; kind: PotEventKind; drills?: number }): Promise<boolean>;
  /** Says whether the kit is worked straight from its bags. */
  withoutCases(none: boolean): void;
  undo(id: string): void;
  redo(id: string): void;
}

/** The kit-up of a canvas as the server sees it, and ways to change it. */
export function useKitup(canvasId: string, first: KitupView): Kitup {
  const { busy, fault, write, enter } = useWrite(canvasId);
  const base = `/api/canvases/${canvasId}/kitup`;
  const [view, setView] = useView(base, first, ['pots', 'bags', 'marks', 'sheet', 'other']);
  const plan = useCallback((wish: KitupWish) => write('PUT', base, wish, setView), [write, base, setView]);
  const note = useCallback<Kitup['note']>(
    (event) => enter(`${base}/pots`, event, setView),
    [enter, base, setView],
  );
  const withoutCases = useCallback(
    (none: boolean) => void write('PUT', `${base}/no-cases`, { none }, setView),
    [write, base, setView],
  );
  const undo = useCallback(
    (id: string) => void enter(`${base}/pots`, { undoes: id }, setView),
    [enter, base, setView],
  );
  const redo = useCallback(
    (id: string) => void enter(`${base}/pots`, { redoes: id }, setView),
    [enter, base, setView],
  );
  return { view, fault, busy, plan, note, withoutCases, undo, redo };
}
