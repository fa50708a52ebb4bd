import type { CellRect } from '../../core/cells/chart';
import { edgeMarks } from '../../core/cells/edgeMarks';
import { type CellPart, type CellPlace, rectsOf } from '../../core/cells/rect';
import type { Camera, ViewSize } from '../../core/view/camera';
import { CODE_FONT } from './drillSprites';

/** What lies over the cloth: drawn after it, in CSS pixels. */
export type Layer = (context: CanvasRenderingContext2D, camera: Camera, view: ViewSize) => void;

export const LAMP = '#ffdf8a';
export const CUT = '#17130f';

/** A rectangle of cells in CSS pixels of the view: left, top, width, height. */
export function toPx(rect: CellRect, camera: Camera): [number, number, number, number] {
  return [
    (rect.x - camera.left) * camera.scale,
    (rect.y - camera.top) * camera.scale,
    rect.width * camera.scale,
    rect.height * camera.scale,
  ];
}

/** A frame that stands out on any colour. */
export function frameLayer(rect: CellRect): Layer {
  return (context, camera) => {
    const [x, y, w, h] = toPx(rect, camera);
    context.lineWidth = 7;
    context.strokeStyle = CUT;
    context.strokeRect(x, y, w, h);
    context.lineWidth = 3.5;
    context.strokeStyle = LAMP;
    context.strokeRect(x, y, w, h);
  };
}

/** A ring around each of these cells, large enough to be found from afar. */
export function ringsLayer(cells: readonly CellPlace[]): Layer {
  return (context, camera, view) => {
    for (const { x, y } of cells) {
      const [left, top, side] = toPx({ x, y, width: 1, height: 1 }, camera);
      if (left > view.width || top > view.height || left + side < 0 || top + side < 0) continue;
      for (const [width, colour] of [
        [6, CUT],
        [3, LAMP],
      ] as const) {
        context.lineWidth = width;
        context.strokeStyle = colour;
        context.beginPath();
        context.arc(left + side / 2, top + side / 2, Math.max(7, side * 0.72), 0, 2 * Math.PI);
        context.stroke();
      }
    }
  };
}

/** The gaps between panels. Nothing for an undivided canvas. */
export function panelsLayer(panels: readonly CellRect[]): Layer {
  return (context, camera) => {
    for (const panel of panels) {
      const [x, y, w, h] = toPx(panel, camera);
      for (const [thick, colour] of [
        [6, CUT],
        [2, LAMP],
      ] as const) {
        context.fillStyle = colour;
        if (panel.x > 0) context.fillRect(x - thick / 2, y, thick, h);
        if (panel.y > 0) context.fillRect(x, y - thick / 2, w, thick);
      }
    }
  };
}

/** Covers all but one part, as the film covers the rest of the canvas. */
export function coverLayer(open: CellPart, ground: string): Layer {
  return (context, camera, view) => {
    context.save();
    context.globalAlpha = 0.72;
    context.fillStyle = ground;
    context.beginPath();
    context.rect(0, 0, view.width, view.height);
    for (const rect of rectsOf(open)) context.rect(...toPx(rect, camera));
    context.fill('evenodd');
    context.restore();
  };
}

/** The cell in hand. */
export function cursorLayer(x: number, y: number): Layer {
  return (context, camera) => {
    const [left, top, w, h] = toPx({ x, y, width: 1, height: 1 }, camera);
    const grow = Math.max(2, 8 - w / 2);
    context.lineWidth = 5;
    context.strokeStyle = CUT;
    context.strokeRect(left - grow, top - grow, w + 2 * grow, h + 2 * grow);
    context.lineWidth = 2.2;
    context.strokeStyle = '#ffffff';
    context.strokeRect(left - grow, top - grow, w + 2 * grow, h + 2 * grow);
  };
}

/** What a ruler counts. */
export type RulerUnit = 'cells' | 'cm' | 'in';

/** Steps between numbered ruler marks; 50 cells is where canvases carry edge marks. */
const STEPS: Record<RulerUnit, number[]> = {
  cells: [1, 2, 5, 10, 50, 100, 200, 500],
  cm: [0.5, 1, 2, 5, 10, 20, 50, 100],
  in: [0.5, 1, 2, 5, 10, 20, 50],
};

export interface Ruler {
  unit: RulerUnit;
  pitchMm: number;
}

/** Rulers along the upper and left edge: columns and rows from 1, or the length from the edges. */
export function rulerLayer(
  cloth: { width: number; height: number },
  colours: { ink: string; paper: string },
  { unit, pitchMm }: Ruler = { unit: 'cells', pitchMm: 1 },
): Layer {
  const cellsPer = unit === 'cells' ? 1 : (unit === 'cm' ? 10 : 25.4) / pitchMm;
  // A number of cells names the cell, so its mark stands in the middle; a length ends at its mark.
  const shift = unit === 'cells' ? 0.5 : 0;
  return (context, camera, view) => {
    const step = STEPS[unit].find((each) => each * cellsPer * camera.scale >= 46) ?? STEPS[unit].at(-1)!;
    const thick = 22;
    context.fillStyle = colours.paper;
    context.fillRect(0, 0, view.width, thick);
    context.fillRect(0, 0, thick + 12, view.height);
    context.fillStyle = colours.ink;
    context.strokeStyle = colours.ink;
    context.lineWidth = 1;
    context.font = `500 12px ${CODE_FONT}`;
    context.textBaseline = 'middle';
    const marks = (first: number, last: number) => {
      const numbers = [];
      const from = Math.max(1, Math.ceil((first + shift) / cellsPer / step));
      for (let n = from; n * step * cellsPer <= last + 1e-9; n++) numbers.push(n * step);
      return numbers;
    };
    context.textAlign = 'center';
    for (const at of marks(camera.left, Math.min(cloth.width, camera.left + view.width / camera.scale))) {
      const x = (at * cellsPer - shift - camera.left) * camera.scale;
      if (x < thick + 24) continue;
      context.fillText(String(at), x, 9);
      context.fillRect(x - 0.5, 16, 1, 6);
    }
    context.textAlign = 'right';
    for (const at of marks(camera.top, Math.min(cloth.height, camera.top + view.height / camera.scale))) {
      const y = (at * cellsPer - shift - camera.top) * camera.scale;
      if (y < thick + 8) continue;
      context.fillText(String(at), thick + 4, y);
      context.fillRect(thick + 6, y - 0.5, 6, 1);
    }
  };
}

/** Edge marks as they are stuck onto the margin: a flag every so many cells, on all four sides. */
export function edgeMarksLayer(size: { width: number; height: number }, every: number): Layer {
  return (context, camera) => {
    const flag = Math.max(6, Math.min(18, camera.scale * 2));
    const left = -camera.left * camera.scale;
    const top = -camera.top * camera.scale;
    const right = left + size.width * camera.scale;
    const bottom = top + size.height * camera.scale;
    const flagAt = (x: number, y: number, dx: number, dy: number) => {
      context.beginPath();
      context.moveTo(x, y);
      context.lineTo(x + dx, y + dy);
      // Light around dark, to be seen on a bright table and in the evening.
      for (const [width, colour] of [
        [4.5, LAMP],
        [2.5, CUT],
      ] as const) {
        context.lineWidth = width;
        context.strokeStyle = colour;
        context.stroke();
      }
    };
    for (const column of edgeMarks(size.width, every)) {
      const x = left + column * camera.scale;
      flagAt(x, top, 0, -flag);
      flagAt(x, bottom, 0, flag);
    }
    for (const row of edgeMarks(size.height, every)) {
      const y = top + row * camera.scale;
      flagAt(left, y, -flag, 0);
      flagAt(right, y, flag, 0);
    }
  };
}
