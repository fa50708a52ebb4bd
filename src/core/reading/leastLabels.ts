/**
 * From one cell to the next a line may go aside by a few pixels, at little cost a pixel; every further one costs much, so
 * that no line jumps to the place of its neighbour.
 */
const SLOPE_PX = 6;
const SLOPE_COST = 0.04;
const JUMP_COST = 2;

/** Rounds in which what is known passes over the grid and back. */
const PASSES = 6;

/**
 * The label of each node of a grid that makes the sum of all costs about the least: messages between neighbours, passed
 * row by row to the end and back (sequential tree-reweighted message passing, Kolmogorov 2006, from memory), so that the
 * four corners are heard everywhere.
 * @param cost labels of a node one after the other, nodes row by row
 */
export function leastLabels(
  cost: Float32Array,
  width: number,
  height: number,
  labels: number,
  slope: AsideCost,
): Int16Array {
  // Messages that came to each node from the left, above, the right and below.
  const came = Array.from({ length: 4 }, () => new Float32Array(cost.length)) as [
    Float32Array,
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const [LEFT, ABOVE, RIGHT, BELOW] = [0, 1, 2, 3];
  const sum = new Float32Array(labels);
  const told = new Float32Array(labels);
  const gather = (node: number) => {
    const at = node * labels;
    for (let d = 0; d < labels; d++)
      sum[d] = cost[at + d]! + came[0][at + d]! + came[1][at + d]! + came[2][at + d]! + came[3][at + d]!;
  };
  const tell = (node: number, to: number, from: number, into: number) => {
    // What a node hears back from the one that it tells is not told to it again.
    const back = came[from]!;
    for (let d = 0; d < labels; d++) told[d] = sum[d]! * 0.5 - back[node * labels + d]!;
    slope.spread(told, labels);
    let least = Number.POSITIVE_INFINITY;
    for (let d = 0; d < labels; d++) least = Math.min(least, told[d]!);
    const message = came[into]!;
    for (let d = 0; d < labels; d++) message[to * labels + d] = told[d]! - least;
  };
  for (let pass = 0; pass < PASSES; pass++) {
    for (let node = 0; node < width * height; node++) {
      gather(node);
      if (node % width < width - 1) tell(node, node + 1, RIGHT!, LEFT!);
      if (node < width * (height - 1)) tell(node, node + width, BELOW!, ABOVE!);
    }
    for (let node = width * height - 1; node >= 0; node--) {
      gather(node);
      if (node % width > 0) tell(node, node - 1, LEFT!, RIGHT!);
      if (node >= width) tell(node, node - width, ABOVE!, BELOW!);
    }
  }
  const chosen = new Int16Array(width * height);
  for (let node = 0; node < chosen.length; node++) {
    const at = node * labels;
    let [best, least] = [0, Number.POSITIVE_INFINITY];
    for (let d = 0; d < labels; d++) {
      let c = cost[at + d]! + came[RIGHT!]![at + d]! + came[BELOW!]![at + d]!;
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
  private readonly nearest = new Float32Array(256);

  constructor(step: number) {
    this.free = Math.round(SLOPE_PX / step);
    this.slope = SLOPE_COST * step;
    this.jump = JUMP_COST * step;
  }

  /** @param labels between the two */
  aside(labels: number): number {
    const far = Math.abs(labels);
    return far <= this.free ? far * this.slope : this.free * this.slope + (far - this.free) * this.jump;
  }

  spread(costs: Float32Array, labels: number): void {
    const { nearest, free, slope, jump } = this;
    for (let d = 0; d < labels; d++) {
      let cheapest = costs[d]!;
      for (let k = 1; k <= free; k++) {
        if (d >= k) cheapest = Math.min(cheapest, costs[d - k]! + k * slope);
        if (d + k < labels) cheapest = Math.min(cheapest, costs[d + k]! + k * slope);
      }
      nearest[d] = cheapest;
    }
    for (let d = 1; d < labels; d++) nearest[d] = Math.min(nearest[d]!, nearest[d - 1]! + jump);
    for (let d = labels - 2; d >= 0; d--) nearest[d] = Math.min(nearest[d]!, nearest[d + 1]! + jump);
    for (let d = 0; d < labels; d++) costs[d] = nearest[d]!;
  }
}
