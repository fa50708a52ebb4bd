import sharp from 'sharp';
import { type LegendLine, symbolOrKey } from '../../core/canvas/legend';
import { type SymbolShape, shapeOf } from '../../core/symbols/shape';
import { fontShare, SYMBOL_INSET, SYMBOL_SHARE } from '../../core/symbols/symbolInCell';
import { canPrint, glyphOutline } from '../print/fonts';

/** Pixels of a rendered cell. */
export const SYMBOL_CELL = 48;

/**
 * Every symbol as the eye meets it, by line; one that leaves no ink has none, nor one that no font here draws: the boxes
 * that stand in for such signs are all alike, and mean nothing.
 */
export async function symbolShapes(all: readonly LegendLine[]): Promise<Map<number, SymbolShape>> {
  const shapes = new Map<number, SymbolShape>();
  const legend: LegendLine[] = [];
  for (const line of all) {
    if (line.drawing !== undefined || (await canPrint(symbolOrKey(line)))) legend.push(line);
  }
  if (legend.length === 0) return shapes;
  const cells = await Promise.all(legend.map((line) => symbolPath(line)));
  const drawn = cells.map((cell, i) => `<g transform="translate(0 ${i * SYMBOL_CELL})">${cell}</g>`).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SYMBOL_CELL}" height="${SYMBOL_CELL * cells.length}"><rect width="100%" height="100%" fill="#fff"/>${drawn}</svg>`;
  const pixels = await sharp(Buffer.from(svg)).greyscale().raw().toBuffer();
  legend.forEach((line, i) => {
    const ink = Float32Array.from(
      pixels.subarray(i * SYMBOL_CELL * SYMBOL_CELL, (i + 1) * SYMBOL_CELL * SYMBOL_CELL),
      (value) => 1 - value / 255,
    );
    const shape = shapeOf(ink, SYMBOL_CELL);
    if (shape) shapes.set(line.line, shape);
  });
  return shapes;
}

/** The symbol as an SVG path in a cell of {@link SYMBOL_CELL} units. */
export async function symbolPath(line: LegendLine): Promise<string> {
  if (line.drawing !== undefined) {
    const scale = (SYMBOL_CELL * SYMBOL_SHARE) / 100;
    const inset = SYMBOL_CELL * SYMBOL_INSET;
    return `<path transform="translate(${inset} ${inset}) scale(${scale})" fill-rule="evenodd" d="${line.drawing}"/>`;
  }
  const text = symbolOrKey(line);
  const { path, width, middle } = await glyphOutline(text);
  const size = (SYMBOL_CELL * fontShare(text)) / 1000;
  const left = SYMBOL_CELL / 2 - (width * size) / 2;
  const base = SYMBOL_CELL / 2 + middle * size;
  return `<path transform="translate(${left} ${base}) scale(${size} ${-size})" d="${path}"/>`;
}
