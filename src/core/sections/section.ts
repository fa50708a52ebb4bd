import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { boxAround, type CellPart, countInPart, forEachCell, isInside } from '../cells/rect';

/** A sitting's piece of canvas. Its `x`, `y`, `width` and `height` are the rectangle around all of it. */
export interface Section extends CellPart {
  /** From 1; the sections of a canvas stand in the order of their numbers. */
  number: number;
  /** Its turn in the work, from 1. */
  order: number;
  /** What the user calls it. */
  name: string | null;
  rects: readonly CellRect[];
}

/** A section from its rectangles, at least one, none over another. @param order its number where left out */
export function makeSection(
  number: number,
  rects: readonly CellRect[],
  name: string | null = null,
  order = number,
): Section {
  return { number, order, name, rects, ...boxAround(rects) };
}

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

/** The section that a cell lies in. */
export function sectionAt(sections: readonly Section[], x: number, y: number): Section | null {
  return sections.find((section) => isInside(section, { x, y })) ?? null;
}

/** Tallies every section. @param lines highest legend line */
export function tallySections(
  chart: Chart,
  laid: Bitmap,
  sections: readonly Section[],
  lines: number,
): SectionTally[] {
  return sections.map((section) => {
    const perLine = countInPart(chart, section, lines, null);
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
