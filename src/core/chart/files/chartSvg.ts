import type { Canvas } from '../../canvas/canvas';
import type { LegendLine } from '../../canvas/legend';
import { highestLine } from '../../canvas/legend';
import type { Chart } from '../../cells/chart';
import { wholeRect } from '../../cells/rect';
import { forEachRowRun } from '../../cells/runs';
import { inkOn } from '../../colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../../colour/rgb';
import { escapedXml } from '../../words/xml';

/** A symbol as SVG elements, drawn in a square of `cell` units. */
export interface SymbolDrawing {
  elements: string;
  cell: number;
}

/**
 * The whole chart as one SVG picture, as large as the canvas: a path a colour, filled with its drill, and the symbol as
 * a pattern over it. One unit is one cell.
 * @param symbols by legend line
 * @param ground colour of the cloth, `#rrggbb`
 */
export function chartSvg(
  chart: Chart,
  legend: readonly LegendLine[],
  canvas: Pick<Canvas, 'title' | 'pitchMm' | 'shape'>,
  symbols: ReadonlyMap<number, SymbolDrawing>,
  ground: string,
): string {
  const { width, height } = chart;
  const paths = pathOfLines(chart, highestLine(legend));
  const used = legend.filter(({ line }) => paths[line] !== '');
  const patterns = used.map((line) => {
    const symbol = symbols.get(line.line);
    const fill = line.hex ?? UNKNOWN_COLOUR;
    const drill =
      canvas.shape === 'round'
        ? `<circle cx=".5" cy=".5" r=".48" fill="${fill}"/>`
        : `<rect width="1" height="1" fill="${fill}"/>`;
    const ink = symbol
      ? `<g shape-rendering="auto" transform="scale(${1 / symbol.cell})" fill="${inkOn(hexToRgb(fill))}">${symbol.elements}</g>`
      : '';
    return `<pattern id="line${line.line}" width="1" height="1" patternUnits="userSpaceOnUse">${drill}${ink}</pattern>`;
  });
  const colours = used.map(
    (line) =>
      `<path id="colour${line.line}" fill="url(#line${line.line})" d="${paths[line.line]}"><title>${escapedXml(`${line.code} ${line.name}`.trim())}</title></path>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width * canvas.pitchMm)}mm" height="${mm(height * canvas.pitchMm)}mm" viewBox="0 0 ${width} ${height}" shape-rendering="crispEdges">`,
    `<title>${escapedXml(canvas.title)}</title>`,
    `<defs>${patterns.join('\n')}</defs>`,
    `<rect width="${width}" height="${height}" fill="${ground}"/>`,
    ...colours,
    '</svg>\n',
  ].join('\n');
}

/** Path data a line: a rectangle for each run of its cells. */
function pathOfLines(chart: Chart, lines: number): string[] {
  const parts: string[][] = Array.from({ length: lines + 1 }, () => []);
  forEachRowRun(chart, wholeRect(chart), (x, y, run, line) => {
    if (line > 0 && line <= lines) parts[line]!.push(`M${x} ${y}h${run}v1h-${run}z`);
  });
  return parts.map((each) => each.join(''));
}

function mm(length: number): string {
  return String(Math.round(length * 1000) / 1000);
}
