import { type Canvas, cellsToCm, cellsToInches } from '../canvas/canvas';
import { type CellPlace, isInside } from './rect';

/** Where a cell lies, as people say it: columns and rows from 1, distances from the left and upper edge to its middle. */
export interface CellPosition {
  column: number;
  row: number;
  cm: { fromLeft: number; fromTop: number };
  inches: { fromLeft: number; fromTop: number };
}

/** @param x column from 0 @param y row from 0 */
export function positionOf(x: number, y: number, canvas: Pick<Canvas, 'pitchMm'>): CellPosition {
  return {
    column: x + 1,
    row: y + 1,
    cm: {
      fromLeft: cellsToCm(x + 0.5, canvas.pitchMm),
      fromTop: cellsToCm(y + 0.5, canvas.pitchMm),
    },
    inches: {
      fromLeft: cellsToInches(x + 0.5, canvas.pitchMm),
      fromTop: cellsToInches(y + 0.5, canvas.pitchMm),
    },
  };
}

/** The panel that a cell lies on, with the column and row there, all from 1; null on an undivided canvas. */
export function panelPlace(
  { panelRects }: Pick<Canvas, 'panelRects'>,
  { x, y }: CellPlace,
): { panel: number; column: number; row: number } | null {
  if (panelRects.length < 2) return null;
  const at = panelRects.findIndex((rect) => isInside(rect, { x, y }));
  const rect = panelRects[at];
  return rect ? { panel: at + 1, column: x - rect.x + 1, row: y - rect.y + 1 } : null;
}

/** @example panelPlaceInWords({ panel: 2, column: 20, row: 7 }) // 'on panel 2 column 20, row 7' */
export function panelPlaceInWords({
  panel,
  column,
  row,
}: {
  panel: number;
  column: number;
  row: number;
}): string {
  return `on panel ${panel} column ${column}, row ${row}`;
}
