import type { Shape } from '../../core/canvas/canvas';
import { type Bitmap, isLaid } from '../../core/chart/bitmap';
import { type Camera, type ViewSize, visibleCells } from '../../core/chart/camera';
import type { CellRect, Chart } from '../../core/chart/chart';
import { paintCloth } from '../../core/chart/paint';
import { rgbToHex } from '../../core/colour/rgb';
import type { ClothPalette } from './clothPalette';
import { type CellLook, DrillSprites } from './drillSprites';

/** Cells at least this many pixels wide are drawn one by one, with symbols. */
const SYMBOLS_FROM_PX = 12;

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
  private readonly pixels: ImageData;
  private sprites: DrillSprites;
  private wish: ClothWish = { laid: null, focus: null };

  constructor(
    private readonly chart: Chart,
    private palette: ClothPalette,
    private readonly shape: Shape,
  ) {
    this.picture = document.createElement('canvas');
    this.picture.width = chart.width;
    this.picture.height = chart.height;
    this.pixels = new ImageData(chart.width, chart.height);
    this.sprites = new DrillSprites(palette, shape);
  }

  setPalette(palette: ClothPalette): void {
    this.palette = palette;
    this.sprites = new DrillSprites(palette, this.shape);
    this.setWish(this.wish);
  }

  /** Forgets the drawn symbols, once fonts have arrived. */
  redrawSymbols(): void {
    this.sprites = new DrillSprites(this.palette, this.shape);
  }

  /** Call again after the bitmap has changed. */
  setWish(wish: ClothWish): void {
    this.wish = wish;
    paintCloth(this.chart, this.palette.colours, wish, this.pixels.data);
    this.picture.getContext('2d')!.putImageData(this.pixels, 0, 0);
  }

  /**
   * @param view in CSS pixels
   * @param pixelRatio device pixels per CSS pixel
   * @param moving stamps more coarsely while fingers move, which takes half the time; draw once more at rest
   */
  draw(
    context: CanvasRenderingContext2D,
    camera: Camera,
    view: ViewSize,
    pixelRatio: number,
    moving: boolean,
  ): void {
    context.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
    context.clearRect(0, 0, view.width, view.height);
    const seen = visibleCells(camera, view, this.chart);
    if (seen.width === 0 || seen.height === 0) return;
    if (camera.scale >= SYMBOLS_FROM_PX) {
      this.stampCells(context, camera, seen, pixelRatio, moving);
    } else {
      context.imageSmoothingEnabled = camera.scale * pixelRatio < 1;
      context.imageSmoothingQuality = 'high';
      context.drawImage(
        this.picture,
        seen.x,
        seen.y,
        seen.width,
        seen.height,
        (seen.x - camera.left) * camera.scale,
        (seen.y - camera.top) * camera.scale,
        seen.width * camera.scale,
        seen.height * camera.scale,
      );
    }
    context.strokeStyle = rgbToHex(this.palette.ground);
    context.lineWidth = 1;
    context.strokeRect(
      -camera.left * camera.scale,
      -camera.top * camera.scale,
      this.chart.width * camera.scale,
      this.chart.height * camera.scale,
    );
  }

  private stampCells(
    context: CanvasRenderingContext2D,
    camera: Camera,
    seen: CellRect,
    pixelRatio: number,
    moving: boolean,
  ): void {
    const { cells, width } = this.chart;
    const { laid, focus } = this.wish;
    const devicePixels = camera.scale * pixelRatio;
    context.imageSmoothingEnabled = !moving;
    context.setTransform(1, 0, 0, 1, 0, 0);
    // Whole device pixels, so that neighbouring cells neither overlap nor leave seams.
    const edgeX = (x: number) => Math.round((x - camera.left) * devicePixels);
    const edgeY = (y: number) => Math.round((y - camera.top) * devicePixels);
    for (let y = seen.y; y < seen.y + seen.height; y++) {
      const top = edgeY(y);
      const high = edgeY(y + 1) - top;
      for (let x = seen.x; x < seen.x + seen.width; x++) {
        const cell = y * width + x;
        const line = cells[cell]!;
        const inFocus = !focus?.size || focus.has(line);
        const left = edgeX(x);
        context.drawImage(
          this.sprites.sprite(line, lookOf(laid, cell, inFocus), devicePixels, moving),
          left,
          top,
          edgeX(x + 1) - left,
          high,
        );
      }
    }
    context.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
  }
}

function lookOf(laid: Bitmap | null, cell: number, inFocus: boolean): CellLook {
  if (laid === null) return inFocus ? 'picture' : 'quietLaid';
  if (isLaid(laid, cell)) return inFocus ? 'laid' : 'quietLaid';
  return inFocus ? 'printed' : 'quiet';
}
