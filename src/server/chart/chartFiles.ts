import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { byLine } from '../../core/canvas/legend';
import type { Bitmap } from '../../core/cells/bitmap';
import type { Chart } from '../../core/cells/chart';
import { chartToJson } from '../../core/chart/files/chartJson';
import { type ChartPrint, chartPages, pageRects } from '../../core/chart/files/chartPages';
import { chartSvg, type SymbolDrawing } from '../../core/chart/files/chartSvg';
import { chartToGrid } from '../../core/chart/files/fromGrid';
import { hexToRgb, rgbToHex, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { type LabelFacts, labelTexts } from '../../core/labels/art';
import { labelPages } from '../../core/labels/pages';
import { usualSheet } from '../../core/labels/sheet';
import type { Drawing } from '../../core/print/drawing';
import { clothColours, paintCloth } from '../../core/view/paint';
import { CLOTH, encodePng } from '../files/pixels';
import type { TellProgress } from '../jobs/progress';
import { drawingPdf } from '../print/drawingPdf';
import { typesetFor } from '../print/typeset';
import { SYMBOL_CELL, symbolOutlines, symbolPath } from '../symbols/symbolShapes';

/** What every file of a chart is made of. */
export interface ChartParts {
  chart: Chart;
  legend: LegendLine[];
}

/** A chart in one of its open formats, see docs/formats.md. */
export async function chartFile({
  chart,
  legend,
  canvas,
  as,
}: ChartParts & { canvas: Canvas; as: 'png' | 'svg' | 'csv' | 'json' }): Promise<Uint8Array | string> {
  switch (as) {
    case 'png':
      return chartPng(chart, legend);
    case 'svg':
      return chartSvgOf(chart, legend, canvas);
    case 'csv':
      return chartToGrid(chart, legend);
    case 'json':
      return chartToJson(chart, legend);
  }
}

/** One pixel a cell in the sheet's colours, transparent where no drill goes. */
export function chartPng(chart: Chart, legend: readonly LegendLine[]): Promise<Uint8Array> {
  const rgba = new Uint8ClampedArray(chart.cells.length * 4);
  const colours = coloursOf(legend);
  chart.cells.forEach((line, cell) => {
    const rgb = colours[line - 1];
    if (rgb) rgba.set([...rgb, 255], cell * 4);
  });
  return encodePng(chart.width, chart.height, rgba, chart.width);
}

function coloursOf(legend: readonly LegendLine[]) {
  return byLine(legend, (line) => hexToRgb(line.hex ?? UNKNOWN_COLOUR), hexToRgb(UNKNOWN_COLOUR)).slice(1);
}

/** The cloth with its drills, no wider than `width` pixels. @param laid null shows the whole chart as laid */
export function clothPng({
  chart,
  legend,
  laid,
  width,
}: ChartParts & { laid: Bitmap | null; width: number }): Promise<Uint8Array> {
  const pixels = new Uint8ClampedArray(chart.cells.length * 4);
  paintCloth(chart, clothColours(coloursOf(legend), CLOTH), { laid, focus: null }, pixels);
  return encodePng(chart.width, chart.height, pixels, width);
}

async function chartSvgOf(chart: Chart, legend: readonly LegendLine[], canvas: Canvas): Promise<string> {
  const outlines = await symbolOutlines(legend);
  const symbols = legend.map((line): [number, SymbolDrawing] => [
    line.line,
    { elements: symbolPath(line, outlines), cell: SYMBOL_CELL },
  ]);
  return chartSvg(chart, legend, canvas, new Map(symbols), rgbToHex(CLOTH));
}

/** The chart to work from on paper, with its legend on the last pages. */
export async function chartPdf(
  { chart, legend, print, labels }: ChartParts & { print: ChartPrint; labels: LabelFacts[] },
  report: TellProgress,
): Promise<Uint8Array> {
  const fonts = await typesetFor([print.title, ...labelTexts(labels)]);
  function* all(): Generator<Drawing> {
    yield* chartPages(chart, legend, print, fonts);
    const kit = { shape: print.shape, title: print.title };
    yield* labelPages('list', usualSheet('list', print.paper), labels, kit, fonts);
  }
  const pages = pageRects(print).rects.length;
  return drawingPdf(
    { title: print.title, pages: all() },
    (done) => report(Math.min(done, pages), pages),
    fonts,
  );
}
