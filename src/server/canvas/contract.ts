import { BAGS_CARRY, type BagsCarry, MAX_CELLS, MAX_SIDE_CELLS } from '../../core/canvas/canvas';
import { MAX_LEGEND_LINES } from '../../core/canvas/legend';
import { FINISHES } from '../../core/colour/finish';
import { array, boolean, colourLine, mixed, number, object, string } from '../http/schema';

const bagsCarrySchema = mixed((value): value is BagsCarry => BAGS_CARRY.includes(value as BagsCarry))
  .typeError('Bags carry codes or key numbers.')
  .nullable();

const MOST_SIDE = `A side can have at most ${MAX_SIDE_CELLS.toLocaleString('en')} squares.`;
const side = (which: string) =>
  number()
    .typeError(`Give the ${which} as a number of squares.`)
    .required(`Give the ${which} in squares.`)
    .integer(`The ${which} must be a whole number of squares.`)
    .min(1, `The ${which} must be at least 1 square.`)
    .max(MAX_SIDE_CELLS, MOST_SIDE);

/** The facts of a canvas, each by itself. */
export const canvasFacts = {
  title: string().trim().required('Give the canvas a title.').max(80, 'A title has at most 80 characters.'),
  shape: string()
    .oneOf(['square', 'round'] as const, 'Drills are square or round.')
    .required('Say whether the drills are square or round.'),
  pitchMm: number()
    .typeError('Give the pitch in millimetres, for example 2.5.')
    .required('Give the pitch in millimetres.')
    .min(1, 'The pitch must be between 1 and 10 mm.')
    .max(10, 'The pitch must be between 1 and 10 mm.'),
  width: side('width'),
  height: side('height').test(
    'cells',
    `A canvas can have at most ${MAX_CELLS.toLocaleString('en')} squares.`,
    (height, context) => !(height * (context.parent as { width: number }).width > MAX_CELLS),
  ),
  panels: number()
    .typeError('Give the number of panels.')
    .integer('The number of panels must be whole.')
    .min(1, 'There is at least one panel.')
    .max(20, 'There can be at most 20 panels.')
    .default(1)
    .test(
      'width',
      'There cannot be more panels than columns.',
      (panels, context) => !(panels > (context.parent as { width: number }).width),
    ),
  symbolsPrinted: boolean().default(true),
  packetDrills: number()
    .typeError('Give the number of drills in an ordinary bag, for example 200.')
    .integer('The drills in a bag must be a whole number.')
    .min(1, 'A bag must hold at least one drill.')
    .max(100_000, 'A bag of more than 100,000 drills cannot be right.')
    .default(200),
  bagsCarry: bagsCarrySchema.default(null),
};

export const newCanvasSchema = object({
  id: string()
    .uuid('The id must be a UUID.')
    .required('An id is needed, so that a repeated request adds nothing.'),
  ...canvasFacts,
}).noUnknown('There is a field that a canvas does not have.');

/** A colour as it is to stand in a list; `line` names the colour that it is. */
export const wishedColourSchema = object({
  line: colourLine().nullable(),
  keyNumber: string().required().max(8),
  symbol: string().min(1).max(16).nullable().defined(),
  code: string().required().max(24),
  name: string().defined().max(80),
  hex: string()
    .matches(/^#[0-9a-f]{6}$/, 'A colour is written like #2f6f8f.')
    .nullable()
    .defined(),
  finish: string().oneOf(FINISHES).required(),
  neededDrills: number().integer().min(0).max(MAX_CELLS).required(),
  packets: number().integer().min(0).max(10_000).required(),
});

/** The colours of a canvas, each with its number. */
export const sheetSchema = object({
  lines: array(wishedColourSchema.concat(object({ line: colourLine().required() })))
    .required('Give the colours of the list.')
    .min(1, 'A colour list has at least one colour.')
    .max(MAX_LEGEND_LINES, `A canvas can have at most ${MAX_LEGEND_LINES} colours.`)
    .test(
      'once',
      'Each colour must have a number of its own.',
      (lines) => new Set(lines.map(({ line }) => line)).size === lines.length,
    ),
});
