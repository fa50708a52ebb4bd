import type { Canvas } from '../../core/canvas/canvas';
import type { InFront } from '../../core/sections/inFront';
import type { Stage } from '../../core/shelf/stage';

/** A canvas as the shelf shows it. */
export interface ShelfEntry {
  canvas: Canvas;
  size: string;
  colours: number;
  laid: number;
  drills: number;
  percent: number;
  stage: Stage;
  stageInWords: string;
  hasChart: boolean;
  /** What was in front last; null where nothing was yet. */
  inFront: InFront | null;
  /** The same in words, with what is left there; null too where all is laid, or nothing yet. */
  goesOnAt: string | null;
}
