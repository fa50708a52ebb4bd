import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import type { CellPlace } from '../cells/rect';
import { type Placement, placementRect } from './placement';
import { type Tips, tipFor } from './tips';

/** Index of the placement that lays a square; −1 where none does. */
export function placementOn(placements: readonly Placement[], { x, y }: CellPlace): number {
  return placements.findIndex((placement) => {
    const rect = placementRect(placement);
    return x >= rect.x && y >= rect.y && x < rect.x + rect.width && y < rect.y + rect.height;
  });
}

/**
 * Where stepping is: at the placement of a square, or behind all that lay the squares that were laid or passed over. What
 * was laid is in no plan that is made anew, and the rest of it may be another one.
 */
export type StepPlace = CellPlace | { passed: ReadonlySet<number> } | null;

/**
 * Where stepping stands in a plan, also in one that was made anew: at the placement that lays the square in hand, or the
 * first of the colour in hand that nobody has passed; else at the first of the colour, else at the first of all.
 * @param width columns of the canvas
 */
export function stepIn(
  placements: readonly Placement[],
  place: StepPlace,
  line: number | null,
  width: number,
): number {
  const first = (free: (placement: Placement) => boolean) =>
    placements.findIndex((placement) => placement.line === line && free(placement));
  let step = -1;
  if (place && 'passed' in place) {
    step = first((placement) => !cellsOfPlacement(placement, width).some((cell) => place.passed.has(cell)));
  } else if (place) step = placementOn(placements, place);
  return Math.max(0, step === -1 ? first(() => true) : step);
}

/**
 * Where stepping goes on once a placement is laid, and with which colour: behind it where the plan has more of its colour
 * there, else at the next one of all.
 * @param width columns of the canvas
 */
export function stepBehind(
  placements: readonly Placement[],
  laid: number,
  width: number,
): { place: StepPlace; line: number | null } {
  const line = placements[laid]?.line ?? null;
  const isOwn = (placement: Placement) => placement.line === line;
  if (placements.slice(laid + 1).some(isOwn)) {
    const passed = placements.slice(0, laid + 1).filter(isOwn);
    return {
      place: { passed: new Set(passed.flatMap((placement) => cellsOfPlacement(placement, width))) },
      line,
    };
  }
  const next = placements[laid + 1] ?? placements[laid - 1];
  return { place: next ? { x: next.x, y: next.y } : null, line: next?.line ?? line };
}

/**
 * A plan that was made anew, with the placement that somebody has in hand meanwhile: what other placements would lay of
 * its squares is cut out of them, so that each square is laid once.
 * @param width columns of the canvas
 */
export function withInHand(
  placements: readonly Placement[],
  inHand: Placement,
  tips: Tips,
  width: number,
): Placement[] {
  const own = new Set(cellsOfPlacement(inHand, width));
  let isIn = false;
  return placements.flatMap((placement): Placement[] => {
    if (!cellsOfPlacement(placement, width).some((cell) => own.has(cell))) return [placement];
    const rest = piecesWithout(placement, own, tips, width);
    if (isIn) return rest;
    isIn = true;
    return [inHand, ...rest];
  });
}

/** The pieces of a placement that are left without some of its squares, each with the tip for it. */
function piecesWithout(
  placement: Placement,
  without: ReadonlySet<number>,
  tips: Tips,
  width: number,
): Placement[] {
  const pieces: Placement[] = [];
  let before = -2;
  cellsOfPlacement(placement, width).forEach((cell, i) => {
    if (without.has(cell)) return;
    const last = pieces.at(-1);
    if (last && before === i - 1) last.length++;
    else {
      const [x, y] =
        placement.orientation === 'h' ? [placement.x + i, placement.y] : [placement.x, placement.y + i];
      pieces.push({ ...placement, x, y, length: 1 });
    }
    before = i;
  });
  return pieces.map((piece) => ({ ...piece, tip: tipFor(piece.length, tips) }));
}

/** Whether all squares of a placement are still to be laid with its colour. */
export function isToLay(placement: Placement, chart: Chart, laid: Bitmap): boolean {
  return cellsOfPlacement(placement, chart.width).every(
    (cell) => chart.cells[cell] === placement.line && !isLaid(laid, cell),
  );
}

/** Indices of the squares of a placement. @param width columns of the canvas */
export function cellsOfPlacement(placement: Placement, width: number): number[] {
  const { x, y, orientation, length } = placement;
  return Array.from({ length }, (_, i) => (orientation === 'h' ? y * width + x + i : (y + i) * width + x));
}
