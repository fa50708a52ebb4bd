import type { Canvas } from '../canvas/canvas';
import { positionOf } from '../cells/position';
import type { CellPlace } from '../cells/rect';
import { counted } from '../words/numbers';

/** Edge marks stand every so many squares (common practice, no source). */
const EDGE_MARK_CELLS = 50;

/**
 * Where a square lies for somebody with a ruler, or who counts from an edge mark.
 * @example crossHairInWords({ x: 52, y: 10 }, { pitchMm: 2.5 })
 *   // 'Column 53, row 11: 13.1 cm from the left (3 squares past mark 50), 2.6 cm from the top (row 11 of the edge).'
 */
export function crossHairInWords(place: CellPlace, canvas: Pick<Canvas, 'pitchMm'>): string {
  const { column, row, cm } = positionOf(place.x, place.y, canvas);
  return `Column ${column}, row ${row}: ${cm.fromLeft.toFixed(1)} cm from the left (${markInWords(column, 'left edge')}), ${cm.fromTop.toFixed(1)} cm from the top (${markInWords(row, 'upper edge')}).`;
}

/** The nearest edge mark before a square, or after it where that is nearer. @param at column or row from 1 */
function markInWords(at: number, edge: string): string {
  const before = Math.floor(at / EDGE_MARK_CELLS) * EDGE_MARK_CELLS;
  const past = at - before;
  if (past === 0) return `at mark ${before}`;
  if (before === 0 && past <= EDGE_MARK_CELLS / 2) return `square ${at} from the ${edge}`;
  if (past <= EDGE_MARK_CELLS / 2) return `${counted(past, 'square')} past mark ${before}`;
  return `${counted(EDGE_MARK_CELLS - past, 'square')} before mark ${before + EDGE_MARK_CELLS}`;
}
