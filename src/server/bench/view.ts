import { poppedCells } from '../../core/bench/popped';
import type { Canvas } from '../../core/canvas/canvas';
import { learnedTrash } from '../../core/checkin/chance';
import type { UndoView } from '../../core/ledger/history';
import { bitmapOf, laidOf, lastMarkAt, markFacts, popMarks, sittingsOf } from '../../data/bench';
import { drillsOf } from '../../data/chart';
import { trashEntries } from '../../data/checkin';
import type { Queries } from '../../data/engine/database';
import { undoViewOf } from '../../data/history';
import type { BenchView, MarkOffer } from './contract';

const SITTINGS_SHOWN = 12;

export async function benchView(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<BenchView> {
  const records = await trashEntries(queries, canvas.id);
  const sittings = (await sittingsOf(queries, canvas.id, SITTINGS_SHOWN)).filter(({ removed }) => !removed);
  const running = sittings.find(({ endedAt }) => endedAt === null);
  return {
    laid: await laidOf(queries, canvas.id),
    drills: (await drillsOf(queries, canvas.id)) ?? canvas.width * canvas.height,
    history: await markHistory(queries, canvas.id, screenId),
    sittings,
    lastMarkAt: running ? await lastMarkAt(queries, canvas.id, running.id) : null,
    trash: learnedTrash(records.filter(({ removed }) => !removed)),
    trashRecords: records,
  };
}

/** What undo and redo of a screen would take back and do again, with what they did. */
export function markHistory(
  queries: Queries,
  canvasId: string,
  screenId: string | null,
): Promise<UndoView<MarkOffer>> {
  return undoViewOf(queries, 'mark', canvasId, screenId, (ids) => markFacts(queries, ids));
}

/** Cells whose drill came off again, by cell index. */
export async function poppedOf(queries: Queries, canvas: Canvas): Promise<number[]> {
  const cells = canvas.width * canvas.height;
  return poppedCells(await popMarks(queries, canvas.id), await bitmapOf(queries, canvas.id, cells), cells);
}
