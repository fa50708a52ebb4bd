import { type Canvas, cellsToCm, cellsToInches } from '../canvas/canvas';

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
