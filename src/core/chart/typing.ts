import type { LegendLine } from '../canvas/legend';
import type { Chart } from '../cells/chart';
import { wordsOfLegend } from '../codes/legendWords';
import type { CellEdit } from './edit';

/** A row or column as it was typed, compared with the chart. */
export interface TypedLine {
  /** Line of each cell; null where the word is on no line. */
  cells: (number | null)[];
  /** What is wrong, as a sentence; null when it can be taken. */
  fault: string | null;
  /** Places from 1 where the chart has something else. */
  differs: number[];
}

/**
 * Reads a row (or, to check, a column) of symbols. With spaces, commas or tabs between them, words may be codes or key
 * numbers; without, every letter is a symbol. `12*A` stands for twelve times A; `.` wants no drill.
 */
export function readTyped(
  text: string,
  chart: Chart,
  legend: readonly LegendLine[],
  at: { row: number } | { column: number },
): TypedLine {
  const lineOf = wordsOfLegend(legend);
  const length = 'row' in at ? chart.width : chart.height;
  const parted = text.trim().split(/[\s,;]+/);
  const words = parted.length > 1 || parted[0]!.includes('*') ? parted : [...(parted[0] ?? '')];
  const cells = words.flatMap((word) => {
    const times = /^(\d{1,4})\*(.+)$/u.exec(word);
    const name = times ? times[2]! : word;
    const line = lineOf.get(name) ?? lineOf.get(name.toLowerCase()) ?? (name === '.' ? 0 : null);
    return new Array<number | null>(times ? Number(times[1]) : 1).fill(line);
  });
  const unknown = cells.indexOf(null);
  const what = 'row' in at ? `Row ${at.row + 1}` : `Column ${at.column + 1}`;
  const fault =
    cells.length !== length
      ? `${what} has ${length} cells; this is ${cells.length}.`
      : unknown >= 0
        ? `Cell ${unknown + 1} of it is no symbol of this kit.`
        : null;
  const index = (i: number) => ('row' in at ? at.row * chart.width + i : i * chart.width + at.column);
  return {
    cells,
    fault,
    differs: cells.flatMap((line, i) =>
      line !== null && i < length && chart.cells[index(i)] !== line ? [i + 1] : [],
    ),
  };
}

/** The change that puts a typed row onto the chart, one edit a line. */
export function rowEdits(typed: TypedLine, chart: Chart, row: number): CellEdit[] {
  const byLine = new Map<number, number[]>();
  typed.cells.forEach((line, x) => {
    if (line === null) return;
    const runs = byLine.get(line) ?? [];
    const cell = row * chart.width + x;
    const last = runs.length - 2;
    if (last >= 0 && runs[last]! + runs[last + 1]! === cell) runs[last + 1]!++;
    else runs.push(cell, 1);
    byLine.set(line, runs);
  });
  return [...byLine].map(([line, runs]) => ({ line, runs }));
}
