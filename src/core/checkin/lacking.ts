import { byLine } from '../canvas/legend';
import { goodOf } from './goodDrills';
import type { LineSupply } from './supply';
import { lackOf } from './supply';

/** Whether drills or bags of a colour are still to come. */
export function lacks(supply: LineSupply): boolean {
  const { drills, bags } = lackOf(supply);
  return drills > 0 || bags > 0;
}

/** Whether a colour may not reach its last drill. */
export function mayRunOut({ verdict }: LineSupply): boolean {
  return verdict.kind === 'short' || verdict.kind === 'tight';
}

/** How far the drills here fill the need, 0…1; a colour that needs none is full. */
export function shareHere({ neededDrills, suppliedDrills }: LineSupply): number {
  return neededDrills === 0 ? 1 : Math.min(1, suppliedDrills / neededDrills);
}

/**
 * Drills of each line that can be laid, once the bad ones are thrown out.
 * @param trashShare 0…1
 * @returns by legend line; index 0 is unused
 */
export function goodDrills(supply: readonly LineSupply[], trashShare: number): number[] {
  return byLine(supply, ({ suppliedDrills }) => goodOf(suppliedDrills, trashShare), 0);
}

/** What a finished colour leaves over, as far as it is known: the good drills less the need. @param trashShare 0…1 */
export function leftover(hereDrills: number, neededDrills: number, trashShare: number): number {
  return Math.max(0, goodOf(hereDrills, trashShare) - neededDrills);
}
