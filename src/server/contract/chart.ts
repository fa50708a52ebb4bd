import { number, object, string } from 'yup';
import type { ColourMatch } from '../../core/chart/fromPixels';

export const putChartQuery = object({
  /** What becomes of colours or words that belong to no line: refuse the file, or leave those cells bare. */
  unmatched: string()
    .oneOf(['refuse', 'bare'] as const)
    .default('refuse'),
});

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
}

export const pictureQuery = object({
  /** The finished picture, or what is laid with the rest as printed. */
  show: string()
    .oneOf(['picture', 'progress'] as const)
    .default('picture'),
  /** Widest the picture may be; it is never enlarged. */
  width: number().integer().min(16).max(4000).default(640),
});

export const edgeMarksQuery = object({
  every: number()
    .typeError('Give the cells between two marks as a number.')
    .integer('Cells are counted in whole numbers.')
    .min(5, 'Edge marks stand at least 5 cells apart.')
    .max(500, 'Edge marks stand at most 500 cells apart.')
    .default(50),
  paper: string()
    .oneOf(['a4', 'letter'] as const, 'Paper is a4 or letter.')
    .default('a4'),
});
