import type { LegendLine } from '../canvas/legend';
import { runsFromCells } from '../cells/cellRuns';
import type { CellRect, Chart } from '../cells/chart';
import { cropped } from '../cells/rect';
import { readWords } from '../codes/legendWords';
import { Refusal } from '../refusal';
import { delimiterOf, NO_QUOTE } from '../words/delimiter';
import { largest } from '../words/numbers';
import type { CellEdit } from './edit';

/** A piece of a chart to be put down elsewhere; null cells leave what lies under them. */
export interface Stamp {
  width: number;
  height: number;
  cells: (number | null)[];
}

/** Picks up a part of the chart, bare cells too. */
export function stampOf(chart: Chart, rect: CellRect): Stamp {
  return { width: rect.width, height: rect.height, cells: [...cropped(chart, rect).cells] };
}

/** More than anyone pastes. */
const MAX_STAMP_CELLS = 250_000;

/**
 * Reads rows of symbols or codes, parted by one sign (tab, comma, semicolon, upright stroke), as another program copies
 * them. Empty cells leave what is there; `.` and `0` take the drill away.
 * @throws Refusal naming the first word that is on no line
 */
export function stampFromText(text: string, legend: readonly LegendLine[]): Stamp {
  const lines = text.replace(/(\r?\n)+$/, '').split(/\r?\n/);
  // One sign parts all of it: the others may be symbols themselves, as may any that is a row by itself.
  const delimiter = delimiterOf(lines.filter((row) => [...row].length > 1).join('\n'), NO_QUOTE);
  const rows = lines.map((row) => (delimiter === null ? [row] : row.split(delimiter)));
  const width = largest(rows.map((row) => row.length));
  if (width * rows.length > MAX_STAMP_CELLS) throw new Refusal('This is too much to paste in one go.');
  const words = new Map<string, number>();
  for (const word of rows.flat()) words.set(word.trim(), (words.get(word.trim()) ?? 0) + 1);
  const { looseLineOf } = readWords(legend, words);
  const cells = rows.flatMap((row, y) =>
    Array.from({ length: width }, (_, x) => {
      const word = row[x]?.trim() ?? '';
      if (word === '') return null;
      const line = looseLineOf(word) ?? (word === '.' || word === '0' ? 0 : null);
      if (line === null) {
        throw new Refusal(
          `“${word.slice(0, 20)}” in row ${y + 1} of what was copied is no symbol or code of this kit.`,
        );
      }
      return line;
    }),
  );
  return { width, height: rows.length, cells };
}

/** The changes that put a stamp down with its upper left cell at a place, cut off at the edges; one edit a line. */
export function stampEdits(stamp: Stamp, chart: Chart, at: { x: number; y: number }): CellEdit[] {
  const byLine = new Map<number, number[]>();
  stamp.cells.forEach((line, i) => {
    const [x, y] = [at.x + (i % stamp.width), at.y + Math.floor(i / stamp.width)];
    if (line === null || x >= chart.width || y >= chart.height) return;
    const cell = y * chart.width + x;
    if (chart.cells[cell] === line) return;
    const cells = byLine.get(line);
    if (cells) cells.push(cell);
    else byLine.set(line, [cell]);
  });
  return [...byLine].map(([line, cells]) => ({ line, runs: runsFromCells(cells) }));
}
