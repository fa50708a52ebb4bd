import type { Corners } from './corners';
import type { Sureness } from './sureness';

/** Where the chart was found on its picture, and how sure the reading is. */
export interface ReadPicture {
  width: number;
  height: number;
  corners: Corners;
  /** Size of the chart in cells. */
  columns: number;
  rows: number;
  /** Found by the size of the picture, by the edges between cells, or marked by somebody. */
  by: 'size' | 'edges' | 'hand';
  sure: Sureness;
}
