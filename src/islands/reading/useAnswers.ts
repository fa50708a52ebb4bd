import { useCallback, useMemo, useRef, useState } from 'react';
import { counted } from '../../core/words/numbers';
import type { ReadingView } from '../../server/reading/contract';
import { WAITS, type Writing } from '../writing/useWrite';

/** Something that was said here. */
interface Waiting {
  key: string;
  squares: readonly number[];
  line: number;
  unanswered: boolean;
}

type Answered = Pick<ReadingView, 'answers' | 'undo'>;

/**
 * What was said of squares: kept in the ledger, and at once on this screen. Undo takes back what this screen said last, or where it said nothing,
 * what was said last.
 */
export function useAnswers(
  view: ReadingView,
  show: (next: ReadingView) => void,
  { write, enter, fault }: Writing,
  base: string,
  columns: number,
): {
  answers: ReadonlyMap<number, number>;
  answer(squares: readonly number[], line: number): void;
  /** Null where there is nothing to take back, or it is not yet known. */
  undo: (() => void) | null;
  undoWords: string;
} {
  /** Said here and not yet acknowledged, in order; `unanswered` where no answer came, or a refusal. */
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  // What waits for the server stands; what the server refused does not.
  const standing = useMemo(
    () => (fault === WAITS ? waiting : waiting.filter(({ unanswered }) => !unanswered)),
    [fault, waiting],
  );
  const answers = useMemo(() => {
    const all = new Map(view.answers);
    for (const { squares, line } of standing) for (const square of squares) all.set(square, line);
    return all;
  }, [view.answers, standing]);
  // An answer may come late, when other parts of the view are newer.
  const shown = useRef(view);
  shown.current = view;
  const took = useCallback((next: Answered) => show({ ...shown.current, ...next }), [show]);
  const answer = useCallback(
    (squares: readonly number[], line: number) => {
      const key = crypto.randomUUID();
      setWaiting((before) => [...before, { key, squares, line, unanswered: false }]);
      const body = { answers: squares.map((square) => [square, line]), columns };
      const come = (next: Answered) => {
        took(next);
        setWaiting((before) => before.filter((entry) => entry.key !== key));
      };
      // The same answer twice is no second one, but each key press is.
      void enter<Answered>(`${base}/answers`, body, come, true).then((acknowledged) => {
        if (acknowledged) return;
        setWaiting((before) =>
          before.map((entry) => (entry.key === key ? { ...entry, unanswered: true } : entry)),
        );
      });
    },
    [enter, base, columns, took],
  );
  const last = view.undo;
  const undo = useCallback(() => {
    if (!last) return;
    void write<Answered>('POST', `${base}/answers`, { id: crypto.randomUUID(), undoes: last.id }, took);
  }, [write, base, last, took]);
  return {
    answers,
    answer,
    undo: last && standing.length === 0 ? undo : null,
    undoWords: last
      ? `Undoes what was said of ${counted(last.squares, 'square')}${last.own ? '' : ' at another screen'}`
      : 'Nothing to undo',
  };
}
