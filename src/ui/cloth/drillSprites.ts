import type { Shape } from '../../core/canvas/canvas';
import { cellColour } from '../../core/chart/paint';
import { inkOn } from '../../core/colour/contrast';
import { mix, type Rgb, rgbToHex } from '../../core/colour/rgb';
import type { ClothPalette } from './clothPalette';

/** How a cell looks: the finished picture with its symbol, the printed tint with its symbol, a laid drill, or quiet. */
export type CellLook = 'picture' | 'printed' | 'laid' | 'quiet' | 'quietLaid';

/** Sizes for which sprites are drawn, in device pixels; between two of them the larger is scaled down. */
const SIZES = [12, 16, 20, 26, 34, 44, 58, 76, 100, 132, 176, 240, 320];

const WHITE: Rgb = [255, 255, 255];
const BLACK: Rgb = [0, 0, 0];

/** Small pictures of cells, drawn once and then stamped: a canvas of thousands of cells stays smooth. */
export class DrillSprites {
  /** By line and look, then by size. */
  private readonly sprites = new Map<string, Map<number, HTMLCanvasElement>>();

  constructor(
    private readonly palette: ClothPalette,
    private readonly shape: Shape,
  ) {}

  /**
   * @param devicePixels side of the cell on screen
   * @param hurried takes any size that is drawn already, rather than draw another one
   */
  sprite(line: number, look: CellLook, devicePixels: number, hurried: boolean): HTMLCanvasElement {
    const size = SIZES.find((candidate) => candidate >= devicePixels) ?? SIZES.at(-1)!;
    const key = `${line} ${look}`;
    let sizes = this.sprites.get(key);
    if (!sizes) {
      sizes = new Map();
      this.sprites.set(key, sizes);
    }
    let sprite = sizes.get(size) ?? (hurried ? sizes.values().next().value : undefined);
    if (!sprite) {
      sprite = this.draw(line, look, size);
      sizes.set(size, sprite);
    }
    return sprite;
  }

  private draw(line: number, look: CellLook, size: number): HTMLCanvasElement {
    const canvas = document.createElement('canvas');
    canvas.width = size;
    canvas.height = size;
    const context = canvas.getContext('2d')!;
    const quiet = look === 'quiet' || look === 'quietLaid';
    const laid = look === 'laid' || look === 'quietLaid' || look === 'picture';
    const rgb = cellColour(this.palette.colours, line, laid, !quiet);
    context.fillStyle = rgbToHex(this.palette.ground);
    context.fillRect(0, 0, size, size);
    if (line === 0) return canvas;
    context.fillStyle = rgbToHex(rgb);
    const gap = size >= 20 ? Math.max(1, Math.round(size / 40)) : 0;
    this.outline(context, size, gap);
    context.fill();
    if (look === 'laid') this.facets(context, size, gap, rgb);
    if (look === 'picture' || look === 'printed') this.symbol(context, size, line, rgb);
    return canvas;
  }

  private outline(context: CanvasRenderingContext2D, size: number, gap: number): void {
    context.beginPath();
    if (this.shape === 'round') context.arc(size / 2, size / 2, size / 2 - gap / 2 - 0.5, 0, 2 * Math.PI);
    else context.rect(0, 0, size - gap, size - gap);
  }

  /** Light from the upper left on the drill's slanted faces, and its flat table in the middle. */
  private facets(context: CanvasRenderingContext2D, size: number, gap: number, rgb: Rgb): void {
    const side = size - gap;
    const rim = side * 0.22;
    context.save();
    this.outline(context, size, gap);
    context.clip();
    const face = (points: number[], tint: Rgb, share: number) => {
      context.beginPath();
      for (let i = 0; i < points.length; i += 2) context.lineTo(points[i]!, points[i + 1]!);
      context.closePath();
      context.fillStyle = rgbToHex(mix(rgb, tint, share));
      context.fill();
    };
    face([0, 0, side, 0, side - rim, rim, rim, rim], WHITE, 0.34);
    face([0, 0, rim, rim, rim, side - rim, 0, side], WHITE, 0.18);
    face([side, 0, side, side, side - rim, side - rim, side - rim, rim], BLACK, 0.16);
    face([0, side, rim, side - rim, side - rim, side - rim, side, side], BLACK, 0.28);
    context.restore();
  }

  private symbol(context: CanvasRenderingContext2D, size: number, line: number, rgb: Rgb): void {
    context.fillStyle = inkOn(rgb);
    const drawing = this.palette.drawings[line];
    if (drawing) {
      context.translate(size * 0.13, size * 0.13);
      context.scale(size * 0.0074, size * 0.0074);
      context.fill(drawing, 'evenodd');
      return;
    }
    const symbol = this.palette.symbols[line] ?? '';
    const letters = [...symbol].length;
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    context.font = `600 ${size * (letters > 2 ? 0.4 : letters > 1 ? 0.56 : 0.74)}px 'Atkinson Hyperlegible Mono Variable', 'Noto Sans Math', 'Noto Sans Symbols 2'`;
    context.fillText(symbol, size / 2, size / 2 + size * 0.04, size * 0.94);
  }
}
