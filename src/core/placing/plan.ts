import type { LegendLine } from '../canvas/legend';
import { highestLine, ofLine } from '../canvas/legend';
import type { Bitmap } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { boxAround, type CellPart, countInPart, rectsOf } from '../cells/rect';
import { type Effort, placementKind } from '../pace/effort';
import { largest } from '../words/numbers';
import { countConfetti } from './confetti';
import { countSeams, cutRegion, cutStaggered } from './cutting';
import { inLayingOrder } from './layingOrder';
import { type Placement, tipChanges, turnsIn } from './placement';
import { leftToLay, type Regions, regionsOf } from './regions';
import { coloursInOrder } from './schools';
import { type BarCosts, onePerPlacement } from './search/barCosts';
import { ALONG, DOWN } from './search/chains';
import { type Known, PlacementSearch, type SearchLimits, searchRegions } from './search/fewest';
import { type Tips, tipFor } from './tips';
import { isLight, type PlacingWish } from './wish';

/** What a plan is made for: squares of a canvas, in one section or many. */
export interface PlacingGround {
  chart: Chart;
  laid: Bitmap;
  legend: readonly LegendLine[];
  /** In the order in which they are worked. One part without borders is the whole canvas. */
  parts: readonly CellPart[];
  /** Drills per tip, see {@link Tips}. */
  tips: Tips;
  /** Seconds that one of each effort takes. */
  seconds: Readonly<Effort>;
  hand: 'right' | 'left';
}

/** How one colour of a section is laid. */
interface ColourPlacing {
  line: number;
  /** Drills still to lay; also the placements it takes one by one. */
  drills: number;
  placements: number;
  /** Placements along rows, and down columns. A single drill counts with the side that it was planned from. */
  along: number;
  down: number;
  /** Placements with rows only, and with columns only, without other wishes. */
  rowsOnly: number;
  columnsOnly: number;
}

export interface PlacingPlan {
  /** Drills of the widest bar. */
  widest: number;
  /** In the order in which they are laid. */
  placements: Placement[];
  /** With these tips no plan has fewer placements; where colours or squares are wished one by one, none that obeys that. */
  lowerBound: number;
  drills: number;
  /** By section as given, the colours in the order in which they are laid. */
  colours: ColourPlacing[][];
  effort: Effort;
  turns: number;
  tipChanges: number;
  seams: number;
}

/** Sums of seconds are equal within this. */
const ROUNDING = 1e-6;
/** Seconds are counted in whole parts of a second, so that sums are exact. */
const SECOND_PARTS = 1024;

/**
 * Plans placements. What a region gets follows from the region alone, so that a plan made anew after a mark differs only
 * where the mark was; a planner remembers regions that it has seen.
 */
export class PlacingPlanner {
  private memory = new Map<string, Known>();

  /**
   * @param limits how far to search; the usual rounds by the size of the ground where left out. `quick` takes what is
   *   remembered of these and does little for the rest: something to show until the plan itself is there
   */
  plan(ground: PlacingGround, wish: PlacingWish, limits?: SearchLimits | 'quick'): PlacingPlan {
    const { chart, legend, parts, tips } = ground;
    const { whole, left, partOf } = boxOf(ground);
    const perLine = new Map<number, BarCosts>();
    const widest = wish.passes === 'checkerboard' ? 1 : Math.min(largest(tips, 1), wish.longest ?? Infinity);
    const barsOf = (line: number): number => {
      const { hex } = ofLine(legend, line) ?? { hex: null };
      return wish.singlesAbove !== null && isLight({ hex }, wish.singlesAbove) ? 1 : widest;
    };
    const bars = (line: number): BarCosts => {
      let costs = perLine.get(line);
      if (!costs) {
        costs = onePerPlacement(barsOf(line));
        perLine.set(line, costs);
      }
      return costs;
    };

    const owners = parts.length === 1 ? null : partOf;
    // Squares beside the next section are regions of their own kind: singles.
    const placements: { placement: Placement; part: number }[] = [];
    const partAt = (cell: number) => (owners ? owners[cell]! : 0);
    const edges = new Map<string, number>();
    const single = (cell: number) => {
      const [x, y] = [cell % left.width, Math.floor(cell / left.width)];
      placements.push({
        placement: {
          x: x + whole.x,
          y: y + whole.y,
          length: 1,
          orientation: 'h',
          line: left.cells[cell]!,
          tip: 1,
        },
        part: partAt(cell),
      });
      const key = colourKey(partAt(cell), left.cells[cell]!);
      edges.set(key, (edges.get(key) ?? 0) + 1);
    };
    let lowerBound = 0;
    const isAtEdge = (cell: number): boolean => {
      const [x, y] = [(cell % left.width) + whole.x, Math.floor(cell / left.width) + whole.y];
      const meets = (nextX: number, nextY: number, next: number) => {
        if (nextX < 0 || nextY < 0 || nextX >= chart.width || nextY >= chart.height) return false;
        if (chart.cells[nextY * chart.width + nextX] === 0) return false;
        const inBox =
          nextX >= whole.x &&
          nextY >= whole.y &&
          nextX < whole.x + whole.width &&
          nextY < whole.y + whole.height;
        return !inBox || partOf[next] !== partOf[cell];
      };
      return (
        meets(x - 1, y, cell - 1) ||
        meets(x + 1, y, cell + 1) ||
        meets(x, y - 1, cell - left.width) ||
        meets(x, y + 1, cell + left.width)
      );
    };
    const inner = left.cells.slice();
    if (wish.edgeSingles) {
      for (let cell = 0; cell < inner.length; cell++) {
        if (inner[cell] !== 0 && isAtEdge(cell)) {
          single(cell);
          inner[cell] = 0;
          lowerBound++;
        }
      }
    }
    const regions = regionsOf({ ...left, cells: inner }, owners);
    // By the squares that a section has, laid or not: what is laid meanwhile changes no region but its own.
    const usual: SearchLimits = { rounds: roundsFor(squaresOf(parts)) };
    const isQuick = limits === 'quick';
    const far = limits === undefined || isQuick ? usual : limits;
    const fewest = this.search(regions, left.width, bars, 1, far, isQuick, barsOf);
    const byTime =
      wish.goal === 'minutes' ? this.byTime(regions, left.width, ground, barsOf, far, isQuick) : null;
    const labels = (byTime ?? fewest).labels;
    for (const bound of fewest.bounds) lowerBound += bound;
    lowerBound = Math.round(lowerBound);

    // In seconds a turn has its own price; in placements it has one only where it is wished.
    const singlePrice = (line: number) => (byTime?.bars ?? bars)(line)[1]!;
    const worth = (line: number) =>
      wish.direction === 'sparing' ? wish.turnWorth * singlePrice(line) : byTime ? ground.seconds.turns : 0;
    this.turnLabels(regions, labels, wish, owners, worth, byTime ?? fewest);
    const cut = wish.staggered ? cutStaggered : cutRegion;
    for (let region = 0; region < regions.lines.length; region++) {
      const line = regions.lines[region]!;
      cut(regions, region, labels, (byTime?.bars ?? bars)(line), (place, drills, down) => {
        const cell = regions.cells[place]!;
        placements.push({
          placement: {
            x: (cell % left.width) + whole.x,
            y: Math.floor(cell / left.width) + whole.y,
            length: drills,
            orientation: down ? 'v' : 'h',
            line,
            tip: tipFor(drills, tips),
          },
          part: partAt(cell),
        });
      });
    }
    const only = onlyWays(regions, fewest, partAt, edges);
    return this.ordered(ground, wish, widest, placements, lowerBound, only);
  }

  private byTime(
    regions: Regions,
    width: number,
    { seconds }: PlacingGround,
    barsOf: (line: number) => number,
    limits: SearchLimits,
    isQuick: boolean,
  ) {
    const perLine = new Map<number, BarCosts>();
    const bars = (line: number): BarCosts => {
      let costs = perLine.get(line);
      if (!costs) {
        costs = new Float64Array(barsOf(line) + 1);
        for (let drills = 1; drills < costs.length; drills++) {
          costs[drills] =
            Math.max(1, Math.round(seconds[placementKind(drills)] * SECOND_PARTS)) / SECOND_PARTS;
        }
        perLine.set(line, costs);
      }
      return costs;
    };
    return {
      ...this.search(regions, width, bars, 1 / SECOND_PARTS, limits, isQuick, (line) => bars(line).join()),
      bars,
    };
  }

  /** Searches the regions that are not remembered. */
  private search(
    regions: Regions,
    width: number,
    bars: (line: number) => BarCosts,
    unit: number,
    limits: SearchLimits,
    isQuick: boolean,
    kind: (line: number) => number | string,
  ) {
    const timed = limits.isOver !== undefined;
    const keys = timed
      ? null
      : Array.from(regions.lines, (line, region) => {
          const [from, to] = [regions.starts[region]!, regions.starts[region + 1]!];
          const first = regions.cells[from]!;
          const shape = regions.cells.subarray(from, to).map((cell) => cell - first);
          return `${limits.rounds} ${unit} ${kind(line)} ${width} ${shape.join()}`;
        });
    const search = searchRegions(regions, bars, unit, {
      ...limits,
      rounds: isQuick ? 0 : limits.rounds,
      known: keys ? (region) => this.memory.get(keys[region]!) : undefined,
    });
    if (keys && !isQuick) {
      if (this.memory.size > MOST_REMEMBERED) this.memory.clear();
      keys.forEach((key, region) => {
        const labels = search.labels.slice(regions.starts[region]!, regions.starts[region + 1]!);
        this.memory.set(key, { labels, cost: search.costs[region]!, bound: search.bounds[region]! });
      });
    }
    return {
      labels: search.labels.slice(),
      costs: search.costs,
      bounds: search.bounds,
      alongCosts: search.alongCosts,
      downCosts: search.downCosts,
    };
  }

  /**
   * Lays the colours of a section in one direction where that is wished, or where both save no more than turning is worth.
   * @param worth by line, in what the costs are in
   */
  private turnLabels(
    regions: Regions,
    labels: Uint8Array,
    wish: PlacingWish,
    owners: Int32Array | null,
    worth: (line: number) => number,
    {
      costs,
      alongCosts,
      downCosts,
    }: { costs: Float64Array; alongCosts: Float64Array; downCosts: Float64Array },
  ): void {
    // Every second row first needs one direction, or a bar across would lie over the gap.
    const one = wish.direction === 'one' || wish.passes === 'rows';
    const groups = new Map<string, number[]>();
    for (let region = 0; region < regions.lines.length; region++) {
      const owner = owners ? owners[regions.cells[regions.starts[region]!]!]! : 0;
      const key = `${owner} ${regions.lines[region]}`;
      const group = groups.get(key);
      if (group) group.push(region);
      else groups.set(key, [region]);
    }
    for (const group of groups.values()) {
      const sum = (of: Float64Array) => group.reduce((total, region) => total + of[region]!, 0);
      const [along, down] = [sum(alongCosts), sum(downCosts)];
      const saved = Math.min(along, down) - sum(costs);
      if (!one && saved > worth(regions.lines[group[0]!]!) + ROUNDING) continue;
      const label = down < along ? DOWN : ALONG;
      for (const region of group) {
        labels.fill(label, regions.starts[region]!, regions.starts[region + 1]!);
      }
    }
  }

  private ordered(
    ground: PlacingGround,
    wish: PlacingWish,
    widest: number,
    found: readonly { placement: Placement; part: number }[],
    lowerBound: number,
    only: ReadonlyMap<string, OnlyWays>,
  ): PlacingPlan {
    const { chart, laid, legend, parts, hand } = ground;
    const byPart: Placement[][] = parts.map(() => []);
    for (const { placement, part } of found) byPart[part]!.push(placement);
    const placements: Placement[] = [];
    const effort: Effort = { colours: 0, singles: 0, shortBars: 0, longBars: 0, turns: 0, confetti: 0 };
    const colours = parts.map((part, i) => {
      const drills = countInPart(chart, part, Math.max(1, highestLine(legend)), laid);
      const lines = coloursInOrder(legend, drills, wish.school, wish.ownOrder).map(({ line }) => line);
      const own = byPart[i]!;
      const { laid: inOrder, openings } = inLayingOrder(own, lines, part, hand, wish);
      effort.colours += openings;
      for (const placement of inOrder) {
        placements.push(placement);
        effort[placementKind(placement.length)]++;
      }
      const count = new Map<number, { along: number; down: number }>();
      for (const { line, orientation } of own) {
        const each = count.get(line) ?? { along: 0, down: 0 };
        each[orientation === 'h' ? 'along' : 'down']++;
        count.set(line, each);
      }
      return lines.map((line): ColourPlacing => {
        const { along, down } = count.get(line) ?? { along: 0, down: 0 };
        const { rowsOnly, columnsOnly } = only.get(colourKey(i, line))!;
        return { line, drills: drills[line]!, placements: along + down, along, down, rowsOnly, columnsOnly };
      });
    });
    effort.turns = turnsIn(placements);
    effort.confetti = countConfetti(chart, parts, laid);
    return {
      widest,
      placements,
      lowerBound,
      drills: placements.reduce((sum, { length }) => sum + length, 0),
      colours,
      effort,
      turns: effort.turns,
      tipChanges: tipChanges(placements),
      seams: countSeams(placements),
    };
  }
}

/** The box around all parts: what is left to lay in it, and whose each square is, whether laid or not (−1 for nobody's). */
function boxOf({ chart, laid, parts }: Pick<PlacingGround, 'chart' | 'laid' | 'parts'>) {
  const whole = boxAround(parts);
  const partOf = new Int32Array(whole.width * whole.height).fill(-1);
  parts.forEach((part, i) => {
    for (const rect of rectsOf(part)) {
      for (let y = rect.y - whole.y; y < rect.y - whole.y + rect.height; y++) {
        const row = y * whole.width + rect.x - whole.x;
        partOf.fill(i, row, row + rect.width);
      }
    }
  });
  const left = leftToLay(chart, whole, laid);
  for (let cell = 0; cell < partOf.length; cell++) if (partOf[cell] === -1) left.cells[cell] = 0;
  return { whole, left, partOf };
}

/** The search for the fewest placements of a whole canvas, to be run as long as anybody waits. */
export function searchAll(ground: Pick<PlacingGround, 'chart' | 'laid' | 'parts' | 'tips'>): PlacementSearch {
  const { left, partOf } = boxOf(ground);
  const bars = onePerPlacement(largest(ground.tips, 1));
  return new PlacementSearch(regionsOf(left, partOf), () => bars, 1);
}

/** A section of a picture has some hundreds of regions. */
const MOST_REMEMBERED = 5000;

function squaresOf(parts: readonly CellPart[]): number {
  return parts.flatMap(rectsOf).reduce((sum, { width, height }) => sum + width * height, 0);
}

/** Rounds that a ground of so many squares gets: a section is planned between two glances. */
export function roundsFor(cells: number): number {
  return cells <= 900 ? 7 : cells <= 1800 ? 6 : cells <= 20_000 ? 4 : 2;
}

interface OnlyWays {
  rowsOnly: number;
  columnsOnly: number;
}

const colourKey = (part: number, line: number) => `${part} ${line}`;

/** What each colour of each section takes with rows only and with columns only. @param edges singles that it has anyway */
function onlyWays(
  { lines, starts, cells }: Regions,
  { alongCosts, downCosts }: { alongCosts: Float64Array; downCosts: Float64Array },
  partAt: (cell: number) => number,
  edges: ReadonlyMap<string, number>,
): Map<string, OnlyWays> {
  const sums = new Map<string, OnlyWays>();
  for (const [key, singles] of edges) sums.set(key, { rowsOnly: singles, columnsOnly: singles });
  lines.forEach((line, region) => {
    const key = colourKey(partAt(cells[starts[region]!]!), line);
    const sum = sums.get(key) ?? { rowsOnly: 0, columnsOnly: 0 };
    sum.rowsOnly += alongCosts[region]!;
    sum.columnsOnly += downCosts[region]!;
    sums.set(key, sum);
  });
  return sums;
}
