import type { CellRect } from '../cells/chart';
import { overlapOf, rectsOf } from '../cells/rect';
import type { Section } from './section';

/** Said of a colour on a canvas without a chart: it is done in these rectangles of it, or is not after all. */
export interface Tick {
  rects: readonly CellRect[];
  line: number;
  done: boolean;
}

/** A colour that is done in a section. */
export interface TickedColour {
  line: number;
  section: number;
}

/**
 * The colours that are done, section by section: of all ticks of a colour that cover the whole of a section, the last one
 * counts. A section that was cut larger than what was ticked is not done yet.
 * @param ticks oldest first
 */
export function tickedColours(ticks: readonly Tick[], sections: readonly Section[]): TickedColour[] {
  const last = new Map<string, TickedColour & { done: boolean }>();
  for (const { line, done, rects } of ticks) {
    for (const section of sections) {
      if (!covers(rects, section)) continue;
      last.set(`${line} ${section.number}`, { line, section: section.number, done });
    }
  }
  return [...last.values()].filter(({ done }) => done).map(({ line, section }) => ({ line, section }));
}

/** Whether all squares of a section lie in some rectangles, none of which lies over another. */
function covers(rects: readonly CellRect[], section: Section): boolean {
  const common = rectsOf(section).flatMap((own) => rects.map((rect) => overlapOf(own, rect)));
  return common.reduce((sum, rect) => sum + (rect ? squaresOf([rect]) : 0), 0) === squaresOf(section.rects);
}

function squaresOf(rects: readonly CellRect[]): number {
  return rects.reduce((sum, { width, height }) => sum + width * height, 0);
}

/**
 * How far each colour is, in percent of the canvas's squares, cut to two decimals.
 * @returns by line; colours that are ticked nowhere are left out
 */
export function percentTicked(
  ticked: readonly TickedColour[],
  sections: readonly Section[],
): Map<number, number> {
  const squares = ({ rects }: Section) => squaresOf(rects);
  const all = sections.reduce((sum, section) => sum + squares(section), 0);
  const done = new Map<number, number>();
  for (const { line, section } of ticked) {
    done.set(line, (done.get(line) ?? 0) + squares(sections[section - 1]!));
  }
  return new Map([...done].map(([line, sum]) => [line, Math.floor((sum / all) * 10_000 + 1e-9) / 100]));
}
