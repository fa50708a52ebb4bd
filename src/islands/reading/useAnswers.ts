import { useCallback, useMemo, useState } from 'react';
import { counted } from '../../core/words/numbers';
import type { ReadingView } from '../../server/reading/contract';
import type { Writing } from '../writing/useWrite';

type Answered = Pick<ReadingView, 'answers' | 'undo'>;

/**
 * What was said of squares: kept in the ledger, and at once on this screen. Undo takes back what this screen said last.
 */
export function useAnswers(
  view: ReadingView,
  show: (next: ReadingView) => void,
  { write, enter }: Writing,
  base: string,
): {
  answers: ReadonlyMap<number, number>;
  answer(squares: readonly number[], line: number): void;
  /** Null where there is nothing to take back, or it is not yet known. */
  undo: (() => void) | null;
  undoWords: string;
} {
  /** Said here and not yet acknowledged, in order; each entry by itself, so that a refused one can be taken out. */
  const [waiting, setWaiting] = useState<
    readonly { key: string; squares: readonly number[]; line: number }[]
  >([]);
  const answers = useMemo(() => {
    const all = new Map(view.answers);
    for (const { squares, line } of waiting) for (const square of squares) all.set(square, line);
    return all;
  }, [view.answers, waiting]);
  const took = useCallback((next: Answered) => show({ ...view, ...next }), [show, view]);
  const answer = useCallback(
    (squares: readonly number[], line: number) => {
      const key = crypto.randomUUID();
      setWaiting((before) => [...before, { key, squares, line }]);
      const body = { answers: squares.map((square) => [square, line]) };
      // The same answer twice is no second one, but each key press is.
      void enter<Answered>(`${base}/answers`, body, took, true).then(() =>
        setWaiting((before) => before.filter((entry) => entry.key !== key)),
      );
    },
    [enter, base, took],
  );
  const last = view.undo;
  const undo = useCallback(() => {
    if (!last) return;
    void write<Answered>('POST', `${base}/answers`, { id: crypto.randomUUID(), undoes: last.id }, took);
  }, [write, base, last, took]);
  return {
    answers,
    answer,
    undo: last && waiting.length === 0 ? undo : null,
    undoWords: last ? `Undoes what was said of ${counted(last.squares, 'square')}` : 'Nothing to undo',
  };
}
