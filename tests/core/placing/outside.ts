import highsLoader from 'highs';
import { type Chart, makeChart } from '../../../src/core/cells/chart';
import { seededRandom } from '../../../src/core/chance/random';

/** One region of so many cells, grown at random from the middle of a square. */
export function grownRegion(seed: number, cells: number, side = 14): Chart {
  const random = seededRandom(seed);
  const taken = new Uint16Array(side * side);
  const edge = [(side >> 1) * side + (side >> 1)];
  for (let count = 0; count < cells && edge.length > 0; ) {
    const [cell] = edge.splice(Math.floor(random.uniform() * edge.length), 1) as [number];
    if (taken[cell] !== 0) continue;
    taken[cell] = 1;
    count++;
    const [x, y] = [cell % side, Math.floor(cell / side)];
    if (x > 0) edge.push(cell - 1);
    if (x < side - 1) edge.push(cell + 1);
    if (y > 0) edge.push(cell - side);
    if (y < side - 1) edge.push(cell + side);
  }
  return makeChart(side, side, taken);
}

/** All bars of up to so many cells, as lists of cells. */
function allBars({ width, height, cells }: Chart, widest: number): number[][] {
  const bars: number[][] = [];
  for (let cell = 0; cell < cells.length; cell++) {
    if (cells[cell] === 0) continue;
    const [x, y] = [cell % width, Math.floor(cell / width)];
    for (const [step, room] of [
      [1, width - x],
      [width, height - y],
    ] as const) {
      const bar: number[] = [];
      for (let i = 0; i < Math.min(widest, room) && cells[cell + i * step] === cells[cell]; i++) {
        bar.push(cell + i * step);
        if (bar.length > 1 || step === 1) bars.push([...bar]);
      }
    }
  }
  return bars;
}

/** The solver, which grows a little with each model: made anew after some. */
const solver = { solved: 0, highs: null as Awaited<ReturnType<typeof highsLoader>> | null };
const MODELS_A_SOLVER = 40;

/**
 * The fewest placements by mixed-integer programming: each cell lies under exactly one bar (HiGHS, Huangfu and Hall 2018).
 */
export async function fewestByHighs(chart: Chart, widest: number): Promise<number> {
  if (solver.solved++ % MODELS_A_SOLVER === 0) solver.highs = await highsLoader();
  const bars = allBars(chart, widest);
  const over = new Map<number, string[]>();
  bars.forEach((bar, i) => {
    for (const cell of bar) over.set(cell, [...(over.get(cell) ?? []), `b${i}`]);
  });
  const model = [
    'Minimize',
    ` obj: ${bars.map((_, i) => `b${i}`).join(' + ')}`,
    'Subject To',
    ...[...over].map(([cell, names]) => ` c${cell}: ${names.join(' + ')} = 1`),
    'Binary',
    ` ${bars.map((_, i) => `b${i}`).join(' ')}`,
    'End',
  ].join('\n');
  const { ObjectiveValue, Status } = solver.highs!.solve(model, { output_flag: false, mip_rel_gap: 0 });
  if (Status !== 'Optimal') throw new Error(`HiGHS says ${Status}.`);
  return Math.round(ObjectiveValue);
}

/** Size of a maximum matching of a bipartite graph, by augmenting paths (Kuhn 1955). @param next neighbours on the right of each on the left */
export function maximumMatching(next: readonly (readonly number[])[]): number {
  const partner = new Map<number, number>();
  const augment = (from: number, seen: Set<number>): boolean =>
    next[from]!.some((to) => {
      if (seen.has(to)) return false;
      seen.add(to);
      const other = partner.get(to);
      if (other !== undefined && !augment(other, seen)) return false;
      partner.set(to, from);
      return true;
    });
  return next.filter((_, from) => augment(from, new Set())).length;
}

/** Neighbours of like colour: pairs of a cell and the one to its right, and of a cell and the one below. */
export function likePairs({ width, height, cells }: Chart): {
  across: [number, number][];
  down: [number, number][];
} {
  const across: [number, number][] = [];
  const down: [number, number][] = [];
  for (let cell = 0; cell < cells.length; cell++) {
    if (cells[cell] === 0) continue;
    if (cell % width < width - 1 && cells[cell + 1] === cells[cell]) across.push([cell, cell + 1]);
    if (cell < width * (height - 1) && cells[cell + width] === cells[cell]) down.push([cell, cell + width]);
  }
  return { across, down };
}
