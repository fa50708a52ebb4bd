import Papa from 'papaparse';
import type { LegendLine } from '../../canvas/legend';
import { makeChart } from '../../cells/chart';
import { readingInWords, readWords, WORD_KINDS, type WordKind, wordsOfKind } from '../../codes/legendWords';
import { Refusal } from '../../refusal';
import { GUARDED, unguarded } from '../../words/csvGuard';
import { counted } from '../../words/numbers';
import { type ChartReading, mostFrequent } from './fromPixels';
import { gridRows, leftOutInWords, NOTHING_HERE, withoutNumbers } from './gridRows';

/**
 * Reads a grid of symbols or codes, one row of the canvas a line, cells parted by comma, semicolon or tab.
 * All words are read in one way, as symbols, codes or key numbers: the one that explains most of them.
 * @param wanted that way, where the reader says it
 * @throws Refusal naming the first line whose number of cells differs from the canvas
 */
export function chartFromGrid(
  text: string,
  size: { width: number; height: number },
  legend: readonly LegendLine[],
  wanted: WordKind | null = null,
): ChartReading {
  const rows = gridRows(text).map((row) => row.map(unguarded));
  return chartFromRows(rows, size, legend, wanted);
}

/** The same from rows that are parted already, as a spreadsheet has them. */
export function chartFromRows(
  all: readonly string[][],
  size: { width: number; height: number },
  legend: readonly LegendLine[],
  wanted: WordKind | null = null,
): ChartReading {
  const numbered = withoutNumbers(all);
  const fits = (grid: readonly string[][]) =>
    grid.length === size.height && grid.every(({ length }) => length === size.width);
  const isNumbered = !fits(all) && fits(numbered.rows);
  const rows = isNumbered ? numbered.rows : all;
  if (rows.length !== size.height) {
    throw new Refusal(`The grid has ${counted(rows.length, 'row')}; the canvas has ${size.height}.`);
  }
  const words = new Map<string, number>();
  for (const row of rows) {
    for (const written of row) {
      const word = written.trim();
      if (word !== '') words.set(word, (words.get(word) ?? 0) + 1);
    }
  }
  const reading = readWords(legend, words, wanted);
  const cells = new Uint16Array(size.width * size.height);
  const unmatched = new Map<string, number>();
  rows.forEach((row, y) => {
    if (row.length !== size.width) {
      throw new Refusal(
        `Line ${y + 1} of the grid has ${row.length} cells; the canvas is ${size.width} wide.`,
      );
    }
    row.forEach((written, x) => {
      const word = written.trim();
      const line = reading.lineOf(word);
      if (line !== undefined) cells[y * size.width + x] = line;
      else if (!NOTHING_HERE.has(word)) unmatched.set(word, (unmatched.get(word) ?? 0) + 1);
    });
  });
  return {
    chart: makeChart(size.width, size.height, cells),
    nearly: [],
    unmatched: mostFrequent(unmatched),
    notices: [readingInWords(reading), ...(isNumbered ? [leftOutInWords(numbered.leftOut)] : [])],
    words: { kind: reading.kind, others: reading.others },
  };
}

/**
 * Writes a chart as a grid, comma separated, empty where no drill goes: of codes, or where a code stands on the list
 * with two finishes, of key numbers or symbols, one of them for the whole file, so that it reads back the same.
 */
export function chartToGrid(
  chart: { width: number; height: number; cells: Uint16Array },
  legend: readonly LegendLine[],
): string {
  const own = { symbols: 'symbol', codes: 'code', 'key numbers': 'keyNumber' } as const;
  const inOrder: readonly WordKind[] = ['codes', 'key numbers', 'symbols'];
  // A word for every colour, and none that another way of reading would take for a different one.
  const kind =
    inOrder.find((each) => {
      const known = wordsOfKind(legend, each);
      return legend.every((line) => known.get(line[own[each]] ?? '') === line.line);
    }) ?? WORD_KINDS[1];
  const words = new Map(legend.map((line) => [line.line, line[own[kind]] ?? line.code]));
  const rows: string[][] = [];
  for (let y = 0; y < chart.height; y++) {
    const row = chart.cells.subarray(y * chart.width, (y + 1) * chart.width);
    rows.push(Array.from(row, (cell) => words.get(cell) ?? ''));
  }
  return Papa.unparse(rows, GUARDED);
}
