import type { CellRect } from '../cells/chart';
import { overlapOf } from '../cells/rect';
import type { Section } from './section';

/** Numbers of the sections that have squares in a rectangle of cells. */
export function sectionsTouching(sections: readonly Section[], area: CellRect): number[] {
  return sections
    .filter(({ rects }) => rects.some((rect) => overlapOf(rect, area)))
    .map(({ number }) => number);
}

/** The sections from one to another: all that touch the rectangle around both. */
export function sectionsBetween(sections: readonly Section[], from: number, to: number): number[] {
  const [a, b] = [sections[from - 1], sections[to - 1]];
  if (!a || !b) return [];
  if (a === b) return [from];
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return sectionsTouching(sections, {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  });
}

/** Drills left in some sections together. */
export function leftInSections(sections: readonly { drills: number; laid: number }[]): number {
  return sections.reduce((sum, { drills, laid }) => sum + drills - laid, 0);
}
