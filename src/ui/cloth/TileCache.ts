/** Side of a tile in device pixels, about; large enough for few calls, small enough to be made within a frame. */
const TILE_PX = 192;

/** A part of the cloth drawn once and then moved about. */
export interface Tile {
  picture: HTMLCanvasElement;
  /** First column and row, and how many of them. */
  x: number;
  y: number;
  columns: number;
  rows: number;
}

/** Tiles of the cloth by size of a cell; the ones looked at longest ago are forgotten. */
export class TileCache {
  private readonly tiles = new Map<string, Tile>();
  private bytes = 0;
  private scratch: ImageData | null = null;
  /** The tile whose pixels are in the making, and the row with which it goes on. */
  private begun: { key: string; row: number } | null = null;
  private maxBytes = 0;

  constructor(
    private readonly cloth: { width: number; height: number },
    /**
     * Puts cells into the pixels of a tile, `cellPx` device pixels each, from a row on. Gives the row with which to go
     * on when its time ran out.
     */
    private readonly paint: (pixels: Uint32Array, tile: Tile, cellPx: number, fromRow: number) => number,
  ) {}

  /** Cells along the side of a tile. */
  static span(cellPx: number): number {
    return Math.max(1, Math.round(TILE_PX / cellPx));
  }

  /** Keeps as many tiles as a view of so many device pixels and a rim around it hold, or they would be forgotten before they are shown. */
  keepFor(width: number, height: number): void {
    this.maxBytes = 4 * (width + 2 * TILE_PX) * (height + 2 * TILE_PX);
  }

  clear(): void {
    this.begun = null;
    this.tiles.clear();
    this.bytes = 0;
  }

  /** Pixels to paint a tile in: the same again for tiles of one size, so that there is little garbage to collect. */
  private scratchOf(width: number, height: number): ImageData {
    if (this.scratch?.width !== width || this.scratch.height !== height) {
      this.scratch = new ImageData(width, height);
    }
    return this.scratch;
  }

  /** @param make whether a tile that is not there may be drawn now */
  get(column: number, row: number, cellPx: number, make: boolean): Tile | null {
    const key = `${cellPx} ${column} ${row}`;
    const known = this.tiles.get(key);
    if (known) {
      // Last looked at, last forgotten.
      this.tiles.delete(key);
      this.tiles.set(key, known);
      return known;
    }
    if (!make) return null;
    const span = TileCache.span(cellPx);
    const [x, y] = [column * span, row * span];
    const columns = Math.min(span, this.cloth.width - x);
    const rows = Math.min(span, this.cloth.height - y);
    const picture = document.createElement('canvas');
    const tile = { picture, x, y, columns, rows };
    const image = this.scratchOf(columns * cellPx, rows * cellPx);
    const from = this.begun?.key === key ? this.begun.row : 0;
    const done = this.paint(new Uint32Array(image.data.buffer), tile, cellPx, from);
    this.begun = done < rows ? { key, row: done } : null;
    if (this.begun) return null;
    picture.width = image.width;
    picture.height = image.height;
    picture.getContext('2d', { alpha: false })!.putImageData(image, 0, 0);
    this.tiles.set(key, tile);
    this.bytes += 4 * picture.width * picture.height;
    for (const [oldest, old] of this.tiles) {
      if (this.bytes <= this.maxBytes) break;
      this.bytes -= 4 * old.picture.width * old.picture.height;
      this.tiles.delete(oldest);
    }
    return tile;
  }
}
