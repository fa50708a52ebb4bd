import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine } from '../../core/canvas/legend';
import { type Chart, countDrills, countPerLine } from '../../core/cells/chart';
import { chartFromJson } from '../../core/chart/files/chartJson';
import { chartFromGrid } from '../../core/chart/files/fromGrid';
import { chartFromPicture } from '../../core/chart/files/fromPicture';
import type { ChartReading } from '../../core/chart/files/fromPixels';
import type { WordKind } from '../../core/codes/legendWords';
import { readText } from '../../core/words/text';
import { decodePicture } from '../files/pixels';
import { conflict, Problem } from '../http/problem';
import type { ChartReport } from './contract';

const PICTURE_TYPES = ['image/png', 'image/webp', 'image/jpeg'];
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
  const { bytes, type, charset, canvas, legend, nearest } = file;
  if (PICTURE_TYPES.includes(type)) {
    const { exact, ...picture } = await decodePicture(bytes);
    if (legend.every((line) => line.hex === null)) {
      throw conflict(
        'The sheet gives no colours, so a picture cannot be matched to it. Use a grid of symbols or codes.',
      );
    }
    return chartFromPicture(picture, canvas, legend, { compressed: !exact, nearest });
  }
  if (type === 'application/json') return chartFromJson(readText(bytes, charset), canvas, legend);
  if (GRID_TYPES.includes(type)) return chartFromGrid(readText(bytes, charset), canvas, legend, file.words);
  throw new Problem(
    415,
    'Unknown kind of file',
    'A chart comes as a picture (PNG, WebP, JPEG), as a CSV or TSV grid of symbols or codes, or as Oculent’s own JSON.',
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
  };
}
