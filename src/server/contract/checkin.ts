import { number, object, string } from 'yup';
import type { CanvasSupply, CountedBag, LineSupply } from '../../core/checkin/supply';
import type { UndoState } from '../../core/ledger/history';

const ledgerId = string()
  .uuid('The id must be a UUID.')
  .required('An id is needed, so that a repeated request counts nothing twice.');

/** Counts a bag, or takes one back (`undoes`), or counts a bag again that was taken back (`redoes`). */
export const bagSchema = object({
  id: ledgerId,
  line: number().integer().min(1).nullable().default(null),
  label: string().trim().max(40, 'A bag’s label has at most 40 characters.').default(''),
  drills: number()
    .typeError('Give the drills in the bag as a number.')
    .integer('The drills in a bag must be a whole number.')
    .min(1, 'A bag must hold at least one drill.')
    .max(100_000, 'More than 100,000 drills in one bag cannot be right.')
    .nullable()
    .default(null),
  undoes: string().uuid().nullable().default(null),
  redoes: string().uuid().nullable().default(null),
});

export interface CheckinView {
  supply: LineSupply[];
  summary: CanvasSupply;
  sentence: string;
  /** Bags that stand counted, oldest first. */
  bags: CountedBag[];
  history: UndoState;
}
