import { Refusal } from '../../refusal';
import { many } from '../../words/numbers';

/** A picture as it was decoded. */
export interface Picture {
  width: number;
  height: number;
  /** 4 × width × height bytes, sRGB, row-major. */
  rgba: Uint8Array | Uint8ClampedArray;
}

/** Where the cells of a chart lie on a picture, in pixels. */
export interface CellGrid {
  left: number;
  top: number;
  cellWidth: number;
  cellHeight: number;
}

/** A size in cells. */
export interface Size {
  width: number;
  height: number;
}

/** Cells scaled by no whole number must be at least this large, or neighbours run into each other. */
const LEAST_BROKEN_CELL_PX = 4;
/** Cells are square within this share, where nothing else tells their size. */
const SQUARE_WITHIN = 0.02;

/**
 * Finds the cells of a chart on a picture: one pixel a cell, or larger cells of one size, with or without a plain margin.
 * @param size the canvas in cells
 * @returns with `finer`, the size in cells that the picture seems to have where that is more than the canvas
 * @throws Refusal with a sentence that says what the picture looks like instead
 */
export function findCells(picture: Picture, size: Size): CellGrid & { finer: string | null } {
  const { width, height } = picture;
  const cellWidth = width / size.width;
  const cellHeight = height / size.height;
  const whole = { left: 0, top: 0, cellWidth, cellHeight };
  if (cellWidth === 1 && cellHeight === 1) return { ...whole, finer: null };
  const across = edgeProfile(picture, 'across');
  const down = edgeProfile(picture, 'down');
  const seen = { x: cellPitch(across), y: cellPitch(down) };
  const looks =
    seen.x && seen.y
      ? `${many(Math.round(width / seen.x))} × ${many(Math.round(height / seen.y))} cells`
      : null;
  // Cells that are not square are believed only where their edges say so.
  const seenSo = seen.x === cellWidth && seen.y === cellHeight;
  if (seenSo || (cellWidth === cellHeight && Number.isInteger(cellWidth))) {
    const isFiner = seen.x !== null && seen.x === seen.y && seen.x < cellWidth && cellWidth % seen.x === 0;
    return { ...whole, finer: isFiner ? looks : null };
  }
  const within = cellsInMargin(picture, size, across, down);
  if (within) return { ...within, finer: null };
  const square = Math.abs(cellWidth / cellHeight - 1) <= SQUARE_WITHIN;
  if (looks === null && square && Math.min(cellWidth, cellHeight) >= LEAST_BROKEN_CELL_PX) {
    return { ...whole, finer: null };
  }
  const canvas = `the canvas is ${many(size.width)} × ${many(size.height)} cells`;
  const pixels = `The picture is ${many(width)} × ${many(height)} pixels`;
  throw new Refusal(
    looks !== null
      ? `${pixels} and its cells look ${seen.x} × ${seen.y} pixels large, which makes ${looks}, but ${canvas}. ` +
          'Check the size of the canvas, or cut the picture to the chart alone.'
      : `${pixels}, but ${canvas}. It must have exactly one pixel a cell, or cells that are all of one larger size.`,
  );
}

/** How much stronger edges are between cells than elsewhere, at least, before a lattice is believed. */
const CLEAR_CONTRAST = 3;
/** A margin is plain when it differs from its corner by no more than this on average (sum over the parts). */
const PLAIN_WITHIN = 12;
const RIM_PX = 3;

/** Square cells with a plain margin around them: the lattice of as many lines as the canvas has, on the strongest edges. */
function cellsInMargin(
  picture: Picture,
  size: Size,
  across: Float64Array,
  down: Float64Array,
): CellGrid | null {
  let best: { cell: number; left: number; top: number; score: number } | null = null;
  const largest = Math.floor(Math.min(picture.width / size.width, picture.height / size.height));
  for (let cell = 2; cell <= largest; cell++) {
    const x = strongestLattice(across, cell, size.width);
    const y = strongestLattice(down, cell, size.height);
    const score = x.score + y.score;
    if (best === null || score > best.score) best = { cell, left: x.start, top: y.start, score };
  }
  if (!best || best.score <= 0) return null;
  const { cell, left, top } = best;
  // A closing grid line, blurred by compression, may lie just outside of the last cells.
  return isPlainAround(picture, {
    left: Math.max(0, left - RIM_PX),
    top: Math.max(0, top - RIM_PX),
    right: left + cell * size.width + RIM_PX,
    bottom: top + cell * size.height + RIM_PX,
  })
    ? { left, top, cellWidth: cell, cellHeight: cell }
    : null;
}

/** Where a lattice of so many cells fits the edges best; the score is negative where they do not stand out. */
function strongestLattice(
  edges: Float64Array,
  cell: number,
  cells: number,
): { start: number; score: number } {
  const sum = edges.reduce((all, edge) => all + edge, 0);
  let best = { start: 0, score: Number.NEGATIVE_INFINITY };
  for (let start = 0; start + cell * cells <= edges.length; start++) {
    let on = 0;
    for (let i = 0; i <= cells; i++) on += edges[start + i * cell] ?? 0;
    const score = on / (cells + 1) - (CLEAR_CONTRAST * (sum - on)) / Math.max(1, edges.length - cells - 1);
    if (score > best.score) best = { start, score };
  }
  return best;
}

function isPlainAround(
  { width, height, rgba }: Picture,
  box: { left: number; top: number; right: number; bottom: number },
): boolean {
  let apart = 0;
  let count = 0;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (y >= box.top && y < box.bottom && x === box.left) x = box.right;
      if (x >= width) break;
      const at = (y * width + x) * 4;
      for (let part = 0; part < 4; part++) apart += Math.abs(rgba[at + part]! - rgba[part]!);
      count++;
    }
  }
  return count === 0 || apart / count <= PLAIN_WITHIN;
}

const LARGEST_CELL_PX = 200;

/**
 * The distance at which edges repeat. Half and double distances lose to the true one, because they count lines
 * without an edge as edges, or edges as none.
 * @param edges strength of the edge ahead of each pixel
 * @returns null when edges do not repeat clearly
 */
export function cellPitch(edges: Float64Array): number | null {
  const { length } = edges;
  const sum = edges.reduce((all, edge) => all + edge, 0);
  let best: { pitch: number; score: number; clear: boolean } | null = null;
  for (let pitch = 2; pitch <= Math.min(LARGEST_CELL_PX, length >> 2); pitch++) {
    for (let phase = 0; phase < pitch; phase++) {
      let onLattice = 0;
      let lines = 0;
      for (let at = phase === 0 ? pitch : phase; at < length; at += pitch) {
        onLattice += edges[at]!;
        lines++;
      }
      const on = onLattice / lines;
      const off = (sum - onLattice) / (length - 1 - lines);
      if (best === null || on - off > best.score + 1e-9) {
        best = { pitch, score: on - off, clear: on > CLEAR_CONTRAST * off };
      }
    }
  }
  return best?.clear && best.score > 0 ? best.pitch : null;
}

const PROFILE_LINES = 400;

/** Mean colour step ahead of each pixel column (or row), over at most 400 lines. */
function edgeProfile({ width, height, rgba }: Picture, direction: 'across' | 'down'): Float64Array {
  const [length, lines, step, lineStep] =
    direction === 'across' ? [width, height, 1, width] : [height, width, width, 1];
  const edges = new Float64Array(length);
  const stride = Math.max(1, Math.floor(lines / PROFILE_LINES));
  for (let line = 0; line < lines; line += stride) {
    for (let at = 1; at < length; at++) {
      const here = (at * step + line * lineStep) * 4;
      const before = here - step * 4;
      for (let part = 0; part < 4; part++) {
        edges[at]! += Math.abs(rgba[here + part]! - rgba[before + part]!);
      }
    }
  }
  return edges;
}
