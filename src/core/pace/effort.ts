/**
 * What takes time in a piece of work: colours to open, placements of one drill, with a short bar (2 to 5 drills) and with
 * a long one, changes between rows and columns, and confetti to hunt for.
 */
export const EFFORTS = ['colours', 'singles', 'shortBars', 'longBars', 'turns', 'confetti'] as const;
export type EffortKind = (typeof EFFORTS)[number];
/** How much of each there is; a count. */
export type Effort = Record<EffortKind, number>;

/** From so many drills on a bar is a long one: it must be rolled down, not only pressed. */
const LONG_BAR = 6;

/** Which effort a placement of so many drills is. */
export function placementKind(drills: number): 'singles' | 'shortBars' | 'longBars' {
  return drills === 1 ? 'singles' : drills < LONG_BAR ? 'shortBars' : 'longBars';
}
