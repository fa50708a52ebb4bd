import type { CellRect } from '../cells/chart';
import { overlapOf } from '../cells/rect';
import { makeSection, type Section } from './section';

/** In which order sections are worked. */
export const WORK_WAYS = ['numbers', 'rows', 'snake', 'columns', 'outwards', 'focal first'] as const;
export type WorkWay = (typeof WORK_WAYS)[number];
export const CORNERS = ['top left', 'top right', 'bottom left', 'bottom right'] as const;
export type Corner = (typeof CORNERS)[number];

export interface WorkOrder {
  way: WorkWay;
  /** Where rows, snake and columns begin. */
  corner: Corner;
  /** The middle of the focal part, in cells; null where there is none. */
  focal: { x: number; y: number } | null;
}

export const USUAL_ORDER: WorkOrder = { way: 'rows', corner: 'top left', focal: null };

/** What an order goes by. */
interface OrderedCanvas {
  width: number;
  height: number;
  panelRects?: readonly CellRect[];
}

/**
 * Gives sections their turns.
 * - `numbers`: as they are numbered;
 * - `rows`, `columns`: line by line from the corner, panel after panel; `snake`: rows there and back;
 * - `outwards`: from the middle of the canvas; `focal first`: from the focal part.
 * @returns the same sections with their `order`
 */
export function inOrder(sections: readonly Section[], wish: WorkOrder, size: OrderedCanvas): Section[] {
  const turns = turnsOf(sections, wish, size);
  const order = new Map(turns.map((section, i) => [section.number, i + 1]));
  return sections.map((section) => ({ ...section, order: order.get(section.number)! }));
}

function turnsOf(
  sections: readonly Section[],
  { way, corner, focal }: WorkOrder,
  size: OrderedCanvas,
): Section[] {
  if (way === 'numbers') return [...sections];
  if (way === 'outwards' || way === 'focal first') {
    const middle = { x: size.width / 2, y: size.height / 2 };
    const { x, y } = way === 'focal first' ? (focal ?? middle) : middle;
    const far = (section: Section) => {
      const [atX, atY] = centreOf(section);
      return Math.hypot(atX - x, atY - y);
    };
    return [...sections].sort((a, b) => far(a) - far(b) || a.number - b.number);
  }
  const panels = size.panelRects ?? [];
  if (panels.length > 1) {
    // Nobody works a row over canvases that lie apart: one after the other, in the same order as their sections.
    const asPieces = panels.map((rect, i) => makeSection(i + 1, [rect]));
    const inTurn = turnsOf(asPieces, { way, corner, focal }, { width: size.width, height: size.height });
    return inTurn.flatMap((panel) =>
      turnsOf(
        sections.filter((section) => overlapOf(section.rects[0]!, panel)),
        { way, corner, focal },
        { width: size.width, height: size.height },
      ),
    );
  }
  const fromRight = corner.endsWith('right');
  const fromBottom = corner.startsWith('bottom');
  const across = way !== 'columns';
  const along = (section: Section) => {
    const [x, y] = centreOf(section);
    return across ? (fromRight ? -x : x) : fromBottom ? -y : y;
  };
  return linesOf(sections, across, across ? fromBottom : fromRight).flatMap((line, i) => {
    const turned = way === 'snake' && i % 2 === 1 ? -1 : 1;
    return [...line].sort((a, b) => turned * (along(a) - along(b)) || a.number - b.number);
  });
}

/**
 * Sections in lines, as nearly as they lie in any: each line begins with the outermost that is left, and takes those whose
 * middle lies within its breadth.
 */
function linesOf(sections: readonly Section[], across: boolean, fromEnd: boolean): Section[][] {
  const start = ({ x, y, width, height }: Section) =>
    across ? (fromEnd ? -(y + height) : y) : fromEnd ? -(x + width) : x;
  const breadth = ({ width, height }: Section) => (across ? height : width);
  const middle = (section: Section) => start(section) + breadth(section) / 2;
  const left = [...sections].sort((a, b) => start(a) - start(b) || a.number - b.number);
  const lines: Section[][] = [];
  while (left.length > 0) {
    const head = left[0]!;
    const end = start(head) + breadth(head);
    const line = left.filter((section) => section === head || middle(section) < end);
    const taken = new Set(line);
    lines.push(line);
    left.splice(0, left.length, ...left.filter((section) => !taken.has(section)));
  }
  return lines;
}

function centreOf({ x, y, width, height }: Section): [x: number, y: number] {
  return [x + width / 2, y + height / 2];
}
