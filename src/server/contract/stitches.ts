import { array, number, object, string } from 'yup';
import type { StitchReading } from '../../core/chart/files/fromStitches';

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
};

export const stitchReadingSchema = object(files);

export const stitchCanvasSchema = object({
  ...files,
  id: string()
    .uuid('The id must be a UUID.')
    .required('An id is needed, so that a repeated request adds nothing.'),
  title: string().trim().required('Give the canvas a title.').max(80, 'Keep the title to 80 characters.'),
  shape: string()
    .oneOf(['square', 'round'] as const, 'Drills are square or round.')
    .default('square'),
  pitchMm: number()
    .typeError('Give the pitch in millimetres, for example 2.5.')
    .min(1, 'The pitch must be between 1 and 10 mm.')
    .max(10, 'The pitch must be between 1 and 10 mm.')
    .default(2.5),
});

/** A stitch chart as drills, before it becomes a canvas. */
export type StitchView = Omit<StitchReading, 'result'> & {
  /** Drills in all, and colours; null while some thread has no drill yet. */
  drills: number | null;
  colours: number | null;
};
