import type { CellPlace } from '../cells/rect';
import { type Placement, placementRect } from './placement';

/** Index of the placement that lays a square; −1 where none does. */
export function placementOn(placements: readonly Placement[], { x, y }: CellPlace): number {
  return placements.findIndex((placement) => {
    const rect = placementRect(placement);
    return x >= rect.x && y >= rect.y && x < rect.x + rect.width && y < rect.y + rect.height;
  });
}

/**
 * Where stepping stands after a plan was made anew: at the placement that lays the square in hand, else at the first of
 * the colour in hand, else at the first of all.
 */
export function stepIn(
  placements: readonly Placement[],
  place: CellPlace | null,
  line: number | null,
): number {
  const same = place ? placementOn(placements, place) : -1;
  if (same !== -1) return same;
  return Math.max(
    0,
    placements.findIndex((placement) => placement.line === line),
  );
}

/** Indices of the squares of a placement. @param width columns of the canvas */
export function cellsOfPlacement(placement: Placement, width: number): number[] {
  const { x, y, orientation, length } = placement;
  return Array.from({ length }, (_, i) => (orientation === 'h' ? y * width + x + i : (y + i) * width + x));
}
