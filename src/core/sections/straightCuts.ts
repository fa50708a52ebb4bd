import type { CellRect } from '../cells/chart';
import { boxAround, isInside, overlapOf } from '../cells/rect';
import { type CutPiece, type CutTask, pieceCost, sittingsIn } from './cutTask';
import { type Lattice, latticeOver } from './lattice';

/** A cut of a few sittings is tried where it is this near to an even one, as a share of a sitting. */
const NEAR = 0.17;
/** A sitting is about so many steps of the first, coarse lattice wide: coarse enough to be quick, fine enough to be even. */
const STEPS = 20;

/** Groups of neighbours that are cut anew at most. */
const MOST_MENDED = 250;
/** Lines of a rectangle that are tried for a halving. */
const HALVINGS = 24;
/** So many steps of the lattice make one of the rough lattice on which halvings are judged. */
const ROUGH = 4;
/** No piece of a plain grid is longer than so many times its width. */
const LONGEST = 5;

/**
 * Cuts an area into sittings of even length that open few colours, by straight cuts from edge to edge of what is still
 * whole. A large area is halved where its halves would open the fewest colours, until few sittings are left, which are cut
 * by the best of all likely cuts. Then neighbours that make a rectangle together are cut anew, where that is better.
 * @param report share that is done, 0…1
 */
export function straightCuts(task: CutTask, report: (done: number) => void = () => {}): CutPiece[] {
  const { area, snap, most } = task;
  const pieces = sittingsIn(task);
  const side = Math.sqrt((area.width * area.height) / pieces);
  const step = snap > 1 ? snap : Math.max(1, Math.min(Math.round(side / STEPS), most.width, most.height));
  const coarse = new Cutter(task, latticeOver(task, step));
  const found = coarse.cut(pieces, (done) => report(0.5 * done));
  const better = coarse.mended(found, (done) => report(0.5 + 0.4 * done));
  // What is left over by the coarse steps is evened out cell by cell.
  return step === 1 || snap > 1
    ? coarse.told(better)
    : new Cutter(task, latticeOver(task, 1)).nudged(coarse.told(better));
}

/** A piece in steps of the lattice. */
interface Block extends CellRect {
  seconds: number;
  colours: number;
}

interface Found {
  cost: number;
  blocks: Block[];
}

/** Seconds and colours on either side of each line of a rectangle. */
interface Profile {
  /** Seconds of the first n lines, openings left out. */
  before: Float64Array;
  /** Load of the first n lines. */
  load: Float64Array;
  coloursBefore: Uint16Array;
  coloursAfter: Uint16Array;
}

class Cutter {
  private readonly rough: Lattice;

  constructor(
    private readonly task: CutTask,
    private readonly lattice: Lattice,
  ) {
    this.rough = latticeOver(task, lattice.step * ROUGH);
  }

  cut(pieces: number, report: (done: number) => void): Block[] {
    const { columns, rows } = this.lattice;
    let done = 0;
    const told = (found: number) => {
      done += found;
      report(done / pieces);
    };
    return this.split({ x: 0, y: 0, width: columns, height: rows }, pieces, told);
  }

  /** Pieces in cells of the canvas. */
  told(blocks: readonly Block[]): CutPiece[] {
    return blocks.map((block) => ({
      rect: this.lattice.cellsOf(block),
      seconds: block.seconds,
      colours: block.colours,
    }));
  }

  private split(rect: CellRect, pieces: number, told: (pieces: number) => void): Block[] {
    const fits = this.fits(rect);
    if (fits && pieces <= this.task.tried) {
      const tried = this.tryAll(rect, pieces, Infinity);
      if (tried) {
        told(pieces);
        return tried.blocks;
      }
    }
    const cut = pieces > 1 || !fits ? this.bestHalving(rect, pieces) : null;
    if (!cut) {
      told(pieces);
      return [this.blockOf(rect)];
    }
    return [
      ...this.split(cut.first, cut.pieces, told),
      ...this.split(cut.second, Math.max(1, pieces - cut.pieces), told),
    ];
  }

  private fits(rect: CellRect): boolean {
    const { most } = this.task;
    if (most.width === Infinity && most.height === Infinity) return true;
    const { width, height } = this.lattice.cellsOf(rect);
    return width <= most.width && height <= most.height;
  }

  private blockOf(rect: CellRect): Block {
    const { before, coloursBefore } = this.profile(rect, true);
    const colours = coloursBefore[rect.width]!;
    return { ...rect, colours, seconds: before[rect.width]! + colours * this.task.opening };
  }

  private profile(rect: CellRect, across: boolean): Profile {
    const { columns, words, masks, seconds, load } = this.lattice;
    const [lines, length] = across ? [rect.width, rect.height] : [rect.height, rect.width];
    const along = across ? columns : 1;
    const next = across ? 1 : columns;
    const first = rect.y * columns + rect.x;
    const own = new Uint32Array(lines * words);
    const before = new Float64Array(lines + 1);
    const loads = new Float64Array(lines + 1);
    for (let at = 0; at < lines; at++) {
      let [sum, heavy] = [0, 0];
      let block = first + at * next;
      for (let i = 0; i < length; i++, block += along) {
        sum += seconds[block]!;
        heavy += load[block]!;
        for (let w = 0; w < words; w++) own[at * words + w]! |= masks[block * words + w]!;
      }
      before[at + 1] = before[at]! + sum;
      loads[at + 1] = loads[at]! + heavy;
    }
    const coloursBefore = new Uint16Array(lines + 1);
    const coloursAfter = new Uint16Array(lines + 1);
    const so = new Uint32Array(words);
    for (let at = 0; at < lines; at++) {
      for (let w = 0; w < words; w++) so[w]! |= own[at * words + w]!;
      coloursBefore[at + 1] = bits(so);
    }
    so.fill(0);
    for (let at = lines - 1; at >= 0; at--) {
      for (let w = 0; w < words; w++) so[w]! |= own[at * words + w]!;
      coloursAfter[at] = bits(so);
    }
    return { before, load: loads, coloursBefore, coloursAfter };
  }

  private cost(seconds: number, colours: number): number {
    return pieceCost(this.task, seconds, colours);
  }

  /** The cheapest way of cutting a rectangle into a few pieces, cheaper than a limit; null where there is none. */
  private tryAll(rect: CellRect, pieces: number, limit: number): Found | null {
    if (pieces === 1) {
      const block = this.blockOf(rect);
      const cost = this.cost(block.seconds, block.colours);
      return cost < limit ? { cost, blocks: [block] } : null;
    }
    const { opening, thrift } = this.task;
    let best: Found | null = null;
    let least = limit;
    for (const across of [true, false]) {
      const lines = across ? rect.width : rect.height;
      if (lines < 2) continue;
      const { before, load, coloursBefore, coloursAfter } = this.profile(rect, across);
      const all = before[lines]!;
      const share = load[lines]! / pieces;
      const length = this.lengthCost(rect, across);
      for (let first = 1; first < pieces; first++) {
        const sittingsBefore = (at: number): number => {
          const a = before[at]! + coloursBefore[at]! * opening;
          const b = all - before[at]! + coloursAfter[at]! * opening;
          if (pieces === 2) return (2 * a) / (a + b);
          if (first === 1) return a / share;
          return first === pieces - 1 ? pieces - b / share : (load[at]! / load[lines]!) * pieces;
        };
        for (const at of this.near(rect, across, sittingsBefore, first, pieces)) {
          const [left, right] = [coloursBefore[at]!, coloursAfter[at]!];
          const a = before[at]! + left * opening;
          const b = all - before[at]! + right * opening;
          // No side opens fewer colours than it holds.
          if (length + (left + right) * thrift >= least) continue;
          const [one, two] = halves(rect, across, at);
          const found1 =
            first === 1
              ? { cost: this.cost(a, left), blocks: [{ ...one, seconds: a, colours: left }] }
              : this.tryAll(one, first, least - length - right * thrift);
          if (!found1) continue;
          const room = least - length - found1.cost;
          const found2 =
            pieces - first === 1
              ? { cost: this.cost(b, right), blocks: [{ ...two, seconds: b, colours: right }] }
              : this.tryAll(two, pieces - first, room);
          if (!found2 || found2.cost >= room) continue;
          least = found1.cost + found2.cost + length;
          best = { cost: least, blocks: [...found1.blocks, ...found2.blocks] };
        }
      }
    }
    return best;
  }

  /** A long cut is one more border to keep straight: it counts a little. */
  private lengthCost(rect: CellRect, across: boolean): number {
    return 0.01 * this.lattice.step * (across ? rect.height : rect.width);
  }

  /** Places for a cut before which `first` of `pieces` sittings lie, about; the nearest one at least. */
  private near(
    rect: CellRect,
    across: boolean,
    sittingsBefore: (at: number) => number,
    first: number,
    pieces: number,
  ): number[] {
    const lines = across ? rect.width : rect.height;
    const slack = NEAR * Math.min(first, pieces - first, 2);
    const found: number[] = [];
    let nearest = 1;
    let least = Infinity;
    for (let at = 1; at < lines; at++) {
      const off = Math.abs(sittingsBefore(at) - first);
      if (off <= slack) found.push(at);
      if (off < least) {
        least = off;
        nearest = at;
      }
    }
    return found.length > 0 ? found : [nearest];
  }

  /**
   * The line along which a large rectangle is cut in two, and the sittings before it: where both sides, cut on into plain
   * grids, would open the fewest colours, and whole sittings fit on either side.
   */
  private bestHalving(
    rect: CellRect,
    pieces: number,
  ): { first: CellRect; second: CellRect; pieces: number } | null {
    let best: { score: number; across: boolean; at: number; pieces: number } | null = null;
    const { most, thrift } = this.task;
    const size = this.lattice.cellsOf(rect);
    const [wide, high] = [size.width > most.width, size.height > most.height];
    for (const across of [true, false]) {
      if (wide !== high && across !== wide) continue;
      const lines = across ? rect.width : rect.height;
      const { load } = this.profile(rect, across);
      const all = load[lines]!;
      const places: { at: number; first: number; off: number }[] = [];
      for (let at = 1; at < lines; at++) {
        const share = all > 0 ? (load[at]! / all) * pieces : (at / lines) * pieces;
        if (pieces > 1 && lines > 3 && (share < pieces * 0.2 || share > pieces * 0.8)) continue;
        const first = Math.max(1, Math.min(pieces - 1, Math.round(share)));
        places.push({
          at,
          first,
          off: Math.abs(share - first) / Math.max(1, Math.min(first, pieces - first)),
        });
      }
      // Of neighbouring lines the one is tried after which whole sittings fit best.
      const group = Math.max(1, Math.ceil(places.length / HALVINGS));
      for (let i = 0; i < places.length; i += group) {
        const { at, first, off } = places
          .slice(i, i + group)
          .reduce((least, place) => (place.off < least.off ? place : least));
        const [one, two] = halves(rect, across, at);
        const opened = this.gridColours(one, first) + this.gridColours(two, Math.max(1, pieces - first));
        const score = opened * thrift + this.lengthCost(rect, across) + 400 * pieces * off * off;
        if (!best || score < best.score) best = { score, across, at, pieces: first };
      }
    }
    if (!best) return null;
    const [first, second] = halves(rect, best.across, best.at);
    return { first, second, pieces: best.pieces };
  }

  /** Colours that a rectangle opens in all when it is cut into so many pieces by a plain grid: the best of several. */
  private gridColours(rect: CellRect, pieces: number): number {
    const { columns, words, masks } = this.rough;
    const m = ROUGH;
    const x0 = Math.floor(rect.x / m);
    const y0 = Math.floor(rect.y / m);
    const width = Math.max(1, Math.min(columns, Math.ceil((rect.x + rect.width) / m)) - x0);
    const height = Math.max(1, Math.min(this.rough.rows, Math.ceil((rect.y + rect.height) / m)) - y0);
    let best = Infinity;
    const mask = new Uint32Array(words);
    for (let across = 1; across <= pieces && across <= width; across++) {
      const down = Math.min(height, Math.max(1, Math.round(pieces / across)));
      const shape = width / across / (height / down);
      if (shape > LONGEST || shape < 1 / LONGEST) continue;
      let colours = 0;
      for (let r = 0; r < down; r++) {
        const [top, bottom] = [Math.round((height * r) / down), Math.round((height * (r + 1)) / down)];
        for (let c = 0; c < across; c++) {
          const [left, right] = [Math.round((width * c) / across), Math.round((width * (c + 1)) / across)];
          mask.fill(0);
          for (let y = y0 + top; y < y0 + bottom; y++) {
            for (
              let block = (y * columns + x0 + left) * words, end = (y * columns + x0 + right) * words;
              block < end;
            ) {
              for (let w = 0; w < words; w++) mask[w]! |= masks[block++]!;
            }
          }
          colours += bits(mask);
        }
      }
      best = Math.min(best, (colours * pieces) / (across * down));
    }
    return best;
  }

  /** Cuts neighbours anew that make a rectangle together, wherever that is cheaper. */
  mended(blocks: readonly Block[], report: (done: number) => void): Block[] {
    let now = [...blocks];
    const tries = blocks.length < 2 || this.task.tried < 3 ? 0 : Math.min(MOST_MENDED, 3 * blocks.length);
    const seen = new Set<string>();
    for (let i = 0; i < tries; i++) {
      report(i / tries);
      const group = this.rectangleOf(now, i);
      if (!group) continue;
      const { box, members } = group;
      const key = members.map(({ x, y, width, height }) => `${x},${y},${width},${height}`).join(' ');
      if (seen.has(key)) continue;
      seen.add(key);
      const cost = members.reduce((sum, { seconds, colours }) => sum + this.cost(seconds, colours), 0);
      const anew = this.tryAll(box, members.length, cost + this.bordersWithin(members) - 1e-9);
      if (!anew) continue;
      const old = new Set(members);
      now = [...now.filter((block) => !old.has(block)), ...anew.blocks];
    }
    return now;
  }

  /** What the borders between some blocks cost, so that old and new are judged alike. */
  private bordersWithin(members: readonly Block[]): number {
    const around = members.reduce((sum, { width, height }) => sum + width + height, 0);
    const box = boxAround(members);
    return 0.01 * this.lattice.step * (around - box.width - box.height);
  }

  /** A block with neighbours that make a rectangle with it, a few in all; which ones depends on the turn. */
  private rectangleOf(blocks: readonly Block[], turn: number): { box: CellRect; members: Block[] } | null {
    const block = blocks[(turn * 7919) % blocks.length]!;
    const way = Math.floor(turn / blocks.length);
    const probes = [
      { x: block.x + block.width, y: block.y + (way > 1 ? block.height - 1 : 0) },
      { x: block.x + (way > 1 ? block.width - 1 : 0), y: block.y + block.height },
      { x: block.x - 1, y: block.y },
      { x: block.x, y: block.y - 1 },
    ];
    const probe = probes[(turn + way) % 4]!;
    const beside = blocks.find((each) => isInside(each, probe));
    if (!beside) return null;
    let members: Block[] = [block, beside];
    for (;;) {
      const box = boxAround(members);
      const touched = blocks.filter((each) => overlapOf(each, box));
      if (touched.length > this.task.tried) return null;
      if (touched.length === members.length) {
        return this.fits(box) || this.task.most.width === Infinity ? { box, members } : null;
      }
      members = touched;
    }
  }

  /**
   * Cuts pairs that make a rectangle anew, cell by cell, near where they are cut. The lattice has a step of one cell.
   * @param pieces of the same area
   */
  nudged(pieces: readonly CutPiece[]): CutPiece[] {
    const { area } = this.task;
    const now: Block[] = pieces.map(({ rect, seconds, colours }) => ({
      x: rect.x - area.x,
      y: rect.y - area.y,
      width: rect.width,
      height: rect.height,
      seconds,
      colours,
    }));
    for (let i = 0; i < now.length; i++) {
      for (let j = 0; j < now.length; j++) {
        const [a, b] = [now[i]!, now[j]!];
        const across = a.y === b.y && a.height === b.height && a.x + a.width === b.x;
        const down = a.x === b.x && a.width === b.width && a.y + a.height === b.y;
        if (!across && !down) continue;
        const moved = this.betterBorder(boxAround([a, b]), across, across ? a.width : a.height);
        if (!moved) continue;
        [now[i], now[j]] = moved;
      }
    }
    return this.told(now);
  }

  private betterBorder(rect: CellRect, across: boolean, was: number): [Block, Block] | null {
    const { opening } = this.task;
    const lines = across ? rect.width : rect.height;
    const { before, coloursBefore, coloursAfter } = this.profile(rect, across);
    const costAt = (at: number) =>
      this.cost(before[at]! + coloursBefore[at]! * opening, coloursBefore[at]!) +
      this.cost(before[lines]! - before[at]! + coloursAfter[at]! * opening, coloursAfter[at]!);
    let best = was;
    for (let at = 1; at < lines; at++) {
      if (costAt(at) >= costAt(best)) continue;
      const parts = halves(rect, across, at);
      if (parts.every((part) => this.fits(part))) best = at;
    }
    if (best === was) return null;
    const [one, two] = halves(rect, across, best);
    return [
      { ...one, seconds: before[best]! + coloursBefore[best]! * opening, colours: coloursBefore[best]! },
      {
        ...two,
        seconds: before[lines]! - before[best]! + coloursAfter[best]! * opening,
        colours: coloursAfter[best]!,
      },
    ];
  }
}

function halves(rect: CellRect, across: boolean, at: number): [CellRect, CellRect] {
  return across
    ? [
        { x: rect.x, y: rect.y, width: at, height: rect.height },
        { x: rect.x + at, y: rect.y, width: rect.width - at, height: rect.height },
      ]
    : [
        { x: rect.x, y: rect.y, width: rect.width, height: at },
        { x: rect.x, y: rect.y + at, width: rect.width, height: rect.height - at },
      ];
}

function bits(words: Uint32Array): number {
  let found = 0;
  for (let w = 0; w < words.length; w++) {
    let word = words[w]!;
    word -= (word >>> 1) & 0x55555555;
    word = (word & 0x33333333) + ((word >>> 2) & 0x33333333);
    found += (((word + (word >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
  }
  return found;
}
