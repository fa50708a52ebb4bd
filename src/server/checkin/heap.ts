import type { Canvas } from '../../core/canvas/canvas';
import { summarise, supplyOf } from '../../core/checkin/supply';
import { legendOf, putHeap } from '../../data/canvas';
import { countedBags } from '../../data/checkin';
import type { Queries } from '../../data/engine/database';

/** Keeps for the shelf how the heap stands, after anything that bags or the colour list follow from. */
export async function noteHeap(queries: Queries, canvas: Canvas): Promise<void> {
  const { bags } = await countedBags(queries, canvas.id);
  const supply = supplyOf(await legendOf(queries, canvas.id), bags, canvas.packetDrills);
  await putHeap(queries, canvas.id, summarise(supply, bags));
}
