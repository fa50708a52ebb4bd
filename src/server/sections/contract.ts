import type { UndoView } from '../../core/ledger/history';
import type { EffortKind } from '../../core/pace/effort';
import type { Foretold, Minutes } from '../../core/pace/timeModel';
import { COVERS } from '../../core/sections/cover';
import { LIGHT_PADS, type Misfit } from '../../core/sections/fit';
import { HANDS } from '../../core/sections/hand';
import { CORNERS, WORK_WAYS, type WorkWay } from '../../core/sections/order';
import type { SectionPlan } from '../../core/sections/plan';
import { CUT_KINDS } from '../../core/sections/propose';
import type { TickedColour } from '../../core/sections/ticks';
import type { SectionWish } from '../../core/sections/wish';
import { array, boolean, colourLine, makerSchema, mixed, number, object, string } from '../http/schema';

const blockSide = (which: string) =>
  number()
    .typeError(`Give the ${which} of a section as a number of squares.`)
    .integer(`The ${which} of a section must be a whole number of squares.`)
    .min(5, 'A section is at least 5 squares wide and high.')
    .max(4000, 'No canvas is more than 4,000 squares wide or high.');

const place = (what: string) =>
  number().integer(`${what} is a whole number of squares.`).min(0, `${what} is 0 or more.`).max(4000);

const rectSchema = object({
  x: place('A column').required(),
  y: place('A row').required(),
  width: number().integer().min(1, 'A rectangle is at least one square wide.').max(4000).required(),
  height: number().integer().min(1, 'A rectangle is at least one square high.').max(4000).required(),
});

/** Rectangles of a part of the canvas. */
export const rectsSchema = array(rectSchema.required())
  .required('Its rectangles are missing.')
  .min(1)
  .max(20_000);

const orderSchema = object({
  way: string()
    .oneOf([...WORK_WAYS])
    .default('rows'),
  corner: string()
    .oneOf([...CORNERS])
    .default('top left'),
  focal: object({ x: number().min(0).max(4000).required(), y: number().min(0).max(4000).required() })
    .nullable()
    .default(null),
});

const uuid = (what: string) => string().uuid(`The id of ${what} must be a UUID.`);

/**
 * Keeps a cut: a grid by `columns` and `rows`, or pieces, either as `pieces` (short text) or as `sections` with their
 * rectangles; or takes a cut back (`undoes`), or makes it again (`redoes`).
 */
export const cutSchema = object({
  id: uuid('a cut'),
  columns: blockSide('width'),
  rows: blockSide('height'),
  pieces: string().max(8_000_000, 'These sections have too many corners. Cut them with straighter borders.'),
  /** Looked at in a thread of its own, for there may be thousands. */
  sections: mixed(),
  order: orderSchema.default(undefined),
  undoes: uuid('what is undone'),
  redoes: uuid('what is redone'),
});

const mm = (what: string, least: number, most: number) =>
  number()
    .typeError(`Give ${what} as a number.`)
    .min(least, `${what} is at least ${least} mm.`)
    .max(most, `${what} is at most ${most} mm.`);

const minutes = number()
  .typeError('Give the minutes of a sitting as a number.')
  .min(5, 'A sitting takes at least 5 minutes.')
  .max(600, 'A sitting takes at most 600 minutes, which is 10 hours.');

/** How the user works on a canvas. */
export const sectionWishSchema = object({
  minutes: minutes.required(),
  hand: string()
    .oneOf([...HANDS])
    .required(),
  cover: string()
    .oneOf([...COVERS])
    .required(),
  sheets: object({
    widthMm: mm('A sheet’s width', 40, 2000).required(),
    heightMm: mm('A sheet’s height', 40, 2000).required(),
    overlapMm: mm('The overlap', 0, 30).required(),
  }).required(),
  rollMm: mm('A roll’s width', 40, 2000).nullable().default(null),
  pad: string()
    .oneOf(['none', 'own', ...(Object.keys(LIGHT_PADS) as (keyof typeof LIGHT_PADS)[])])
    .required(),
  ownPadMm: object({
    longMm: mm('The pad’s long side', 40, 3000).required(),
    shortMm: mm('The pad’s short side', 40, 3000).required(),
  }).required(),
  reachMm: mm('Your reach', 50, 3000).nullable().default(null),
  windowMm: mm('The height of the frame', 50, 3000).nullable().default(null),
});

/** How a canvas is to be cut, without keeping it. */
export const proposalSchema = object({
  kind: string()
    .oneOf([...CUT_KINDS])
    .required(
      'Say how to cut: by sittings, straight, along the colours, around a focal part, in strips or in blocks.',
    ),
  minutes: minutes.default(45),
  snap: number().oneOf([1, 5, 10], 'Cuts fall on every square, every 5th or every 10th.').default(1),
  columns: blockSide('width').default(20),
  rows: blockSide('height').default(20),
  along: string()
    .oneOf(['rows', 'columns'] as const)
    .default('columns'),
  focal: rectSchema.nullable().default(null),
  mostColumns: number().integer().min(5, 'A section is at least 5 squares wide.').nullable().default(null),
  mostRows: number().integer().min(5, 'A section is at least 5 squares high.').nullable().default(null),
  order: orderSchema.default(undefined),
  hand: string().oneOf([...HANDS]),
  cover: string().oneOf([...COVERS]),
});

const whichSection = number()
  .typeError('Give the section as a number.')
  .required('Say which section.')
  .integer('Sections count from 1.')
  .min(1, 'Sections count from 1.')
  .max(1_000_000, 'There is no such section.');

/** What is in front at some screen, so that the next one begins there. */
export const inFrontSchema = object({
  section: whichSection,
  line: colourLine().nullable().default(null),
});

/** A colour is done in a section, or is not after all, on a canvas without a chart. */
export const tickSchema = object({
  id: string()
    .uuid('The id must be a UUID.')
    .required('A tick needs an id, so that a repeated request changes nothing.'),
  section: whichSection,
  /** The rectangle around the section as it was seen: the canvas may be cut anew before the tick comes. */
  around: rectSchema.optional().default(undefined),
  line: colourLine().required('Say which colour.'),
  done: boolean().required('Say whether the colour is done there.'),
});

/** Which sections are pulled for: one, or the next ones in the order of the work. */
export const pullQuery = object({
  paper: string()
    .oneOf(['a4', 'letter'] as const)
    .default('a4'),
  section: number()
    .typeError('Give the number of a section.')
    .integer('Sections count from 1.')
    .min(1, 'Sections count from 1.')
    .required('Say which section.'),
  next: number()
    .typeError('Give the number of sections.')
    .integer('The number of sections is whole.')
    .min(1, 'At least one section.')
    .max(50, 'At most 50 sections at once.')
    .default(1),
});

/** What is printed of the sections. */
export const sectionPaperQuery = object({
  paper: string()
    .oneOf(['a4', 'letter'] as const)
    .default('a4'),
});

export interface TicksView {
  ticked: TickedColour[];
}

/** A section as it is told outside. Cells from 0. */
export interface SectionView {
  number: number;
  order: number;
  name: string | null;
  rects: { x: number; y: number; width: number; height: number }[];
  drills: number;
  laid: number;
  colours: number;
  largest: { line: number; drills: number } | null;
  /** For what is left of it. */
  minutes: Minutes;
  /** Why the resting hand is in the way, as a sentence; null where it is not. */
  conflict: string | null;
  /** What of the light pad, the reach and the frame it does not fit. */
  misfits: Misfit[];
  /** Adhesive that lies bare while it is worked, cm². */
  bareCm2: number;
}

/** A cut as it is named before it is undone or redone. */
export interface CutOffer {
  id: string;
  sections: number;
  way: WorkWay;
}

export interface SectionsView {
  plan: SectionPlan;
  wish: SectionWish;
  sections: SectionView[];
  history: UndoView<CutOffer>;
}

/** What a page begins with; the plan is null where it is too long for a page, which then loads it. */
export type SectionsStart = Omit<SectionsPage, 'plan'> & { plan: SectionPlan | null };

/** How it is cut, not each section. */
export interface SectionsPage {
  plan: SectionPlan;
  wish: SectionWish;
  history: UndoView<CutOffer>;
}

export interface ProposalView {
  plan: SectionPlan;
  sections: SectionView[];
}

/** One effort of the time model. Seconds. */
interface EffortTime {
  kind: EffortKind;
  seconds: number;
  usual: number;
  /** Standard deviation. */
  spread: number;
}

export const timeModelQuery = object({ maker: makerSchema });

export interface TimeModelView {
  efforts: EffortTime[];
  /** Covariance of the seconds, s², in the order of the efforts. */
  covariance: number[][];
  /** Share by which a single sitting strays. */
  spread: number;
  sittings: number;
  /** Who has timed sittings, where it is more than one: devices by id, and `desk`. */
  makers: { id: string; name: string }[];
  /** The last sittings as they were foretold from those before them. */
  foretold: Foretold[];
  /** How many of those lay in their band. */
  inBand: number;
  /** Mean error of those, as a share of what was foretold; null without any. */
  meanError: number | null;
}

/** A colour to take out. Drills. */
export interface PullView {
  line: number;
  place: string;
  toLay: number;
  toTip: number;
  inPot: number | null;
  after: number | null;
  /** The overflow bag that is due on the way; null for none. */
  bag: number | null;
  short: number;
}

export interface PullListView {
  sections: { number: number; name: string | null }[];
  /** In the order in which pots stand. */
  pulls: PullView[];
  drills: number;
  trashShare: number;
}
