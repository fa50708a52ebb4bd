import { cellsToCm } from '../canvas/canvas';
import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { isInside, overlapOf, someCell, wholeRect } from '../cells/rect';
import { counted, many } from '../words/numbers';
import { type CoverKind, coverPieces, exposureOf } from './cover';
import { CORNERS, inOrder, WORK_WAYS, type WorkOrder, type WorkWay } from './order';
import { ownersOf } from './owners';
import type { CutCanvas } from './plan';
import type { Section } from './section';

export const HANDS = ['right', 'left'] as const;
export type Hand = (typeof HANDS)[number];

/** How far the resting hand reaches sideways and towards the body from where the pen works (common practice, no source). */
const REST_CM = { side: 9, below: 7 };
/** So much bare adhesive under the hand is told (common practice, no source). */
const TOLD_CM2 = 2;

/** A section during whose work the hand rests on bare adhesive. */
export interface HandConflict {
  cm2: number;
  /** Sections that lie bare under the hand, the most first. */
  on: number[];
}

/** Where the hand rests while a section is worked: beside its middle and below it, on the side of the hand. */
export function restingPlace(
  section: CellRect,
  hand: Hand,
  canvas: { width: number; height: number; pitchMm: number },
): CellRect | null {
  const cells = (cm: number) => Math.round((cm * 10) / canvas.pitchMm);
  const [half, low] = [Math.floor(section.width / 2), Math.floor(section.height / 2)];
  const width = section.width - half + cells(REST_CM.side);
  const x = hand === 'right' ? section.x + half : section.x + section.width - half - width;
  return overlapOf(wholeRect(canvas), {
    x,
    y: section.y + low,
    width,
    height: section.height - low + cells(REST_CM.below),
  });
}

/**
 * Sections during whose work the hand rests on bare adhesive: on squares that are not laid yet and that the cover does not
 * hide at that moment. The section itself does not count.
 * @param chart null where every square wants a drill
 */
export function handConflicts(
  canvas: CutCanvas & { pitchMm: number },
  chart: Chart | null,
  laid: Bitmap,
  sections: readonly Section[],
  order: WorkOrder,
  { hand, cover, sheets }: { hand: Hand; cover: CoverKind; sheets: readonly CellRect[] },
): Map<number, HandConflict> {
  const pieces = coverPieces(cover, canvas, sections, order, sheets);
  const { width } = canvas;
  const numberAt = ownersOf(canvas, sections);
  const turnOf = [0, ...sections.map(({ order: turn }) => turn)];
  const wanted = (cell: number) => !isLaid(laid, cell) && chart?.cells[cell] !== 0;
  const squareCm2 = cellsToCm(1, canvas.pitchMm) ** 2;
  const conflicts = new Map<number, HandConflict>();
  for (const section of sections) {
    if (!someCell(width, section, wanted)) continue;
    const panel = canvas.panelRects.find((rect) => overlapOf(rect, section.rects[0]!));
    // Another panel lies elsewhere: the hand is not on it.
    const place = restingPlace(section, hand, canvas);
    const rest = place && panel && overlapOf(place, panel);
    if (!rest) continue;
    const open = new Set(pieces.openFor(section));
    const bare = new Map<number, number>();
    for (let y = rest.y; y < rest.y + rest.height; y++) {
      for (let x = rest.x; x < rest.x + rest.width; x++) {
        const cell = y * width + x;
        if (turnOf[numberAt[cell]!]! <= section.order || !wanted(cell)) continue;
        if (!open.has(pieces.pieceAt(x, y)) || isInside(section, { x, y })) continue;
        bare.set(numberAt[cell]!, (bare.get(numberAt[cell]!) ?? 0) + 1);
      }
    }
    const cm2 = [...bare.values()].reduce((sum, squares) => sum + squares, 0) * squareCm2;
    if (cm2 < TOLD_CM2) continue;
    const on = [...bare].sort((a, b) => b[1] - a[1]).map(([number]) => number);
    conflicts.set(section.number, { cm2, on });
  }
  return conflicts;
}

/**
 * Why a section is in conflict, as a sentence.
 * @example conflictInWords({ cm2: 12.4, on: [8, 14] }, 'right') // 'Your right hand rests on 12 cm² of bare adhesive, in sections 8 and 14.'
 */
export function conflictInWords({ cm2, on }: HandConflict, hand: Hand): string {
  const [first, second, ...more] = on;
  const where =
    second === undefined
      ? `section ${many(first!)}`
      : more.length === 0
        ? `sections ${many(first!)} and ${many(second)}`
        : `sections ${many(first!)}, ${many(second)} and ${counted(more.length, 'more', 'more')}`;
  return `Your ${hand} hand rests on ${many(Math.round(cm2))} cm² of bare adhesive, in ${where}.`;
}

/** Ways of equal worth, the plainest to follow first. */
const PLAINEST: readonly WorkWay[] = ['rows', 'columns', 'snake', 'outwards', 'focal first', 'numbers'];

/** An order with what it leads to. */
export interface JudgedOrder {
  order: WorkOrder;
  /** Sections during whose work the hand rests on bare adhesive. */
  conflicts: number;
  /** Most adhesive that lies bare at once, cm². */
  worstCm2: number;
}

/**
 * All orders, the best first: fewest conflicts of the hand, then the least adhesive bare at once, then the plainest.
 * @param focal the middle of the focal part, where there is one
 */
export function judgedOrders(
  canvas: CutCanvas & { pitchMm: number },
  chart: Chart | null,
  laid: Bitmap,
  sections: readonly Section[],
  focal: WorkOrder['focal'],
  wish: { hand: Hand; cover: CoverKind; sheets: readonly CellRect[] },
): JudgedOrder[] {
  const orders = WORK_WAYS.filter((way) => way !== 'focal first' || focal !== null).flatMap(
    (way): WorkOrder[] =>
      way === 'rows' || way === 'snake' || way === 'columns'
        ? CORNERS.map((corner) => ({ way, corner, focal }))
        : [{ way, corner: 'top left', focal }],
  );
  return orders
    .map((order): JudgedOrder => {
      const turned = inOrder(sections, order, canvas);
      const pieces = coverPieces(wish.cover, canvas, turned, order, wish.sheets);
      return {
        order,
        conflicts: handConflicts(canvas, chart, laid, turned, order, wish).size,
        worstCm2: exposureOf(canvas, chart, laid, turned, pieces).worst?.cm2 ?? 0,
      };
    })
    .sort(
      (a, b) =>
        a.conflicts - b.conflicts ||
        a.worstCm2 - b.worstCm2 ||
        PLAINEST.indexOf(a.order.way) - PLAINEST.indexOf(b.order.way),
    );
}
