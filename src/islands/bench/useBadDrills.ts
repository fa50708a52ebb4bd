import { useRef, useState } from 'react';
import type { BenchView } from '../../server/bench/contract';
import type { CheckinView } from '../../server/checkin/contract';
import { useWrite } from '../writing/useWrite';

/**
 * Counts bad drills with one key each: one record, written at once and corrected with every further one, of the bad ones
 * among all drills that went through the hand since the page was opened.
 * @param laid drills that are laid now, on the whole canvas
 */
export function useBadDrills(
  canvasId: string,
  laid: number,
  onAnswer: (view: Pick<BenchView, 'trash' | 'trashRecords'>) => void,
): { thrown: number; count: (by: 1 | -1) => void; fault: string | null } {
  const { write, fault } = useWrite(canvasId);
  const [thrown, setThrown] = useState(0);
  const record = useRef<string | null>(null);
  const laidBefore = useRef(laid);
  const count = (by: 1 | -1) => {
    const next = thrown + by;
    if (next < 0) return;
    setThrown(next);
    const before = record.current;
    const id = crypto.randomUUID();
    record.current = id;
    const handled = Math.max(0, laid - laidBefore.current) + Math.max(1, next);
    const body = {
      id,
      handled,
      thrown: next,
      ...(before && { replaces: before }),
      // Counted by mistake: the record stays as removed.
      ...(next === 0 && { removed: true }),
    };
    void write<CheckinView>('POST', `/api/canvases/${canvasId}/trash`, body, onAnswer, true);
  };
  return { thrown, count, fault };
}
