import { panelSpans } from '../canvas/canvas';
import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { countInRect, forEachCell } from '../cells/rect';

/** Size of the blocks that a canvas is cut into, in cells. */
export interface BlockSize {
  columns: number;
  rows: number;
}

/** A sitting's piece of canvas, numbered from 1 row by row. */
export interface Section extends CellRect {
  number: number;
}

/** About 5 cm at 2.5 mm: the usual working section (common practice, no source). */
export const USUAL_BLOCK: BlockSize = { columns: 20, rows: 20 };

/** What is in a section. Counts in drills. */
export interface SectionTally {
  section: Section;
  drills: number;
  laid: number;
  /** Different colours in the section. */
  colours: number;
  /** The colour with the most drills; null in a section without drills. */
  largest: { line: number; drills: number } | null;
}

/**
 * Cuts a canvas into blocks. Blocks start afresh at each panel, since no sitting spans two cloths;
 * the last block of a row or column may be smaller.
 * @example cutIntoBlocks({ width: 50, height: 40 }, 1, { columns: 20, rows: 20 }).length // 6
 */
export function cutIntoBlocks(
  size: { width: number; height: number },
  panels: number,
  block: BlockSize,
): Section[] {
  const across = panelSpans(size.width, panels).flatMap(({ start, end }) =>
    pieces(start, end, block.columns),
  );
  const down = pieces(0, size.height, block.rows);
  return down.flatMap((row, r) =>
    across.map((column, c) => ({
      number: r * across.length + c + 1,
      x: column.start,
      y: row.start,
      width: column.end - column.start,
      height: row.end - row.start,
    })),
  );
}

function pieces(start: number, end: number, length: number): { start: number; end: number }[] {
  const cuts: { start: number; end: number }[] = [];
  for (let at = start; at < end; at += length) cuts.push({ start: at, end: Math.min(at + length, end) });
  return cuts;
}

/** The section that a cell lies in. */
export function sectionAt(sections: readonly Section[], x: number, y: number): Section | null {
  return sections.find((s) => x >= s.x && y >= s.y && x < s.x + s.width && y < s.y + s.height) ?? null;
}

/** Tallies every section. @param lines highest legend line */
export function tallySections(
  chart: Chart,
  laid: Bitmap,
  sections: readonly Section[],
  lines: number,
): SectionTally[] {
  return sections.map((section) => {
    const perLine = countInRect(chart, section, lines, null);
    let laidDrills = 0;
    forEachCell(chart, section, (cell, line) => {
      if (line !== 0 && isLaid(laid, cell)) laidDrills++;
    });
    let drills = 0;
    let colours = 0;
    let largest: SectionTally['largest'] = null;
    for (let line = 1; line <= lines; line++) {
      const count = perLine[line]!;
      if (count === 0) continue;
      drills += count;
      colours++;
      if (largest === null || count > largest.drills) largest = { line, drills: count };
    }
    return { section, drills, laid: laidDrills, colours, largest };
  });
}
