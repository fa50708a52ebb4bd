import Papa from 'papaparse';
import type { LegendLine } from '../../canvas/legend';
import { makeChart } from '../../cells/chart';
import { wordsOfLegend } from '../../codes/legendWords';
import { Refusal } from '../../refusal';
import { type ChartReading, mostFrequent } from './fromPixels';

/** Words in a grid cell that mean "no drill here". */
const NO_DRILL = new Set(['', '0', '.', '·']);

/**
 * Reads a grid of symbols or codes, one row of the canvas a line, cells parted by comma, semicolon or tab.
 * Symbols win over codes and codes over key numbers where one word could be two of them, because a chart prints symbols.
 * @throws Refusal naming the first line whose number of cells differs from the canvas
 */
export function chartFromGrid(
  text: string,
  size: { width: number; height: number },
  legend: readonly LegendLine[],
): ChartReading {
  const rows = Papa.parse<string[]>(text.replace(/(\r?\n)+$/, ''), {
    delimiter: '',
    delimitersToGuess: [',', '\t', ';'],
  }).data;
  if (rows.length !== size.height) {
    throw new Refusal(`The grid has ${rows.length} rows; the canvas has ${size.height}.`);
  }
  const lineOf = wordsOfLegend(legend);
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
      const line = lineOf.get(word) ?? lineOf.get(word.toLowerCase());
      if (line !== undefined) cells[y * size.width + x] = line;
      else if (!NO_DRILL.has(word)) unmatched.set(word, (unmatched.get(word) ?? 0) + 1);
    });
  });
  return {
    chart: makeChart(size.width, size.height, cells),
    nearly: [],
    unmatched: mostFrequent(unmatched),
    notices: [],
  };
}

/**
 * Writes a chart as a grid of codes, comma separated, empty where no drill goes. Where a code stands on the sheet with
 * two finishes, the symbol or key number is written instead, so that the grid reads back the same.
 */
export function chartToGrid(
  chart: { width: number; height: number; cells: Uint16Array },
  legend: readonly LegendLine[],
): string {
  const lineOf = wordsOfLegend(legend);
  const words = new Map(
    legend.map((line) => {
      const own = [line.code, line.symbol, line.keyNumber].find(
        (word) => word !== null && lineOf.get(word) === line.line,
      );
      return [line.line, own ?? line.code];
    }),
  );
  const rows: string[][] = [];
  for (let y = 0; y < chart.height; y++) {
    const row = chart.cells.subarray(y * chart.width, (y + 1) * chart.width);
    rows.push(Array.from(row, (cell) => words.get(cell) ?? ''));
  }
  return Papa.unparse(rows);
}
