import type { Canvas } from '../../core/canvas/canvas';
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
}
