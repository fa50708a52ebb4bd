import type { CellRect } from '../cells/chart';
import { boxAround, type CellPart } from '../cells/rect';
import { seededRandom } from '../chance/random';
import { largest } from '../words/numbers';
import { type CutPiece, type CutTask, pieceCost, sittingsIn } from './cutTask';
import { type Lattice, latticeOver } from './lattice';

/** A sitting is about so many blocks wide: its borders go in steps of a block. */
const BLOCKS = 7.5;
/** Moves tried for each block, where the task allows so many. */
const MOVES_A_BLOCK = 850;
/** What one step of border costs, in openings: keeps the borders short and straight where nothing is won by a step. */
const BORDER = 0.3;
/** A move that is so many openings worse is taken in the beginning now and then, to get out of a poor corner. */
const WARMTH = 2;
/** The same where a good cut is only set right. */
const COOL = 0.3;
const TOLD_EVERY = 1 << 16;

/** Which piece each block of a lattice belongs to. */
export interface SteppedCut {
  lattice: Lattice;
  /** Index of the piece, by block. */
  owners: Int16Array;
}

/** Blocks of an area in which sittings are of the wished length. */
function blockLattice(task: CutTask): Lattice {
  const side = Math.sqrt((task.area.width * task.area.height) / sittingsIn(task));
  const { width, height } = task.most;
  const step = Math.max(1, Math.min(Math.round(side / BLOCKS), width, height));
  return latticeOver(task, task.snap > 1 ? task.snap : step);
}

/**
 * Moves the borders of pieces block by block, so that fewer colours are opened and sittings are more even: simulated
 * annealing (Kirkpatrick, Gelatt & Vecchi 1983) with moves of one block to a neighbouring piece; a piece stays in one part.
 * The same task gives the same cut.
 * @param pieces rectangles that cover the area
 * @param mostMoves so many moves at most, which is what takes the time
 * @param report share that is done, 0…1
 */
export function steppedCuts(
  task: CutTask,
  pieces: readonly CutPiece[],
  mostMoves: number,
  report: (done: number) => void = () => {},
): SteppedCut {
  const lattice = blockLattice(task);
  const { columns, rows } = lattice;
  const owners = new Int16Array(columns * rows);
  for (let block = 0; block < owners.length; block++) {
    const { x, y, width, height } = lattice.cellsOf(placeOf(block, columns));
    const [atX, atY] = [x + (width >> 1), y + (height >> 1)];
    owners[block] = pieces.findIndex(
      ({ rect }) => atX >= rect.x && atY >= rect.y && atX < rect.x + rect.width && atY < rect.y + rect.height,
    );
  }
  const kept = withoutSplinters(owners, columns, pieces.length);
  anneal(task, lattice, kept, pieces.length, { most: mostMoves, warmth: WARMTH }, report);
  return { lattice, owners: kept };
}

/**
 * Goes on from a cut with better weights: only moves that make it better, or hardly worse.
 * @param pieces number of its pieces
 */
export function evenedOut(
  task: CutTask,
  { lattice, owners }: SteppedCut,
  pieces: number,
  mostMoves: number,
  report: (done: number) => void = () => {},
): SteppedCut {
  const better = latticeOver(task, lattice.step);
  const kept = owners.slice();
  anneal(task, better, kept, pieces, { most: mostMoves, warmth: COOL }, report);
  return { lattice: better, owners: kept };
}

/** The cells of each piece. @param pieces number of them */
export function partsOf({ lattice, owners }: SteppedCut, pieces: number): CellPart[] {
  const rects: CellRect[][] = Array.from({ length: pieces }, () => []);
  owners.forEach((owner, block) => {
    rects[owner]!.push(lattice.cellsOf(placeOf(block, lattice.columns)));
  });
  return rects.map((own) => ({ ...boxAround(own), rects: own }));
}

function placeOf(block: number, columns: number) {
  return { x: block % columns, y: Math.floor(block / columns), width: 1, height: 1 };
}

/** Pieces that are narrower than a block own none: they are left out, and the others move up. */
function withoutSplinters(owners: Int16Array, columns: number, pieces: number): Int16Array {
  const blocks = new Array<number>(pieces).fill(0);
  for (const owner of owners) blocks[owner]!++;
  const empty = blocks.flatMap((count, piece) => (count === 0 ? [piece] : []));
  // A piece without a block takes one from the largest, wherever that lies: annealing evens it out.
  for (const piece of empty) {
    const fullest = blocks.indexOf(largest(blocks));
    if (blocks[fullest]! < 2) break;
    const edge = owners.findIndex(
      (owner, block) => owner === fullest && (block % columns === 0 || owners[block - 1] !== fullest),
    );
    owners[edge] = piece;
    blocks[fullest]!--;
    blocks[piece]!++;
  }
  return owners;
}

function anneal(
  task: CutTask,
  lattice: Lattice,
  owners: Int16Array,
  pieces: number,
  { most: mostMoves, warmth: start }: { most: number; warmth: number },
  report: (done: number) => void,
): void {
  const { columns, rows, words, seconds } = lattice;
  const blocks = owners.length;
  const bits = words * 32;
  const { opening, most } = task;
  const inBlock = coloursInBlocks(lattice);
  // How many blocks of a piece hold a colour: it is opened as long as one does.
  const held = new Uint16Array(pieces * bits);
  const taken = new Float64Array(pieces);
  const opened = new Int32Array(pieces);
  const size = new Int32Array(pieces);
  const bounds = Array.from({ length: pieces }, () => ({ left: columns, right: -1, top: rows, bottom: -1 }));
  const limited = most.width !== Infinity || most.height !== Infinity;
  for (let block = 0; block < blocks; block++) {
    const piece = owners[block]!;
    size[piece]!++;
    taken[piece]! += seconds[block]!;
    for (const colour of inBlock[block]!) if (held[piece * bits + colour]!++ === 0) opened[piece]!++;
    grow(bounds[piece]!, block % columns, Math.floor(block / columns));
  }
  const { uniform: random } = seededRandom(blocks * 31 + pieces);
  const moves = pieces < 2 ? 0 : Math.min(mostMoves, MOVES_A_BLOCK * blocks);
  const cost = (piece: number, more: number, colours: number) =>
    pieceCost(task, taken[piece]! + more + opening * (opened[piece]! + colours), opened[piece]! + colours);
  const beside = [-1, 1, -columns, columns];
  for (let move = 0; move < moves; move++) {
    if (move % TOLD_EVERY === 0) report(move / moves);
    const block = Math.floor(random() * blocks);
    const x = block % columns;
    const y = (block - x) / columns;
    const side = Math.floor(random() * 4);
    if ((side === 0 && x === 0) || (side === 1 && x === columns - 1)) continue;
    if ((side === 2 && y === 0) || (side === 3 && y === rows - 1)) continue;
    const from = owners[block]!;
    const to = owners[block + beside[side]!]!;
    if (from === to || size[from]! < 2) continue;
    let [fewer, more] = [0, 0];
    for (const colour of inBlock[block]!) {
      if (held[from * bits + colour] === 1) fewer++;
      if (held[to * bits + colour] === 0) more++;
    }
    let border = 0;
    if (x > 0) border += step(owners[block - 1]!, from, to);
    if (x < columns - 1) border += step(owners[block + 1]!, from, to);
    if (y > 0) border += step(owners[block - columns]!, from, to);
    if (y < rows - 1) border += step(owners[block + columns]!, from, to);
    const own = seconds[block]!;
    const worse =
      BORDER * border + cost(from, -own, -fewer) - cost(from, 0, 0) + cost(to, own, more) - cost(to, 0, 0);
    const warmth = start * (1 - move / moves) ** 2 + 1e-9;
    if (worse > 0 && random() >= Math.exp(-worse / warmth)) continue;
    if (!staysWhole(owners, columns, rows, x, y, from)) continue;
    if (limited && !fitsWith(lattice, bounds[to]!, x, y, most)) continue;
    owners[block] = to;
    taken[from]! -= own;
    taken[to]! += own;
    opened[from]! -= fewer;
    opened[to]! += more;
    size[from]!--;
    size[to]!++;
    for (const colour of inBlock[block]!) {
      held[from * bits + colour]!--;
      held[to * bits + colour]!++;
    }
    grow(bounds[to]!, x, y);
  }
  report(1);
}

/** By how much a side of a block adds to the borders when the block goes from one piece to another. */
function step(owner: number, from: number, to: number): number {
  return owner === from ? 1 : owner === to ? -1 : 0;
}

interface Bounds {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

function grow(bounds: Bounds, x: number, y: number): void {
  bounds.left = Math.min(bounds.left, x);
  bounds.right = Math.max(bounds.right, x);
  bounds.top = Math.min(bounds.top, y);
  bounds.bottom = Math.max(bounds.bottom, y);
}

/** Whether a piece still fits a light pad or an arm with one block more. */
function fitsWith(lattice: Lattice, bounds: Bounds, x: number, y: number, most: CutTask['most']): boolean {
  const grown = { ...bounds };
  grow(grown, x, y);
  const { width, height } = lattice.cellsOf({
    x: grown.left,
    y: grown.top,
    width: grown.right - grown.left + 1,
    height: grown.bottom - grown.top + 1,
  });
  return width <= most.width && height <= most.height;
}

/** Whether a piece stays in one part without a block: the blocks of the piece around it hang together. */
function staysWhole(
  owners: Int16Array,
  columns: number,
  rows: number,
  x: number,
  y: number,
  piece: number,
): boolean {
  let around = 0;
  for (let i = 0; i < 8; i++) {
    const [atX, atY] = [x + RING_X[i]!, y + RING_Y[i]!];
    if (atX >= 0 && atY >= 0 && atX < columns && atY < rows && owners[atY * columns + atX] === piece) {
      around |= 1 << i;
    }
  }
  let parts = 0;
  for (let i = 0; i < 8; i += 2) {
    if (!(around & (1 << i))) continue;
    // It hangs on to the side before it, where the corner between belongs to the piece as well.
    if (!(around & (1 << ((i + 7) & 7)) && around & (1 << ((i + 6) & 7)))) parts++;
  }
  return parts <= 1;
}

/** The neighbours of a block, clockwise from the one above. */
const RING_X = [0, 1, 1, 1, 0, -1, -1, -1];
const RING_Y = [-1, -1, 0, 1, 1, 1, 0, -1];

function coloursInBlocks({ columns, rows, words, masks }: Lattice): Uint16Array[] {
  return Array.from({ length: columns * rows }, (_, block) => {
    const colours: number[] = [];
    for (let colour = 0; colour < words * 32; colour++) {
      if (masks[block * words + (colour >> 5)]! & (1 << (colour & 31))) colours.push(colour);
    }
    return Uint16Array.from(colours);
  });
}
