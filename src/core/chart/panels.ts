import { type Canvas, cellsToCm, cellsToInches, panelSpans } from '../canvas/canvas';
import { type CellRect, type Chart, countPerLine } from '../cells/chart';
import { cropped } from '../cells/rect';
import { plainSigns } from '../words/plainSigns';

/** How a chart is cut into panels. */
export interface PanelPlan {
  /** Columns from the left edge after which it is cut, ascending. */
  columnCuts: number[];
  /** Rows from the upper edge, likewise. */
  rowCuts: number[];
  /** Columns and rows that neighbours have in common: the panel left of a cut, or above it, goes on for so many cells. */
  overlap: number;
  /** Bare cloth around each panel. */
  marginMm: number;
  /** The largest that the user can reach across, or hang up; null where he does not say. */
  reachWidthCm: number | null;
  reachHeightCm: number | null;
}

/**
 * Cuts as they are typed: whole numbers, parted by commas, semicolons or blanks.
 * @returns null where something else stands there
 * @example readCuts('60, 120') // [60, 120]
 */
export function readCuts(text: string): number[] | null {
  const words = plainSigns(text)
    .split(/[\s,;]+/)
    .filter((word) => word !== '');
  return words.every((word) => /^\d{1,5}$/.test(word)) ? words.map(Number) : null;
}

/**
 * Cuts into so many equal parts, the wider ones first where it does not divide.
 * @example equalCuts(120, 3) // [40, 80]
 */
export function equalCuts(cells: number, parts: number): number[] {
  return panelSpans(cells, parts)
    .slice(0, -1)
    .map(({ end }) => end);
}

/** More panels than anyone hangs side by side. */
const MAX_CUTS = 19;
const LEAST_PANEL_CELLS = 10;

/** What is wrong with a plan, as a sentence; null when it can be cut so. */
export function faultInPanels(
  plan: Pick<PanelPlan, 'columnCuts' | 'rowCuts' | 'overlap'>,
  size: { width: number; height: number },
): string | null {
  for (const [what, cuts, cells] of [
    ['columns', plan.columnCuts, size.width],
    ['rows', plan.rowCuts, size.height],
  ] as const) {
    if (cuts.length > MAX_CUTS) return `At most ${MAX_CUTS} cuts go through the ${what}.`;
    const edges = [0, ...cuts, cells];
    const spans = edges.slice(1).map((edge, i) => edge - edges[i]!);
    if (spans.some((span) => span < Math.min(cells, LEAST_PANEL_CELLS))) {
      return `A panel must be at least ${LEAST_PANEL_CELLS} squares wide and high: look at the cuts ${cuts.join(', ')} of ${cells} ${what}.`;
    }
    if (spans.slice(1).some((span) => plan.overlap > span)) {
      return `An overlap of ${plan.overlap} squares is more than a panel holds.`;
    }
  }
  return null;
}

/** The part of the chart on each panel with its overlap, left to right, then down. */
export function panelRects(plan: PanelPlan, size: { width: number; height: number }): CellRect[] {
  const spans = (cuts: readonly number[], cells: number) => {
    const edges = [0, ...cuts, cells];
    return edges.slice(0, -1).map((start, i) => ({
      start,
      end: Math.min(cells, edges[i + 1]! + (i < cuts.length ? plan.overlap : 0)),
    }));
  };
  return spans(plan.rowCuts, size.height).flatMap(({ start: y, end: bottom }) =>
    spans(plan.columnCuts, size.width).map(({ start: x, end }) => ({
      x,
      y,
      width: end - x,
      height: bottom - y,
    })),
  );
}

/** A panel as it will lie on the table. */
export interface Panel {
  /** From 1, left to right, then down. */
  number: number;
  rect: CellRect;
  drills: number;
  colours: number;
  /** Cloth with its margins. */
  cm: { width: number; height: number };
  inches: { width: number; height: number };
  /** Why it may be too large to work; null when it is not. */
  warning: string | null;
}

/**
 * @param chart null where the canvas has none: then every cell wants a drill and colours are not counted
 * @param lines lines of the sheet
 */
export function panelsOf(
  plan: PanelPlan,
  canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>,
  chart: Chart | null,
  lines: number,
): Panel[] {
  return panelRects(plan, canvas).map((rect, i) => {
    const margin = 2 * plan.marginMm;
    const cm = {
      width: cellsToCm(rect.width, canvas.pitchMm) + margin / 10,
      height: cellsToCm(rect.height, canvas.pitchMm) + margin / 10,
    };
    const counts = chart && countPerLine(cropped(chart, rect), lines);
    return {
      number: i + 1,
      rect,
      drills: counts ? rect.width * rect.height - counts[0]! : rect.width * rect.height,
      colours: counts ? counts.slice(1).filter((count) => count > 0).length : 0,
      cm,
      inches: {
        width: cellsToInches(rect.width, canvas.pitchMm) + margin / 25.4,
        height: cellsToInches(rect.height, canvas.pitchMm) + margin / 25.4,
      },
      warning: warningOf(i + 1, cm, plan),
    };
  });
}

function warningOf(
  number: number,
  cm: { width: number; height: number },
  { reachWidthCm, reachHeightCm }: PanelPlan,
): string | null {
  const over = [
    reachWidthCm !== null &&
      cm.width > reachWidthCm &&
      `${cm.width.toFixed(1)} cm wide, and you reach ${reachWidthCm} cm.`,
    reachHeightCm !== null &&
      cm.height > reachHeightCm &&
      `${cm.height.toFixed(1)} cm high; you can hang ${reachHeightCm} cm.`,
  ].filter(Boolean);
  return over.length > 0 ? `Panel ${number} is ${over.join(' It is ')}` : null;
}
