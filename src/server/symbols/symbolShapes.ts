import sharp from 'sharp';
import { type LegendLine, symbolOrKey } from '../../core/canvas/legend';
import { type SymbolShape, shapeOf } from '../../core/symbols/shape';
import { fontShare, SYMBOL_INSET, SYMBOL_SHARE, WIDEST_SHARE } from '../../core/symbols/symbolInCell';
import { glyphOutlines, type Outline } from '../print/outlines';

/** Pixels of a rendered cell. */
export const SYMBOL_CELL = 48;

/**
 * Every symbol as the eye meets it, by line; one that leaves no ink has none, nor one that no font here draws: the boxes
 * that stand in for such signs are all alike, and mean nothing.
 */
export async function symbolShapes(all: readonly LegendLine[]): Promise<Map<number, SymbolShape>> {
  const shapes = new Map<number, SymbolShape>();
  const outlines = await symbolOutlines(all);
  const legend = all.filter((line) => line.drawing !== undefined || outlines.has(symbolOrKey(line)));
  if (legend.length === 0) return shapes;
  const cells = legend.map((line) => symbolPath(line, outlines));
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

/** Outlines of the symbols of a list, by symbol. */
export function symbolOutlines(legend: readonly LegendLine[]): Promise<ReadonlyMap<string, Outline>> {
  return glyphOutlines([...legend.map(symbolOrKey), ...legend.map(({ keyNumber }) => keyNumber)]);
}

/**
 * The symbol as an SVG path in a cell of {@link SYMBOL_CELL} units; the key number where no font has it, and nothing where
 * none has that either.
 */
export function symbolPath(line: LegendLine, outlines: ReadonlyMap<string, Outline>): string {
  if (line.drawing !== undefined) {
    const scale = (SYMBOL_CELL * SYMBOL_SHARE) / 100;
    const inset = SYMBOL_CELL * SYMBOL_INSET;
    return `<path transform="translate(${inset} ${inset}) scale(${scale})" fill-rule="evenodd" d="${line.drawing}"/>`;
  }
  const text = outlines.has(symbolOrKey(line)) ? symbolOrKey(line) : line.keyNumber;
  const outline = outlines.get(text);
  if (!outline) return '';
  const { path, width, middle } = outline;
  const share = Math.min(fontShare(text), (WIDEST_SHARE * 1000) / width);
  const size = (SYMBOL_CELL * share) / 1000;
  const left = SYMBOL_CELL / 2 - (width * size) / 2;
  const base = SYMBOL_CELL / 2 + middle * size;
  return `<path transform="translate(${left} ${base}) scale(${size} ${-size})" d="${path}"/>`;
}
