import type { CellRect } from '../../../cells/chart';
import { Refusal } from '../../../refusal';
import { many } from '../../../words/numbers';
import { type Corners, cornersOf, faultInCorners, isUpright, squareToQuad } from './corners';
import { type Direction, edgeProfile, type Picture } from './edges';
import { findLattice, repeatingDistance } from './lattice';
import type { ReadPicture } from './readPicture';
import { findCorners, uprightCorners } from './skew';

/** A size in cells. */
export interface Size {
  width: number;
  height: number;
}

/** Where the cells of a chart lie on a picture. */
export interface FoundCells {
  corners: Corners;
  by: ReadPicture['by'];
  /** The size in cells that the picture seems to have where that is more than the canvas. */
  finer: string | null;
}

/** Cells scaled by no whole number must be at least this large, or neighbours run into each other. */
const LEAST_BROKEN_CELL_PX = 4;
/** Cells are square within this share, where nothing else tells their size. */
const SQUARE_WITHIN = 0.02;
/** Two ways of laying the cells differ when a corner lies apart by more than this share of a cell. */
const OTHERWISE_FROM = 0.3;
/** One way of laying the cells is believed against another when edges stand out on its lines by so much more. */
const CLEARLY_BETTER = 1.25;
/** Edges on the lines of a lattice that was looked for, as a multiple of those within its cells. */
const LEAST_FIT = 2.2;

/**
 * Finds the cells of a chart on a picture: one pixel a cell, or larger cells of any size, with or without a plain margin,
 * upright, turned by a few degrees, or seen a little from the side.
 * @param size the canvas in cells
 * @param marked corners of the chart as somebody marked them; null to have them found
 * @throws Refusal with a sentence that says what the picture looks like instead
 */
export function findCells(picture: Picture, size: Size, marked: Corners | null = null): FoundCells {
  if (marked) {
    const fault = faultInCorners(marked, picture, size);
    if (fault) throw new Refusal(fault);
    return { corners: marked, by: 'hand', finer: null };
  }
  const cellWidth = picture.width / size.width;
  const cellHeight = picture.height / size.height;
  const whole = cornersOf(0, 0, picture.width, picture.height);
  if (cellWidth === 1 && cellHeight === 1) return { corners: whole, by: 'size', finer: null };
  const bySize = cellsBySize(picture, size, whole);
  if (bySize) return notOtherwise(picture, size, bySize);
  const found = cellsByEdges(picture, size);
  if (found) return { corners: found, by: 'edges', finer: null };
  const looks = looksLike(picture);
  const square = Math.abs(cellWidth / cellHeight - 1) <= SQUARE_WITHIN;
  if (looks === null && square && Math.min(cellWidth, cellHeight) >= LEAST_BROKEN_CELL_PX) {
    // Cells of broken size are taken on trust only where nothing on the picture speaks against them.
    const { within } = stepsAcross(picture, size, whole, { x: 0, y: 0, ...size });
    if (within <= PLAIN_STEP) return { corners: whole, by: 'size', finer: null };
  }
  throw new Refusal(`${whyNot(picture, size, looks)} Or mark the four corners of the chart on the picture.`);
}

function whyNot(picture: Picture, size: Size, looks: Looks | null): string {
  const canvas = `the canvas is ${many(size.width)} × ${many(size.height)} squares`;
  const pixels = `The picture is ${many(picture.width)} × ${many(picture.height)} pixels`;
  return looks !== null
    ? `${pixels} and its squares look ${looks.x} × ${looks.y} pixels large, which makes ${looks.inWords}, but ${canvas}. ` +
        'Check the size of the canvas, or cut the picture to the chart alone.'
    : `${pixels}, but ${canvas}, and no squares of one size can be seen on it.`;
}

interface Looks {
  x: number;
  y: number;
  inWords: string;
}

/** How large its cells look, and how many that would be. */
function looksLike(picture: Picture): Looks | null {
  const x = cellPitch(edgeProfile(picture, 'across'));
  const y = cellPitch(edgeProfile(picture, 'down'));
  if (!x || !y) return null;
  const inWords = `${many(Math.round(picture.width / x))} × ${many(Math.round(picture.height / y))} squares`;
  return { x, y, inWords };
}

/** Cells that fill the picture, as its size alone tells, or that stand in a plain margin by whole pixels. */
function cellsBySize(picture: Picture, size: Size, whole: Corners): FoundCells | null {
  const cellWidth = picture.width / size.width;
  const cellHeight = picture.height / size.height;
  const looks = looksLike(picture);
  // Cells that are not square are believed only where their edges say so.
  const seenSo = looks?.x === cellWidth && looks.y === cellHeight;
  if (seenSo || (cellWidth === cellHeight && Number.isInteger(cellWidth))) {
    const isFiner = looks !== null && looks.x === looks.y && looks.x < cellWidth && cellWidth % looks.x === 0;
    return { corners: whole, by: 'size', finer: isFiner ? looks.inWords : null };
  }
  const within = cellsInMargin(picture, size);
  return within && { corners: within, by: 'edges', finer: null };
}

/** What the size of the picture says, unless the edges on it clearly say otherwise: a photo cut to a round size. */
function notOtherwise(picture: Picture, size: Size, found: FoundCells): FoundCells {
  const fit = fitOf(picture, size, found.corners);
  if (fit > LEAST_CERTAIN_FIT) return found;
  const other = cellsByEdges(picture, size);
  if (!other || fitOf(picture, size, other) < CLEARLY_BETTER * fit) return found;
  return isOtherwise(found.corners, other, picture.width / size.width)
    ? { corners: other, by: 'edges', finer: null }
    : found;
}
/** Lines with edges so much stronger than within the cells leave no doubt. */
const LEAST_CERTAIN_FIT = 6;

function isOtherwise(a: Corners, b: Corners, cellPx: number): boolean {
  return a.some(({ x, y }, i) => Math.hypot(x - b[i]!.x, y - b[i]!.y) > OTHERWISE_FROM * cellPx);
}

/** Cells of any size by the edges between them, upright or turned; what lies around them must be plain. */
function cellsByEdges(picture: Picture, size: Size): Corners | null {
  const upright = (direction: Direction, cells: number) => {
    const edges = edgeProfile(picture, direction);
    return findLattice(edges, cells, repeatingDistance([edges]));
  };
  const across = upright('across', size.width);
  const down = upright('down', size.height);
  const ways: Corners[] = [];
  if (across && down) ways.push(uprightCorners(across, down, size));
  ways.push(...findCorners(picture, size));
  let best: { corners: Corners; fit: number } | null = null;
  for (const corners of ways) {
    if (faultInCorners(corners, picture, size) !== null) continue;
    const fit = fitOf(picture, size, corners);
    // Upright comes first; a turned one must be clearly better.
    if (fit >= LEAST_FIT && fit > (best ? CLEARLY_BETTER * best.fit : 0)) best = { corners, fit };
  }
  return best && isPlainAround(picture, best.corners, size) ? best.corners : null;
}

/** So many lines in each direction are looked at. */
const LINES_LOOKED_AT = 70;
/** On both sides of a line, this share of a cell away, colours are compared. */
const BESIDE = 0.22;
/** Cells of one colour have no more of a step within them. */
const PLAIN_STEP = 4;
/** So much colour step is noise. */
const STEP_FLOOR = 4;

/**
 * How much more colours differ across the lines of a lattice than across the middle of its cells.
 * @param part the cells that are looked at; without it all
 */
export function fitOf(
  picture: Picture,
  size: Size,
  corners: Corners,
  part: CellRect = { x: 0, y: 0, ...size },
): number {
  const { on, within } = stepsAcross(picture, size, corners, part);
  return (on + STEP_FLOOR) / (within + STEP_FLOOR);
}

/** Mean colour steps across the lines of a lattice, and across the middle of its cells (sum over the parts). */
function stepsAcross(
  picture: Picture,
  size: Size,
  corners: Corners,
  part: CellRect,
): { on: number; within: number } {
  const placeOf = squareToQuad(corners);
  const colourStep = (u: number, v: number, du: number, dv: number): number => {
    const [a, b] = [placeOf(u - du, v - dv), placeOf(u + du, v + dv)];
    return difference(picture, a.x, a.y, b.x, b.y);
  };
  const columns = spread(part.x, part.width);
  const rows = spread(part.y, part.height);
  const [du, dv] = [BESIDE / size.width, BESIDE / size.height];
  let [on, within, count] = [0, 0, 0];
  for (const i of columns) {
    for (const j of rows) {
      const [u, v] = [(i + 0.5) / size.width, (j + 0.5) / size.height];
      if (i > 0) on += colourStep(i / size.width, v, du, 0);
      if (j > 0) on += colourStep(u, j / size.height, 0, dv);
      within += colourStep(u, v, du, 0) + colourStep(u, v, 0, dv);
      count += 2;
    }
  }
  return { on: on / count, within: within / count };
}

/** At most so many of some numbers in a row, evenly spread. */
function spread(from: number, size: number): number[] {
  const count = Math.min(size, LINES_LOOKED_AT);
  return Array.from({ length: count }, (_, i) => from + Math.floor((i * size) / count));
}

function difference(
  { width, height, rgba }: Picture,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
): number {
  const index = (x: number, y: number) =>
    4 *
    (Math.min(height - 1, Math.max(0, Math.floor(y))) * width +
      Math.min(width - 1, Math.max(0, Math.floor(x))));
  const [a, b] = [index(x1, y1), index(x2, y2)];
  let apart = 0;
  for (let part = 0; part < 4; part++) apart += Math.abs(rgba[a + part]! - rgba[b + part]!);
  return apart;
}

/** How much stronger edges are between cells than elsewhere, at least, before a lattice is believed. */
const CLEAR_CONTRAST = 3;
/** A margin is plain when it differs from its corner by no more than this on average (sum over the parts). */
const PLAIN_WITHIN = 24;
const RIM_PX = 3;

/** Square cells with a plain margin around them: the lattice of as many lines as the canvas has, on the strongest edges. */
function cellsInMargin(picture: Picture, size: Size): Corners | null {
  const across = edgeProfile(picture, 'across');
  const down = edgeProfile(picture, 'down');
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
  const corners = cornersOf(left, top, left + cell * size.width, top + cell * size.height);
  return isPlainAround(picture, corners, size) ? corners : null;
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

/** Whether what lies around the cells is all of one colour. A closing line, blurred, may lie just outside of them. */
function isPlainAround(picture: Picture, corners: Corners, size: Size): boolean {
  const { width, height, rgba } = picture;
  const rim = isUpright(corners, 1)
    ? RIM_PX
    : Math.max(RIM_PX, (corners[1].x - corners[0].x) / size.width / 3);
  const paper = cornerColour(picture);
  let apart = 0;
  let count = 0;
  for (let y = 0; y < height; y++) {
    const [from, to] = insideAt(corners, y + 0.5, rim);
    for (let x = 0; x < width; x++) {
      if (x >= from && x < to) x = Math.ceil(to);
      if (x >= width) break;
      const at = (y * width + x) * 4;
      for (let part = 0; part < 4; part++) apart += Math.abs(rgba[at + part]! - paper[part]!);
      count++;
    }
  }
  return count === 0 || apart / count <= PLAIN_WITHIN;
}

/** From where to where a row of pixels lies within a quadrilateral that is wider by a rim all round. */
function insideAt(corners: Corners, y: number, rim: number): [from: number, to: number] {
  let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const reach = (x: number) => {
    from = Math.min(from, x - rim);
    to = Math.max(to, x + rim);
  };
  for (const [i, a] of corners.entries()) {
    const b = corners[(i + 1) % 4]!;
    // Where the row meets this side; a row within the rim above or below a corner meets it there.
    for (const row of [y - rim, y, y + rim]) {
      if ((row - a.y) * (row - b.y) > 0) continue;
      reach(a.y === b.y ? a.x : a.x + ((row - a.y) * (b.x - a.x)) / (b.y - a.y));
      if (a.y === b.y) reach(b.x);
    }
  }
  return [from, to];
}

/** The mean colour of the picture's upper left corner. */
function cornerColour({ width, height, rgba }: Picture): number[] {
  const side = Math.min(4, width, height);
  const sum = [0, 0, 0, 0];
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      for (let part = 0; part < 4; part++) sum[part]! += rgba[(y * width + x) * 4 + part]!;
    }
  }
  return sum.map((all) => all / side ** 2);
}

const LARGEST_CELL_PX = 200;

/**
 * The distance in whole pixels at which edges repeat. Half and double distances lose to the true one, because they count
 * lines without an edge as edges, or edges as none.
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
