import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { type DatedBagRow, standingBags } from '../../core/checkin/bagLedger';
import { heapToFind } from '../../core/checkin/supply';
import { legendOf, putHeap } from '../../data/canvas';
import { bagRows } from '../../data/checkin';
import type { Queries } from '../../data/engine/database';

/** What stands in the tables of a heap of bags. */
export interface Heap {
  legend: readonly LegendLine[];
  rows: readonly DatedBagRow[];
}

/** @param legend of the canvas, where it was read already */
export async function heapOf(
  queries: Queries,
  canvasId: string,
  legend?: readonly LegendLine[],
): Promise<Heap> {
  return { legend: legend ?? (await legendOf(queries, canvasId)), rows: await bagRows(queries, canvasId) };
}

/**
 * Keeps for the shelf how the heap stands, after anything that bags or the colour list follow from.
 * @param legend of the canvas, where it was read already
 * @returns the heap as it was read for that
 */
export async function noteHeap(
  queries: Queries,
  canvas: Canvas,
  legend?: readonly LegendLine[],
): Promise<Heap> {
  const heap = await heapOf(queries, canvas.id, legend);
  const { bags } = standingBags(heap.rows);
  await putHeap(queries, canvas.id, {
    bags: bags.length,
    bagsToFind: heapToFind(heap.legend, bags, canvas.packetDrills),
  });
  return heap;
}
