import type { LegendLine } from '../canvas/legend';
import { highestLine } from '../canvas/legend';
import { type CellRuns, cellsOfRuns, runsFromCells } from '../cells/cellRuns';
import { type Chart, countPerLine } from '../cells/chart';

/** A change of cells to one line (0 takes their drill away). */
export interface CellEdit {
  runs: CellRuns;
  line: number;
}

/** Applies a change in place. @returns the cells that were really changed, by the line they had before */
export function applyEdit(chart: Chart, { runs, line }: CellEdit): Map<number, number[]> {
  const before = new Map<number, number[]>();
  for (const cell of cellsOfRuns(runs)) {
    const old = chart.cells[cell]!;
    if (old === line) continue;
    const cells = before.get(old) ?? [];
    cells.push(cell);
    before.set(old, cells);
    chart.cells[cell] = line;
  }
  return before;
}

/** The changes that take a change back, from what {@link applyEdit} gave. */
export function inverseOf(before: ReadonlyMap<number, readonly number[]>): CellEdit[] {
  return [...before].map(([line, cells]) => ({ line, runs: runsFromCells(cells) }));
}

/** The connected area of one colour around a cell (beside, above, below). */
export function floodCells({ width, height, cells }: Chart, x: number, y: number): number[] {
  const start = y * width + x;
  const line = cells[start]!;
  const found = new Set([start]);
  const open = [start];
  while (open.length > 0) {
    const cell = open.pop()!;
    const cx = cell % width;
    const near = [
      cx > 0 ? cell - 1 : -1,
      cx < width - 1 ? cell + 1 : -1,
      cell - width,
      cell + width < width * height ? cell + width : -1,
    ];
    for (const next of near) {
      if (next < 0 || found.has(next) || cells[next] !== line) continue;
      found.add(next);
      open.push(next);
    }
  }
  return [...found];
}

/** A colour whose number on the chart is not what the sheet says, with the colour that it was likely typed for. */
export interface Suspect {
  line: number;
  onChart: number;
  onSheet: number;
  /** Line that has as many too few as this one has too many, or the other way round; null where none fits. */
  perhaps: number | null;
}

/** Colours with other counts than the sheet's, the largest difference first; two that mirror each other name each other. */
export function suspects(chart: Chart, legend: readonly LegendLine[]): Suspect[] {
  const counts = countPerLine(chart, highestLine(legend));
  const off = legend
    .map(({ line, neededDrills }) => ({ line, onChart: counts[line]!, onSheet: neededDrills }))
    .filter(({ onChart, onSheet }) => onChart !== onSheet);
  return off
    .map((each) => ({
      ...each,
      perhaps:
        off.find((other) => other.onChart - other.onSheet === each.onSheet - each.onChart)?.line ?? null,
    }))
    .sort((a, b) => Math.abs(b.onChart - b.onSheet) - Math.abs(a.onChart - a.onSheet));
}

/** How a colour is replaced by another finish. */
export type SprinkleRule =
  | { kind: 'all' }
  /** Every n-th drill in reading order. */
  | { kind: 'every'; n: number }
  /** Drills with no like neighbour: confetti sparkles most where it stands alone. */
  | { kind: 'alone' };

/** Cells of a line that a rule picks. */
export function sprinkled(chart: Chart, line: number, rule: SprinkleRule): number[] {
  const { width, cells } = chart;
  const own: number[] = [];
  for (let cell = 0; cell < cells.length; cell++) if (cells[cell] === line) own.push(cell);
  switch (rule.kind) {
    case 'all':
      return own;
    case 'every':
      return own.filter((_, i) => i % rule.n === 0);
    case 'alone':
      return own.filter((cell) => {
        const x = cell % width;
        return (
          (x === 0 || cells[cell - 1] !== line) &&
          (x === width - 1 || cells[cell + 1] !== line) &&
          cells[cell - width] !== line &&
          cells[cell + width] !== line
        );
      });
  }
}

/** Those of these cells that want a line. */
export function runsOfLine(chart: Chart, runs: CellRuns, line: number): number[] {
  return runsFromCells([...cellsOfRuns(runs)].filter((cell) => chart.cells[cell] === line));
}
