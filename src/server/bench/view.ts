import { poppedCells } from '../../core/bench/popped';
import type { Canvas } from '../../core/canvas/canvas';
import { countLaid } from '../../core/cells/bitmap';
import { countDrills } from '../../core/cells/chart';
import { learnedTrash } from '../../core/checkin/chance';
import { bitmapOf, everyMark, markHistory, sittingsOf } from '../../data/bench';
import { trashRecords } from '../../data/checkin';
import type { Queries } from '../../data/engine/database';
import { chartOrCloth } from '../chart/view';
import type { BenchView } from './contract';

const SITTINGS_SHOWN = 12;

export async function benchView(queries: Queries, canvas: Canvas): Promise<BenchView> {
  const chart = await chartOrCloth(queries, canvas);
  return {
    laid: countLaid(await bitmapOf(queries, canvas.id, chart.cells.length)),
    drills: countDrills(chart),
    history: await markHistory(queries, canvas.id),
    sittings: await sittingsOf(queries, canvas.id, SITTINGS_SHOWN),
    trash: learnedTrash(await trashRecords(queries, canvas.id)),
  };
}

/** Cells whose drill came off again, by cell index. */
export async function poppedOf(queries: Queries, canvas: Canvas): Promise<number[]> {
  return poppedCells(await everyMark(queries, canvas.id), canvas.width * canvas.height);
}
