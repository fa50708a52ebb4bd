import { FINISHES } from '../../core/colour/finish';
import type { UndoView } from '../../core/ledger/history';
import type { DeletedThing } from '../../core/shelf/deleted';
import type { StashItem } from '../../core/stash/cover';
import { number, object, string } from '../http/schema';

export const stashItemSchema = object({
  id: string().uuid().required('An item needs an id, so that a repeated request adds nothing.'),
  code: string().trim().required('Give the colour code.').max(24, 'A code has at most 24 characters.'),
  name: string().trim().max(80).default(''),
  hex: string()
    .matches(/^#[0-9a-f]{6}$/, 'A colour is written like #2f6f8f.')
    .nullable()
    .default(null),
  finish: string().oneOf(FINISHES).default('plain'),
  shape: string()
    .oneOf(['square', 'round'] as const)
    .required('Say whether the drills are square or round.'),
  drills: number()
    .typeError('Give the number of drills.')
    .required('Give the number of drills.')
    .integer('Drills are counted in whole numbers.')
    .min(1, 'There must be at least one drill.')
    .max(1_000_000, 'More than a million drills cannot be right.'),
});

/** An item as it shall be; there may be none of it. `item` names it. */
export const stashCorrectionSchema = stashItemSchema.shape({
  drills: number()
    .typeError('Give the number of drills.')
    .required('Give the number of drills.')
    .integer('Drills are counted in whole numbers.')
    .min(0, 'The number of drills cannot be below 0.')
    .max(1_000_000, 'More than a million drills cannot be right.'),
  /** As it stood there when the correction was begun: others may have taken some, or corrected it, since. */
  before: stashItemSchema
    .omit(['id'])
    .shape({
      drills: number()
        .typeError('Give the number of drills that stood there before.')
        .required('Give the number of drills that stood there before.')
        .integer('Drills are counted in whole numbers.')
        .min(0, 'There were never fewer than 0 drills.')
        .max(1_000_000_000, 'So many drills were never there.'),
    })
    .nullable()
    .default(null),
});

/** Takes back (`undoes`) or makes again (`redoes`) an earlier move. */
export const stashUndoSchema = object({
  id: string().uuid().required('An id is needed, so that a repeated request changes nothing.'),
  undoes: string().uuid().nullable().default(null),
  redoes: string().uuid().nullable().default(null),
}).test(
  'one',
  'Say what is undone or redone.',
  ({ undoes, redoes }) => (undoes === null) !== (redoes === null),
);

/** A move of the stash as it is named before it is undone. */
interface StashOffer {
  id: string;
  code: string;
  drills: number;
}

export interface StashView {
  items: StashItem[];
  /** Items that were deleted and are still kept. */
  deleted: DeletedThing[];
  history: UndoView<StashOffer>;
}

/** What a write changed of the view: a stash may have thousands of items. */
export interface StashChange extends StashView {
  /** Ids of items that are no longer there. */
  gone: string[];
}
