import { applyMark, changedCells, inverseOf, type MarkKind } from '../../core/bench/marking';
import type { Canvas } from '../../core/canvas/canvas';
import { countLaid } from '../../core/cells/bitmap';
import { type CellRuns, faultInRuns } from '../../core/cells/cellRuns';
import { addMark, bitmapOf, findMark, markHistory, putBitmap, sittingBelongs } from '../../data/bench';
import type { Database, Queries } from '../../data/engine/database';
import { chartOrCloth } from '../chart/view';
import { conflict, notFound, unreadable } from '../http/problem';
import type { MarkView } from './contract';

export interface MarkRequest {
  id: string;
  kind: MarkKind;
  runs: CellRuns;
  sittingId: string | null;
  undoes: string | null;
  redoes: string | null;
}

/**
 * Enters a mark into the ledger and says which cells it changed. Answers only once it is committed.
 * The same id a second time changes nothing and gets the same answer.
 * @throws Problem when the cells lie outside the canvas, or there is nothing to undo or redo
 */
export async function enterMark(database: Database, canvas: Canvas, wish: MarkRequest): Promise<MarkView> {
  return database.transaction(async (queries) => {
    const chart = await chartOrCloth(queries, canvas);
    const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
    const known = await findMark(queries, canvas.id, wish.id);
    if (known)
      return {
        ...known,
        runs: [...known.runs],
        laid: countLaid(laid),
        history: await markHistory(queries, canvas.id),
      };
    const { kind, runs } = await whatToMark(queries, canvas, wish, chart.cells.length);
    if (wish.sittingId !== null && !(await sittingBelongs(queries, canvas.id, wish.sittingId))) {
      throw notFound('such sitting');
    }
    const changed = changedCells(chart, laid, kind, runs);
    await addMark(queries, {
      id: wish.id,
      canvasId: canvas.id,
      sittingId: wish.sittingId,
      happenedAt: new Date().toISOString(),
      kind,
      runs: changed,
      undoes: wish.undoes,
      redoes: wish.redoes,
    });
    applyMark(laid, kind, changed);
    await putBitmap(queries, canvas.id, laid);
    return {
      id: wish.id,
      kind,
      runs: changed,
      laid: countLaid(laid),
      history: await markHistory(queries, canvas.id),
    };
  });
}

async function whatToMark(
  queries: Queries,
  canvas: Canvas,
  wish: MarkRequest,
  cells: number,
): Promise<{ kind: MarkKind; runs: CellRuns }> {
  if (wish.undoes === null && wish.redoes === null) {
    const fault = faultInRuns(wish.runs, cells);
    if (fault !== null) throw unreadable(fault);
    if (wish.runs.length === 0) throw unreadable('A mark needs at least one cell.');
    return { kind: wish.kind, runs: wish.runs };
  }
  const history = await markHistory(queries, canvas.id);
  const target = await findMark(queries, canvas.id, wish.undoes ?? wish.redoes ?? '');
  if (!target) throw notFound('such mark');
  if (wish.undoes !== null) {
    if (history.undo !== target.id)
      throw conflict('This mark is not the last one any more. Look again, then undo.');
    return { kind: inverseOf(target.kind), runs: target.runs };
  }
  if (history.redo !== target.id) throw conflict('This mark cannot be done again any more.');
  return { kind: target.kind, runs: target.runs };
}
