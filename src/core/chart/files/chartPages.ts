import type { Shape } from '../../canvas/canvas';
import type { LegendLine } from '../../canvas/legend';
import { byLine, ofLine } from '../../canvas/legend';
import type { CellRect, Chart } from '../../cells/chart';
import { forEachRowRun } from '../../cells/runs';
import { inkOn } from '../../colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../../colour/rgb';
import type { Drawing, FontMeasure, Mark } from '../../print/drawing';
import { PAPERS, type PaperName } from '../../print/paper';
import { symbolMark } from '../../symbols/symbolMark';

/** How a chart is printed. */
export interface ChartPrint {
  title: string;
  shape: Shape;
  paper: PaperName;
  /** Side of a cell in millimetres. */
  cellMm: number;
  /** Filled with the drills' colours, or symbols alone to save ink. */
  ink: 'colour' | 'black';
  /** Cells between two edge marks. */
  every: number;
  /** The part to print; columns and rows are counted from the canvas's corner, as everywhere else. */
  area: CellRect;
}

const MARGIN_MM = 10;
const HEAD_MM = 17;
/** Room for the numbers along the upper and left edge. */
const RULER_MM = 8;
const FOOT_MM = 5;
const INK = '#17130f';
const THIN = '#a79f92';
const BARE = '#ffffff';
/** Cells between two heavy lines. */
const BLOCK = 10;

/** The parts of a chart that a page each holds, left to right, then down; whole blocks of ten where they fit. */
export function pageRects({ paper, cellMm, area }: Pick<ChartPrint, 'paper' | 'cellMm' | 'area'>): {
  columns: number;
  rows: number;
  rects: CellRect[];
} {
  const { widthMm, heightMm } = PAPERS[paper];
  const fitting = (roomMm: number) => {
    const cells = Math.max(1, Math.floor((roomMm + 1e-9) / cellMm));
    return cells > BLOCK ? cells - (cells % BLOCK) : cells;
  };
  const wide = fitting(widthMm - 2 * MARGIN_MM - RULER_MM);
  const high = fitting(heightMm - 2 * MARGIN_MM - HEAD_MM - RULER_MM - FOOT_MM);
  const columns = Math.ceil(area.width / wide);
  const rows = Math.ceil(area.height / high);
  const rects = Array.from({ length: columns * rows }, (_, page) => {
    const x = area.x + (page % columns) * wide;
    const y = area.y + Math.floor(page / columns) * high;
    return {
      x,
      y,
      width: Math.min(wide, area.x + area.width - x),
      height: Math.min(high, area.y + area.height - y),
    };
  });
  return { columns, rows, rects };
}

/**
 * Draws a chart to work from on paper, page after page: symbols, colours, heavy lines every ten cells, edge marks and a
 * map that shows where the page lies. Pages are made as they are asked for, because a large canvas has a hundred.
 */
export function* chartPages(
  chart: Chart,
  legend: readonly LegendLine[],
  print: ChartPrint,
  fonts: FontMeasure,
): Generator<Drawing> {
  const { widthMm, heightMm } = PAPERS[print.paper];
  const plan = pageRects(print);
  for (const [page, rect] of plan.rects.entries()) {
    const marks: Mark[] = [];
    const left = MARGIN_MM + RULER_MM;
    const top = MARGIN_MM + HEAD_MM + RULER_MM;
    head(marks, print, rect, page, plan);
    cells(marks, chart, legend, print, rect, left, top, fonts);
    grid(marks, print, rect, left, top);
    numbers(marks, print, rect, left, top);
    yield { widthMm, heightMm, marks };
  }
}

function text(
  words: string,
  x: number,
  y: number,
  size: number,
  anchor: 'start' | 'middle' = 'start',
  font: 'words' | 'codes' = 'words',
): Mark {
  return { kind: 'text', x, y, text: words, font, size, fill: INK, anchor };
}

function head(
  marks: Mark[],
  { title, area, paper }: ChartPrint,
  rect: CellRect,
  page: number,
  { columns, rows, rects }: ReturnType<typeof pageRects>,
): void {
  const span = (start: number, length: number) => `${start + 1} to ${start + length}`;
  // A panel's own counting helps whoever has only that panel before him.
  const own =
    area.x > 0 || area.y > 0
      ? `; of this panel columns ${span(rect.x - area.x, rect.width)}, rows ${span(rect.y - area.y, rect.height)}`
      : '';
  marks.push(text(title, MARGIN_MM, MARGIN_MM + 5, 5));
  marks.push(
    text(
      `Page ${page + 1} of ${rects.length}: columns ${span(rect.x, rect.width)}, rows ${span(rect.y, rect.height)}${own}`,
      MARGIN_MM,
      MARGIN_MM + 11,
      3.6,
    ),
  );
  const neighbours = [
    page % columns > 0 && `left of it page ${page}`,
    page % columns < columns - 1 && `right of it page ${page + 2}`,
    page >= columns && `above page ${page + 1 - columns}`,
    page + columns < rects.length && `below page ${page + 1 + columns}`,
  ].filter(Boolean);
  if (neighbours.length > 0) {
    const words = neighbours.join(', ');
    marks.push(text(words[0]!.toUpperCase() + words.slice(1), MARGIN_MM, MARGIN_MM + 15.4, 2.8));
  }
  // The map: the whole part in small, this page filled.
  const scale = Math.min(26 / area.width, (HEAD_MM - 2) / area.height);
  const x = PAPERS[paper].widthMm - MARGIN_MM - area.width * scale;
  const y = MARGIN_MM;
  for (const [i, each] of rects.entries()) {
    marks.push({
      kind: 'rect',
      x: x + (each.x - area.x) * scale,
      y: y + (each.y - area.y) * scale,
      width: each.width * scale,
      height: each.height * scale,
      stroke: INK,
      ...(i === page ? { fill: INK } : rows * columns > 1 ? { fill: BARE } : {}),
    });
  }
}

function cells(
  marks: Mark[],
  chart: Chart,
  legend: readonly LegendLine[],
  { cellMm, ink, shape }: ChartPrint,
  rect: CellRect,
  left: number,
  top: number,
  fonts: FontMeasure,
): void {
  const fills = byLine(legend, (line) => (ink === 'colour' ? (line.hex ?? UNKNOWN_COLOUR) : BARE), BARE);
  const inks = fills.map((fill) => inkOn(hexToRgb(fill)));
  forEachRowRun(chart, rect, (x, y, run, line) => {
    if (line === 0) return;
    const atX = left + (x - rect.x) * cellMm;
    const atY = top + (y - rect.y) * cellMm;
    if (ink === 'colour') {
      for (const mark of drills(atX, atY, cellMm, run, shape, fills[line]!)) marks.push(mark);
    }
    for (let i = 0; i < run; i++) {
      marks.push(symbolMark(ofLine(legend, line)!, atX + i * cellMm, atY, cellMm, inks[line]!, fonts));
    }
  });
}

/** A run of one colour: a bar of square drills, or round drills side by side. */
function drills(x: number, y: number, cellMm: number, run: number, shape: Shape, fill: string): Mark[] {
  if (shape === 'square') return [{ kind: 'rect', x, y, width: run * cellMm, height: cellMm, fill }];
  return Array.from({ length: run }, (_, i) => ({
    kind: 'circle',
    x: x + (i + 0.5) * cellMm,
    y: y + cellMm / 2,
    radius: cellMm * 0.48,
    fill,
  }));
}

/** Thin lines between cells, heavy ones every ten and at the edges, counted from the corner of the canvas. */
function grid(marks: Mark[], { cellMm, every }: ChartPrint, rect: CellRect, left: number, top: number): void {
  const bottom = top + rect.height * cellMm;
  const right = left + rect.width * cellMm;
  const style = (n: number, last: boolean) =>
    n % every === 0
      ? { stroke: INK, width: 0.5 }
      : n % BLOCK === 0 || last
        ? { stroke: INK, width: 0.25 }
        : { stroke: THIN, width: 0.08 };
  const thin: Mark[] = [];
  const heavy: Mark[] = [];
  const line = (n: number, last: boolean, ends: { x1: number; y1: number; x2: number; y2: number }) => {
    const look = style(n, last);
    (look.stroke === THIN ? thin : heavy).push({ kind: 'line', ...ends, ...look });
  };
  for (let i = 0; i <= rect.width; i++) {
    const x = left + i * cellMm;
    line(rect.x + i, i === 0 || i === rect.width, { x1: x, y1: top, x2: x, y2: bottom });
  }
  for (let i = 0; i <= rect.height; i++) {
    const y = top + i * cellMm;
    line(rect.y + i, i === 0 || i === rect.height, { x1: left, y1: y, x2: right, y2: y });
  }
  // Heavy lines lie over thin ones.
  marks.push(...thin, ...heavy);
}

/** Numbers of every tenth column and row; an edge mark stands larger, with a triangle that points at its line. */
function numbers(
  marks: Mark[],
  { cellMm, every }: ChartPrint,
  rect: CellRect,
  left: number,
  top: number,
): void {
  const step = cellMm * BLOCK >= 9 ? BLOCK : 2 * BLOCK;
  const shown = (n: number) => n % step === 0 || n % every === 0;
  for (let i = 1; i <= rect.width; i++) {
    const n = rect.x + i;
    if (!shown(n)) continue;
    const x = left + i * cellMm;
    const edge = n % every === 0;
    marks.push(text(String(n), x, top - (edge ? 3.2 : 1.6), edge ? 3.4 : 2.6, 'middle', 'codes'));
    if (edge) {
      marks.push({ kind: 'path', x: x - 1, y: top - 2.4, scale: 1, d: 'M0 0L2 0L1 1.8Z', fill: INK });
    }
  }
  for (let i = 1; i <= rect.height; i++) {
    const n = rect.y + i;
    if (!shown(n)) continue;
    const y = top + i * cellMm;
    const edge = n % every === 0;
    marks.push(text(String(n), left - (edge ? 5.4 : 4.2), y + 1, edge ? 2.9 : 2.6, 'middle', 'codes'));
    if (edge) {
      marks.push({ kind: 'path', x: left - 2, y: y - 1, scale: 1, d: 'M0 0L1.8 1L0 2Z', fill: INK });
    }
  }
}
