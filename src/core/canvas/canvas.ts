import { readLength, readWhole } from '../words/numbers';

/** How the drills of a kit are cut. */
export type Shape = 'square' | 'round';

/** What is told of a canvas: one physical picture, possibly split into panels. */
export interface CanvasFacts {
  id: string;
  title: string;
  shape: Shape;
  /** Distance between the centres of two neighbouring drills. */
  pitchMm: number;
  /** Cells from left to right, over all panels. */
  width: number;
  /** Cells from top to bottom. */
  height: number;
  /** Panels side by side that the kit comes in; 1 for an undivided canvas. */
  panels: number;
  /** False where the cloth carries no symbols and the chart is the only guide. */
  symbolsPrinted: boolean;
  /** What one ordinary packet of this kit holds, in drills. */
  packetDrills: number;
  /** What stands on the bags of this kit; null while it is not known. */
  bagsCarry: BagsCarry | null;
}

/** What was told of a canvas, without what follows from it. */
export function factsOf({
  id,
  title,
  shape,
  pitchMm,
  width,
  height,
  panels,
  symbolsPrinted,
  packetDrills,
  bagsCarry,
}: CanvasFacts): CanvasFacts {
  return { id, title, shape, pitchMm, width, height, panels, symbolsPrinted, packetDrills, bagsCarry };
}

/** A panel in squares of the canvas: first column and row from 0. */
export interface PanelRect {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A canvas as it is worked. */
export interface Canvas extends CanvasFacts {
  /** Its panels, the user's own where he cut it himself: left to right, then down. */
  panelRects: readonly PanelRect[];
}

/** A number on a bag may be the code of one colour and the key number of another; this says which of the two it is. */
export const BAGS_CARRY = ['codes', 'key numbers'] as const;
export type BagsCarry = (typeof BAGS_CARRY)[number];

export const MAX_SIDE_CELLS = 4000;
export const MAX_CELLS = 1_000_000;
const MM_PER_INCH = 25.4;

/**
 * Length of a number of cells in centimetres: at 2.5 mm, cells ÷ 4.
 * @example cellsToCm(120, 2.5) // 30
 */
export function cellsToCm(cells: number, pitchMm: number): number {
  return (cells * pitchMm) / 10;
}

/** Length of a number of cells in inches. */
export function cellsToInches(cells: number, pitchMm: number): number {
  return (cells * pitchMm) / MM_PER_INCH;
}

/**
 * Size in words, metric first: `30 × 40 cm (11.8 × 15.7 in)`.
 * @example sizeInWords({ width: 120, height: 160, pitchMm: 2.5 }) // '30 × 40 cm (11.8 × 15.7 in)'
 */
export function sizeInWords(canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>): string {
  const cm = [canvas.width, canvas.height].map((cells) => trimmed(cellsToCm(cells, canvas.pitchMm), 1));
  const inches = [canvas.width, canvas.height].map((cells) =>
    trimmed(cellsToInches(cells, canvas.pitchMm), 1),
  );
  return `${cm.join(' × ')} cm (${inches.join(' × ')} in)`;
}

/**
 * First and last column (from 0, end exclusive) of each panel, the wider ones first when it does not divide.
 * @example panelSpans(50, 3)[1] // { start: 17, end: 34 }
 */
export function panelSpans(width: number, panels: number): { start: number; end: number }[] {
  const base = Math.floor(width / panels);
  const wider = width % panels;
  const spans: { start: number; end: number }[] = [];
  let start = 0;
  for (let panel = 0; panel < panels; panel++) {
    const end = start + base + (panel < wider ? 1 : 0);
    spans.push({ start, end });
    start = end;
  }
  return spans;
}

/**
 * Panels between cuts, left to right, then down.
 * @param columnCuts columns after which it is cut, ascending @param rowCuts rows, likewise
 */
export function panelGrid(
  { width, height }: { width: number; height: number },
  columnCuts: readonly number[],
  rowCuts: readonly number[] = [],
): PanelRect[] {
  const spans = (cuts: readonly number[], end: number) =>
    [0, ...cuts].map((start, i) => ({ start, length: (cuts[i] ?? end) - start }));
  return spans(rowCuts, height).flatMap(({ start: y, length: high }) =>
    spans(columnCuts, width).map(({ start: x, length: wide }) => ({ x, y, width: wide, height: high })),
  );
}

/** So many equal panels side by side, the wider ones first where it does not divide. */
export function panelsSideBySide(size: { width: number; height: number }, panels: number): PanelRect[] {
  return panelGrid(
    size,
    panelSpans(size.width, panels)
      .slice(1)
      .map(({ start }) => start),
  );
}

function trimmed(value: number, digits: number): string {
  return value.toFixed(digits).replace(/\.0+$/, '');
}

/** Units in which people give the size of a canvas. */
export type SizeUnit = 'cells' | 'cm' | 'in';

/**
 * Squares that a typed side of a canvas has: in the unit that was chosen, or in the one that is typed behind the number.
 * @returns null where the text is no length
 * @example squaresTyped('12 in', 'cm', 2.5) // 122
 */
export function squaresTyped(text: string, unit: SizeUnit, pitchMm: number): number | null {
  const whole = unit === 'cells' ? readWhole(text) : null;
  if (whole !== null) return whole;
  const typed = readLength(text, unit === 'cells' ? 'mm' : unit);
  if (typed === null) return null;
  // Squares are whole: a bare number that is none is no length in millimetres either.
  if (unit === 'cells')
    return /[a-z"″]/i.test(text) ? cellsFromLength(typed.length / 10, 'cm', pitchMm) : null;
  return cellsFromLength(typed.length, unit, pitchMm);
}

/**
 * Cells that fill a length: centimetres × 4 at 2.5 mm. Rounded to whole cells.
 * @example cellsFromLength(30, 'cm', 2.5) // 120
 */
export function cellsFromLength(length: number, unit: SizeUnit, pitchMm: number): number {
  if (unit === 'cells') return Math.round(length);
  return Math.round((length * (unit === 'cm' ? 10 : MM_PER_INCH)) / pitchMm);
}

/** A canvas as it is worked, in the panels that its kit comes in. */
export function asCanvas(facts: CanvasFacts): Canvas {
  return { ...facts, panelRects: panelsSideBySide(facts, facts.panels) };
}
