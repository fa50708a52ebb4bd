import type { LegendLine } from '../canvas/legend';
import { highestLine } from '../canvas/legend';
import { type CellRuns, cellsOfRuns, runsFromCells } from '../cells/cellRuns';
import { type Chart, countPerLine } from '../cells/chart';
import { seededRandom } from '../chance/random';

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
  /** One in n, scattered evenly over the area; another seed scatters them anew. */
  | { kind: 'scatter'; n: number; seed: number }
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
    case 'scatter':
      return scattered(own, chart.width, rule);
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

/**
 * One cell of each n that lie near each other: neighbours along a curve that fills the plane (Morton, 1966) are
 * neighbours on the canvas, so that the choice is even and shows no stripes.
 */
function scattered(
  own: readonly number[],
  width: number,
  { n, seed }: { n: number; seed: number },
): number[] {
  const random = seededRandom(seed);
  const near = [...own].sort((a, b) => alongCurve(a, width) - alongCurve(b, width));
  const picked: number[] = [];
  for (let from = 0; from < near.length; from += n) {
    const group = Math.min(n, near.length - from);
    // The last few stand for as many as they are.
    const at = Math.floor(random.uniform() * n);
    if (at < group) picked.push(near[from + at]!);
  }
  return picked.sort((a, b) => a - b);
}

/** Place of a cell along the curve: the bits of its column and row in turn. */
function alongCurve(cell: number, width: number): number {
  let [x, y] = [cell % width, Math.floor(cell / width)];
  let place = 0;
  for (let bit = 1; x > 0 || y > 0; bit *= 4) {
    place += bit * ((x & 1) + 2 * (y & 1));
    x >>= 1;
    y >>= 1;
  }
  return place;
}

/** Those of these cells that want a line. */
export function runsOfLine(chart: Chart, runs: CellRuns, line: number): number[] {
  return runsFromCells([...cellsOfRuns(runs)].filter((cell) => chart.cells[cell] === line));
}
