import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { chartFromJson } from '../../core/chart/files/chartJson';
import { chartFromGrid } from '../../core/chart/files/fromGrid';
import { chartFromPicture } from '../../core/chart/files/fromPicture';
import type { ChartReading } from '../../core/chart/files/fromPixels';
import { readText } from '../../core/words/text';
import { legendOf } from '../../data/canvas';
import type { Database } from '../../data/engine/database';
import { decodePicture } from '../files/pixels';
import { mediaType, readBody } from '../http/body';
import { conflict, Problem } from '../http/problem';

const MAX_CHART_BYTES = 20_000_000;
const PICTURE_TYPES = ['image/png', 'image/webp', 'image/jpeg'];
const GRID_TYPES = ['text/csv', 'text/tab-separated-values', 'text/plain'];

/**
 * Reads a chart from a request, matched to the canvas's own legend: a picture, a grid of symbols or codes, or our JSON.
 * @param nearest whether a picture's colours of no line go to the nearest one
 * @throws Problem naming what does not fit
 */
export async function readChartFor(
  database: Database,
  canvas: Canvas,
  request: Request,
  nearest: boolean,
): Promise<{ reading: ChartReading; legend: LegendLine[] }> {
  const legend = await legendOf(database, canvas.id);
  if (legend.length === 0) {
    throw conflict('Read the inventory sheet first: the chart’s cells are matched to its lines.');
  }
  const bytes = await readBody(request, MAX_CHART_BYTES);
  const { type, charset } = mediaType(request);
  return { reading: await readingOf(bytes, type, charset, canvas, legend, nearest), legend };
}

async function readingOf(
  bytes: Uint8Array,
  type: string,
  charset: string | null,
  canvas: Canvas,
  legend: LegendLine[],
  nearest: boolean,
): Promise<ChartReading> {
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
  if (GRID_TYPES.includes(type)) return chartFromGrid(readText(bytes, charset), canvas, legend);
  throw new Problem(
    415,
    'Unknown kind of file',
    'A chart comes as a picture (PNG, WebP, JPEG), as a CSV or TSV grid of symbols or codes, or as Oculent’s own JSON.',
  );
}
