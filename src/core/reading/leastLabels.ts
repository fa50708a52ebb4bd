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

function messagesOf(grid: Grid, slope: AsideCost, level: number): Messages {
  const { cost, width, height, labels } = grid;
  const isCoarsest = level + 1 >= PASSES.length || Math.min(width, height) < LEAST_SIDE * TOGETHER;
  const came: Messages = isCoarsest
    ? ([0, 1, 2, 3].map(() => new Float32Array(cost.length)) as Messages)
    : finer(messagesOf(coarser(grid), slope.ofTogether(TOGETHER), level + 1), grid);
  const [left, above, right, below] = came;
  const sum = new Float32Array(labels);
  const gather = (node: number) => {
    const at = node * labels;
    for (let d = 0; d < labels; d++)
      sum[d] = cost[at + d]! + left[at + d]! + above[at + d]! + right[at + d]! + below[at + d]!;
  };
  // What a node hears back from the one that it tells is not told to it again.
  const tell = (node: number, back: Float32Array, to: number, message: Float32Array) => {
    const told = slope.begin(labels);
    const at = node * labels;
    let least = Number.POSITIVE_INFINITY;
    for (let d = 0; d < labels; d++) {
      const value = sum[d]! * 0.5 - back[at + d]!;
      told[AsideCost.PAD + d] = value;
      if (value < least) least = value;
    }
    // What is cheapest stays so, however far the next one may lie aside.
    slope.spread(message, to * labels, labels, least);
  };
  for (let pass = 0; pass < PASSES[level]!; pass++) {
    for (let node = 0; node < width * height; node++) {
      gather(node);
      if (node % width < width - 1) tell(node, right, node + 1, left);
      if (node < width * (height - 1)) tell(node, below, node + width, above);
    }
    for (let node = width * height - 1; node >= 0; node--) {
      gather(node);
      if (node % width > 0) tell(node, left, node - 1, right);
      if (node >= width) tell(node, above, node - width, below);
    }
  }
  return came;
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
  /** Places beside the labels that cost without end, so that nobody asks where the labels begin. */
  static readonly PAD = 64;
  private costs: Float32Array = new Float32Array(0);
  private nearest: Float32Array = new Float32Array(0);

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

  /** Where the costs of the labels are written before they are spread, from {@link PAD} on. */
  begin(labels: number): Float32Array {
    if (this.costs.length !== labels + 2 * AsideCost.PAD)
      [this.costs, this.nearest] = [0, 1].map(() =>
        new Float32Array(labels + 2 * AsideCost.PAD).fill(Number.POSITIVE_INFINITY),
      ) as [Float32Array, Float32Array];
    return this.costs;
  }

  /**
   * Writes for each label what the cheapest way to it costs, from whichever label.
   * @param least is taken off
   */
  spread(into: Float32Array, at: number, labels: number, least: number): void {
    const { free, slope, jump } = this;
    const [from, to] = [AsideCost.PAD, AsideCost.PAD + labels];
    let [costs, nearest] = [this.costs, this.nearest];
    // Each round doubles how far is heard, until all that is free is.
    for (let heard = 0; heard < free; ) {
      const by = Math.min(heard + 1, free - heard);
      const price = by * slope;
      for (let d = from; d < to; d++) {
        let cheapest = costs[d]!;
        const before = costs[d - by]! + price;
        if (before < cheapest) cheapest = before;
        const after = costs[d + by]! + price;
        if (after < cheapest) cheapest = after;
        nearest[d] = cheapest;
      }
      [costs, nearest] = [nearest, costs];
      heard += by;
    }
    for (let d = from + 1; d < to; d++) {
      const before = costs[d - 1]! + jump;
      if (before < costs[d]!) costs[d] = before;
    }
    for (let d = to - 2; d >= from; d--) {
      const after = costs[d + 1]! + jump;
      if (after < costs[d]!) costs[d] = after;
    }
    for (let d = 0; d < labels; d++) into[at + d] = costs[from + d]! - least;
  }
}
