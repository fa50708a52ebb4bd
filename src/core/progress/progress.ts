import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { forEachCell } from '../cells/rect';

/**
 * Share of a whole in percent, cut (not rounded) to two decimals, so that 100.00 is said only when all is laid.
 * @example percentLaid(7902, 19_200) // 41.15: cut, never rounded up
 */
export function percentLaid(laid: number, total: number): number {
  return total === 0 ? 0 : Math.floor((laid / total) * 10_000 + 1e-9) / 100;
}

/**
 * Squares that want a drill: those with a colour, and those on which one is laid although their colour is not known yet,
 * because a chart is typed after its canvas was begun by area.
 */
export function countWanted(chart: Chart, laid: Bitmap): number {
  let wanted = 0;
  for (let cell = 0; cell < chart.cells.length; cell++) {
    if (chart.cells[cell] !== 0 || isLaid(laid, cell)) wanted++;
  }
  return wanted;
}

/** How far each panel is; nothing for an undivided canvas. @param panelRects in the order of their numbers */
export function panelProgress(
  chart: Chart,
  laid: Bitmap,
  panelRects: readonly CellRect[],
): { panel: number; drills: number; laid: number; percent: number }[] {
  if (panelRects.length < 2) return [];
  return panelRects.map((rect, i) => {
    let [drills, done] = [0, 0];
    forEachCell(chart, rect, (cell, line) => {
      if (isLaid(laid, cell)) done++;
      if (line !== 0 || isLaid(laid, cell)) drills++;
    });
    return { panel: i + 1, drills, laid: done, percent: percentLaid(done, drills) };
  });
}

/** Drills still to lay per legend line; index 0 stays 0. @param lines highest legend line */
export function leftPerLine(chart: Chart, laid: Bitmap, lines: number): Uint32Array {
  const left = new Uint32Array(lines + 1);
  for (let cell = 0; cell < chart.cells.length; cell++) {
    const line = chart.cells[cell]!;
    if (line !== 0 && !isLaid(laid, cell)) left[line]!++;
  }
  return left;
}

/** What one day added; lifting counts against it. */
export interface DayLaid {
  /** Calendar day, `YYYY-MM-DD`. */
  day: string;
  drills: number;
}

/** Running total at the end of each day with work. @param before drills that were laid before the first day */
export function burnUp(days: readonly DayLaid[], before = 0): { day: string; total: number }[] {
  let total = before;
  return [...days]
    .sort((a, b) => (a.day < b.day ? -1 : 1))
    .map(({ day, drills }) => {
      total += drills;
      return { day, total };
    });
}
