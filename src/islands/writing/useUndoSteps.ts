import { useEffect, useRef } from 'react';
import type { UndoView } from '../../core/ledger/history';

export type UndoStep = 'undo' | 'redo';

/** A key that could not be followed for so long is forgotten: what it meant is no longer what is on screen. */
const MEANT_FOR_MS = 3000;

/**
 * Undo and redo one at a time, each on what the one before it led to: while one is on its way, the keys that follow wait
 * for it and are done in order.
 * @returns takes a step; with `waits` it is kept until it can be done, otherwise it is passed over
 */
export function useUndoSteps(
  history: UndoView<{ id: string }>,
  busy: boolean,
  onStep: (step: UndoStep, id: string) => void,
): (step: UndoStep, waits: boolean) => void {
  const queue = useRef<{ step: UndoStep; at: number }[]>([]);
  /** The history that the last step acted on: until it changes, or is told to be refused, another would act on the same. */
  const actedOn = useRef<unknown>(null);
  const blocked = () => busy || actedOn.current === history;
  const go = () => {
    while (!blocked() && queue.current.length > 0) {
      const { step, at } = queue.current.shift()!;
      const entry = history[step];
      if (!entry || performance.now() - at > MEANT_FOR_MS) continue;
      actedOn.current = history;
      onStep(step, entry.id);
    }
  };
  useEffect(() => {
    if (!busy) actedOn.current = null;
  }, [busy]);
  // After every drawing: what was waited for may have come.
  useEffect(go);
  return (step, waits) => {
    if (blocked() && !waits) return;
    queue.current.push({ step, at: performance.now() });
    go();
  };
}
