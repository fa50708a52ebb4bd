import { EFFORTS, type Effort } from '../pace/effort';
import { counted } from '../words/numbers';
import type { PlacingGround, PlacingPlan, PlacingPlanner } from './plan';
import { LIGHT_FROM, type PlacingWish } from './wish';

/** Seconds for taking another pen, or turning it round (common practice, no source). */
const TIP_CHANGE_SECONDS = 4;
/** The longest bar for hands that tremble, where none is given (common practice, no source). */
export const SHORT_BAR = 4;

/** Seconds that a plan takes, with the changes of tip. @param seconds that one of each effort takes */
export function secondsOfPlan(
  { effort, tipChanges }: Pick<PlacingPlan, 'effort' | 'tipChanges'>,
  seconds: Readonly<Effort>,
): number {
  const work = EFFORTS.reduce((sum, kind) => sum + effort[kind] * seconds[kind], 0);
  return work + tipChanges * TIP_CHANGE_SECONDS;
}

/** A wish that can be switched on and off by itself: how it changes the wishes when it is on, and when it is off. */
interface Switch {
  on: Partial<PlacingWish>;
  off: Partial<PlacingWish>;
  isOn: (wish: PlacingWish) => boolean;
}

export const SWITCHES = {
  minutes: { on: { goal: 'minutes' }, off: { goal: 'placements' }, isOn: ({ goal }) => goal === 'minutes' },
  sparing: {
    on: { direction: 'sparing' },
    off: { direction: 'free' },
    isOn: ({ direction }) => direction === 'sparing',
  },
  one: { on: { direction: 'one' }, off: { direction: 'free' }, isOn: ({ direction }) => direction === 'one' },
  staggered: { on: { staggered: true }, off: { staggered: false }, isOn: ({ staggered }) => staggered },
  rows: { on: { passes: 'rows' }, off: { passes: 'one' }, isOn: ({ passes }) => passes === 'rows' },
  checkerboard: {
    on: { passes: 'checkerboard' },
    off: { passes: 'one' },
    isOn: ({ passes }) => passes === 'checkerboard',
  },
  tipByTip: { on: { tipByTip: true }, off: { tipByTip: false }, isOn: ({ tipByTip }) => tipByTip },
  singlesAbove: {
    on: { singlesAbove: LIGHT_FROM },
    off: { singlesAbove: null },
    isOn: ({ singlesAbove }) => singlesAbove !== null,
  },
  longest: { on: { longest: SHORT_BAR }, off: { longest: null }, isOn: ({ longest }) => longest !== null },
  edgeSingles: {
    on: { edgeSingles: true },
    off: { edgeSingles: false },
    isOn: ({ edgeSingles }) => edgeSingles,
  },
} satisfies Record<string, Switch>;
export type SwitchName = keyof typeof SWITCHES;
export const SWITCH_NAMES = Object.keys(SWITCHES) as SwitchName[];

/** What a wish costs: with it less without it, all other wishes as they are. Below 0 where it saves. */
export interface WishPrice {
  placements: number;
  seconds: number;
}

export function switched(wish: PlacingWish, name: SwitchName, on: boolean): PlacingWish {
  const { [name]: one } = SWITCHES;
  // A wish that is on keeps its own number.
  if (on && one.isOn(wish)) return wish;
  return { ...wish, ...(on ? one.on : one.off) };
}

/** @param now the plan with the wishes as they are */
export function wishPrice(
  planner: PlacingPlanner,
  ground: PlacingGround,
  wish: PlacingWish,
  now: PlacingPlan,
  name: SwitchName,
): WishPrice {
  const isOn = SWITCHES[name].isOn(wish);
  const other = planner.plan(ground, switched(wish, name, !isOn));
  const [on, off] = isOn ? [now, other] : [other, now];
  return {
    placements: on.placements.length - off.placements.length,
    seconds: secondsOfPlan(on, ground.seconds) - secondsOfPlan(off, ground.seconds),
  };
}

/**
 * A price as it stands beside its wish.
 * @example priceInWords({ placements: 9, seconds: -45 }) // '9 placements more, about 1 minute less'
 */
export function priceInWords({ placements, seconds }: WishPrice): string {
  const more = (n: number) => (n > 0 ? 'more' : 'fewer');
  const minutes = Math.round(seconds / 60);
  const time =
    minutes === 0
      ? Math.abs(seconds) < 1
        ? 'no change in time'
        : `some seconds ${seconds > 0 ? 'more' : 'less'}`
      : `about ${counted(Math.abs(minutes), 'minute')} ${minutes > 0 ? 'more' : 'less'}`;
  const bars =
    placements === 0
      ? 'As many placements'
      : `${counted(Math.abs(placements), 'placement')} ${more(placements)}`;
  return `${bars}, ${time}`;
}
