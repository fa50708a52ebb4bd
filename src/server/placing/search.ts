import { type PlacingGround, PlacingPlanner } from '../../core/placing/plan';
import { secondsOfPlan } from '../../core/placing/prices';
import { leftToLay, regionsOf } from '../../core/placing/regions';
import { tipsInWords, tipsWorth } from '../../core/placing/tipsWorth';
import type { PlacingWish } from '../../core/placing/wish';
import type { PlacementsView, TipsWorthView } from './contract';

/** Rounds without end: the time is the limit. */
const UNTIL_TIME_IS_UP = 99;
/** Up to so many squares the tips are compared by the usual search, beyond it by the quick one. */
const COMPARED_WELL = 20_000;

/** What is to be planned, and how long the search may take; null for the usual rounds. */
export interface PlacingTask {
  ground: PlacingGround;
  wish: PlacingWish;
  seconds: number | null;
}

/** The plan as other programs get it: JSON, for a whole canvas takes some megabytes. */
export function placementsJson({ ground, wish, seconds }: PlacingTask): Uint8Array {
  const until = seconds === null ? null : performance.now() + seconds * 1000;
  const limits =
    until === null ? undefined : { rounds: UNTIL_TIME_IS_UP, isOver: () => performance.now() > until };
  const plan = new PlacingPlanner().plan(ground, wish, limits);
  const view: PlacementsView = {
    K: plan.widest,
    count: plan.placements.length,
    lowerBound: plan.lowerBound,
    placementsOneByOne: plan.drills,
    minutes: Math.round(secondsOfPlan(plan, ground.seconds) / 6) / 10,
    turns: plan.turns,
    tipChanges: plan.tipChanges,
    seams: plan.seams,
    placements: plan.placements.map((placement, i) => ({ ...placement, order: i + 1 })),
  };
  return new TextEncoder().encode(JSON.stringify(view));
}

/** What each size of tip makes of the squares that are left. */
export function comparedTips({ chart, laid, parts, tips, seconds }: PlacingGround): TipsWorthView {
  const pieces = parts.map((part) => regionsOf(leftToLay(chart, part, laid), null));
  const squares = pieces.reduce((sum, { cells }) => sum + cells.length, 0);
  const worth = tipsWorth(pieces, seconds, squares <= COMPARED_WELL ? 1 : 0);
  return { worth, words: tipsInWords(worth, tips) };
}
