import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { byLine } from '../../core/canvas/legend';
import type { Bitmap } from '../../core/cells/bitmap';
import type { Chart } from '../../core/cells/chart';
import { chartToJson } from '../../core/chart/files/chartJson';
import { chartSvg, type SymbolDrawing } from '../../core/chart/files/chartSvg';
import { chartToGrid } from '../../core/chart/files/fromGrid';
import { hexToRgb, rgbToHex, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { clothColours, paintCloth } from '../../core/view/paint';
import { CLOTH, encodePng } from '../files/pixels';

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
  // The fonts take half a second to read, and most files do without them.
  const { SYMBOL_CELL, symbolOutlines, symbolPath } = await import('../symbols/symbolShapes');
  const outlines = await symbolOutlines(legend);
  const symbols = legend.map((line): [number, SymbolDrawing] => [
    line.line,
    { elements: symbolPath(line, outlines), cell: SYMBOL_CELL },
  ]);
  return chartSvg(chart, legend, canvas, new Map(symbols), rgbToHex(CLOTH));
}
