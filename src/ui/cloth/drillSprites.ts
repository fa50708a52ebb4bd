import type { Shape } from '../../core/canvas/canvas';
import { inkOn } from '../../core/colour/contrast';
import { mix, type Rgb, rgbToHex } from '../../core/colour/rgb';
import { fontShare, SYMBOL_INSET, SYMBOL_SHARE } from '../../core/symbols/symbolInCell';
import { cellColour } from '../../core/view/paint';
import type { ClothPalette } from './clothPalette';

/** How a cell looks: the finished picture with its symbol, the printed tint with its symbol, a laid drill, or quiet. */
export type CellLook = 'picture' | 'printed' | 'laid' | 'quiet' | 'quietLaid';

/** Sizes for which sprites are drawn, in device pixels; between two of them the larger is scaled down. */
const SIZES = [12, 16, 20, 26, 34, 44, 58, 76, 100, 132, 176, 240, 320];

const SIZES_END = 1024;
const MAX_BYTES = 6_000_000;

/** The size that is drawn for cells of so many device pixels: just that, or the next of a few in the midst of a zoom. */
export function spriteSize(devicePixels: number): number {
  const exact = Math.round(devicePixels);
  if (Math.abs(devicePixels - exact) < 1e-6) return exact;
  return SIZES.find((candidate) => candidate >= devicePixels) ?? SIZES.at(-1)!;
}

const LOOK_NUMBER: Record<CellLook, number> = { picture: 0, printed: 1, laid: 2, quiet: 3, quietLaid: 4 };
const LOOKS = 5;

/** The font of codes, which has letters and figures too. */
export const CODE_FONT = "'Atkinson Hyperlegible Mono Variable'";
/** Fonts of symbols, in which a symbol is looked for in turn. A page loads the parts of them that it shows. */
export const SYMBOL_FONTS = `${CODE_FONT}, 'Noto Sans Math', 'Noto Sans Symbols 2'`;

/** Larger symbols fill their square to the edge. */
const LARGER = 1.28;

const WHITE: Rgb = [255, 255, 255];
const BLACK: Rgb = [0, 0, 0];

/** Small pictures of cells, drawn once and then stamped: a canvas of thousands of cells stays smooth. */
export class DrillSprites {
  /** By line, look and size, as one number. */
  private readonly packed = new Map<number, Uint32Array>();
  private bytes = 0;
  /** Sprites drawn so far: drawing one takes far longer than stamping it. */
  drawn = 0;
  private readonly scratch = document.createElement('canvas');

  constructor(
    private readonly palette: ClothPalette,
    private readonly shape: Shape,
  ) {}

  /** @returns a cell as size² packed RGBA values, row by row */
  pixels(line: number, look: CellLook, size: number): Uint32Array {
    const key = (line * LOOKS + LOOK_NUMBER[look]) * SIZES_END + size;
    let pixels = this.packed.get(key);
    if (!pixels) {
      const context = this.draw(line, look, size).getContext('2d')!;
      pixels = new Uint32Array(context.getImageData(0, 0, size, size).data.buffer);
      // Sizes pile up as one zooms; starting afresh is cheap, for only what is in view is drawn again.
      if (this.bytes > MAX_BYTES) {
        this.packed.clear();
        this.bytes = 0;
      }
      this.packed.set(key, pixels);
      this.drawn++;
      this.bytes += pixels.byteLength;
    }
    return pixels;
  }

  private draw(line: number, look: CellLook, size: number): HTMLCanvasElement {
    const canvas = this.scratch;
    // Setting its size cleans it.
    canvas.width = size;
    canvas.height = size;
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    const quiet = look === 'quiet' || look === 'quietLaid';
    const laid = look === 'laid' || look === 'quietLaid' || look === 'picture';
    const rgb = cellColour(this.palette.colours, line, laid, !quiet);
    context.fillStyle = rgbToHex(this.palette.ground);
    context.fillRect(0, 0, size, size);
    if (line === 0) return canvas;
    context.fillStyle = rgbToHex(rgb);
    const gap = this.gapOf(size);
    this.outline(context, size, gap);
    context.fill();
    if (look === 'laid') this.facets(context, size, gap, rgb);
    if (this.palette.special[line]) this.cutCorner(context, size, gap);
    if (look === 'picture' || look === 'printed') this.symbol(context, size, line, rgb);
    return canvas;
  }

  /** Cloth between two squares, in pixels. */
  private gapOf(size: number): number {
    if (this.palette.eyes.lines === 'thick') return size >= 12 ? Math.max(2, Math.round(size / 12)) : 0;
    return size >= 20 ? Math.max(1, Math.round(size / 40)) : 0;
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

  /** A special finish shows as on the chips: the upper right corner is cut off. */
  private cutCorner(context: CanvasRenderingContext2D, size: number, gap: number): void {
    const side = size - gap;
    const cut = side * (this.shape === 'round' ? 0.36 : 0.3);
    context.beginPath();
    context.moveTo(side - cut, 0);
    context.lineTo(side, 0);
    context.lineTo(side, cut);
    context.closePath();
    context.fillStyle = rgbToHex(WHITE);
    context.fill();
    context.strokeStyle = rgbToHex(BLACK);
    context.lineWidth = Math.max(1, size / 40);
    context.beginPath();
    context.moveTo(side - cut, 0);
    context.lineTo(side, cut);
    context.stroke();
  }

  private symbol(context: CanvasRenderingContext2D, size: number, line: number, rgb: Rgb): void {
    context.fillStyle = inkOn(rgb);
    const grow = this.palette.eyes.symbols === 'large' ? LARGER : 1;
    const drawing = this.palette.drawings[line];
    if (drawing) {
      const inset = SYMBOL_INSET - (SYMBOL_SHARE * (grow - 1)) / 2;
      context.translate(size * inset, size * inset);
      context.scale((size * SYMBOL_SHARE * grow) / 100, (size * SYMBOL_SHARE * grow) / 100);
      context.fill(drawing, 'evenodd');
      return;
    }
    const symbol = this.palette.symbols[line] ?? '';
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    context.font = `600 ${size * fontShare(symbol) * grow}px ${SYMBOL_FONTS}`;
    context.fillText(symbol, size / 2, size / 2 + size * 0.04, size * 0.94);
  }
}
