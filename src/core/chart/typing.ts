import type { LegendLine } from '../canvas/legend';
import type { Chart } from '../cells/chart';
import { readWords } from '../codes/legendWords';
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
  const length = 'row' in at ? chart.width : chart.height;
  const words = wordsTyped(text);
  const { looseLineOf } = readWords(legend, new Map(words.map(({ word, times }) => [word, times])));
  const cells = words.flatMap(({ word, times }) =>
    new Array<number | null>(times).fill(looseLineOf(word) ?? (word === '.' ? 0 : null)),
  );
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

const letters = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** The words of a typed row with how often each stands: parted by blanks, or each sign as people count signs. */
function wordsTyped(text: string): { word: string; times: number }[] {
  const parted = text
    .trim()
    .split(/[\s,;]+/)
    .filter((word) => word !== '');
  const times = (word: string) => {
    const many = /^(\d{1,4})\*(.+)$/u.exec(word);
    return many ? { word: many[2]!, times: Number(many[1]) } : { word, times: 1 };
  };
  if (parted.length > 1 || /^\d{1,4}\*./u.test(parted[0] ?? '')) return parted.map(times);
  return [...letters.segment(parted[0] ?? '')].map(({ segment }) => ({ word: segment, times: 1 }));
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
