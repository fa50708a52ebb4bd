import type { Shape } from '../../core/canvas/canvas';
import { type Bitmap, isLaid } from '../../core/cells/bitmap';
import type { CellRect, Chart } from '../../core/cells/chart';
import { rgbToHex } from '../../core/colour/rgb';
import { type Camera, SYMBOLS_FROM_PX, type ViewSize, visibleCells } from '../../core/view/camera';
import { paintCloth } from '../../core/view/paint';
import type { ClothPalette } from './clothPalette';
import { type CellLook, DrillSprites, spriteSize } from './drillSprites';
import { TileCache, type TileCells } from './TileCache';

/**
 * Once the cloth lies still, the frame itself makes tiles for so long, so that a mark is seen at once. While it moves,
 * tiles are made between the frames; what is missing shows the picture from afar.
 */
const STILL_MS = 8;
/** The picture from afar is painted in strips of so many rows, so that its pixels are not kept twice. */
const STRIP_ROWS = 64;

/** Tiles of one size of cells, by column and row of tiles; the last ones are within. */
interface TileRange {
  cellPx: number;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** What to bring out on the cloth. */
export interface ClothWish {
  laid: Bitmap | null;
  focus: ReadonlySet<number> | null;
}

/**
 * Draws a chart at any zoom from its typed arrays: from afar one stretched picture of a pixel a cell,
 * near by stamped cells with symbols. Knows nothing of React.
 */
export class ClothRenderer {
  private readonly picture: HTMLCanvasElement;
  /** Half, a quarter … of the picture, made when the whole cloth is seen from afar. */
  private halves: HTMLCanvasElement[] = [];
  private sprites: DrillSprites;
  private readonly tiles: TileCache;
  private wish: ClothWish = { laid: null, focus: null };
  /** When the making of tiles must end in this frame. */
  private tilesUntil = 0;
  private lastCamera: Camera | null = null;
  /** What the last frame showed near by; nothing from afar. */
  private shown: TileRange | null = null;

  constructor(
    private readonly chart: Chart,
    private palette: ClothPalette,
    private readonly shape: Shape,
  ) {
    this.picture = document.createElement('canvas');
    this.picture.width = chart.width;
    this.picture.height = chart.height;
    this.sprites = new DrillSprites(palette, shape);
    this.tiles = new TileCache(chart, (pixels, tile, cellPx, fromRow) =>
      this.fillTile(pixels, tile, cellPx, fromRow),
    );
  }

  setPalette(palette: ClothPalette): void {
    this.palette = palette;
    this.sprites = new DrillSprites(palette, this.shape);
    this.setWish(this.wish);
  }

  /** Forgets the drawn symbols, once fonts have arrived. */
  redrawSymbols(): void {
    this.sprites = new DrillSprites(this.palette, this.shape);
    this.tiles.clear();
  }

  /** Call again after the bitmap has changed. */
  setWish(wish: ClothWish): void {
    this.wish = wish;
    this.tiles.clear();
    this.halves = [];
    const { width, height } = this.chart;
    const context = this.picture.getContext('2d', { alpha: false })!;
    for (let y = 0; y < height; y += STRIP_ROWS) {
      const strip = new ImageData(width, Math.min(STRIP_ROWS, height - y));
      paintCloth(this.chart, this.palette.colours, wish, strip.data, y * width);
      context.putImageData(strip, 0, y);
    }
  }

  /**
   * @param view in CSS pixels
   * @param pixelRatio device pixels per CSS pixel
   * @returns whether all could be drawn; if not, draw again in the next frame
   */
  draw(context: CanvasRenderingContext2D, camera: Camera, view: ViewSize, pixelRatio: number): boolean {
    context.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
    const edge = {
      x: -camera.left * camera.scale,
      y: -camera.top * camera.scale,
      width: this.chart.width * camera.scale,
      height: this.chart.height * camera.scale,
    };
    // Where squares cover all of the view, nothing old shows through, and no rim is seen.
    const fillsView =
      Math.max(edge.x, edge.y) <= -1 &&
      edge.x + edge.width >= view.width + 1 &&
      edge.y + edge.height >= view.height + 1;
    if (!fillsView) context.clearRect(0, 0, view.width, view.height);
    const seen = visibleCells(camera, view, this.chart);
    if (seen.width === 0 || seen.height === 0) return true;
    let whole = true;
    this.shown = null;
    if (camera.scale < SYMBOLS_FROM_PX) this.drawPicture(context, camera, seen, pixelRatio);
    else whole = this.drawTiles(context, camera, seen, view, pixelRatio);
    if (!fillsView) {
      context.strokeStyle = rgbToHex(this.palette.ground);
      context.lineWidth = 1;
      context.strokeRect(edge.x, edge.y, edge.width, edge.height);
    }
    return whole;
  }

  /** From afar: the picture of a pixel a cell, or the smaller one that fits, so that no pixel is read in vain. */
  private drawPicture(
    context: CanvasRenderingContext2D,
    camera: Camera,
    seen: CellRect,
    pixelRatio: number,
  ): void {
    const devicePixels = camera.scale * pixelRatio;
    let level = 0;
    while (devicePixels * 2 ** (level + 1) <= 1) level++;
    const picture = level === 0 ? this.picture : this.half(level);
    const share = 1 / 2 ** level;
    context.imageSmoothingEnabled = devicePixels < 1;
    context.imageSmoothingQuality = 'low';
    context.drawImage(
      picture,
      seen.x * share,
      seen.y * share,
      seen.width * share,
      seen.height * share,
      (seen.x - camera.left) * camera.scale,
      (seen.y - camera.top) * camera.scale,
      seen.width * camera.scale,
      seen.height * camera.scale,
    );
  }

  private half(level: number): HTMLCanvasElement {
    for (let made = this.halves.length; made < level; made++) {
      const from = this.halves[made - 1] ?? this.picture;
      const half = document.createElement('canvas');
      half.width = Math.max(1, Math.ceil(this.chart.width / 2 ** (made + 1)));
      half.height = Math.max(1, Math.ceil(this.chart.height / 2 ** (made + 1)));
      const context = half.getContext('2d')!;
      context.imageSmoothingQuality = 'medium';
      // An odd side keeps its scale: the last half pixel reaches over the edge.
      context.drawImage(from, 0, 0, from.width, from.height, 0, 0, from.width / 2, from.height / 2);
      this.halves.push(half);
    }
    return this.halves[level - 1]!;
  }

  /** Near by: tiles with cells of whole pixels, as they are or, in the midst of a zoom, stretched a little. */
  private drawTiles(
    context: CanvasRenderingContext2D,
    camera: Camera,
    seen: CellRect,
    view: ViewSize,
    pixelRatio: number,
  ): boolean {
    const devicePixels = camera.scale * pixelRatio;
    const cellPx = spriteSize(devicePixels);
    const span = TileCache.span(cellPx);
    const last = this.lastCamera;
    const still = camera.scale === last?.scale && camera.left === last.left && camera.top === last.top;
    this.lastCamera = { ...camera };
    this.tilesUntil = performance.now() + STILL_MS;
    this.tiles.keepFor(view.width * pixelRatio, view.height * pixelRatio, cellPx);
    const column = (x: number) => Math.round((x - camera.left) * devicePixels);
    const row = (y: number) => Math.round((y - camera.top) * devicePixels);
    let whole = true;
    context.imageSmoothingEnabled = false;
    context.setTransform(1, 0, 0, 1, 0, 0);
    const shown: TileRange = {
      cellPx,
      left: Math.floor(seen.x / span),
      top: Math.floor(seen.y / span),
      right: Math.ceil((seen.x + seen.width) / span) - 1,
      bottom: Math.ceil((seen.y + seen.height) / span) - 1,
    };
    this.shown = shown;
    for (let ty = shown.top; ty <= shown.bottom; ty++) {
      for (let tx = shown.left; tx <= shown.right; tx++) {
        const mayMake = still && performance.now() < this.tilesUntil;
        const tile = mayMake ? this.tiles.make(tx, ty, cellPx) : this.tiles.known(tx, ty, cellPx);
        const [x, y] = [tx * span, ty * span];
        const columns = Math.min(span, this.chart.width - x);
        const rows = Math.min(span, this.chart.height - y);
        const place = [column(x), row(y), column(x + columns) - column(x), row(y + rows) - row(y)] as const;
        if (tile) context.drawImage(tile.picture, ...place);
        else {
          whole = false;
          context.drawImage(this.picture, x, y, columns, rows, ...place);
        }
      }
    }
    context.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
    return whole;
  }

  /**
   * Makes tiles that the last frame lacked, then a ring around them, where the cloth will move to. To be called between
   * frames, for so many milliseconds.
   *
   * @returns whether the last frame lacked something, so that a further one is due; and whether there is more to make
   */
  prepare(ms: number): { lacked: boolean; isDone: boolean } {
    const { shown } = this;
    this.tilesUntil = performance.now() + ms;
    let lacked = false;
    if (!shown) return { lacked, isDone: true };
    const { cellPx } = shown;
    const span = TileCache.span(cellPx);
    const [lastX, lastY] = [Math.ceil(this.chart.width / span) - 1, Math.ceil(this.chart.height / span) - 1];
    for (const ring of [0, 1]) {
      const bottom = Math.min(lastY, shown.bottom + ring);
      const right = Math.min(lastX, shown.right + ring);
      for (let ty = Math.max(0, shown.top - ring); ty <= bottom; ty++) {
        for (let tx = Math.max(0, shown.left - ring); tx <= right; tx++) {
          if (this.tiles.known(tx, ty, cellPx)) continue;
          if (ring === 0) lacked = true;
          if (performance.now() >= this.tilesUntil || !this.tiles.make(tx, ty, cellPx))
            return { lacked, isDone: false };
        }
      }
    }
    return { lacked, isDone: true };
  }

  /** Copies the pixels of each cell's sprite into a tile; far cheaper than as many calls to the browser's drawing. */
  private fillTile(pixels: Uint32Array, tile: TileCells, cellPx: number, fromRow: number): number {
    const { cells, width } = this.chart;
    const { laid, focus } = this.wish;
    const stride = tile.columns * cellPx;
    let drawn = this.sprites.drawn;
    for (let row = fromRow; row < tile.rows; row++) {
      for (let column = 0; column < tile.columns; column++) {
        const cell = (tile.y + row) * width + tile.x + column;
        const line = cells[cell]!;
        const look = lookOf(laid, cell, !focus?.size || focus.has(line));
        const sprite = this.sprites.pixels(line, look, cellPx);
        // Symbols met for the first time take longest; those drawn so far are kept for the next try.
        if (this.sprites.drawn > drawn && performance.now() > this.tilesUntil) return row;
        drawn = this.sprites.drawn;
        let to = row * cellPx * stride + column * cellPx;
        for (let from = 0; from < sprite.length; from += cellPx, to += stride)
          pixels.set(sprite.subarray(from, from + cellPx), to);
      }
      if (performance.now() > this.tilesUntil) return row + 1;
    }
    return tile.rows;
  }
}

function lookOf(laid: Bitmap | null, cell: number, inFocus: boolean): CellLook {
  if (laid === null) return inFocus ? 'picture' : 'quietLaid';
  if (isLaid(laid, cell)) return inFocus ? 'laid' : 'quietLaid';
  return inFocus ? 'printed' : 'quiet';
}
