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
  const newest = useRef(laid);
  newest.current = laid;
  const put = (thrown: number, by: 1 | -1) => {
    setThrown(thrown);
    const before = record.current;
    const id = crypto.randomUUID();
    record.current = id;
    const handled = Math.max(0, newest.current - laidBefore.current) + Math.max(1, thrown);
    const body = {
      id,
      handled,
      thrown,
      ...(before && { replaces: before }),
      // Counted by mistake: the record stays as removed.
      ...(thrown === 0 && { removed: true }),
    };
    // Somebody corrected or removed the record meanwhile: it stays so, and what is counted from here on is another one.
    const begin = () => {
      if (!before) return;
      record.current = null;
      laidBefore.current = newest.current;
      // After the refusal is told: it is mended by this.
      if (by > 0) queueMicrotask(() => put(1, by));
      else setThrown(0);
    };
    void write<CheckinView>('POST', `/api/canvases/${canvasId}/trash`, body, onAnswer, true, begin);
  };
  const count = (by: 1 | -1) => {
    if (thrown + by >= 0) put(thrown + by, by);
  };
  return { thrown, count, fault };
}
