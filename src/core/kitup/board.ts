import type { AllotTask, Separable } from './allotTask';
import { assign } from './assignment';
import { sizeCost } from './sharePots';

/** Refused placements cost more in the first goal than any allotment can. */
const FORBIDDEN = 1e13;

/** A pot that wants a slot. */
export interface Row {
  line: number;
  drills: number;
  /** The slot that it keeps. */
  keeps: number | null;
  /** Capacity that its slot must have; null for any. */
  size: number | null;
  /** Room that the colour has in other pots, in drills. */
  besides: number;
}

/** The costs of one task: rows are the pots that get a slot, columns the slots. */
export class Board {
  private readonly touching: Set<number>[];
  private readonly confusable: [number, number][];
  /** Of each row, those that are easily confused with it. */
  private readonly rivals: Set<number>[];
  private readonly kept: ReadonlySet<number>;
  readonly rows: number;
  readonly columns: number;

  constructor(
    private readonly task: AllotTask,
    private readonly pots: readonly Row[],
  ) {
    this.rows = pots.length;
    this.columns = task.slots.length;
    this.kept = new Set([...task.locked.values()].flat());
    this.touching = task.slots.map(() => new Set());
    for (const [a, b] of task.touching) {
      this.touching[a]!.add(b);
      this.touching[b]!.add(a);
    }
    const rowsOf = new Map<number, number[]>();
    for (const [row, { line }] of pots.entries()) rowsOf.set(line, [...(rowsOf.get(line) ?? []), row]);
    this.confusable = task.confusable.flatMap(([a, b]) =>
      (rowsOf.get(a) ?? []).flatMap((one) =>
        (rowsOf.get(b) ?? []).map((other): [number, number] => [one, other]),
      ),
    );
    this.rivals = pots.map(() => new Set());
    for (const [a, b] of this.confusable) {
      this.rivals[a]!.add(b);
      this.rivals[b]!.add(a);
    }
  }

  cost(goal: Separable, row: number, column: number): number {
    if (goal === 'order') return (row - column) ** 2;
    const { drills, besides } = this.pots[row]!;
    return sizeCost(goal, drills, Math.max(0, this.task.slots[column]!.capacity) + besides);
  }

  /** Whether a pot may stand in a slot at all: kept ones keep theirs, and no other goes there. */
  allowed(row: number, column: number): boolean {
    const { keeps, size } = this.pots[row]!;
    if (keeps !== null) return keeps === column;
    const { capacity } = this.task.slots[column]!;
    return capacity > 0 && !this.kept.has(column) && (size === null || size === capacity);
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

/** Room of some slots together, in drills. */
export function roomOf({ slots }: Pick<AllotTask, 'slots'>, which: readonly number[]): number {
  return which.reduce((sum, slot) => sum + slots[slot]!.capacity, 0);
}
