import type { RowToLay } from '../../core/bench/runsToSay';
import type { CellRect } from '../../core/cells/chart';
import { type CellPlace, placeOfCell } from '../../core/cells/rect';
import { CODE_FONT } from '../../ui/cloth/drillSprites';
import { CUT, LAMP, type Layer, toPx } from '../../ui/cloth/layers';

const GROUND = '#fbf8f2';
/** Squares of fewer pixels have no room for a number. */
const NUMBERED_PX = 13;

/** Dark with light around it, to be seen on any colour. */
function stroked(context: CanvasRenderingContext2D, width: number): void {
  context.lineWidth = width + 2.5;
  context.strokeStyle = CUT;
  context.stroke();
  context.lineWidth = width;
  context.strokeStyle = LAMP;
  context.stroke();
}

/** Row and column through a square, from edge to edge. */
export function crossHairLayer({ x, y }: CellPlace): Layer {
  return (context, camera, view) => {
    const [left, top, side] = toPx({ x, y, width: 1, height: 1 }, camera);
    context.save();
    context.globalAlpha = 0.85;
    context.setLineDash([7, 5]);
    context.beginPath();
    for (const line of [top, top + side]) {
      context.moveTo(0, line);
      context.lineTo(view.width, line);
    }
    for (const line of [left, left + side]) {
      context.moveTo(line, 0);
      context.lineTo(line, view.height);
    }
    stroked(context, 1.5);
    context.restore();
  };
}

/** The row in hand between two rules, within its section. */
export function rowGuideLayer(row: CellRect): Layer {
  return (context, camera) => {
    const [left, top, width, height] = toPx(row, camera);
    context.beginPath();
    context.moveTo(left, top);
    context.lineTo(left + width, top);
    context.moveTo(left, top + height);
    context.lineTo(left + width, top + height);
    stroked(context, 2.5);
  };
}

/** Each run with its number of squares, and the gaps between with theirs. */
export function countingLayer(rows: readonly RowToLay[]): Layer {
  return (context, camera, view) => {
    if (camera.scale < NUMBERED_PX) return;
    const size = Math.min(19, camera.scale * 0.62);
    context.font = `700 ${size}px ${CODE_FONT}`;
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    for (const { y, runs } of rows) {
      const middle = (y + 0.5 - camera.top) * camera.scale;
      if (middle < -camera.scale || middle > view.height + camera.scale) continue;
      runs.forEach(({ x, length }, i) => {
        const at = (x + length / 2 - camera.left) * camera.scale;
        if (length > 1) pill(context, String(length), at, middle, size, GROUND, CUT);
        const before = runs[i - 1];
        const gap = before ? x - before.x - before.length : 0;
        if (before && gap > 1) {
          const between = (x - gap / 2 - camera.left) * camera.scale;
          pill(context, String(gap), between, middle, size * 0.86, CUT, GROUND);
        }
      });
    }
  };
}

function pill(
  context: CanvasRenderingContext2D,
  words: string,
  x: number,
  y: number,
  size: number,
  ground: string,
  ink: string,
): void {
  const width = context.measureText(words).width + size * 0.55;
  context.fillStyle = ground;
  context.beginPath();
  context.roundRect(x - width / 2, y - size * 0.62, width, size * 1.24, size * 0.4);
  context.fill();
  context.fillStyle = ink;
  context.fillText(words, x, y + size * 0.05);
}

/** Squares whose drill came off: a ring that is open, as a seat that is empty. */
export function poppedLayer(cells: readonly number[], columns: number): Layer {
  return (context, camera, view) => {
    for (const cell of cells) {
      const place = placeOfCell(cell, columns);
      const [left, top, side] = toPx({ ...place, width: 1, height: 1 }, camera);
      if (left > view.width || top > view.height || left + side < 0 || top + side < 0) continue;
      context.beginPath();
      context.arc(left + side / 2, top + side / 2, Math.max(4, side * 0.4), -0.2 * Math.PI, 1.45 * Math.PI);
      stroked(context, Math.max(1.5, side * 0.09));
    }
  };
}

/** The rectangle that is being drawn, or whose first corner is set. */
export function areaLayer(area: CellRect): Layer {
  return (context, camera) => {
    const [left, top, width, height] = toPx(area, camera);
    context.save();
    context.setLineDash([8, 5]);
    context.beginPath();
    context.rect(left, top, width, height);
    stroked(context, 2.5);
    context.restore();
  };
}
