import type { Bitmap } from './bitmap';

/** Cells of a canvas, or a stretch of it. */
export interface MarkGround {
  /** Legend line of each cell, 0 where no drill goes; null where nothing is known of colours and every cell wants one. */
  lines: Uint16Array | null;
  laid: Bitmap;
  /** Index on the canvas of the first of these cells. */
  first?: number;
}
