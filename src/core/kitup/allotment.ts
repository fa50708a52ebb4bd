import { assign } from './assignment';

/**
 * What an allotment is judged by, in the usual order:
 * - `closes`: colours that do not fit into their slot whole;
 * - `overflow`: drills that stay outside, in overflow bags;
 * - `refills`: times a pot must be filled again until all its drills are used;
 * - `order`: how far the colours stand from their places in the chosen order (sum of squared places);
 * - `neighbours`: pairs of easily confused colours in slots that touch.
 */
export const ALLOT_GOALS = ['closes', 'overflow', 'refills', 'order', 'neighbours'] as const;
export type AllotGoal = (typeof ALLOT_GOALS)[number];

/** The same goals with look-alikes parted before the order is kept. */
export function partingFirst(goals: readonly AllotGoal[]): AllotGoal[] {
  const rest: AllotGoal[] = goals.filter((goal) => goal !== 'neighbours');
  return rest.toSpliced(rest.indexOf('order'), 0, 'neighbours');
}

/** Which colours stay in their bags when there are more colours than slots. */
export const LEAVE_RULES = ['fewest drills', 'last used'] as const;
export type LeaveRule = (typeof LEAVE_RULES)[number];

export interface AllotTask {
  /** Colours in the chosen order. `drills` are to be stored; `firstUse` is the section in which the colour begins. */
  colours: readonly { line: number; drills: number; firstUse: number }[];
  /** Free slots by their place in the storage; `capacity` in drills. */
  slots: readonly { capacity: number }[];
  /** Pairs of slots that touch, by index. */
  touching: readonly (readonly [number, number])[];
  /** Pairs of lines that the eye takes for each other. */
  confusable: readonly (readonly [number, number])[];
  goals: readonly AllotGoal[];
  leave: LeaveRule;
  /** Line → index of the slot that it keeps. */
  locked: ReadonlyMap<number, number>;
}

/** What was reached for a goal, and what no allotment can go below. Proved best when both are equal. */
export interface GoalResult {
  goal: AllotGoal;
  value: number;
  atLeast: number;
}

export interface Allotment {
  /** Line → index of its slot. */
  slotOf: Map<number, number>;
  /** Lines that stay in their bags, first the one that would get the next free slot. */
  left: number[];
  /** In the order of the goals. */
  results: GoalResult[];
}

type Separable = Exclude<AllotGoal, 'neighbours'>;

/** What the search for an allotment without conflict found: the best one, or how many conflicts are left at least. */
interface Search {
  found: Int32Array | null;
  leastConflicts: number;
}

/** Refused placements cost more in the first goal than any allotment can. */
const FORBIDDEN = 1e13;
/** Elementary steps that the search for a conflict-free allotment may take, so that it ends within two seconds or so. */
const SEARCH_BUDGET = 1e8;
const MAX_NODES = 400;

/**
 * Gives every colour a slot. The goals that look at one colour and one slot are an assignment problem and are solved
 * exactly, goal before goal. Confusable neighbours tie pairs of colours together: there a best-first search over
 * forbidden placements proves the optimum, and where its budget ends, exchanges of slots go on; the result then says
 * how far it may be from the best.
 */
export function allot(task: AllotTask): Allotment {
  const { staying, left } = chooseLeft(task);
  const board = new Board(task, staying);
  const separable = task.goals.filter((goal): goal is Separable => goal !== 'neighbours');
  const relaxed = board.solve(separable, [])!;
  const bounds = board.values(relaxed, separable);
  const above = task.goals.indexOf('neighbours');
  const search: Search =
    above < 0
      ? { found: relaxed, leastConflicts: 0 }
      : conflictFree(board, separable, above, relaxed, bounds);
  const best = search.found ?? exchange(board, task.goals, relaxed, bounds.slice(0, above));
  return {
    slotOf: new Map(staying.map(({ line }, i) => [line, best[i]!])),
    left,
    results: resultsOf(task.goals, board, best, bounds, search),
  };
}

/**
 * A conflict-free allotment that the search found is the best one. Else what was relaxed bounds each goal, as long as
 * the goals before it are as good as relaxed; behind the first that is not, nothing but 0 is known.
 */
function resultsOf(
  goals: readonly AllotGoal[],
  board: Board,
  best: Int32Array,
  bounds: readonly number[],
  search: Search,
): GoalResult[] {
  const separable = goals.filter((goal): goal is Separable => goal !== 'neighbours');
  const values = board.values(best, separable);
  let comparable = true;
  return goals.map((goal) => {
    const at = separable.indexOf(goal as Separable);
    const value = at < 0 ? board.conflicts(best).length : values[at]!;
    const bound = at < 0 ? search.leastConflicts : bounds[at]!;
    const atLeast = search.found ? value : comparable ? bound : 0;
    if (at >= 0 && value > atLeast) comparable = false;
    return { goal, value, atLeast };
  });
}

function chooseLeft({ colours, slots, leave, locked }: AllotTask): {
  staying: AllotTask['colours'][number][];
  left: number[];
} {
  const usable = slots.filter(({ capacity }, i) => capacity > 0 || [...locked.values()].includes(i)).length;
  const tooMany = colours.length - usable;
  if (tooMany <= 0) return { staying: [...colours], left: [] };
  const left = colours
    .filter(({ line }) => !locked.has(line))
    .sort((a, b) =>
      leave === 'fewest drills'
        ? a.drills - b.drills || b.firstUse - a.firstUse
        : b.firstUse - a.firstUse || a.drills - b.drills,
    )
    .slice(0, tooMany)
    .map(({ line }) => line)
    .reverse();
  return { staying: colours.filter(({ line }) => !left.includes(line)), left };
}

/** The costs of one task: rows are the colours that get a slot, columns the slots. */
class Board {
  private readonly touching: Set<number>[];
  private readonly confusable: [number, number][];
  /** Of each row, those that are easily confused with it. */
  private readonly rivals: Set<number>[];
  readonly rows: number;
  readonly columns: number;

  constructor(
    private readonly task: AllotTask,
    private readonly colours: readonly { line: number; drills: number }[],
  ) {
    this.rows = colours.length;
    this.columns = task.slots.length;
    this.touching = task.slots.map(() => new Set());
    for (const [a, b] of task.touching) {
      this.touching[a]!.add(b);
      this.touching[b]!.add(a);
    }
    const rowOf = new Map(colours.map(({ line }, row) => [line, row]));
    this.confusable = task.confusable.flatMap(([a, b]) => {
      const pair: [number | undefined, number | undefined] = [rowOf.get(a), rowOf.get(b)];
      return pair[0] === undefined || pair[1] === undefined ? [] : [[pair[0], pair[1]] as [number, number]];
    });
    this.rivals = colours.map(() => new Set());
    for (const [a, b] of this.confusable) {
      this.rivals[a]!.add(b);
      this.rivals[b]!.add(a);
    }
  }

  cost(goal: Separable, row: number, column: number): number {
    const { drills } = this.colours[row]!;
    const { capacity } = this.task.slots[column]!;
    switch (goal) {
      case 'closes':
        return drills > capacity ? 1 : 0;
      case 'overflow':
        return Math.max(0, drills - capacity);
      case 'refills':
        return refillsOf(drills, capacity);
      case 'order':
        return (row - column) ** 2;
    }
  }

  /** Whether a colour may stand in a slot at all: locked ones keep theirs, and no other goes there. */
  allowed(row: number, column: number): boolean {
    const kept = this.task.locked.get(this.colours[row]!.line);
    if (kept !== undefined) return kept === column;
    return this.task.slots[column]!.capacity > 0 && !this.isKept(column);
  }

  private readonly keptColumns = new Set<number>();
  private isKept(column: number): boolean {
    if (this.keptColumns.size === 0) for (const kept of this.task.locked.values()) this.keptColumns.add(kept);
    return this.keptColumns.has(column);
  }

  /** The best slot of every row, or null when the forbidden placements leave none. */
  solve(goals: readonly Separable[], forbidden: readonly (readonly [number, number])[]): Int32Array | null {
    const G = Math.max(1, goals.length);
    const cost = new Float64Array(this.rows * this.columns * G);
    for (let row = 0; row < this.rows; row++) {
      for (let column = 0; column < this.columns; column++) {
        const at = (row * this.columns + column) * G;
        if (!this.allowed(row, column)) cost[at] = FORBIDDEN;
        else for (let g = 0; g < goals.length; g++) cost[at + g] = this.cost(goals[g]!, row, column);
      }
    }
    for (const [row, column] of forbidden) cost[(row * this.columns + column) * G] = FORBIDDEN;
    const slots = assign(this.rows, this.columns, G, cost);
    const broken = slots.some((column, row) => cost[(row * this.columns + column) * G]! >= FORBIDDEN);
    return broken ? null : slots;
  }

  values(slots: Int32Array, goals: readonly Separable[]): number[] {
    return goals.map((goal) => slots.reduce((sum, column, row) => sum + this.cost(goal, row, column), 0));
  }

  /** Rows with which this row conflicts, were it in a column. @param leaving a row whose place does not count */
  conflictsAt(slots: Int32Array, row: number, column: number, leaving = -1): number {
    let count = 0;
    for (const other of this.rivals[row]!) {
      if (other !== leaving && this.touching[column]!.has(slots[other]!)) count++;
    }
    return count;
  }

  /** Pairs of rows that stand beside each other and are easily confused. */
  conflicts(slots: Int32Array): [number, number][] {
    return this.confusable.filter(([a, b]) => this.touching[slots[a]!]!.has(slots[b]!));
  }
}

/**
 * Times a pot is filled again after its first filling.
 * @example refillsOf(500, 200) // 2
 */
export function refillsOf(drills: number, capacity: number): number {
  return capacity <= 0 ? drills : Math.max(0, Math.ceil(drills / capacity) - 1);
}

/**
 * Looks for the best allotment without confusable neighbours whose first `above` goals are as good as without that wish.
 * Each step forbids one of two placements that conflict, so nothing is overlooked; best first, so the first allotment
 * without conflict is the best one.
 */
function conflictFree(
  board: Board,
  goals: readonly Separable[],
  above: number,
  relaxed: Int32Array,
  bounds: readonly number[],
): Search {
  const work = Math.max(1, board.rows ** 2 * board.columns * goals.length * 0.25);
  const most = Math.min(MAX_NODES, Math.max(4, Math.floor(SEARCH_BUDGET / work)));
  type Node = { slots: Int32Array; values: number[]; forbidden: [number, number][] };
  const open: Node[] = [{ slots: relaxed, values: [...bounds], forbidden: [] }];
  for (let solved = 0; open.length > 0; ) {
    open.sort((a, b) => compareVectors(b.values, a.values));
    const node = open.pop()!;
    const conflict = board.conflicts(node.slots)[0];
    if (!conflict) return { found: node.slots, leastConflicts: 0 };
    for (const row of conflict) {
      if (solved++ >= most) return { found: null, leastConflicts: 0 };
      const forbidden: [number, number][] = [...node.forbidden, [row, node.slots[row]!]];
      const slots = board.solve(goals, forbidden);
      if (!slots) continue;
      const values = board.values(slots, goals);
      if (compareVectors(values.slice(0, above), bounds.slice(0, above)) === 0)
        open.push({ slots, values, forbidden });
    }
  }
  return { found: null, leastConflicts: 1 };
}

/** Exchanges the slots of two colours, or moves one to a free slot, while that makes the whole better. */
function exchange(
  board: Board,
  goals: readonly AllotGoal[],
  start: Int32Array,
  keep: readonly number[],
): Int32Array {
  const slots = start.slice();
  const separable = goals.filter((goal): goal is Separable => goal !== 'neighbours');
  const rowAt = new Int32Array(board.columns).fill(-1);
  slots.forEach((column, row) => {
    rowAt[column] = row;
  });
  /** Change of every goal, in their order, if `row` goes to `column` and whoever is there comes back. */
  const change = (row: number, column: number): number[] | null => {
    const from = slots[row]!;
    const other = rowAt[column]!;
    if (!board.allowed(row, column) || (other >= 0 && !board.allowed(other, from))) return null;
    const delta = (goal: Separable) =>
      board.cost(goal, row, column) -
      board.cost(goal, row, from) +
      (other < 0 ? 0 : board.cost(goal, other, from) - board.cost(goal, other, column));
    for (let g = 0; g < keep.length; g++) if (delta(separable[g]!) !== 0) return null;
    // Whether these two conflict with each other is the same before and after.
    const before = board.conflictsAt(slots, row, from, other);
    const after = board.conflictsAt(slots, row, column, other);
    const otherBefore = other < 0 ? 0 : board.conflictsAt(slots, other, column, row);
    const otherAfter = other < 0 ? 0 : board.conflictsAt(slots, other, from, row);
    const more = after - before + otherAfter - otherBefore;
    return goals.map((goal) => (goal === 'neighbours' ? more : delta(goal)));
  };
  const move = (row: number, column: number, other: number, from: number) => {
    slots[row] = column;
    if (other >= 0) slots[other] = from;
  };
  for (let round = 0; round < 60; round++) {
    const troubled = new Set(board.conflicts(slots).flat());
    let best: { gain: number[]; row: number; column: number } | null = null;
    for (const row of troubled) {
      for (let column = 0; column < board.columns; column++) {
        const gain = column === slots[row] ? null : change(row, column);
        if (gain && compareVectors(gain, best?.gain ?? goals.map(() => 0)) < 0) best = { gain, row, column };
      }
    }
    if (!best) break;
    const from = slots[best.row]!;
    const other = rowAt[best.column]!;
    move(best.row, best.column, other, from);
    rowAt[best.column] = best.row;
    rowAt[from] = other;
  }
  return slots;
}

function compareVectors(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}
