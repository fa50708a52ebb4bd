import type { Canvas } from '../../core/canvas/canvas';
import type { OutTable } from '../../core/checkin/checkinTable';
import { type PackedLine, type PackingGoal, packingList } from '../../core/packing/packing';
import { legendOf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';

/** @throws Problem when a size or the spare makes no sense */
export async function packingFor(
  queries: Queries,
  canvas: Canvas,
  wish: { sizes: string; spare: number; goal: PackingGoal },
): Promise<PackedLine[]> {
  const sizes = wish.sizes
    .split(/[,;\s]+/)
    .filter((word) => word !== '')
    .map(Number);
  return packingList(await legendOf(queries, canvas.id), sizes, wish.spare, wish.goal);
}

export function packingTable(list: readonly PackedLine[]): OutTable {
  const sizes = [...new Set(list.flatMap((each) => each.bags.map((bag) => bag.size)))].sort((a, b) => b - a);
  return {
    header: [
      'Colour code',
      'Finish',
      'Drills needed',
      'With spare',
      ...sizes.map((size) => `Bags of ${size}`),
      'Packed',
    ],
    rows: list.map((each) => [
      each.line.code,
      each.line.finish,
      each.line.neededDrills,
      each.wantedDrills,
      ...sizes.map((size) => each.bags.find((bag) => bag.size === size)?.count ?? 0),
      each.packedDrills,
    ]),
  };
}
