import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { countPerLine } from '../../core/cells/chart';
import { cropped } from '../../core/cells/rect';
import { pageRects } from '../../core/chart/files/chartPages';
import { potsInCodeOrder } from '../../core/codes/places';
import { many } from '../../core/words/numbers';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { conflict, notFound } from '../http/problem';
import { inWorker, type Job } from '../jobs/pool';
import { potPlaces } from '../kitup/pots';
import type { ChartParts } from './chartFiles';
import type { ChartPrintWish } from './contract';
import { printedPart } from './panels';

/** @throws Problem when there is no chart */
export async function chartParts(queries: Queries, canvas: Canvas): Promise<ChartParts> {
  const chart = await chartOf(queries, canvas);
  if (!chart) throw notFound('chart');
  return { chart, legend: await legendOf(queries, canvas.id) };
}

/** A chart in one of its open formats. @throws Problem when there is no chart */
export async function chartAs(queries: Queries, canvas: Canvas, as: 'png' | 'svg' | 'csv' | 'json') {
  return inWorker('chartFile', { ...(await chartParts(queries, canvas)), canvas, as });
}

/** A canvas of a million cells at this size would be a book. */
const MOST_PAGES = 400;

/** The chart to work from on paper. @throws Problem when there is none, or it takes too many pages */
export async function printedChart(
  queries: Queries,
  canvas: Canvas,
  wish: ChartPrintWish,
  job: Job | null,
): Promise<Uint8Array> {
  const { chart, legend } = await chartParts(queries, canvas);
  const { panel, ...how } = wish;
  const print = { shape: canvas.shape, ...how, ...(await printedPart(queries, canvas, panel)) };
  const pages = pageRects(print).rects.length;
  if (pages > MOST_PAGES) {
    throw conflict(
      `With squares of ${wish.cellMm} mm this chart takes ${many(pages)} pages. Choose smaller squares.`,
    );
  }
  const counts = countPerLine(cropped(chart, print.area), highestLine(legend));
  const places = await potPlaces(queries, canvas.id, legend);
  const labels = potsInCodeOrder(
    legend.filter(({ line }) => counts[line]! > 0),
    places,
  ).map(({ line, place }) => ({
    line: { ...line, neededDrills: counts[line.line]! },
    place,
    warnsOf: null,
    address: null,
    leftover: null,
  }));
  return inWorker('chartPdf', { chart, legend, print, labels }, job);
}
