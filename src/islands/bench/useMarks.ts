import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { applyMark, changedCells, type MarkKind } from '../../core/bench/marking';
import type { Canvas } from '../../core/canvas/canvas';
import { countCells, runsFromCells } from '../../core/cells/cellRuns';
import type { UndoState } from '../../core/ledger/history';
import type { BenchView, MarkView } from '../../server/bench/contract';
import type { ClothData } from '../cloth/useClothData';
import { getBytes, inWords, sendJson } from '../writing/api';
import { Outbox } from '../writing/outbox';

/** What is marked on the cloth in hand, shown at once and sent in order. */
export interface Marks {
  laid: number;
  /** Changes with every change of the bitmap, which itself is changed in place. */
  version: number;
  history: UndoState;
  /** Marks not yet acknowledged, and whether the server is away. */
  waiting: { count: number; away: boolean };
  fault: string | null;
  /** Shows cells as laid or lifted while a drag goes on; {@link Marks.commit} sends them. @returns cells that changed */
  preview(kind: MarkKind, cells: readonly number[]): number[];
  commit(kind: MarkKind, cells: readonly number[], sittingId: string | null): void;
  undo(): void;
  redo(): void;
}

export function useMarks(canvas: Canvas, data: ClothData, first: BenchView): Marks {
  const url = `/api/canvases/${canvas.id}/marks`;
  const [laid, setLaid] = useState(first.laid);
  const [version, setVersion] = useState(0);
  const [history, setHistory] = useState(first.history);
  const [waiting, setWaiting] = useState({ count: 0, away: false });
  const [fault, setFault] = useState<string | null>(null);
  const busy = useRef(false);

  const reload = useCallback(async () => {
    data.laid.set(await getBytes(`/api/canvases/${canvas.id}/bitmap`));
    setVersion((v) => v + 1);
  }, [canvas.id, data]);

  const outbox = useMemo(
    () =>
      new Outbox<MarkView>(`oculent-marks-${canvas.id}`, {
        answered: (answer) => {
          setHistory(answer.history);
          setLaid(answer.laid);
          applyMark(data.laid, answer.kind, answer.runs);
          setVersion((v) => v + 1);
        },
        refused: (sentence) => {
          setFault(sentence);
          void reload();
        },
        waiting: (count, away) => setWaiting({ count, away }),
      }),
    [canvas.id, data, reload],
  );
  useEffect(() => {
    outbox.resume();
    return () => outbox.pause();
  }, [outbox]);

  const preview = (kind: MarkKind, cells: readonly number[]) => {
    const runs = changedCells(data.chart, data.laid, kind, runsFromCells(cells));
    if (runs.length === 0) return [];
    applyMark(data.laid, kind, runs);
    setLaid((before) => before + (kind === 'lay' ? 1 : -1) * countCells(runs));
    setVersion((v) => v + 1);
    return [...cells];
  };
  const commit = (kind: MarkKind, cells: readonly number[], sittingId: string | null) => {
    setFault(null);
    if (cells.length > 0)
      outbox.put(url, { id: crypto.randomUUID(), kind, runs: runsFromCells(cells), sittingId });
  };
  /** Undo and redo wait until every mark has arrived, so that they act on the last one. */
  const step = useCallback(
    async (body: { undoes: string } | { redoes: string } | null) => {
      if (!body || busy.current || waiting.count > 0) return;
      busy.current = true;
      setFault(null);
      try {
        const answer = await sendJson<MarkView>('POST', url, { id: crypto.randomUUID(), ...body });
        applyMark(data.laid, answer.kind, answer.runs);
        setHistory(answer.history);
        setLaid(answer.laid);
        setVersion((v) => v + 1);
      } catch (error) {
        setFault(inWords(error));
      }
      busy.current = false;
    },
    [url, data, waiting.count],
  );
  const undo = useCallback(
    () => void step(history.undo ? { undoes: history.undo } : null),
    [step, history.undo],
  );
  const redo = useCallback(
    () => void step(history.redo ? { redoes: history.redo } : null),
    [step, history.redo],
  );
  return { laid, version, history, waiting, fault, preview, commit, undo, redo };
}
