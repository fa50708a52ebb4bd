import type { FrameFit } from '../../core/finish/frames';
import type { LastWalk } from '../../core/finish/lastWalk';
import type { LeftoverEstimate } from '../../core/finish/leftovers';
import type { LogFacts } from '../../core/finish/logPage';
import { type FinishRecord, SEALINGS, WALK_STEPS, type WalkStep } from '../../core/finish/record';
import { array, type BooleanSchema, boolean, colourLine, number, object, string } from '../http/schema';
import { daySchema } from '../progress/contract';

const STEPS = WALK_STEPS.map(({ key }) => key) as WalkStep[];
const length = (what: string) =>
  number()
    .typeError(`Give ${what} in millimetres.`)
    .min(1, `${what} must be at least 1 mm.`)
    .max(20_000, `${what} cannot be more than 20 m.`);

const told = {
  startedOn: daySchema('the first day').nullable(),
  finishedOn: daySchema('the last day').nullable(),
  minutes: number()
    .typeError('Give the time as a number of minutes.')
    .integer('Minutes are whole numbers.')
    .min(0, 'The time cannot be below 0.')
    .max(6_000_000, 'More than 100,000 hours cannot be right.')
    .nullable(),
  sealing: string().oneOf([...SEALINGS]),
  borderMm: number()
    .typeError('Give the border in millimetres.')
    .min(0)
    .max(1000, 'A border of more than 1 m cannot be right.'),
  frame: object({
    widthMm: length('The width of the frame').required(),
    heightMm: length('The height of the frame').required(),
  })
    .nullable()
    .default(undefined),
  notes: string().trim().max(5000, 'Keep the notes to 5,000 characters.'),
};

/** The record as a whole, as an archive holds it. */
export const finishSchema = object({
  ...told,
  checked: array(string().oneOf(STEPS).required()).max(STEPS.length, 'Each step stands once.').default([]),
});

export const finishChangeSchema = object({
  ...told,
  /** The notes that these take the place of: where others stand there, nothing is changed. */
  notesBefore: string().max(5000, 'Keep the notes to 5,000 characters.'),
  id: string().uuid().required('An entry needs an id, so that a repeated request changes nothing.'),
  /** Steps of the last walk that are done now, or not any more. */
  steps: object(
    Object.fromEntries(STEPS.map((step) => [step, boolean()])) as Record<WalkStep, BooleanSchema>,
  ).default(undefined),
});

/** Leftovers that go into the stash in one go. */
export const leftoversSchema = object({
  id: string().uuid().required('An id is needed, so that a repeated request changes nothing.'),
  colours: array(
    object({
      line: colourLine().required('Say which colour it is.'),
      drills: number()
        .typeError('Give the leftover as a number of drills.')
        .required('Give the leftover as a number of drills.')
        .integer('Drills are counted in whole numbers.')
        .min(0, 'The number of drills cannot be below 0.')
        .max(1_000_000, 'More than a million drills cannot be right.'),
    }).required(),
  )
    .required('Say which colours are put away.')
    .min(1, 'Choose at least one colour.')
    .max(250, 'No list has more than 250 colours.'),
});

/** Takes back what one go put away. */
export const leftoversUndoSchema = object({
  id: string().uuid().required('An id is needed, so that a repeated request changes nothing.'),
  /** Lines whose pots shall stand again as before. */
  lines: array(colourLine().required()).required().min(1).max(250),
});

export interface FinishView {
  record: FinishRecord;
  /** The same with what follows from the ledgers filled in. */
  facts: LogFacts;
  walk: LastWalk;
  frames: FrameFit[];
  leftovers: (LeftoverEstimate & {
    /** Drills that were put away, as they were said last; null while the pot stands. */
    putAway: number | null;
  })[];
}
