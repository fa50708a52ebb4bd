import { BAG_MEASURES, BAG_ORIGINS } from '../../core/checkin/bag';
import type { BagRow, ListedBag } from '../../core/checkin/bagLedger';
import type { TrashTally } from '../../core/checkin/chance';
import type { Filling } from '../../core/checkin/filling';
import type { SheetFinding } from '../../core/checkin/sheetSanity';
import type { StrayMatch } from '../../core/checkin/strays';
import type { CanvasSupply, LineSupply } from '../../core/checkin/supply';
import type { UndoView } from '../../core/ledger/history';
import { array, boolean, colourLine, number, object, string } from '../http/schema';

const ledgerId = string()
  .uuid('The id must be a UUID.')
  .required('An id is needed, so that a repeated request counts nothing twice.');

/**
 * Counts a bag; or takes back an entry (`undoes`); or does one again (`redoes`); or gives a counted stray (`assigns`) to
 * a colour; or changes a bag to what is said here (`changes`); or removes one (`removes`). Taking a removal back brings
 * the bag back.
 */
export const bagSchema = object({
  id: ledgerId,
  line: colourLine().nullable().default(null),
  label: string().trim().max(40, 'A bag’s label has at most 40 characters.').default(''),
  drills: number()
    .typeError('Give the drills in the bag as a number.')
    .integer('The drills in a bag must be a whole number.')
    .min(1, 'A bag must hold at least one drill.')
    .max(100_000, 'More than 100,000 drills in one bag cannot be right.')
    .nullable()
    .default(null),
  how: string().oneOf(BAG_MEASURES).default('nominal'),
  /** Standard uncertainty of a bag that was weighed or counted on a photo, by itself, in drills. */
  spread: number().min(0).max(100_000).nullable().default(null),
  /** What a weighed bag errs by together with others: of one sample, of one empty bag. */
  shared: array(
    object({
      source: string().uuid('The source of a shared error is a UUID.').required(),
      spread: number().min(0).max(100_000).required(),
    }),
  )
    .max(4, 'A bag has at most four errors in common with others.')
    .default([]),
  origin: string()
    .oneOf(BAG_ORIGINS, 'A bag is from the kit, the seller, the stash, or bought.')
    .nullable()
    .default(null),
  assigns: string().uuid().nullable().default(null),
  changes: string().uuid().nullable().default(null),
  removes: string().uuid().nullable().default(null),
  undoes: string().uuid().nullable().default(null),
  redoes: string().uuid().nullable().default(null),
});

/** An entry of the bag ledger as it is named before it is taken back. */
type BagOffer = Pick<BagRow, 'id' | 'kind' | 'line' | 'label' | 'drills'>;

export interface CheckinView {
  /** Grows with every change of the canvas but marks. */
  revision: number;
  supply: LineSupply[];
  summary: CanvasSupply;
  sentence: string;
  /** Bags that were counted, oldest first, those that were removed since among them. */
  bags: ListedBag[];
  history: UndoView<BagOffer>;
  strayMatches: StrayMatch[];
  findings: SheetFinding[];
  trash: TrashTally & { share: number };
  trashRecords: TrashRecordView[];
  /** What is known of how full the bags are. */
  filling: Filling;
}

/** What one entry changed: `supply` of the colours concerned, and all of their bags and strays. */
export type BagAnswer = Pick<
  CheckinView,
  'revision' | 'supply' | 'summary' | 'sentence' | 'bags' | 'history' | 'strayMatches' | 'filling'
>;

export const trashSchema = object({
  id: ledgerId,
  handled: number()
    .typeError('Give the number of drills you looked at.')
    .required('Give the number of drills you looked at.')
    .integer('Drills are counted in whole numbers.')
    .min(1, 'At least one drill must have gone through your hand.')
    .max(1_000_000, 'More than a million drills cannot be right.'),
  thrown: number()
    .typeError('Give the number of drills thrown out.')
    .required('Give the number of drills thrown out.')
    .integer('Drills are counted in whole numbers.')
    .min(0, 'The number thrown out cannot be below 0.')
    .test(
      'fewer',
      'More drills were thrown out than you looked at.',
      (thrown, context) => !(thrown > (context.parent as { handled: number }).handled),
    ),
  /** The earlier record whose place this one takes. */
  replaces: string().uuid().nullable().default(null),
  removed: boolean().default(false),
});

/** A record of bad drills as it stands. */
export interface TrashRecordView extends TrashTally {
  id: string;
  happenedAt: string;
  removed: boolean;
}

/** How a sheet is to be read where the guess is wrong. */
export const sheetReadingQuery = object({
  /** Sheet of a spreadsheet file, from 0. */
  sheet: number().integer().min(0).max(200).default(0),
  /** Line of the headings, from 1; 0 for none; left out to have it found. */
  header: number().integer().min(0).max(5000).nullable().default(null),
  delimiter: string()
    .oneOf([',', ';', '\t', '|'] as const, 'Columns are separated by comma, semicolon, tab or upright line.')
    .nullable()
    .default(null),
});
