import type { Placement } from '../../core/placing/placement';
import { SCHOOLS } from '../../core/placing/schools';
import { type OwnTip, TIP_SHAPES, WIDEST_TIP } from '../../core/placing/tips';
import type { TipWorth } from '../../core/placing/tipsWorth';
import type { PlacingWish } from '../../core/placing/wish';
import { DIRECTIONS, GOALS, PASSES } from '../../core/placing/wish';
import { array, boolean, colourLine, number, object, string } from '../http/schema';

const sectionNumber = number()
  .typeError('Give the number of a section.')
  .integer('Sections have whole numbers.')
  .min(1, 'Sections are numbered from 1.');

/** Seconds that the search may take: the first plan comes at once, and better ones as long as there is time. */
const seconds = number()
  .typeError('Give the seconds of the search as a number.')
  .min(0.1, 'The search takes at least 0.1 seconds.')
  .max(60, 'The search takes at most 60 seconds.');

export const placementsQuery = object({
  section: sectionNumber,
  scope: string().oneOf(['canvas'], 'The scope is “canvas”; for a section give its number.'),
  borders: string().oneOf(['none', 'sections'], 'Borders are “none” or “sections”.').default('sections'),
  seconds,
  wishes: string().oneOf(['none', 'own'], 'Wishes are “none” or “own”.').default('none'),
}).test(
  'one of two',
  'Give either a section or scope=canvas.',
  ({ section, scope }) => (section === undefined) !== (scope === undefined),
);

/** Of a section, or of the whole canvas. */
export const tipsWorthQuery = object({ section: sectionNumber });

export const sheetQuery = object({
  section: sectionNumber.required('Give the number of a section.'),
  paper: string()
    .oneOf(['a4', 'letter'] as const)
    .default('a4'),
});

const penCase = () =>
  array(
    object({
      size: number()
        .typeError('A tip takes a whole number of drills.')
        .integer('A tip takes a whole number of drills.')
        .min(1, 'A tip takes at least one drill.')
        .max(WIDEST_TIP, `No tip takes more than ${WIDEST_TIP} drills.`)
        .required('Say how many drills each tip takes.'),
      shape: string()
        .oneOf([...TIP_SHAPES], 'A tip is for square or round drills, or for both.')
        .default('both'),
      pen: string().max(40, 'Name the pen in 40 letters or fewer.').default(''),
      worn: boolean().default(false),
    }).required(),
  ).max(40, 'More than 40 tips fit no pen case.');

export const tipsSchema = object({
  tips: penCase().required('Give the tips as a list.'),
  /** What the user saw, where others may have changed tips meanwhile. */
  before: penCase().optional().default(undefined),
});

const line = colourLine();

/** How the user likes to lay. */
export const placingWishSchema = object({
  goal: string()
    .oneOf([...GOALS])
    .required(),
  direction: string()
    .oneOf([...DIRECTIONS])
    .required(),
  turnWorth: number()
    .integer('A turn is worth a whole number of placements.')
    .min(0, 'A turn is worth 0 placements or more.')
    .max(100, 'A turn is worth at most 100 placements.')
    .required(),
  staggered: boolean().required(),
  passes: string()
    .oneOf([...PASSES])
    .required(),
  tipByTip: boolean().required(),
  singlesAbove: number()
    .min(0, 'Lightness goes from 0 to 100.')
    .max(100, 'Lightness goes from 0 to 100.')
    .nullable()
    .default(null),
  longest: number()
    .integer('The longest bar has a whole number of drills.')
    .min(1, 'The longest bar has at least one drill.')
    .max(WIDEST_TIP)
    .nullable()
    .default(null),
  edgeSingles: boolean().required(),
  school: string()
    .oneOf([...SCHOOLS])
    .required(),
  ownOrder: array(line.required()).max(250, 'No list has more than 250 colours.').default([]),
});

/** What the page of the station begins with. */
export interface PlacingStart {
  tips: OwnTip[];
  wish: PlacingWish;
  hand: 'right' | 'left';
}

/** A plan as other programs get it. */
export interface PlacementsView {
  /** Drills of the widest bar. */
  K: number;
  count: number;
  lowerBound: number;
  placementsOneByOne: number;
  minutes: number;
  turns: number;
  tipChanges: number;
  seams: number;
  placements: (Placement & { order: number })[];
}

export interface TipsWorthView {
  worth: TipWorth[];
  words: string;
}
