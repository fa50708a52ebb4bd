import type { ColourOrder } from '../codes/colourOrder';
import { counted, many } from '../words/numbers';
import type { AllotGoal, GoalResult, LeaveRule } from './allotTask';
import type { Refill } from './refills';
import type { SeveralOffer } from './severalPots';

/** The goals as the user orders them. */
export const GOAL_WORDS: Record<AllotGoal, string> = {
  closes: 'Every lid closes',
  overflow: 'Little stays outside the pots',
  refills: 'Few refills',
  order: 'Kept in order',
  neighbours: 'Look-alikes not side by side',
};

/** The orders as the user chooses them. */
export const ORDER_WORDS: Record<ColourOrder, string> = {
  code: 'colour code',
  key: 'key number',
  frequency: 'most used first',
  dark: 'dark to light',
  symbol: 'symbol',
};

/** What was reached for a goal, and how far that may be from the best. @param colours in pots */
export function resultInWords({ goal, value, atLeast }: GoalResult, colours: number): string {
  const reached: Record<AllotGoal, string> = {
    closes:
      value === 0 ? 'Every colour fits into its pot.' : `${counted(value, 'colour')} of ${colours} overflow.`,
    overflow: value === 0 ? 'Nothing stays outside.' : `${counted(value, 'drill')} in overflow bags.`,
    refills: value === 0 ? 'No pot is filled twice.' : `${counted(value, 'refill')} at most.`,
    order:
      value === 0
        ? 'Exactly in order.'
        : `${places(value, colours)} away from their place in the order, on average.`,
    neighbours: value === 0 ? 'None side by side.' : `${counted(value, 'pair')} side by side.`,
  };
  if (value === atLeast) return value === 0 ? reached[goal] : `${reached[goal]} No plan does better.`;
  const best = goal === 'order' ? places(atLeast, colours) : many(atLeast);
  return `${reached[goal]} Perhaps not the best: it might go down to ${best}.`;
}

/** What pots left over would take, and what that costs. */
export function offerInWords({ pots, colours, outside, overflowing }: SeveralOffer): string {
  const [one, several] = outside;
  return (
    `${counted(pots, 'pot')} left over ${pots === 1 ? 'takes' : 'take'} ${counted(one - several, 'drill')}: ` +
    `${counted(several, 'drill')} ${several === 1 ? 'stays' : 'stay'} outside instead of ${many(one)}, and ` +
    `${counted(overflowing[1], 'colour')} ${overflowing[1] === 1 ? 'overflows' : 'overflow'} instead of ${many(overflowing[0])}. ` +
    `The cost: ${counted(colours, 'colour')} ${colours === 1 ? 'lies' : 'lie'} in more than one pot.`
  );
}

/** Root mean square of the places that colours are off, in words. */
function places(sumOfSquares: number, colours: number): string {
  const off = Math.sqrt(sumOfSquares / Math.max(1, colours));
  return off < 0.95 ? 'less than one place' : counted(Math.round(off), 'place');
}

/**
 * Why a colour stays in its bag.
 * @param mostInPot drills of the largest colour that has a pot: no reason is named that holds for all alike
 */
export function leftInWords(rule: LeaveRule, drills: number, firstUse: number, mostInPot: number): string {
  if (rule === 'last used' && firstUse > 0) return `not needed before section ${many(firstUse)}`;
  return drills < mostInPot ? `only ${counted(drills, 'drill')}` : 'no pot is left for it';
}

/** A refill as one line of the plan. */
export function refillInWords(refill: Refill, place: string, bag: number): string {
  const when =
    refill.section === null
      ? `about ${Math.round(refill.workDone * 100)} % into the work`
      : `in section ${many(refill.section)}, ${Math.round(refill.workDone * 100)} % into the work`;
  return `${place} runs empty ${when}: ${counted(refill.drills, 'drill')} from bag ${bag}.`;
}
