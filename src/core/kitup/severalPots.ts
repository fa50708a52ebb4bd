import { allot } from './allotment';
import type { AllotGoal, Allotment, AllotTask, GoalResult } from './allotTask';
import { Board, type Row, roomOf } from './board';
import { solved } from './search';
import { type PotSize, type SharedPots, SIZE_GOALS, type SizeGoal, sharePots, sizeCost } from './sharePots';
import { compareVectors } from './vectors';

/** A plan with one pot a colour, and one that uses the pots left over; null where that brings nothing. */
export interface BothAllotments {
  one: Allotment;
  several: Allotment | null;
}

/** What it brings to use pots that are left over, and what it costs. */
export interface SeveralOffer {
  /** Pots beside the first of each colour. */
  pots: number;
  /** Colours that lie in more than one. */
  colours: number;
  /** Drills outside with one pot a colour, and with the pots left over. */
  outside: [one: number, several: number];
  /** Colours that do not fit whole, in both ways. */
  overflowing: [one: number, several: number];
}

/** @returns null where pots left over bring nothing */
export function offerOf({ one, several }: BothAllotments): SeveralOffer | null {
  if (!several) return null;
  const counts = [...several.slotsOf.values()].map((slots) => slots.length);
  const both = (goal: SizeGoal): [number, number] => {
    const value = ({ results }: Allotment) => results.find((each) => each.goal === goal)!.value;
    return [value(one), value(several)];
  };
  return {
    pots: counts.reduce((sum, n) => sum + n - 1, 0),
    colours: counts.filter((n) => n > 1).length,
    outside: both('overflow'),
    overflowing: both('closes'),
  };
}

/** Allots in both ways, so that the price of a second pot is known before it is chosen. */
export function allotBoth(task: AllotTask): BothAllotments {
  const one = allot(task);
  const several = one.left.length > 0 ? null : allotSeveral(task, one);
  const isBetter = several?.results.some(
    ({ goal, value }, i) => isSize(goal) && value < one.results[i]!.value,
  );
  return { one, several: isBetter ? several : null };
}

/** Elementary steps that placing all pots of a case may take, so that it ends within seconds. */
const PLACING_BUDGET = 4e8;

/**
 * Uses the pots that are left over for colours that overflow. Where the goals of size come first, how many pots of each
 * size a colour gets is settled for all colours together, and then where they stand, a colour's pots side by side.
 * Else, or where there are too many pots to place them so, or it was settled roughly and is no better, every colour keeps
 * the pot of the plan with one pot each, and only those left over are shared out.
 */
function allotSeveral(task: AllotTask, one: Allotment): Allotment {
  const sizeGoals = task.goals.filter(isSize);
  const sizesLead = task.goals.slice(0, sizeGoals.length).every(isSize);
  const shared = sizesLead ? sharedTogether(task, sizeGoals) : null;
  const pots = shared?.pots.flat().reduce((sum, n) => sum + n, 0) ?? 0;
  const isPlaceable = shared !== null && pots ** 2 * task.slots.length <= PLACING_BUDGET;
  if (isPlaceable && shared.isBest) return allotTogether(task, sizeGoals, shared);
  const spare = allotSpare(task, sizeGoals, one);
  const values = spare.results.filter(({ goal }) => isSize(goal)).map(({ value }) => value);
  const isBetter = isPlaceable && compareVectors(shared.values, values) < 0;
  return isBetter ? allotTogether(task, sizeGoals, shared) : spare;
}

interface Together extends SharedPots {
  sizes: PotSize[];
}

function sharedTogether(task: AllotTask, goals: readonly SizeGoal[]): Together | null {
  const kept = new Set([...task.locked.values()].flat());
  const sizes = sizesOf(task.slots, (i) => !kept.has(i));
  const colours = task.colours.map(({ line, drills }) => ({
    drills,
    base: roomOf(task, task.locked.get(line) ?? []),
  }));
  const shared = sharePots(colours, sizes, goals);
  return shared && { ...shared, sizes };
}

function allotTogether(
  task: AllotTask,
  goals: readonly SizeGoal[],
  { pots, values, isBest, sizes }: Together,
): Allotment {
  const rows = task.colours.flatMap(({ line, drills }, i): Row[] => [
    ...(task.locked.get(line) ?? []).map((keeps) => ({ line, drills, keeps, size: null, besides: 0 })),
    ...pots[i]!.flatMap((n, c) =>
      Array.from({ length: n }, () => ({ line, drills, keeps: null, size: sizes[c]!.capacity, besides: 0 })),
    ),
  ]);
  const board = new Board(task, rows);
  const { best } = solved(
    board,
    task.goals.filter((goal) => !isSize(goal)),
  );
  const order = board.values(best, ['order'])[0]!;
  return {
    slotsOf: slotsByLine(rows, best),
    left: [],
    results: task.goals.map((goal): GoalResult => {
      const at = goals.indexOf(goal as SizeGoal);
      if (at >= 0) {
        const value = values[at]!;
        return { goal, value, atLeast: isBest ? value : leastOf(task, goal) };
      }
      // Another choice of pots, as good in what comes first, might do better here.
      return { goal, value: goal === 'order' ? order : board.conflicts(best).length, atLeast: 0 };
    }),
  };
}

function allotSpare(task: AllotTask, goals: readonly SizeGoal[], one: Allotment): Allotment {
  const used = new Set([...one.slotsOf.values()].flat());
  const spare = task.slots.flatMap(({ capacity }, i) => (used.has(i) || capacity <= 0 ? [] : [i]));
  const colours = task.colours.map(({ line, drills }) => ({
    drills,
    base: roomOf(task, one.slotsOf.get(line)!),
  }));
  const sizes = sizesOf(task.slots, (i) => spare.includes(i));
  const pots = sharePots(colours, sizes, goals)?.pots ?? colours.map(() => sizes.map(() => 0));
  const free = new Set(spare);
  const slotsOf = new Map([...one.slotsOf].map(([line, slots]) => [line, [...slots]]));
  task.colours.forEach(({ line }, i) => {
    pots[i]!.forEach((n, c) => {
      const own = slotsOf.get(line)!;
      const near = [...free]
        .filter((slot) => task.slots[slot]!.capacity === sizes[c]!.capacity)
        .sort((a, b) => Math.abs(a - own[0]!) - Math.abs(b - own[0]!));
      for (const slot of near.slice(0, n)) {
        free.delete(slot);
        own.push(slot);
      }
    });
  });
  const all = task.colours.flatMap((colour) => {
    const slots = slotsOf.get(colour.line)!;
    return slots.map((keeps): Row => ({ ...colour, keeps, size: null, besides: 0 }));
  });
  const conflicts = new Board(task, all).conflicts(Int32Array.from(all.map(({ keeps }) => keeps!))).length;
  return {
    slotsOf,
    left: [],
    results: one.results.map(({ goal, value, atLeast }): GoalResult => {
      if (goal === 'order') return { goal, value, atLeast };
      if (goal === 'neighbours') return { goal, value: conflicts, atLeast: 0 };
      const reached = task.colours.reduce(
        (sum, colour) => sum + sizeCost(goal, colour.drills, roomOf(task, slotsOf.get(colour.line)!)),
        0,
      );
      return { goal, value: reached, atLeast: leastOf(task, goal) };
    }),
  };
}

/** What no allotment goes below, as far as it is known without a search. */
function leastOf({ colours, slots }: AllotTask, goal: AllotGoal): number {
  if (goal !== 'overflow') return 0;
  const drills = colours.reduce((sum, colour) => sum + colour.drills, 0);
  return Math.max(0, drills - slots.reduce((sum, { capacity }) => sum + Math.max(0, capacity), 0));
}

function isSize(goal: AllotGoal): goal is SizeGoal {
  return (SIZE_GOALS as readonly string[]).includes(goal);
}

/** The free slots by their capacity. */
function sizesOf(slots: AllotTask['slots'], isFree: (slot: number) => boolean): PotSize[] {
  const sizes = new Map<number, number>();
  for (const [i, { capacity }] of slots.entries()) {
    if (capacity > 0 && isFree(i)) sizes.set(capacity, (sizes.get(capacity) ?? 0) + 1);
  }
  return [...sizes].map(([capacity, count]) => ({ capacity, count }));
}

function slotsByLine(rows: readonly Row[], slots: Int32Array): Map<number, number[]> {
  const slotsOf = new Map<number, number[]>();
  for (const [i, { line }] of rows.entries()) slotsOf.set(line, [...(slotsOf.get(line) ?? []), slots[i]!]);
  for (const own of slotsOf.values()) own.sort((a, b) => a - b);
  return slotsOf;
}
