import { isLaid } from '../cells/bitmap';
import type { MarkGround } from '../cells/markGround';
import { type CellPart, rectsOf } from '../cells/rect';
import { many } from '../words/numbers';

/** What a canvas was left at: the section that was in front, and the colour in it. */
export interface InFront {
  section: number;
  /** Null where no colour was chosen, or the canvas has no chart. */
  line: number | null;
}

/**
 * Drills left to lay in a part of a canvas, in all and of one colour.
 * @param ground cells that hold all of the part
 * @param width of the canvas, in cells
 */
export function leftIn(
  { lines, laid, first = 0 }: MarkGround,
  part: CellPart,
  width: number,
  line: number | null,
): { all: number; ofLine: number } {
  let [all, ofLine] = [0, 0];
  for (const rect of rectsOf(part)) {
    for (let y = rect.y; y < rect.y + rect.height; y++) {
      for (let x = rect.x; x < rect.x + rect.width; x++) {
        const at = y * width + x - first;
        const here = lines ? lines[at]! : 1;
        if (here === 0 || isLaid(laid, at)) continue;
        all++;
        if (lines && here === line) ofLine++;
      }
    }
  }
  return { all, ofLine };
}

/**
 * Where work goes on, as the shelf says it. A colour that is all laid there is not named any more.
 * @example inFrontInWords(30, '745', { all: 210, ofLine: 41 }) // 'Section 30, colour 745, 41 left'
 */
export function inFrontInWords(
  section: number,
  code: string | null,
  { all, ofLine }: { all: number; ofLine: number },
): string {
  if (all === 0) return `Section ${many(section)}, all laid`;
  return code !== null && ofLine > 0
    ? `Section ${many(section)}, colour ${code}, ${many(ofLine)} left`
    : `Section ${many(section)}, ${many(all)} left`;
}
