/** Side of a tile in device pixels, about; large enough for few calls, small enough to be made within a frame. */
const TILE_PX = 256;

/** Which cells a tile shows: first column and row, and how many of them. */
export interface TileCells {
  x: number;
  y: number;
  columns: number;
  rows: number;
}

/** A part of the cloth drawn once and then moved about. */
export interface Tile extends TileCells {
  picture: HTMLCanvasElement;
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
    private readonly paint: (pixels: Uint32Array, tile: TileCells, cellPx: number, fromRow: number) => number,
  ) {}

  /** Forgets tiles until one more has room; a canvas of the right size is used again, so that there is little garbage. */
  private freeCanvas(width: number, height: number): HTMLCanvasElement {
    let free: HTMLCanvasElement | null = null;
    for (const [oldest, { picture }] of this.tiles) {
      if (this.bytes + 4 * width * height <= this.maxBytes) break;
      this.bytes -= 4 * picture.width * picture.height;
      this.tiles.delete(oldest);
      if (picture.width === width && picture.height === height) free = picture;
    }
    if (free) return free;
    const made = document.createElement('canvas');
    made.width = width;
    made.height = height;
    return made;
  }

  /** Cells along the side of a tile. */
  static span(cellPx: number): number {
    return Math.max(1, Math.round(TILE_PX / cellPx));
  }

  /** Keeps as many tiles as a view of so many device pixels and a ring of tiles around it hold, or they would be forgotten before they are shown. */
  keepFor(width: number, height: number, cellPx: number): void {
    const side = TileCache.span(cellPx) * cellPx;
    this.maxBytes = 4 * (width + 4 * side) * (height + 4 * side);
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

  /** A tile that was made before. */
  known(column: number, row: number, cellPx: number): Tile | null {
    const key = `${cellPx} ${column} ${row}`;
    const known = this.tiles.get(key);
    if (!known) return null;
    // Last looked at, last forgotten.
    this.tiles.delete(key);
    this.tiles.set(key, known);
    return known;
  }

  /** A tile, made now unless it is known; null when the time ran out, and it goes on with the next call. */
  make(column: number, row: number, cellPx: number): Tile | null {
    const known = this.known(column, row, cellPx);
    if (known) return known;
    const key = `${cellPx} ${column} ${row}`;
    const span = TileCache.span(cellPx);
    const [x, y] = [column * span, row * span];
    const columns = Math.min(span, this.cloth.width - x);
    const rows = Math.min(span, this.cloth.height - y);
    const image = this.scratchOf(columns * cellPx, rows * cellPx);
    const from = this.begun?.key === key ? this.begun.row : 0;
    const done = this.paint(new Uint32Array(image.data.buffer), { x, y, columns, rows }, cellPx, from);
    this.begun = done < rows ? { key, row: done } : null;
    if (this.begun) return null;
    const picture = this.freeCanvas(image.width, image.height);
    picture.getContext('2d', { alpha: false })!.putImageData(image, 0, 0);
    const tile = { picture, x, y, columns, rows };
    this.tiles.set(key, tile);
    this.bytes += 4 * picture.width * picture.height;
    return tile;
  }
}
