import type { Regions } from '../regions';
import type { BarTable } from './barTable';
import { moreByDrills, NEVER_REACHED } from './chainMessages';
import { NEVER } from './chainSplit';
import { DOWN } from './chains';
import { KernelMemory } from './kernelMemory';
import { FIRST_DRAWN, LOGISTIC } from './noise';
import type { RegionSteps } from './regionSteps';
import { KERNEL } from './stepsKernel';

interface Kernel {
  moveRows(hot: number): void;
  moveColumns(hot: number): void;
  moveBands(height: number, hot: number): void;
  cost(): number;
  passOn(): void;
  passBack(update: boolean): void;
  bound(scale: number): number;
}

/** The kernel with its memory, and whose region lies there. */
interface Ground {
  memory: KernelMemory;
  kernel: Kernel;
  user: KernelSteps | null;
}

/** The head has 34 words, see kernels/regionSteps.ts; after it stands the table of the noise. */
const LOGISTIC_AT = 144;
const LAID_FROM = LOGISTIC_AT + LOGISTIC.byteLength;
const WORD = 4;
const VECTOR = 16;
/** Drills of the bars that vectors choose from. */
const AT_LEAST_DRILLS = 16;
/** Label of a neighbour that is none. */
const NOBODY = DOWN + 1;
/** A memory that a huge region has made grow beyond this is not used for the next search. */
const MOST_KEPT_BYTES = 64 << 20;

function newGround(): Ground | null {
  try {
    const memory = new KernelMemory(KERNEL);
    memory.layFrom(0);
    memory.room(LAID_FROM);
    memory.words();
    new Float64Array(memory.buffer).set(LOGISTIC, LOGISTIC_AT / LOGISTIC.BYTES_PER_ELEMENT);
    return { memory, kernel: memory.exports as unknown as Kernel, user: null };
  } catch {
    return null;
  }
}

/** One a thread; null where the machine cannot run it. */
let shared: Ground | null | undefined;

/** The steps in WebAssembly, see kernels/regionSteps.ts. */
export class KernelSteps implements RegionSteps {
  private region = -1;
  private table!: BarTable;
  private from = 0;
  private size = 0;
  private trialAt = 0;
  private lambdaAt = 0;
  private drawnAt = 0;

  private constructor(
    private readonly regions: Regions,
    private readonly ground: Ground,
  ) {}

  /** Null on a machine that cannot run them, as browsers from before 2023. */
  static of(regions: Regions): KernelSteps | null {
    if (shared === undefined || (shared && shared.memory.buffer.byteLength > MOST_KEPT_BYTES)) {
      shared = newGround();
    }
    return shared && new KernelSteps(regions, shared);
  }

  begin(region: number, table: BarTable): void {
    if (this.ground.user === this && this.region === region && this.table === table) return;
    const { starts } = this.regions;
    this.ground.user = this;
    this.region = region;
    this.table = table;
    this.from = starts[region]!;
    this.size = starts[region + 1]! - this.from;
    this.layOut();
  }

  /** Lays the region out in the memory, word by word of the head. */
  private layOut(): void {
    const { size, table } = this;
    const { memory } = this.ground;
    const longest = table.runParts.length - 1;
    const widest = table.bars.length - 1;
    const drills = Math.max(widest, AT_LEAST_DRILLS);
    const vectors = Math.ceil(widest / 4);
    const head: number[] = [];
    const word = (value: number) => {
      head.push(value);
      return value;
    };
    const room = (bytes: number) => word(memory.room(bytes));
    // One more than there are cells, for the neighbour that is none.
    const byCell = () => room((size + 1) * WORD);
    // Sums by place in a stretch are made by whole vectors.
    const byPlace = () => room((longest + 1) * WORD + VECTOR);
    memory.layFrom(LAID_FROM);
    word(size);
    const order = { byRow: byCell(), byColumn: byCell() };
    const neighbours = { up: byCell(), down: byCell(), left: byCell(), right: byCell() };
    this.trialAt = room(size + 1);
    const runs = [byCell(), byCell()];
    const runParts = byPlace();
    const runCosts = room((longest + 1) * 2 * WORD);
    const bars = room(drills * WORD);
    word(table.drillBits);
    word(widest);
    byPlace();
    byPlace();
    word(LOGISTIC_AT);
    this.drawnAt = head.length * WORD;
    word(FIRST_DRAWN);
    this.lambdaAt = byCell();
    // They are read one vector farther.
    const messages = [0, 1].map(() => room((size + 1) * vectors * VECTOR + VECTOR));
    word(vectors);
    const [moreOn, moreBack] = [room(vectors * VECTOR), room(vectors * VECTOR)];
    const never = memory.room(widest * WORD);
    const costs = byPlace();
    const byColumnOf = byCell();
    runs.push(byCell());
    for (let n = 0; n < 3; n++) byPlace();
    room(drills * WORD);
    runs.push(byCell(), byCell());

    const words = memory.words();
    words.set(head);
    this.layNeighbours(words, { ...order, ...neighbours, byColumnOf });
    for (const at of runs) words[at / WORD + size] = 0;
    new Uint8Array(memory.buffer)[this.trialAt + size] = NOBODY;
    words.set(table.runParts, runParts / WORD);
    new Float64Array(memory.buffer).set(table.runCost, runCosts / (2 * WORD));
    words.fill(NEVER, bars / WORD, bars / WORD + drills);
    words.set(table.barParts.subarray(1), bars / WORD);
    words.fill(NEVER, never / WORD, costs / WORD);
    const floats = new Float32Array(memory.buffer);
    const fill = (at: number, count: number) => floats.fill(NEVER_REACHED, at / WORD, at / WORD + count * 4);
    for (const at of messages) fill(at + size * vectors * VECTOR, vectors + 1);
    for (const at of [moreOn, moreBack]) fill(at, vectors);
    const more = moreByDrills(table.bars);
    floats.set(more, moreOn / WORD);
    floats.set(more.subarray(1), moreBack / WORD);
  }

  /** Writes cells in both orders and what lies beside each, all as four times the cell. */
  private layNeighbours(
    words: Int32Array,
    at: Record<'byRow' | 'byColumn' | 'byColumnOf' | 'up' | 'down' | 'left' | 'right', number>,
  ): void {
    const { regions, from, size } = this;
    const nobody = size * WORD;
    const [byRow, byColumn, byColumnOf] = [at.byRow / WORD, at.byColumn / WORD, at.byColumnOf / WORD];
    const [up, down, left, right] = [at.up / WORD, at.down / WORD, at.left / WORD, at.right / WORD];
    for (let cell = 0; cell < size; cell++) {
      const place = from + cell;
      const inColumns = regions.byColumn[place]! - from;
      const [above, below] = [regions.up[place]!, regions.down[place]!];
      words[byRow + cell] = cell * WORD;
      words[byColumn + cell] = inColumns * WORD;
      words[byColumnOf + inColumns] = cell * WORD;
      words[up + cell] = above === -1 ? nobody : (above - from) * WORD;
      words[down + cell] = below === -1 ? nobody : (below - from) * WORD;
      const isBeside = cell > 0 && regions.left[place] === 1;
      words[left + cell] = isBeside ? (cell - 1) * WORD : nobody;
      if (cell > 0) words[right + cell - 1] = isBeside ? cell * WORD : nobody;
    }
    words[right + size - 1] = nobody;
  }

  tryOut(labels: Uint8Array): void {
    this.tried().set(labels);
  }

  tried(): Uint8Array {
    return new Uint8Array(this.ground.memory.buffer, this.trialAt, this.size);
  }

  cost(): number {
    return this.ground.kernel.cost();
  }

  restartNoise(): void {
    new Int32Array(this.ground.memory.buffer, this.drawnAt, 1)[0] = FIRST_DRAWN;
  }

  moveRows(heat: number): void {
    this.ground.kernel.moveRows(heat * this.table.scale);
  }

  moveColumns(heat: number): void {
    this.ground.kernel.moveColumns(heat * this.table.scale);
  }

  moveBands(height: number, heat: number): void {
    this.ground.kernel.moveBands(height, heat * this.table.scale);
  }

  price(lambda: Float32Array): void {
    this.priced().set(lambda);
  }

  priced(): Float32Array {
    return new Float32Array(this.ground.memory.buffer, this.lambdaAt, this.size);
  }

  passOn(): void {
    this.ground.kernel.passOn();
  }

  passBack(update: boolean): void {
    this.ground.kernel.passBack(update);
  }

  bound(): number {
    return this.ground.kernel.bound(this.table.scale);
  }
}
