import type { CoverSheet } from '../../core/sections/cover';
import { type OutlineLine, outlineOf, roomiestRect } from '../../core/sections/outline';
import type { Section } from '../../core/sections/section';
import type { Camera } from '../../core/view/camera';
import { CODE_FONT, SYMBOL_FONTS } from '../../ui/cloth/drillSprites';
import { CUT, LAMP, type Layer, toPx } from '../../ui/cloth/layers';

/** From this size on a number fits into a section. CSS pixels. */
const LEAST_PX = { width: 34, height: 24 };
const PALE = 'rgb(255 250 240 / 70%)';
const ALARM = '#b3261e';

/** Borders between sections, each with its number where there is room. The chosen one is framed. */
export function cutsLayer(
  pieces: readonly Section[],
  chosen: number | null,
  done: ReadonlySet<number>,
  /** Those that something is wrong with. */
  marked: ReadonlySet<number> = new Set(),
): Layer {
  const outlines = pieces.map(outlineOf);
  const spots = pieces.map(roomiestRect);
  return (context, camera, view) => {
    pieces.forEach((piece, i) => {
      const [x, y, w, h] = toPx(piece, camera);
      if (x > view.width || y > view.height || x + w < 0 || y + h < 0) return;
      const [left, top, wide, high] = toPx(spots[i]!, camera);
      const small = wide < LEAST_PX.width;
      // Hundreds of pale borders would hide the picture.
      if (!small) strokeLines(context, camera, outlines[i]!, 2.5, PALE);
      strokeLines(context, camera, outlines[i]!, small ? 0.5 : 1, CUT);
      if (small || high < LEAST_PX.height) return;
      const sign = done.has(piece.number) ? ' ✓' : marked.has(piece.number) ? ' !' : '';
      tag(context, `${piece.number}${sign}`, left, top, sign === ' !' ? ALARM : CUT);
    });
    const frame = pieces.findIndex((piece) => piece.number === chosen);
    if (frame < 0) return;
    strokeLines(context, camera, outlines[frame]!, 7, CUT);
    strokeLines(context, camera, outlines[frame]!, 3.5, LAMP);
  };
}

/** More present borders than this only hide the new ones. */
const MOST_OLD = 300;

/** The present borders under a new cut: thin and broken. */
export function oldCutsLayer(pieces: readonly Section[]): Layer {
  const outlines = pieces.length > MOST_OLD ? [] : pieces.map(outlineOf);
  return (context, camera) => {
    context.save();
    context.setLineDash([3, 4]);
    for (const lines of outlines) strokeLines(context, camera, lines, 1, CUT);
    context.restore();
  };
}

/** Sections that are chosen together: a strong edge and a sign in each, to be seen on any colour. */
export function pickedLayer(pieces: readonly Section[], picked: ReadonlySet<number>): Layer {
  return (context, camera) => {
    for (const piece of pieces) {
      if (!picked.has(piece.number)) continue;
      context.fillStyle = 'rgb(251 248 242 / 72%)';
      for (const rect of piece.rects) context.fillRect(...toPx(rect, camera));
      const [x, y, w, h] = toPx(roomiestRect(piece), camera);
      const lines = outlineOf(piece);
      for (const [width, colour] of [
        [5, CUT],
        [2, LAMP],
      ] as const) {
        strokeLines(context, camera, lines, width, colour);
        context.beginPath();
        context.moveTo(x + w * 0.3, y + h * 0.55);
        context.lineTo(x + w * 0.45, y + h * 0.72);
        context.lineTo(x + w * 0.72, y + h * 0.32);
        context.stroke();
      }
    }
  };
}

/** Strokes lines of an outline. @param width CSS pixels */
function strokeLines(
  context: CanvasRenderingContext2D,
  camera: Camera,
  lines: readonly OutlineLine[],
  width: number,
  colour: string,
): void {
  context.lineWidth = width;
  context.strokeStyle = colour;
  context.lineCap = 'square';
  context.beginPath();
  for (const { upright, at, from, to } of lines) {
    const x = ((upright ? at : from) - camera.left) * camera.scale;
    const y = ((upright ? from : at) - camera.top) * camera.scale;
    context.moveTo(x, y);
    const length = (to - from) * camera.scale;
    context.lineTo(upright ? x : x + length, upright ? y + length : y);
  }
  context.stroke();
}

function tag(context: CanvasRenderingContext2D, text: string, x: number, y: number, colour: string): void {
  context.font = `600 13px ${SYMBOL_FONTS}`;
  const width = context.measureText(text).width + 8;
  context.fillStyle = 'rgb(251 248 242 / 88%)';
  context.fillRect(x + 1, y + 1, width, 18);
  context.fillStyle = colour;
  context.textAlign = 'left';
  context.textBaseline = 'middle';
  context.fillText(text, x + 5, y + 11);
}

/** The way of the work: a line from middle to middle, in turn. */
export function orderLayer(pieces: readonly Section[]): Layer {
  const way = [...pieces]
    .sort((a, b) => a.order - b.order)
    .map((piece) => {
      const { x, y, width, height } = roomiestRect(piece);
      return { x: x + width / 2, y: y + height / 2 };
    });
  return (context, camera) => {
    for (const [width, colour] of [
      [4, PALE],
      [1.6, CUT],
    ] as const) {
      context.lineWidth = width;
      context.strokeStyle = colour;
      context.beginPath();
      way.forEach(({ x, y }, i) => {
        const [atX, atY] = [(x - camera.left) * camera.scale, (y - camera.top) * camera.scale];
        if (i === 0) context.moveTo(atX, atY);
        else context.lineTo(atX, atY);
      });
      context.stroke();
    }
    const first = way[0];
    if (!first) return;
    context.fillStyle = CUT;
    context.beginPath();
    context.arc(
      (first.x - camera.left) * camera.scale,
      (first.y - camera.top) * camera.scale,
      6,
      0,
      2 * Math.PI,
    );
    context.fill();
  };
}

/** Sheets of a cover with the turn in which they are laid. */
export function sheetsLayer(sheets: readonly CoverSheet[]): Layer {
  return (context, camera) => {
    context.font = `600 12px ${CODE_FONT}`;
    for (const { rect, laidAs } of sheets) {
      const [x, y, w, h] = toPx(rect, camera);
      context.fillStyle = laidAs % 2 === 0 ? 'rgb(255 250 240 / 26%)' : 'rgb(255 250 240 / 40%)';
      context.fillRect(x, y, w, h);
      context.lineWidth = 2;
      context.strokeStyle = LAMP;
      context.strokeRect(x, y, w, h);
      context.fillStyle = CUT;
      context.textAlign = 'right';
      context.textBaseline = 'bottom';
      context.fillText(`sheet ${laidAs}`, x + w - 4, y + h - 3);
    }
  };
}
