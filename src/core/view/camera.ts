import type { CellRect } from '../cells/chart';

/** Where the eye is: pixels a cell, and which cell position (fractional) lies at the view's top left. */
export interface Camera {
  scale: number;
  left: number;
  top: number;
}

/** View size in pixels. */
export interface ViewSize {
  width: number;
  height: number;
}

/** The closest look: about five cells across a usual screen. */
const MAX_SCALE = 160;

/** Cells at least this many pixels wide are drawn one by one, with symbols. */
export const SYMBOLS_FROM_PX = 12;

/** Where cells are drawn one by one, they are whole pixels wide, so that symbols are sharp. */
export function crispScale(scale: number): number {
  return scale < SYMBOLS_FROM_PX ? scale : Math.round(scale);
}

/** Shows the whole rectangle in the middle, with a margin in pixels. */
export function fitCamera(rect: CellRect, view: ViewSize, marginPx = 24): Camera {
  const fitting = Math.min(
    MAX_SCALE,
    Math.max(view.width - 2 * marginPx, 1) / rect.width,
    Math.max(view.height - 2 * marginPx, 1) / rect.height,
  );
  const scale = fitting < SYMBOLS_FROM_PX ? fitting : Math.floor(fitting);
  return {
    scale,
    left: rect.x + rect.width / 2 - view.width / scale / 2,
    top: rect.y + rect.height / 2 - view.height / scale / 2,
  };
}

/** Zooms by a factor so that the point under the fingers (pixels) stays where it is. */
export function zoomAbout(camera: Camera, factor: number, px: number, py: number, minScale: number): Camera {
  const scale = Math.min(MAX_SCALE, Math.max(minScale, camera.scale * factor));
  return {
    scale,
    left: camera.left + px / camera.scale - px / scale,
    top: camera.top + py / camera.scale - py / scale,
  };
}

/** Moves the cloth by so many pixels. */
export function panBy(camera: Camera, dx: number, dy: number): Camera {
  return { ...camera, left: camera.left - dx / camera.scale, top: camera.top - dy / camera.scale };
}

/** Keeps at least a quarter of the view on the cloth, so that it can never be lost. */
export function keepInSight(
  camera: Camera,
  cloth: { width: number; height: number },
  view: ViewSize,
): Camera {
  const across = view.width / camera.scale;
  const down = view.height / camera.scale;
  const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);
  return {
    scale: camera.scale,
    left: clamp(camera.left, -across * 0.75, cloth.width - across * 0.25),
    top: clamp(camera.top, -down * 0.75, cloth.height - down * 0.25),
  };
}

/** Scrolls just so far that this cell is in view with a margin of cells around it. */
export function reveal(camera: Camera, x: number, y: number, view: ViewSize, marginCells = 2): Camera {
  const across = view.width / camera.scale;
  const down = view.height / camera.scale;
  const shift = (start: number, length: number, cell: number) => {
    const margin = Math.min(marginCells, Math.max(0, (length - 1) / 2));
    if (cell - margin < start) return cell - margin;
    if (cell + 1 + margin > start + length) return cell + 1 + margin - length;
    return start;
  };
  return { scale: camera.scale, left: shift(camera.left, across, x), top: shift(camera.top, down, y) };
}

/** What is followed stays within this share of the view, so that what lies around it is seen too. */
const FOLLOWED_WITHIN = 0.7;

/**
 * Brings a rectangle of cells near: cells at least so large, and the rectangle within the middle of the view. Nothing
 * moves while it is there already, for a picture that jumps tires the eyes.
 * @param leastScale pixels a cell; less where the rectangle would not fit
 */
export function followRect(camera: Camera, rect: CellRect, view: ViewSize, leastScale: number): Camera {
  const room = {
    width: (view.width * FOLLOWED_WITHIN) / rect.width,
    height: (view.height * FOLLOWED_WITHIN) / rect.height,
  };
  const scale = Math.min(
    Math.max(camera.scale, leastScale),
    MAX_SCALE,
    Math.max(1, Math.min(room.width, room.height)),
  );
  const middle = {
    x: camera.left + view.width / camera.scale / 2,
    y: camera.top + view.height / camera.scale / 2,
  };
  const shift = (centre: number, start: number, length: number, pixels: number) => {
    const reach = (pixels / scale) * (FOLLOWED_WITHIN / 2);
    if (start < centre - reach) return start + reach;
    if (start + length > centre + reach) return start + length - reach;
    return centre;
  };
  return {
    scale,
    left: shift(middle.x, rect.x, rect.width, view.width) - view.width / scale / 2,
    top: shift(middle.y, rect.y, rect.height, view.height) - view.height / scale / 2,
  };
}

/** The cell under a point of the view; null beside the cloth. */
export function cellAt(
  camera: Camera,
  px: number,
  py: number,
  cloth: { width: number; height: number },
): { x: number; y: number } | null {
  const x = Math.floor(camera.left + px / camera.scale);
  const y = Math.floor(camera.top + py / camera.scale);
  return x >= 0 && y >= 0 && x < cloth.width && y < cloth.height ? { x, y } : null;
}

/** The cells that are at least partly in view; width or height 0 when none is. */
export function visibleCells(
  camera: Camera,
  view: ViewSize,
  cloth: { width: number; height: number },
): CellRect {
  const x = Math.max(0, Math.floor(camera.left));
  const y = Math.max(0, Math.floor(camera.top));
  const endX = Math.min(cloth.width, Math.ceil(camera.left + view.width / camera.scale));
  const endY = Math.min(cloth.height, Math.ceil(camera.top + view.height / camera.scale));
  return { x, y, width: Math.max(0, endX - x), height: Math.max(0, endY - y) };
}
