import type { LikePair, ShadePair, Together } from '../../core/symbols/check';
import { colourLine, object, string } from '../http/schema';

/** A block where two colours meet; `cells` are its legend lines row by row. */
export type Meeting = Together & { section: number | null; cells: number[] };

export interface SymbolCheckView {
  pairs: (LikePair & { where: Meeting | null })[];
  shades: (ShadePair & { where: Meeting | null })[];
  /** Lines whose symbol stands on a dark tint. */
  dark: number[];
  /** Lines whose symbol no shipped font has, and that are not drawn yet. */
  unprintable: number[];
  /** Line → the line that its lid warns of. */
  marks: Record<number, number>;
  sentence: string;
}

/** What is left of a path without its moves, lines, closings and plain numbers: nothing, or it is no drawing of ours. */
function besidesPath(path: string): string {
  return path.replace(/[MLZ]|\d{1,3}(?:\.\d{1,2})?|[\s,]/g, '');
}

export const drawingSchema = object({
  path: string()
    .required('Give the drawing as an SVG path.')
    .max(20_000, 'This drawing is too detailed. Draw it with fewer strokes.')
    .matches(/^\s*M/, 'A path begins with M.')
    .test(
      'path',
      'A drawing is made of M, L, Z and numbers from 0 to 100, as docs/formats.md says.',
      (path) => besidesPath(path) === '',
    ),
});

export const lidMarkSchema = object({
  line: colourLine().required('Say which colour’s lid is marked.'),
  other: colourLine().nullable().defined('Say which colour it is taken for; null removes the mark.'),
});
