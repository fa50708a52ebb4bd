import type { CellRect } from '../cells/chart';
import { makeSection, type Section } from './section';
/** Size of the blocks that a canvas is cut into, in cells. */
export interface BlockSize {
  columns: number;
  rows: number;
}

/** About 5 cm at 2.5 mm: the usual working section (common practice, no source). */
export const USUAL_BLOCK: BlockSize = { columns: 20, rows: 20 };

/**
 * Cuts a canvas into blocks, numbered row by row. Blocks start afresh at each panel, since no sitting spans two canvases;
 * the last block of a row or column may be smaller.
 * @param panels in rows and columns, as `panelGrid` gives them
 * @example cutIntoBlocks([{ x: 0, y: 0, width: 50, height: 40 }], { columns: 20, rows: 20 }).length // 6
 */
export function cutIntoBlocks(panels: readonly CellRect[], block: BlockSize): Section[] {
  const across = panels
    .filter(({ y }) => y === panels[0]!.y)
    .flatMap(({ x, width }) => pieces(x, x + width, block.columns));
  const down = panels
    .filter(({ x }) => x === panels[0]!.x)
    .flatMap(({ y, height }) => pieces(y, y + height, block.rows));
  return down.flatMap((row, r) =>
    across.map((column, c) =>
      makeSection(r * across.length + c + 1, [
        { x: column.start, y: row.start, width: column.end - column.start, height: row.end - row.start },
      ]),
    ),
  );
}

function pieces(start: number, end: number, length: number): { start: number; end: number }[] {
  const cuts: { start: number; end: number }[] = [];
  for (let at = start; at < end; at += length) cuts.push({ start: at, end: Math.min(at + length, end) });
  return cuts;
}
