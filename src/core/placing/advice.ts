import type { Finish } from '../colour/finish';
import type { PlacingPlan } from './plan';
import type { OwnTip } from './tips';

/** What a piece of advice is decided by. */
export interface AdviceFacts {
  plan: Pick<PlacingPlan, 'placements'>;
  shape: 'square' | 'round';
  tips: readonly OwnTip[];
  /** Finishes of the colours in the section. */
  finishes: readonly Finish[];
}

/** A short hint on tools, shown where it bears on the plan (all of it common practice, no source). */
export interface Advice {
  /** Under which it is dismissed. */
  key: string;
  title: string;
  words: string;
}

const ALL: (Advice & { bears: (facts: AdviceFacts) => boolean })[] = [
  {
    key: 'load',
    title: 'Loading a bar',
    words:
      'Shake the tray until the drills lie in its grooves, faces up. Press the waxed tip along a groove, from one end to the other, and look along it before you lift it over the canvas.',
    bears: ({ plan }) => plan.placements.some(({ length }) => length > 2),
  },
  {
    key: 'fewer',
    title: 'Fewer drills than the tip takes',
    words:
      'Load from one end of the tip and leave the rest of it empty. Plant the full end first; the empty end then hangs over squares that are still bare, or lifts clear of laid ones.',
    bears: ({ plan }) => plan.placements.some(({ length, tip }) => length > 1 && length < tip),
  },
  {
    key: 'worn',
    title: 'A worn or loose tip',
    words:
      'Pick old wax out with a wooden stick and warm water. A tip that turns in the pen sits tight again with a turn of thread or paper around its stem. Where its edges are round, drills sit askew: lay light colours with another one.',
    bears: ({ tips, plan }) =>
      tips.some(({ worn, size }) => worn && plan.placements.some(({ tip }) => tip === size)),
  },
  {
    key: 'coated',
    title: 'Coated drills',
    words:
      'A strong wax can pull the coat off metallic, pearly and glittering drills. Use a milder wax or a tip without any, and press on the edges. Read the label of what you use.',
    bears: ({ finishes }) => finishes.some((finish) => finish !== 'plain'),
  },
  {
    key: 'round',
    title: 'Round drills',
    words:
      'Plant one end of the bar and roll it down; round drills find their place by themselves. Where ends meet in a line, a seam shows: stagger them.',
    bears: ({ shape, plan }) => shape === 'round' && plan.placements.some(({ length }) => length > 1),
  },
  {
    key: 'square',
    title: 'Square drills',
    words:
      'Set the bar flush against laid drills and press one end until it clicks in, then the other. Straighten with a roller or a blade’s back before you press hard; cut away from the hand.',
    bears: ({ shape, plan }) => shape === 'square' && plan.placements.some(({ length }) => length > 1),
  },
  {
    key: 'wrist',
    title: 'Mind the wrist',
    words:
      'Turn the tray or the pen for columns, not your wrist. When it hurts, stop; if it does not go away, ask a doctor.',
    bears: ({ plan }) => plan.placements.some(({ orientation, length }) => orientation === 'v' && length > 1),
  },
];

/** The advice that bears on a plan, in the order in which it is needed. */
export function adviceFor(facts: AdviceFacts): Advice[] {
  return ALL.filter(({ bears }) => bears(facts)).map(({ key, title, words }) => ({ key, title, words }));
}
