/** A colour that ran out at the bench: what was left then, and what was still to lay. */
export interface RanOut {
  /** UTC. */
  happenedAt: string;
  leftDrills: number;
  toLay: number;
}

/**
 * Drills of a colour that are known to be wanting, whatever the bags promised: what was still to lay when it ran out,
 * less what was left and what came since.
 * @param bags of this colour, each with when it was counted (UTC)
 * @example knownWanting({ happenedAt: '2026-05-01', leftDrills: 3, toLay: 40 }, []) // 37
 */
export function knownWanting(
  { happenedAt, leftDrills, toLay }: RanOut,
  bags: readonly { drills: number; countedAt: string }[],
): number {
  const since = bags.reduce((sum, { drills, countedAt }) => sum + (countedAt > happenedAt ? drills : 0), 0);
  return Math.max(0, toLay - leftDrills - since);
}
