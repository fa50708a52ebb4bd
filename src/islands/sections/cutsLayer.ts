import type { CellRect } from '../../core/cells/chart';
import { CUT, frameLayer, LAMP, type Layer, toPx } from '../../ui/cloth/layers';

/** A number standing in a piece of the cloth. */
interface Piece extends CellRect {
  number: number;
}

/** Cuts between sections, each with its number where there is room. The chosen one is framed. */
export function cutsLayer(pieces: readonly Piece[], chosen: number | null, done: ReadonlySet<number>): Layer {
  return (context, camera, view) => {
    for (const piece of pieces) {
      const [x, y, w, h] = toPx(piece, camera);
      if (x > view.width || y > view.height || x + w < 0 || y + h < 0) continue;
      const small = w < 34;
      context.lineWidth = small ? 1 : 2.5;
      context.strokeStyle = 'rgb(255 250 240 / 70%)';
      context.strokeRect(x, y, w, h);
      context.lineWidth = small ? 0.5 : 1;
      context.strokeStyle = CUT;
      context.strokeRect(x, y, w, h);
      if (w >= 34 && h >= 24)
        tag(context, done.has(piece.number) ? `${piece.number} ✓` : String(piece.number), x, y);
    }
    const frame = pieces.find((piece) => piece.number === chosen);
    if (frame) frameLayer(frame)(context, camera, view);
  };
}

/** Sections that are chosen together: a strong edge and a sign in each, to be seen on any colour. */
export function pickedLayer(pieces: readonly Piece[], picked: ReadonlySet<number>): Layer {
  return (context, camera) => {
    for (const piece of pieces) {
      if (!picked.has(piece.number)) continue;
      const [x, y, w, h] = toPx(piece, camera);
      context.fillStyle = 'rgb(251 248 242 / 72%)';
      context.fillRect(x, y, w, h);
      for (const [width, colour] of [
        [5, CUT],
        [2, LAMP],
      ] as const) {
        context.lineWidth = width;
        context.strokeStyle = colour;
        context.strokeRect(x + 2, y + 2, w - 4, h - 4);
        context.beginPath();
        context.moveTo(x + w * 0.3, y + h * 0.55);
        context.lineTo(x + w * 0.45, y + h * 0.72);
        context.lineTo(x + w * 0.72, y + h * 0.32);
        context.stroke();
      }
    }
  };
}

function tag(context: CanvasRenderingContext2D, text: string, x: number, y: number): void {
  context.font = "600 13px 'Atkinson Hyperlegible Mono Variable', 'Noto Sans Symbols 2'";
  const width = context.measureText(text).width + 8;
  context.fillStyle = 'rgb(251 248 242 / 88%)';
  context.fillRect(x + 1, y + 1, width, 18);
  context.fillStyle = CUT;
  context.textAlign = 'left';
  context.textBaseline = 'middle';
  context.fillText(text, x + 5, y + 11);
}
