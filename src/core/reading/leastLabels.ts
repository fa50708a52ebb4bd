/**
 * From one cell to the next a line may go aside by a few pixels, at little cost a pixel; every further one costs much, so
 * that no line jumps to the place of its neighbour.
 */
const SLOPE_PX = 4;
const SLOPE_COST = 0.04;
const JUMP_COST = 2;

/** Rounds in which what is known passes over the grid and back: of the finest grid first, then of ever coarser ones. */
const PASSES = [6, 10, 12] as const;
/** Nodes that are taken together, along each side, from one grid to the next coarser one. */
const TOGETHER = 2;
/** What is made impossible would drown all else, where it stands for its neighbours too. */
const MOST_COST = 10;
/** No grid is made coarser that has fewer nodes along a side. */
const LEAST_SIDE = 8;

/** A grid of nodes, and what each label of each costs: labels of a node one after the other, nodes row by row. */
interface Grid {
  cost: Float32Array;
  width: number;
  height: number;
  labels: number;
}

/** What came to each node from the left, above, the right and below. */
type Messages = [Float32Array, Float32Array, Float32Array, Float32Array];

/**
 * The label of each node of a grid that makes the sum of all costs about the least: messages between neighbours, passed
 * row by row to the end and back (sequential tree-reweighted message passing, Kolmogorov 2006, from memory), so that the
 * four corners are heard everywhere. What is far apart comes to terms on coarser grids first, whose messages the finer
 * ones begin with (as in Felzenszwalb and Huttenlocher 2006, from memory): on the finest alone it takes many times as long
 * until a region that lies one line beside the others is drawn back.
 * @param cost labels of a node one after the other, nodes row by row
 */
export function leastLabels(
  cost: Float32Array,
  width: number,
  height: number,
  labels: number,
  slope: AsideCost,
): Int16Array {
  const grid = { cost, width, height, labels };
  return decoded(grid, messagesOf(grid, slope, 0), slope);
}

/** So many passes that make no other label of any node the cheapest are the last ones. */
const SETTLED = 2;

function messagesOf(grid: Grid, slope: AsideCost, level: number): Messages {
  const { cost, width, height, labels } = grid;
  const isCoarsest = level + 1 >= PASSES.length || Math.min(width, height) < LEAST_SIDE * TOGETHER;
  const came: Messages = isCoarsest
    ? ([0, 1, 2, 3].map(() => new Float32Array(cost.length)) as Messages)
    : finer(messagesOf(coarser(grid), slope.ofTogether(TOGETHER), level + 1), grid);
  const [left, above, right, below] = came;
  const [one, other] = [AsideCost.room(labels), AsideCost.room(labels)];
  const cheapest = new Int16Array(width * height).fill(-1);
  let same = 0;
  for (let pass = 0; pass < PASSES[level]! && same < SETTLED; pass++) {
    for (let node = 0; node < width * height; node++) {
      const at = node * labels;
      gather(cost, left, above, right, below, at, labels, one, other);
      if (node % width < width - 1) slope.spread(one, left, at + labels, labels);
      if (node < width * (height - 1)) slope.spread(other, above, at + width * labels, labels);
    }
    same++;
    for (let node = width * height - 1; node >= 0; node--) {
      const at = node * labels;
      const label = gather(cost, right, below, left, above, at, labels, one, other);
      if (label !== cheapest[node]) {
        cheapest[node] = label;
        same = 0;
      }
      if (node % width > 0) slope.spread(one, right, at - labels, labels);
      if (node >= width) slope.spread(other, below, at - width * labels, labels);
    }
  }
  return came;
}

/**
 * What a node has to tell two others: half of what each label costs it with all that came to it, less what it heard from the
 * one that it tells.
 * @param first came from the one that `one` is told @param second came from the one that `other` is told
 * @returns the label that is cheapest there by now
 */
function gather(
  cost: Float32Array,
  third: Float32Array,
  fourth: Float32Array,
  first: Float32Array,
  second: Float32Array,
  at: number,
  labels: number,
  one: Float64Array,
  other: Float64Array,
): number {
  let cheapest = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let d = 0; d < labels; d++) {
    const fromOne = first[at + d]!;
    const fromOther = second[at + d]!;
    const half = 0.5 * (cost[at + d]! + third[at + d]! + fourth[at + d]! + fromOne + fromOther);
    one[AsideCost.PAD + d] = half - fromOne;
    other[AsideCost.PAD + d] = half - fromOther;
    if (half < least) {
      least = half;
      cheapest = d;
    }
  }
  return cheapest;
}

/** A grid of which each node costs what those do together that it stands for. */
function coarser({ cost, width, height, labels }: Grid): Grid {
  const [wide, tall] = [Math.ceil(width / TOGETHER), Math.ceil(height / TOGETHER)];
  const sums = new Float32Array(wide * tall * labels);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const from = (y * width + x) * labels;
      const to = (Math.floor(y / TOGETHER) * wide + Math.floor(x / TOGETHER)) * labels;
      for (let d = 0; d < labels; d++) sums[to + d]! += Math.min(MOST_COST, cost[from + d]!);
    }
  }
  return { cost: sums, width: wide, height: tall, labels };
}

/** What came to the nodes of a coarser grid, shared out to those that they stand for. */
function finer(came: Messages, { cost, width, height, labels }: Grid): Messages {
  const wide = Math.ceil(width / TOGETHER);
  return came.map((messages) => {
    const out = new Float32Array(cost.length);
    for (let node = 0; node < width * height; node++) {
      const [x, y] = [node % width, Math.floor(node / width)];
      const from = (Math.floor(y / TOGETHER) * wide + Math.floor(x / TOGETHER)) * labels;
      for (let d = 0; d < labels; d++) out[node * labels + d] = messages[from + d]! / TOGETHER;
    }
    return out;
  }) as Messages;
}

/** Labels from the first node to the last, each as those before it and what is heard from those after it want it. */
function decoded({ cost, width, height, labels }: Grid, came: Messages, slope: AsideCost): Int16Array {
  const [, , right, below] = came;
  const chosen = new Int16Array(width * height);
  for (let node = 0; node < chosen.length; node++) {
    const at = node * labels;
    let [best, least] = [0, Number.POSITIVE_INFINITY];
    for (let d = 0; d < labels; d++) {
      let c = cost[at + d]! + right[at + d]! + below[at + d]!;
      if (node % width > 0) c += slope.aside(d - chosen[node - 1]!);
      if (node >= width) c += slope.aside(d - chosen[node - width]!);
      if (c < least) [best, least] = [d, c];
    }
    chosen[node] = best;
  }
  return chosen;
}

/** What it costs to lie further aside than the neighbour, for labels that lie some pixels apart. */
export class AsideCost {
  private readonly free: number;
  private readonly slope: number;
  private readonly jump: number;
  /** Places beside the labels that cost more than any, so that nobody asks where the labels begin. */
  static readonly PAD = 64;
  private static readonly BESIDE = 1e6;
  private nearest: Float64Array = new Float64Array(0);

  /** @param step pixels from one label to the next @param together nodes along each side that stand as one */
  constructor(
    private readonly step: number,
    private readonly together = 1,
  ) {
    // So many lines side by side, each of which has so many steps for going aside.
    this.free = Math.round((SLOPE_PX * together) / step);
    this.slope = SLOPE_COST * step * together;
    this.jump = JUMP_COST * step * together;
  }

  /** The same for a coarser grid. */
  ofTogether(nodes: number): AsideCost {
    return new AsideCost(this.step, this.together * nodes);
  }

  /** @param labels between the two */
  aside(labels: number): number {
    const far = Math.abs(labels);
    return far <= this.free ? far * this.slope : this.free * this.slope + (far - this.free) * this.jump;
  }

  /** Room for the costs of so many labels, from {@link PAD} on. */
  static room(labels: number): Float64Array {
    return new Float64Array(labels + 2 * AsideCost.PAD).fill(AsideCost.BESIDE);
  }

  /**
   * Writes for each label what the cheapest way to it costs, from whichever label, more than the cheapest of all.
   * @param own costs in a {@link room}, written over
   */
  spread(own: Float64Array, into: Float32Array, at: number, labels: number): void {
    const { free, slope, jump } = this;
    if (this.nearest.length !== own.length) this.nearest = AsideCost.room(labels);
    const from = AsideCost.PAD;
    const to = from + labels;
    let least = own[from]!;
    let most = least;
    for (let d = from; d < to; d++) {
      const value = own[d]!;
      if (value < least) least = value;
      if (value > most) most = value;
    }
    let costs: Float64Array = own;
    let nearest: Float64Array = this.nearest;
    let heard = 0;
    // Each round hears farther, the first two labels to each side, until all that is free is. The lesser of two is taken
    // without a branch, half of which would be foretold wrong.
    if (free >= 2) {
      let before2 = costs[from - 2]!;
      let before = costs[from - 1]!;
      let here = costs[from]!;
      let after = costs[from + 1]!;
      for (let d = from; d < to; d++) {
        const after2 = costs[d + 2]!;
        const next = 0.5 * (before + after - Math.abs(before - after)) + slope;
        const second = 0.5 * (before2 + after2 - Math.abs(before2 - after2)) + 2 * slope;
        const aside = 0.5 * (next + second - Math.abs(next - second));
        nearest[d] = 0.5 * (here + aside - Math.abs(here - aside));
        before2 = before;
        before = here;
        here = after;
        after = after2;
      }
      [costs, nearest] = [nearest, costs];
      heard = 2;
    }
    while (heard < free) {
      const by = Math.min(heard + 1, free - heard);
      const price = by * slope;
      for (let d = from; d < to; d++) {
        const before = costs[d - by]!;
        const after = costs[d + by]!;
        const here = costs[d]!;
        const aside = 0.5 * (before + after - Math.abs(before - after)) + price;
        nearest[d] = 0.5 * (here + aside - Math.abs(here - aside));
      }
      [costs, nearest] = [nearest, costs];
      heard += by;
    }
    // Where all lies closer together than a jump costs, no jump makes anything cheaper.
    if (most - least > jump) {
      for (let d = from + 1; d < to; d++) {
        const before = costs[d - 1]! + jump;
        if (before < costs[d]!) costs[d] = before;
      }
      for (let d = to - 2; d >= from; d--) {
        const after = costs[d + 1]! + jump;
        if (after < costs[d]!) costs[d] = after;
      }
    }
    for (let d = 0; d < labels; d++) into[at + d] = costs[from + d]! - least;
  }
}
