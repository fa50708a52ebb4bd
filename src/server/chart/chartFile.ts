import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import type { Chart } from '../../core/cells/chart';
import type { Corners } from '../../core/chart/files/picture/corners';
import type { WordKind } from '../../core/codes/legendWords';
import { legendOf } from '../../data/canvas';
import type { Database } from '../../data/engine/database';
import { mediaType, readBody } from '../http/body';
import { conflict, notFound } from '../http/problem';
import { asJob } from '../jobs/jobs';
import { inWorker } from '../jobs/pool';
import type { ChartReport } from './contract';

const MAX_CHART_BYTES = 20_000_000;

/** A file that was read and is kept for a while, so that it is sent only once. */
interface KeptFile {
  canvasId: string;
  bytes: Uint8Array;
  type: string;
  charset: string | null;
}
const kept = new Map<string, KeptFile>();
/** The last few; the oldest goes. */
const KEEP = 6;

/** Keeps a file under an id that only its sender knows. @throws Problem when the id stands for another canvas's file */
function keep(id: string, file: KeptFile): void {
  const known = kept.get(id);
  if (known && known.canvasId !== file.canvasId)
    throw conflict('This id stands for another file. Use a new one.');
  kept.delete(id);
  kept.set(id, file);
  if (kept.size > KEEP) kept.delete(kept.keys().next().value!);
}

/** How a chart is read. */
interface ReadingWish {
  reading?: string | undefined;
  nearest: boolean;
  words: WordKind | null;
  /** Corners of the chart on a picture; null to have them found. */
  corners: Corners | null;
}

/**
 * Reads a chart from a request, or from a file that came with an earlier one.
 * @param wish `reading` names the file: it is kept under this id when it comes, and taken from there when the body is
 *   empty; `nearest` whether a picture's colours of no line go to the nearest one; `words` how
 *   those of a grid are read
 * @throws Problem naming what does not fit, or 404 when the file is no longer kept
 */
export async function readChartFor(
  database: Database,
  canvas: Canvas,
  request: Request,
  wish: ReadingWish,
): Promise<{ chart: Chart; report: ChartReport }> {
  const legend = await legendOf(database, canvas.id);
  if (legend.length === 0) {
    throw conflict('Read the colour list first: the chart’s squares are matched to its colours.');
  }
  const file = await fileOf(canvas, request, wish.reading);
  return readKept(canvas, legend, file, request, wish);
}

async function fileOf(canvas: Canvas, request: Request, reading: string | undefined): Promise<KeptFile> {
  const bytes = await readBody(request, MAX_CHART_BYTES);
  if (bytes.length === 0 && reading !== undefined) {
    const file = kept.get(reading);
    if (file?.canvasId !== canvas.id) throw notFound('file of this reading');
    return file;
  }
  const file = { canvasId: canvas.id, bytes, ...mediaType(request) };
  if (reading !== undefined) keep(reading, file);
  return file;
}

function readKept(
  canvas: Canvas,
  legend: LegendLine[],
  { bytes, type, charset }: KeptFile,
  request: Request,
  { nearest, words, corners }: ReadingWish,
): Promise<{ chart: Chart; report: ChartReport }> {
  const input = { bytes, type, charset, canvas, legend, nearest, words, corners };
  return asJob(request, (job) => inWorker('readChart', input, job));
}
