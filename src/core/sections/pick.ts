import type { CellRect } from '../cells/chart';
import type { Section } from './section';

/** Numbers of the sections that a rectangle of cells touches. */
export function sectionsTouching(sections: readonly Section[], area: CellRect): number[] {
  return sections
    .filter(
      ({ x, y, width, height }) =>
        x < area.x + area.width && area.x < x + width && y < area.y + area.height && area.y < y + height,
    )
    .map(({ number }) => number);
}

/** The sections from one to another: all that touch the rectangle around both. */
export function sectionsBetween(sections: readonly Section[], from: number, to: number): number[] {
  const [a, b] = [sections[from - 1], sections[to - 1]];
  if (!a || !b) return [];
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
