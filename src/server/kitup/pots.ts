import type { LegendLine } from '../../core/canvas/legend';
import { inColourOrder } from '../../core/codes/colourOrder';
import { type PotPlaces, potName } from '../../core/codes/places';
import { type Storage, slotsInOrder } from '../../core/storage/storage';
import type { Queries } from '../../data/engine/database';
import { type Allotted, allotmentOf, kitupPlan } from '../../data/kitup';
import { storagesOf } from '../../data/storage';

/** The cases that hold a kit, in the order in which they are filled. */
export async function casesOf(queries: Queries, storageIds: readonly string[]): Promise<Storage[]> {
  const all = await storagesOf(queries, storageIds);
  return storageIds.flatMap((id) => all.find((storage) => storage.id === id) ?? []);
}

/** The name of every slot: `storage slot` → `pot 17`. */
export function slotNames(cases: readonly Storage[]): Map<string, string> {
  return new Map(
    cases.flatMap((storage, c) =>
      slotsInOrder(storage.trays).map(({ slot, number }): [string, string] => [
        slotKey(storage.id, slot.id),
        potName(c, cases.length, number),
      ]),
    ),
  );
}

export function slotKey(storageId: string, slot: string): string {
  return `${storageId} ${slot}`;
}

/** Where each colour lives; without a plan nothing is fixed, and pots are numbered in code order. */
export function placesOf(
  legend: readonly LegendLine[],
  cases: readonly Storage[],
  allotted: readonly Allotted[],
): PotPlaces {
  if (allotted.length === 0) return {};
  const names = slotNames(cases);
  const placesOfLine = new Map<number, string[]>();
  for (const { line, storageId, slot } of allotted) {
    const name = names.get(slotKey(storageId, slot));
    if (name !== undefined) placesOfLine.set(line, [...(placesOfLine.get(line) ?? []), name]);
  }
  let bags = 0;
  return Object.fromEntries(
    inColourOrder(legend, 'code').map(({ line }) => [line, placesOfLine.get(line) ?? [`bag ${++bags}`]]),
  );
}

export async function potPlaces(
  queries: Queries,
  canvasId: string,
  legend: readonly LegendLine[],
): Promise<PotPlaces> {
  const plan = await kitupPlan(queries, canvasId);
  if (!plan) return {};
  return placesOf(legend, await casesOf(queries, plan.storageIds), await allotmentOf(queries, canvasId));
}
