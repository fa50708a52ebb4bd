import type { SheetTable } from '../../core/checkin/sheetTable';
import type { Corners } from '../../core/reading/homography';
import type { KeptReading } from '../../core/reading/keptReading';
import type { Pin } from '../../core/reading/mesh';
import type { DoubtfulEntry } from '../../core/reading/sheetChecks';
import { array, boolean, colourLine, columnsThen, number, object, string } from '../http/schema';

/** A photo to read from, and what is known of it. */
export interface ReadingPhoto {
  id: string;
  /** `canvas` shows squares, `list` the printed colour list. */
  kind: 'canvas' | 'list';
  name: string;
  width: number;
  height: number;
  /** Whether the photo itself is still kept; its squares stay in any case. */
  kept: boolean;
  corners: Corners | null;
  columns: number | null;
  rows: number | null;
  /** Column and row of its upper left square on the canvas, from 0; null to have it found. */
  at: { column: number; row: number } | null;
  pins: Pin[];
  removed: boolean;
  addedAt: string;
  /** What was read; its mesh is asked for by itself. */
  reading: (Omit<KeptReading, 'mesh'> & { id: string }) | null;
}

export interface ReadingSample {
  line: number;
  origin: 'list' | 'example';
  glyph: string;
  tint: number[];
}

export interface ReadingView {
  photos: ReadingPhoto[];
  samples: ReadingSample[];
  /** What was said of squares, and stands. */
  answers: [square: number, line: number][];
  /** What Undo takes back on this screen. */
  undo: { id: string; squares: number; own: boolean } | null;
  /** The chart that was made of it; null before. */
  accepted: { at: string; photos: string[] } | null;
}

const uuid = (what: string) => string().uuid(`The id of ${what} must be a UUID.`).required();

export const readingPhotoQuery = object({
  id: uuid('a photo'),
  kind: string()
    .oneOf(['canvas', 'list'] as const)
    .default('canvas'),
  name: string().max(200).default('Photo'),
});

const pixel = (most: number) => number().min(-most).max(most);
const whole = (most: number) => number().integer().min(0).max(most);

const corners = array(
  array(pixel(100_000).required()).length(2, 'A corner is two numbers.').required(),
).length(4, 'Give four corners, clockwise from the upper left.');

/** Where the squares of a photo lie; what is left out stays as it was. */
export const squaringSchema = object({
  corners: corners.nullable().optional().default(undefined),
  columns: number().integer().min(1).max(1000, 'A photo shows at most 1,000 columns.').nullable(),
  rows: number().integer().min(1).max(1000, 'A photo shows at most 1,000 rows.').nullable(),
  at: object({ column: whole(4000).required(), row: whole(4000).required() })
    .nullable()
    .optional()
    .default(undefined),
  pins: array(
    object({
      column: whole(1000).required(),
      row: whole(1000).required(),
      x: pixel(100_000).required(),
      y: pixel(100_000).required(),
    }).required(),
  )
    .max(200, 'At most 200 corners of squares are set by hand.')
    .optional()
    .default(undefined),
  removed: boolean(),
});

/** Base64 of arrays of a photo of at most 20,000 squares. */
const perhapsPacked = (bytes: number) => string().max(Math.ceil((bytes * 4) / 3) + 8);
const packed = (bytes: number) => perhapsPacked(bytes).required();

/** What a photo was read as. */
export const readingResultSchema = object({
  id: uuid('a reading'),
  /** Those by which it was read: they may be others by now. */
  corners: corners.required('Say by which corners it was read.'),
  columns: number().integer().min(1).max(1000).required(),
  rows: number().integer().min(1).max(1000).required(),
  cellPx: number().min(1).max(1000).required(),
  cells: packed(40_000),
  others: packed(40_000),
  doubt: packed(40_000),
  torn: perhapsPacked(40_000).default(''),
  mesh: packed(170_000),
  picture: string().max(7_000_000, 'The picture of the squares is too large.').required(),
});

export const readingSamplesSchema = object({
  id: uuid('samples'),
  /** Whether these take the place of all others. */
  all: boolean().default(false),
  samples: array(
    object({
      line: colourLine().required(),
      origin: string()
        .oneOf(['list', 'example'] as const)
        .required(),
      glyph: string().max(1400).required(),
      tint: array(number().min(0).max(4).required()).length(3).required(),
    }).required(),
  )
    .min(1, 'Give at least one sample.')
    .max(250, 'No list has more than 250 colours.')
    .required(),
});

/** What somebody says of squares, or takes back. */
export const readingAnswerSchema = object({
  id: uuid('an answer'),
  answers: array(array(whole(1_000_000).required()).length(2, 'An answer is a square and a line.').required())
    .max(20_000, 'At most 20,000 squares are answered at once.')
    .default([]),
  columns: columnsThen(),
  undoes: string().uuid('The id of an answer must be a UUID.').nullable().default(null),
});

export const acceptSchema = object({ id: uuid('a chart'), keepPhotos: boolean().default(false) });

/** What the simulated camera is to take. */
export const simulatedQuery = object({
  of: uuid('a canvas'),
  level: string()
    .oneOf(['easy', 'normal', 'hard'] as const)
    .default('normal'),
  seed: whole(1_000_000_000).default(1),
  /** What of it: squares, the swatches of its colour list, or its printed sheet. */
  what: string()
    .oneOf(['squares', 'list', 'sheet'] as const)
    .default('squares'),
  x: whole(4000),
  y: whole(4000),
  width: number().integer().min(4).max(80),
  height: number().integer().min(4).max(80),
  px: number().min(8).max(60).default(24),
});

/** Outer corners of the table on a photo of the printed sheet: `x,y,x,y,x,y,x,y`. */
export const sheetPhotoQuery = object({
  canvas: uuid('a canvas'),
  corners: string()
    .matches(/^-?\d{1,6}(\.\d+)?(,-?\d{1,6}(\.\d+)?){7}$/, 'Give four corners as x,y,x,y,x,y,x,y.')
    .required(),
});

/** A photographed sheet as it was read; nothing is saved. */
export interface SheetPhotoReading {
  table: SheetTable & { sheets: string[] };
  /** What somebody should look at, with its picture (a data address; null where it is not known which cell it was). */
  doubtful: (DoubtfulEntry & { picture: string | null })[];
  /** That the drills do not add up to the canvas, as a sentence; null where they do. */
  sum: string | null;
}
