import type { TrashTally } from '../../core/checkin/chance';
import type { UndoView } from '../../core/ledger/history';
import type { TrashRecordView } from '../checkin/contract';
import { boolean, columnsThen, object, string, wholeNumbers } from '../http/schema';

const ledgerId = (what: string) =>
  string()
    .uuid('The id must be a UUID.')
    .required(`${what} needs an id, so that a repeated request changes nothing.`);

/** Runs of one mark; with more, other requests would wait too long. A page sends a larger mark in parts. */
const MAX_RUNS = 50_000;

/** Lays or lifts cells, or takes back (`undoes`) or repeats (`redoes`) an earlier mark. */
export const markSchema = object({
  id: ledgerId('A mark'),
  kind: string()
    .oneOf(['lay', 'lift'] as const, 'A mark lays or lifts.')
    .default('lay'),
  runs: wholeNumbers(
    2 * MAX_RUNS,
    `Squares come as pairs of whole numbers, start and length, at most ${MAX_RUNS} pairs a mark. Send a larger mark in parts.`,
  ).default([]),
  columns: columnsThen(),
  sittingId: string().uuid().nullable().default(null),
  /** Laid before the canvas was kept here. */
  before: boolean().default(false),
  /** Of a lift: whether its drills came off by themselves. */
  popped: boolean().nullable().default(null),
  undoes: string().uuid().nullable().default(null),
  redoes: string().uuid().nullable().default(null),
});

const moment = (which: string) =>
  string().test(
    'moment',
    `Give the day and the time of the ${which}.`,
    (text) => text === undefined || text === null || !Number.isNaN(Date.parse(text)),
  );

/** A sitting that begins now; with a beginning and an end, one that was and is entered by hand. */
export const sittingSchema = object({
  id: ledgerId('A sitting'),
  startedAt: moment('begin').nullable().default(null),
  endedAt: moment('end').nullable().default(null),
  note: string().trim().max(500, 'A note has at most 500 characters.').default(''),
}).test(
  'both',
  'Give the day and the time of both its beginning and its end, or of neither.',
  ({ startedAt, endedAt }) => (startedAt === null) === (endedAt === null),
);

/** A pause that parts a sitting in two. */
export const sittingSplitSchema = object({
  id: ledgerId('A split'),
  pauseFrom: moment('beginning of the pause').required('Give the day and the time at which the pause began.'),
  pauseTo: moment('end of the pause').required('Give the day and the time at which the pause ended.'),
});

/** A sitting as it shall be told. */
export const sittingCorrectionSchema = object({
  id: ledgerId('A correction'),
  startedAt: moment('begin').required('Give the day and the time of the beginning.'),
  endedAt: moment('end').nullable().default(null),
  note: string().trim().max(500, 'A note has at most 500 characters.').default(''),
  removed: boolean().default(false),
});

export const sittingEndSchema = object({
  /** When it ended, where that was not just now. */
  endedAt: moment('end').nullable().default(null),
  note: string().trim().max(500, 'A note has at most 500 characters.').default(''),
});

/** A mark as it is named before it is undone or redone. */
export interface MarkOffer {
  id: string;
  kind: 'lay' | 'lift';
  drills: number;
  /** Colour of all its drills; null for several. */
  line: number | null;
  /** Its first cell. */
  cell: number;
}

/** What a mark did. `runs` are the cells that really changed: laid, or lifted. */
export interface MarkView {
  id: string;
  kind: 'lay' | 'lift';
  runs: number[];
  laid: number;
  /** Its place in the ledger; null for one that changed nothing. */
  position: number | null;
  history: UndoView<MarkOffer>;
}

export interface SittingView {
  id: string;
  startedAt: string;
  endedAt: string | null;
  note: string;
  drills: number;
}

export interface BenchView {
  laid: number;
  drills: number;
  history: UndoView<MarkOffer>;
  /** The newest sittings, the one that runs (if any) first. */
  sittings: SittingView[];
  /** When something was marked last in the sitting that runs; null without one. */
  lastMarkAt: string | null;
  trash: TrashTally & { share: number };
  trashRecords: TrashRecordView[];
}
