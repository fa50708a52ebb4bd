import type { StitchReading } from '../../core/stitches/fromStitches';
import { newCanvasSchema } from '../canvas/contract';
import { array, object, string } from '../http/schema';

const files = {
  /** CSV grid of symbols or codes, a row of stitches a line. */
  grid: string().required('Choose the grid of the stitch chart.'),
  /** CSV thread list. */
  threads: string().required('Choose the thread list.'),
  /** CSV range of drills; null takes every code as it is. */
  range: string().nullable().default(null),
  chosen: array(
    object({ thread: string().required().max(24), drill: string().required().max(24) }).noUnknown(),
  ).default([]),
  /** How the words of the grid are to be read; null leaves it to what explains most of them. */
  words: string()
    .oneOf(['symbols', 'codes'] as const, 'The words of the grid are symbols or codes.')
    .nullable()
    .default(null),
};

export const stitchReadingSchema = object(files);

export const stitchCanvasSchema = object(files).concat(
  newCanvasSchema.pick(['id', 'title', 'shape', 'pitchMm']),
);

/** A stitch chart as drills, before it becomes a canvas. */
export type StitchView = Omit<StitchReading, 'result'> & {
  /** Drills in all, and colours; null while some thread has no drill yet. */
  drills: number | null;
  colours: number | null;
};
