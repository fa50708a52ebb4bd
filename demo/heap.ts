import type { LegendLine } from '../src/core/canvas/legend';
import { type Random, shuffled } from './random';

/** A bag as it lies in the heap. `drills` differs from the ordinary packet where somebody counted it. */
export interface HeapBag {
  label: string;
  drills: number;
}

/** The faults planted in a heap, for tests and for the curious. */
export interface PlantedFaults {
  missing: LegendLine;
  short: LegendLine;
  stray: string;
}

/**
 * The bags of a kit in the order in which a hand meets them, with three faults: the only packet of one colour is
 * missing, a packet of another holds too few, and one bag belongs to no line.
 */
export function heapOf(
  legend: readonly LegendLine[],
  packetDrills: number,
  random: Random,
): { bags: HeapBag[]; faults: PlantedFaults } {
  const missing = legend.find((line) => line.packets === 1)!;
  const short = legend.find((line) => line.packets === 3)!;
  const stray = strayCode(legend);
  const shortOf = short.packets * packetDrills - short.neededDrills + 46;
  const bags = legend
    .filter((line) => line !== missing)
    .flatMap((line) =>
      Array.from({ length: line.packets }, (_, i) => ({
        label: line.code,
        drills: line === short && i === 0 ? packetDrills - shortOf : packetDrills,
      })),
    );
  return {
    bags: shuffled(random, [...bags, { label: stray, drills: packetDrills }]),
    faults: { missing, short, stray },
  };
}

function strayCode(legend: readonly LegendLine[]): string {
  const taken = new Set(legend.flatMap((line) => [line.code, line.keyNumber]));
  for (let code = 3717; ; code++) if (!taken.has(String(code))) return String(code);
}
