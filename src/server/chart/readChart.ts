import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine } from '../../core/canvas/legend';
import { type Chart, countDrills, countPerLine } from '../../core/cells/chart';
import { chartFromJson } from '../../core/chart/files/chartJson';
import { chartFromGrid, chartFromRows } from '../../core/chart/files/fromGrid';
import type { ChartReading } from '../../core/chart/files/fromPixels';
import type { Corners } from '../../core/chart/files/picture/corners';
import { chartFromPicture } from '../../core/chart/files/picture/fromPicture';
import type { WordKind } from '../../core/codes/legendWords';
import { isSpreadsheet } from '../../core/words/spreadsheetTypes';
import { readText } from '../../core/words/text';
import { decodePicture, whatItIs } from '../files/pixels';
import { readSpreadsheet } from '../files/spreadsheet';
import { conflict, Problem, unreadable } from '../http/problem';
import type { ChartReport } from './contract';

/** Read by what is in the file; `image/bmp` and the like are named in the refusal. */
const isPicture = (type: string) => type.startsWith('image/') && type !== 'image/svg+xml';
const GRID_TYPES = ['text/csv', 'text/tab-separated-values', 'text/plain'];

/** A chart as a file, and what it is read with. */
export interface ChartFileIn {
  bytes: Uint8Array;
  /** Media type, and encoding where one is said. */
  type: string;
  charset: string | null;
  canvas: Canvas;
  legend: LegendLine[];
  /** Whether a picture's colours of no line go to the nearest one. */
  nearest: boolean;
  /** How the words of a grid are read; null takes what explains most. */
  words: WordKind | null;
  /** Corners of the chart on a picture as somebody marked them; null to have them found. */
  corners: Corners | null;
}

/**
 * Reads a chart, matched to the canvas's own legend: a picture, a grid of symbols or codes, or our JSON.
 * @throws Problem or Refusal naming what does not fit
 */
export async function readChart(file: ChartFileIn): Promise<{ chart: Chart; report: ChartReport }> {
  const reading = await readingOf(file);
  return { chart: reading.chart, report: chartReport(reading, file.legend) };
}

async function readingOf(file: ChartFileIn): Promise<ChartReading> {
  const { bytes, type, charset, canvas, legend, nearest, corners } = file;
  if (isPicture(type)) {
    const { exact, ...picture } = await decodePicture(bytes);
    if (legend.every((line) => line.hex === null)) {
      throw conflict(
        'The colour list gives no tints, so a picture cannot be matched to it. Use a grid of symbols or codes.',
      );
    }
    return chartFromPicture(picture, canvas, legend, { compressed: !exact, nearest, corners });
  }
  if (type === 'application/json') return chartFromJson(readText(bytes, charset), canvas, legend);
  if (isSpreadsheet(type)) return chartFromRows(await gridOf(bytes, canvas), canvas, legend, file.words);
  if (GRID_TYPES.includes(type)) {
    if (isBinary(bytes)) throw unreadable(`${whatItIs(bytes)} A grid is a text file: CSV or TSV.`);
    return chartFromGrid(readText(bytes, charset), canvas, legend, file.words);
  }
  throw new Problem(
    415,
    'Unknown kind of file',
    'A chart comes as a picture (PNG, WebP, JPEG, GIF, TIFF), as a grid of symbols or codes (CSV, TSV, XLSX, ODS), or as Oculent’s own JSON.',
  );
}

/** A NUL never stands in a text; the first bytes tell. */
function isBinary(bytes: Uint8Array): boolean {
  const looksUtf16 = bytes[0] === 0xff || bytes[0] === 0xfe;
  return !looksUtf16 && bytes.subarray(0, 512).includes(0);
}

/** The first worksheet that has the size of the canvas, else the first of all; empty rows and columns around do not count. */
async function gridOf(bytes: Uint8Array, canvas: Canvas): Promise<string[][]> {
  const most = { rows: canvas.height + ROOM, columns: canvas.width + ROOM };
  const { sheets, cells } = await readSpreadsheet(bytes, 0, most);
  const first = cropped(cells, canvas);
  for (let sheet = 1; sheet < Math.min(sheets.length, MOST_SHEETS) && !fits(first, canvas); sheet++) {
    const grid = cropped((await readSpreadsheet(bytes, sheet, most)).cells, canvas);
    if (fits(grid, canvas)) return grid;
  }
  return first;
}
/** Notes may stand beside a chart. */
const ROOM = 50;
const MOST_SHEETS = 20;

function fits(grid: readonly (readonly string[])[], canvas: Canvas): boolean {
  return grid.length === canvas.height && grid.every((row) => row.length === canvas.width);
}

/** Without what is empty below and to the right, but not smaller than the canvas: bare squares are empty too. */
function cropped(cells: readonly string[][], { width, height }: Canvas): string[][] {
  const used = (row: readonly string[]) => row.findLastIndex((cell) => cell.trim() !== '') + 1;
  const rows = Math.max(height, cells.findLastIndex((row) => used(row) > 0) + 1);
  const columns = cells.reduce((most, row) => Math.max(most, used(row)), width);
  return Array.from({ length: rows }, (_, y) =>
    Array.from({ length: columns }, (_, x) => cells[y]?.[x] ?? ''),
  );
}

function chartReport(reading: ChartReading, legend: LegendLine[]): ChartReport {
  const { chart } = reading;
  const counts = countPerLine(chart, highestLine(legend));
  return {
    width: chart.width,
    height: chart.height,
    drills: countDrills(chart),
    bareCells: counts[0]!,
    lines: legend.map((line) => ({
      line: line.line,
      onChart: counts[line.line]!,
      onSheet: line.neededDrills,
    })),
    nearly: reading.nearly,
    unmatched: reading.unmatched,
    notices: reading.notices,
    words: reading.words ?? null,
    picture: reading.picture ?? null,
  };
}
