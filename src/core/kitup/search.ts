import type { AllotGoal, Separable } from './allotTask';
import type { Board } from './board';
import { compareVectors } from './vectors';

/** What the search for an allotment without conflict found: the best one, or how many conflicts are left at least. */
export interface Search {
  found: Int32Array | null;
  leastConflicts: number;
}

/** Elementary steps that the search for a conflict-free allotment may take, so that it ends within two seconds or so. */
const SEARCH_BUDGET = 1e8;
const MAX_NODES = 400;

/** The best slot of every row by these goals, exactly where the search ends in time. */
export function solved(
  board: Board,
  goals: readonly AllotGoal[],
): { best: Int32Array; bounds: number[]; search: Search } {
  const separable = goals.filter((goal): goal is Separable => goal !== 'neighbours');
  const relaxed = board.solve(separable, [])!;
  const bounds = board.values(relaxed, separable);
  const above = goals.indexOf('neighbours');
  const search: Search =
    above < 0
      ? { found: relaxed, leastConflicts: 0 }
      : conflictFree(board, separable, above, relaxed, bounds);
  return { best: search.found ?? exchange(board, goals, relaxed, bounds.slice(0, above)), bounds, search };
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
