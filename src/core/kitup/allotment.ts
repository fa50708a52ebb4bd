import type { AllotGoal, Allotment, AllotTask, GoalResult, Separable } from './allotTask';
import { Board, type Row, roomOf } from './board';
import { type Search, solved } from './search';

/**
 * Gives every colour a slot. The goals that look at one colour and one slot are an assignment problem and are solved
 * exactly, goal before goal. Confusable neighbours tie pairs of colours together: there a best-first search over
 * forbidden placements proves the optimum, and where its budget ends, exchanges of slots go on; the result then says
 * how far it may be from the best.
 */
export function allot(task: AllotTask): Allotment {
  const { staying, left } = chooseLeft(task);
  const rows = staying.map(({ line, drills }): Row => {
    const [keeps = null, ...more] = task.locked.get(line) ?? [];
    return { line, drills, keeps, size: null, besides: roomOf(task, more) };
  });
  const board = new Board(task, rows);
  const separable = task.goals.filter((goal): goal is Separable => goal !== 'neighbours');
  const { best, bounds, search } = solved(board, task.goals);
  return {
    slotsOf: new Map(
      staying.map(({ line }, i) => [line, [best[i]!, ...(task.locked.get(line) ?? []).slice(1)]]),
    ),
    left,
    results: resultsOf(
      task.goals,
      board.values(best, separable),
      board.conflicts(best).length,
      bounds,
      search,
    ),
  };
}

/**
 * A conflict-free allotment that the search found is the best one. Else what was relaxed bounds each goal, as long as
 * the goals before it are as good as relaxed; behind the first that is not, nothing but 0 is known.
 */
function resultsOf(
  goals: readonly AllotGoal[],
  values: readonly number[],
  conflicts: number,
  bounds: readonly number[],
  search: Search,
): GoalResult[] {
  const separable = goals.filter((goal): goal is Separable => goal !== 'neighbours');
  let comparable = true;
  return goals.map((goal) => {
    const at = separable.indexOf(goal as Separable);
    const value = at < 0 ? conflicts : values[at]!;
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
  const kept = new Set([...locked.values()].flat());
  // A colour that keeps several slots leaves fewer for the others.
  const more = [...locked.values()].reduce((sum, own) => sum + Math.max(0, own.length - 1), 0);
  const usable = slots.filter(({ capacity }, i) => capacity > 0 || kept.has(i)).length - more;
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
