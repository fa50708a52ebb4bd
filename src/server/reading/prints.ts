import sharp from 'sharp';
import type { LegendLine } from '../../core/canvas/legend';
import { inkOn } from '../../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import type { PrintedCell } from '../../core/reading/camera';
import { SYMBOL_CELL, symbolOutlines, symbolPath } from '../symbols/symbolShapes';

/** Pixels along a side of a printed cell. */
const SIDE = 64;

/** How the cells of a canvas are printed, by line: its symbol in black, or in white on a dark tint. */
export async function printsOf(legend: readonly LegendLine[]): Promise<Map<number, PrintedCell>> {
  const outlines = await symbolOutlines(legend);
  const cells = legend.map(
    (line, i) => `<g transform="translate(0 ${i * SYMBOL_CELL})">${symbolPath(line, outlines)}</g>`,
  );
  const height = SYMBOL_CELL * legend.length;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE * legend.length}" viewBox="0 0 ${SYMBOL_CELL} ${height}"><rect width="100%" height="100%" fill="#fff"/>${cells.join('')}</svg>`;
  const pixels = await sharp(Buffer.from(svg), { unlimited: true }).greyscale().raw().toBuffer();
  return new Map(
    legend.map((line, i) => {
      const tint = hexToRgb(line.hex ?? UNKNOWN_COLOUR);
      const mask = Float32Array.from(
        pixels.subarray(i * SIDE * SIDE, (i + 1) * SIDE * SIDE),
        (value) => 1 - value / 255,
      );
      return [line.line, { tint, ink: hexToRgb(inkOn(tint)), mask, side: SIDE }];
    }),
  );
}
