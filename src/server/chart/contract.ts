import { type LegendLine, MAX_LEGEND_LINES } from '../../core/canvas/legend';
import type { Suspect } from '../../core/chart/edit';
import type { ColourMatch } from '../../core/chart/files/fromPixels';
import type { Corners } from '../../core/chart/files/picture/corners';
import type { ReadPicture } from '../../core/chart/files/picture/readPicture';
import type { Panel, PanelPlan } from '../../core/chart/panels';
import { WORD_KINDS, type WordKind } from '../../core/codes/legendWords';
import { FINISHES } from '../../core/colour/finish';
import type { UndoView } from '../../core/ledger/history';
import type { ShadePair } from '../../core/symbols/check';
import {
  array,
  colourLine,
  columnsThen,
  type InferType,
  number,
  object,
  string,
  wholeNumbers,
} from '../http/schema';

export const chartFileQuery = object({
  /**
   * What becomes of colours or words that belong to no line: refuse the file, leave those cells bare, or take the
   * nearest colour, however far.
   */
  unmatched: string()
    .oneOf(['refuse', 'bare', 'nearest'] as const, 'Say refuse, bare or nearest.')
    .default('refuse'),
  /** How the words of a grid are read; left out to take what explains most. */
  words: string()
    .oneOf([...WORD_KINDS], 'Words are symbols, codes or key numbers.')
    .nullable()
    .default(null),
  /** Corners of the chart on a picture, in pixels: x and y of upper left, upper right, lower right, lower left. */
  corners: string()
    .matches(
      /^-?\d+(\.\d+)?(,-?\d+(\.\d+)?){7}$/,
      'Corners are eight numbers: x and y of upper left, upper right, lower right and lower left.',
    )
    .nullable()
    .default(null),
  /** Id under which the file is kept for a while; a later request with it and without a body means the same file. */
  reading: string().uuid('The id of a reading must be a UUID.'),
});

/** Corners as they come in a query. @param text as `chartFileQuery` lets it through */
export function cornersFrom(text: string | null): Corners | null {
  if (text === null) return null;
  const n = text.split(',').map(Number);
  return [0, 1, 2, 3].map((i) => ({ x: n[2 * i]!, y: n[2 * i + 1]! })) as unknown as Corners;
}

/** What was read of a chart file, before it is saved. */
export interface ChartReport {
  width: number;
  height: number;
  /** Cells that will want a drill. */
  drills: number;
  bareCells: number;
  /** Per legend line: drills on the chart beside drills on the sheet. */
  lines: { line: number; onChart: number; onSheet: number }[];
  nearly: ColourMatch[];
  unmatched: { value: string; cells: number }[];
  /** What else is worth knowing before it is saved, a sentence each. */
  notices: string[];
  /** How the words of a grid were read, and what else they could be; null for other files. */
  words: { kind: WordKind; others: WordKind[] } | null;
  /** Where a picture shows the chart, and how sure the reading is; null for other files. */
  picture: ReadPicture | null;
}

export const pictureQuery = object({
  /** The finished picture, or what is laid with the rest as printed. */
  show: string()
    .oneOf(['picture', 'progress'] as const)
    .default('picture'),
  /** Widest the picture may be; it is never enlarged. */
  width: number().integer().min(16).max(4000).default(640),
});

const every = number()
  .typeError('Give the squares between two marks as a number.')
  .integer('Squares are counted in whole numbers.')
  .min(5, 'Edge marks stand at least 5 squares apart.')
  .max(500, 'Edge marks stand at most 500 squares apart.')
  .default(50);
const paper = string()
  .oneOf(['a4', 'letter'] as const, 'Paper is a4 or letter.')
  .default('a4');
/** Panel to print, from 1; without it the whole canvas. */
const panel = number()
  .typeError('Give the panel as a number.')
  .integer('Give the panel as a number.')
  .min(1, 'Panels count from 1.');
export const edgeMarksQuery = object({ every, paper, panel });

/** How a chart is printed. */
export const chartPrintQuery = object({
  every,
  paper,
  panel,
  cellMm: number()
    .typeError('Give the size of a square in millimetres.')
    .min(2, 'Squares are printed 2 to 10 mm wide.')
    .max(10, 'Squares are printed 2 to 10 mm wide.')
    .default(3.5),
  ink: string()
    .oneOf(['colour', 'black'] as const, 'Ink is colour or black.')
    .default('colour'),
});
export type ChartPrintWish = InferType<typeof chartPrintQuery>;

const runsSchema = wholeNumbers(
  400_000,
  'Squares come as pairs of whole numbers, start and length; at most 200,000 pairs.',
).required('Say which squares.');
const editId = string().uuid().required('An id is needed, so that a repeated request changes nothing.');

/** Sets cells, or takes back (`undoes`) or makes again (`redoes`) an earlier change. */
export const chartEditSchema = object({
  id: editId,
  edits: array(
    object({
      runs: runsSchema,
      line: colourLine().min(0).required('Say which colour the squares become.'),
    }).noUnknown(),
  )
    .max(MAX_LEGEND_LINES, 'Too many changes in one go.')
    .default([]),
  columns: columnsThen(),
  undoes: string().uuid().nullable().default(null),
  redoes: string().uuid().nullable().default(null),
});

export const finishSchema = object({
  id: editId,
  line: colourLine().required('Say which colour.'),
  finish: string().oneOf(FINISHES, 'Choose a finish.').required('Choose a finish.'),
  code: string()
    .trim()
    .required('Give the code of the special drills.')
    .max(24, 'A code has at most 24 characters.'),
  runs: runsSchema,
});

/** A change of the chart as it is named before it is undone. `from` and `to` are the lines of its first cells. */
export interface RepairOffer {
  id: string;
  kind: 'repair' | 'finish';
  cells: number;
  /** Its first cell. */
  cell: number;
  from: number;
  to: number;
}

/** What the repair page starts from. */
export interface RepairView {
  legend: LegendLine[];
  suspects: Suspect[];
  /** The last change of a finish, which can be taken back. */
  finish: { id: string; from: number; special: number; drills: number } | null;
  history: UndoView<RepairOffer>;
}

/** What the page on the kind of a canvas shows. */
export interface KindView {
  inWords: string;
  confetti: number;
  blocks: number;
  /** Runs by length with their share of the drills; the last length means "or longer". */
  runs: { length: string; runs: number; share: number }[];
  heat: { columns: number; rows: number; colours: number[] };
  fewest: number;
  most: number;
  shades: ShadePair[];
}

const cuts = array(
  number().typeError('A cut is a number of squares.').integer('A cut lies between whole squares.').required(),
).required('Say where it is cut.');
const reach = number()
  .typeError('Give your reach in centimetres.')
  .min(5, 'A reach is at least 5 cm.')
  .max(500, 'A reach is at most 500 cm.')
  .nullable()
  .default(null);

export const panelPlanSchema = object({
  columnCuts: cuts,
  rowCuts: cuts,
  overlap: number()
    .typeError('Give the overlap as a number of squares.')
    .integer('The overlap is a whole number of squares.')
    .min(0, 'The overlap cannot be below 0.')
    .max(50, 'An overlap is at most 50 squares.')
    .default(0),
  marginMm: number()
    .typeError('Give the margin in millimetres.')
    .min(0, 'The margin cannot be less than nothing.')
    .max(200, 'A margin is at most 200 mm.')
    .default(25),
  reachWidthCm: reach,
  reachHeightCm: reach,
}).noUnknown();

/** The panels of a canvas. */
export interface PanelsView {
  plan: PanelPlan;
  panels: Panel[];
  /** Drills that lie on two panels, because they overlap. */
  twice: number;
}
