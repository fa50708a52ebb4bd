import type { Regions } from '../regions';
import type { BarTable } from './barTable';
import { type ChainSplit, NEVER } from './chainSplit';
import { KERNEL } from './climbKernel';
import { KernelMemory } from './kernelMemory';

/*
 * Steps that raise the bound of a region: prices λ of its cells follow the subgradient of the bound with momentum. They
 * exist twice and come to the same numbers: four chains at a time in WebAssembly (kernels/climbBound.ts), which takes an
 * eighth of the time, and here in TypeScript.
 */

/** Share of the momentum that is kept from step to step, in the arithmetic of 32 bits that both have. */
const KEPT = Math.fround(0.9);
const ADDED = Math.fround(0.1);

/** A region whose bound is raised. */
export interface ClimbGround {
  regions: Regions;
  region: number;
  table: BarTable;
  /** Prices by place; those of the best bound stand there at the end. */
  lambda: Float32Array;
}

/** A climb under way. */
export interface Climb {
  /**
   * Goes on for some steps.
   * @param strides length of every step of the climb
   * @param from the first step to take, counted from 0, and the one before which to rest
   * @param enough in parts; from there on no more is asked for
   * @returns the best bound so far, in parts
   */
  go(strides: Float32Array, from: number, to: number, enough: number): number;
  /** Writes the prices of the best bound. */
  end(): void;
}

/**
 * The bound that prices prove: rows and columns at their cheapest, each by itself.
 * @param slope where given, gets by place how the bound changes with the price of each cell: −1, 0 or 1
 * @returns in parts
 */
export function boundOf(
  { regions, region, table, lambda }: ClimbGround,
  chain: ChainSplit,
  slope: Int8Array | null,
): number {
  const { left, down, starts, byColumn } = regions;
  const { price, taken } = chain;
  const { scale } = table;
  const from = starts[region]!;
  const to = starts[region + 1]!;
  // A chain's least cost is what its cells would pay together, and for each that is left out its price less.
  let bound = 0;
  for (let start = from; start < to; ) {
    let length = 0;
    do {
      const paid = (lambda[start + length]! * scale) | 0;
      bound += paid;
      price[length++] = -paid;
    } while (start + length < to && left[start + length] === 1);
    bound += chain.solve(length, table);
    if (slope) {
      chain.choose(length);
      for (let i = 0; i < length; i++) slope[start + i] = taken[i]! - 1;
    }
    start += length;
  }
  for (let start = from; start < to; ) {
    let length = 0;
    let place: number;
    do {
      place = byColumn[start + length]!;
      price[length++] = -((lambda[place]! * scale) | 0);
    } while (down[place] !== -1);
    bound += chain.solve(length, table);
    if (slope) {
      chain.choose(length);
      for (let i = 0; i < length; i++) slope[byColumn[start + i]!]! += taken[i]!;
    }
    start += length;
  }
  return bound;
}

/** One climb at a time. */
export interface Climbs {
  begin(ground: ClimbGround): Climb;
}

/** The steps in TypeScript. */
export class PlainClimbs implements Climbs {
  private lambda = new Float32Array(0);
  private direction = new Float32Array(0);
  private slope = new Int8Array(0);

  constructor(private readonly chain: ChainSplit) {}

  begin(ground: ClimbGround): Climb {
    const { regions, region } = ground;
    const from = regions.starts[region]!;
    const to = regions.starts[region + 1]!;
    if (this.lambda.length < to) {
      this.lambda = new Float32Array(ground.lambda.length);
      this.direction = new Float32Array(ground.lambda.length);
      this.slope = new Int8Array(ground.lambda.length);
    }
    const { chain, lambda, direction, slope } = this;
    const best = ground.lambda.slice(from, to);
    lambda.set(best, from);
    direction.fill(0, from, to);
    const trial = { ...ground, lambda };
    let top = -Infinity;
    return {
      go: (strides, first, end, enough) => {
        for (let step = first; step < end && top < enough; step++) {
          const bound = boundOf(trial, chain, slope);
          if (bound > top) {
            top = bound;
            best.set(lambda.subarray(from, to));
            if (top >= enough) break;
          }
          const stride = strides[step]!;
          for (let place = from; place < to; place++) {
            const kept = Math.fround(direction[place]! * KEPT);
            const way = Math.fround(kept + Math.fround(slope[place]! * ADDED));
            direction[place] = way;
            lambda[place]! += Math.fround(stride * way);
          }
        }
        return top;
      },
      end: () => ground.lambda.set(best, from),
    };
  }
}

type ClimbKernel = (from: number, to: number, top: number, enough: number, scale: number) => number;

/** Chains of one direction, put together in groups of four. */
interface ChainGroups {
  /** Of each group its first vector, and how many it has. */
  groups: number[];
  vectors: number;
  /** By place less the first of the region: its word among the vectors. */
  words: Int32Array;
}

const VECTOR_BYTES = 16;
/** The words that say where all lies, see kernels/climbBound.ts. */
const HEAD_BYTES = 80;

/** The steps in WebAssembly, in a memory that grows with the largest region. */
class KernelClimbs implements Climbs {
  private readonly memory = new KernelMemory(KERNEL);
  private readonly climb = this.memory.exports.climb as ClimbKernel;

  /** Lays a region out in the memory. */
  begin({ regions, region, table, lambda }: ClimbGround): Climb {
    const { starts } = regions;
    const from = starts[region]!;
    const [rows, columns] = [rowGroups(regions, region), columnGroups(regions, region)];
    const widest = table.barParts.length - 1;
    const longest = Math.max(rows.groups[1]!, columns.groups[1]!);
    const { memory } = this;
    memory.layFrom(HEAD_BYTES);
    const room = (vectors: number) => memory.room(vectors * VECTOR_BYTES);
    const rowsAt = room(rows.groups.length / 4 + 1);
    const columnsAt = room(columns.groups.length / 4 + 1);
    const rowPrices = room(rows.vectors);
    // After all columns a word that belongs to none: what has no cell among the rows points there.
    const columnPrices = room(columns.vectors + 1);
    const rowTaken = room(rows.vectors);
    const columnTaken = room(columns.vectors + 1);
    const lambdaAt = room(rows.vectors);
    const bestAt = room(rows.vectors);
    const direction = room(rows.vectors);
    const columnOf = room(rows.vectors);
    const never = room(widest);
    const costs = room(longest + 1);
    const drills = room(longest);
    const bars = room(widest + 1);
    const stridesAt = room(0);
    const words = memory.words();
    words.fill(0, 0, stridesAt / 4);
    words.set(rows.groups, rowsAt / 4);
    words.set(columns.groups, columnsAt / 4);
    words.fill(NEVER, never / 4, costs / 4);
    for (const [size, cost] of table.barParts.entries()) {
      words.fill(cost, bars / 4 + size * 4, bars / 4 + size * 4 + 4);
    }
    const nobody = columns.vectors * 4;
    words[columnTaken / 4 + nobody] = 1;
    words.fill(nobody * 4, columnOf / 4, columnOf / 4 + rows.vectors * 4);
    const prices = new Float32Array(words.buffer);
    rows.words.forEach((word, i) => {
      const column = columns.words[i]!;
      words[columnOf / 4 + word] = column * 4;
      prices[lambdaAt / 4 + word] = lambda[from + i]!;
      const price = -((lambda[from + i]! * table.scale) | 0);
      words[rowPrices / 4 + word] = price;
      words[columnPrices / 4 + column] = price;
    });
    const head = [rowsAt, rows.groups.length / 2, columnsAt, columns.groups.length / 2];
    head.push(rowPrices, columnPrices, rowTaken, columnTaken, lambdaAt, bestAt, direction, columnOf);
    head.push(rows.vectors, costs, drills, bars, widest, table.drillBits, stridesAt);
    words.set(head);
    let top = -Infinity;
    return {
      go: (strides, first, last, enough) => {
        if (top >= enough) return top;
        memory.layFrom(stridesAt);
        memory.room(strides.byteLength);
        new Float32Array(memory.words().buffer).set(strides, stridesAt / 4);
        top = this.climb(first, last, top, enough, table.scale);
        return top;
      },
      end: () => {
        const best = new Float32Array(this.memory.buffer, bestAt, rows.vectors * 4);
        if (top === -Infinity) return;
        rows.words.forEach((word, i) => {
          lambda[from + i] = best[word]!;
        });
      },
    };
  }
}

let climbs: Climbs | null | undefined;

/** The steps in WebAssembly, one memory a thread; null on a machine that cannot run them, as browsers from before 2023. */
export function kernelClimbs(): Climbs | null {
  if (climbs === undefined) {
    try {
      climbs = new KernelClimbs();
    } catch {
      climbs = null;
    }
  }
  return climbs;
}

function rowGroups({ starts, left }: Regions, region: number): ChainGroups {
  const from = starts[region]!;
  const size = starts[region + 1]! - from;
  const chains: number[] = [];
  for (let i = 0; i < size; i++) if (i === 0 || left[from + i] !== 1) chains.push(i);
  return grouped(chains, size, (i) => i);
}

function columnGroups({ starts, down, byColumn }: Regions, region: number): ChainGroups {
  const from = starts[region]!;
  const size = starts[region + 1]! - from;
  const chains: number[] = [];
  for (let i = 0; i < size; i++) if (i === 0 || down[byColumn[from + i - 1]!] === -1) chains.push(i);
  return grouped(chains, size, (i) => byColumn[from + i]! - from);
}

/**
 * Chains in groups of four, the longest first, so that those of a group are about as long.
 * @param chains where each begins among the cells
 * @param placeOf the i-th cell, as a place less the first of the region
 */
function grouped(chains: readonly number[], size: number, placeOf: (i: number) => number): ChainGroups {
  const length = (chain: number) => (chains[chain + 1] ?? size) - chains[chain]!;
  const sorted = chains.map((_, chain) => chain).sort((a, b) => length(b) - length(a) || a - b);
  const groups: number[] = [];
  const words = new Int32Array(size);
  let vectors = 0;
  for (let first = 0; first < sorted.length; first += 4) {
    for (let lane = 0; lane < 4 && first + lane < sorted.length; lane++) {
      const chain = sorted[first + lane]!;
      const start = chains[chain]!;
      for (let n = length(chain) - 1; n >= 0; n--) words[placeOf(start + n)] = (vectors + n) * 4 + lane;
    }
    const most = length(sorted[first]!);
    groups.push(vectors, most);
    vectors += most;
  }
  return { groups, vectors, words };
}
