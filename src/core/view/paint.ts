import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { mix, type Rgb } from '../colour/rgb';

/** The colours a cloth is painted with, one entry a legend line; index 0 is bare cloth. */
export interface ClothColours {
  /** Drills on the cloth. */
  laid: Rgb[];
  /** The printed tint where the drill is still to be laid. */
  printed: Rgb[];
  /** Cells that step back while another colour is looked for: [printed, laid]. */
  quiet: [Rgb, Rgb][];
}

/** How strongly the ground shows through: for usual eyes, and for those that need more contrast. */
const SHARES = {
  usual: { printed: 0.6, quiet: 0.84, quietLaid: 0.62 },
  high: { printed: 0.8, quiet: 0.93, quietLaid: 0.72 },
};

/**
 * @param drills sRGB of each legend line, from line 1
 * @param ground colour of the cloth itself
 */
export function clothColours(
  drills: readonly Rgb[],
  ground: Rgb,
  contrast: 'usual' | 'high' = 'usual',
): ClothColours {
  const share = SHARES[contrast];
  const laid = [ground, ...drills];
  return {
    laid,
    printed: laid.map((rgb) => mix(rgb, ground, share.printed)),
    quiet: laid.map((rgb) => {
      const grey = Math.round(rgb[0] * 0.3 + rgb[1] * 0.59 + rgb[2] * 0.11);
      return [mix([grey, grey, grey], ground, share.quiet), mix([grey, grey, grey], ground, share.quietLaid)];
    }),
  };
}

/** What the painter should bring out. */
export interface PaintWish {
  /** Null paints the finished picture; a bitmap shows printed tints where nothing is laid. */
  laid: Bitmap | null;
  /** Legend lines to bring forward; null or empty for all. */
  focus: ReadonlySet<number> | null;
}

/** The colour of one cell under a wish. */
export function cellColour(colours: ClothColours, line: number, laid: boolean, inFocus: boolean): Rgb {
  if (!inFocus) return colours.quiet[line]![laid ? 1 : 0];
  return (laid ? colours.laid : colours.printed)[line]!;
}

/**
 * Paints the chart, one pixel a cell, as RGBA into `pixels`.
 * @param pixels 4 bytes for each cell to paint, overwritten
 * @param first cell that the first pixel shows; the cells after it follow
 */
export function paintCloth(
  chart: Chart,
  colours: ClothColours,
  wish: PaintWish,
  pixels: Uint8ClampedArray,
  first = 0,
): void {
  // One packed colour for each (line, laid, in focus), so that the loop over the cells is a table look-up.
  const table = new Uint32Array(colours.laid.length * 2);
  for (let line = 0; line < colours.laid.length; line++) {
    const inFocus = !wish.focus?.size || wish.focus.has(line);
    for (const laid of [0, 1]) {
      const [r, g, b] = cellColour(colours, line, laid === 1, inFocus);
      table[line * 2 + laid] = littleEndianRgba(r, g, b);
    }
  }
  const out = new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length >> 2);
  const { cells } = chart;
  for (let i = 0; i < out.length; i++) {
    const laid = wish.laid === null || isLaid(wish.laid, first + i) ? 1 : 0;
    out[i] = table[cells[first + i]! * 2 + laid]!;
  }
}

function littleEndianRgba(r: number, g: number, b: number): number {
  return ((255 << 24) | (b << 16) | (g << 8) | r) >>> 0;
}
