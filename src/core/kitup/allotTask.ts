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
  /** Line → indices of the slots that it keeps. */
  locked: ReadonlyMap<number, readonly number[]>;
}

/** What was reached for a goal, and what no allotment can go below. Proved best when both are equal. */
export interface GoalResult {
  goal: AllotGoal;
  value: number;
  atLeast: number;
}

export interface Allotment {
  /** Line → indices of its slots, in the order in which they are filled. */
  slotsOf: Map<number, number[]>;
  /** Lines that stay in their bags, first the one that would get the next free slot. */
  left: number[];
  /** In the order of the goals. */
  results: GoalResult[];
}

export type Separable = Exclude<AllotGoal, 'neighbours'>;
