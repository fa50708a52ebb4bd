import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { type Chart, countPerLine } from '../../core/cells/chart';
import { cropped } from '../../core/cells/rect';
import { chartPages, pageRects } from '../../core/chart/files/chartPages';
import { chartSvg, type SymbolDrawing } from '../../core/chart/files/chartSvg';
import { potsInCodeOrder } from '../../core/codes/places';
import { hexToRgb, rgbToHex, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { labelPages } from '../../core/labels/pages';
import { usualSheet } from '../../core/labels/sheet';
import type { Drawing } from '../../core/print/drawing';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { CLOTH, encodePng } from '../files/pixels';
import { conflict, notFound } from '../http/problem';
import { potPlaces } from '../kitup/pots';
import { drawingPdf } from '../print/drawingPdf';
import { fontMeasure } from '../print/fonts';
import { SYMBOL_CELL, symbolPath } from '../symbols/symbolShapes';
import type { ChartPrintWish } from './contract';
import { printedPart } from './panels';

/** What every file of a chart is made of. @throws Problem when there is no chart */
export async function chartParts(
  queries: Queries,
  canvas: Canvas,
): Promise<{ chart: Chart; legend: LegendLine[] }> {
  const chart = await chartOf(queries, canvas);
  if (!chart) throw notFound('chart');
  return { chart, legend: await legendOf(queries, canvas.id) };
}

/** One pixel a cell in the sheet's colours, transparent where no drill goes. */
export function chartPng(chart: Chart, legend: readonly LegendLine[]): Promise<Uint8Array> {
  const rgba = new Uint8ClampedArray(chart.cells.length * 4);
  const colours = legend.map((line) => hexToRgb(line.hex ?? UNKNOWN_COLOUR));
  chart.cells.forEach((line, cell) => {
    const rgb = colours[line - 1];
    if (rgb) rgba.set([...rgb, 255], cell * 4);
  });
  return encodePng(chart.width, chart.height, rgba, chart.width);
}

export async function chartSvgOf(
  chart: Chart,
  legend: readonly LegendLine[],
  canvas: Canvas,
): Promise<string> {
  const symbols = await Promise.all(
    legend.map(
      async (line): Promise<[number, SymbolDrawing]> => [
        line.line,
        { elements: await symbolPath(line), cell: SYMBOL_CELL },
      ],
    ),
  );
  return chartSvg(chart, legend, canvas, new Map(symbols), rgbToHex(CLOTH));
}

/** A canvas of a million cells at this size would be a book. */
const MOST_PAGES = 400;

/** The chart to work from on paper, with its legend on the last pages. @throws Problem when it takes too many pages */
export async function chartPdf(
  queries: Queries,
  canvas: Canvas,
  { chart, legend }: { chart: Chart; legend: LegendLine[] },
  wish: ChartPrintWish,
): Promise<Uint8Array> {
  const { panel, ...how } = wish;
  const print = { shape: canvas.shape, ...how, ...(await printedPart(queries, canvas, panel)) };
  const pages = pageRects(print).rects.length;
  if (pages > MOST_PAGES) {
    throw conflict(`With cells of ${wish.cellMm} mm this chart takes ${pages} pages. Choose smaller cells.`);
  }
  const fonts = await fontMeasure();
  const counts = countPerLine(cropped(chart, print.area), legend.length);
  const places = await potPlaces(queries, canvas.id, legend);
  const labels = potsInCodeOrder(
    legend.filter(({ line }) => counts[line]! > 0),
    places,
  ).map(({ line, place }) => ({
    line: { ...line, neededDrills: counts[line.line]! },
    place,
    warnsOf: null,
    address: null,
  }));
  function* all(): Generator<Drawing> {
    yield* chartPages(chart, legend, print, fonts);
    const kit = { shape: canvas.shape, title: print.title };
    yield* labelPages('list', usualSheet('list', wish.paper), labels, kit, fonts);
  }
  return drawingPdf(print.title, all());
}
