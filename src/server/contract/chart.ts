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
