import type { LegendLine } from '../../core/canvas/legend';
import { countDoubtful } from '../../core/reading/doubt';
import type { Corners } from '../../core/reading/homography';
import { labelsOf } from '../../core/reading/keptReading';
import { STRAIGHT_PX } from '../../core/reading/straightPicture';
import type { ReadingPhoto, ReadingView } from '../../server/reading/contract';
import type { Squares } from '../../workers/reading';

/** Photos of the canvas that are used, in their order. */
export function photosInUse({ photos }: Pick<ReadingView, 'photos'>): ReadingPhoto[] {
  return photos.filter(({ kind, removed }) => kind === 'canvas' && !removed);
}

/** Where the squares of a photo's picture lie; null where nobody has said yet. */
export function squaresOfPhoto({ kept, corners, columns, rows, pins }: ReadingPhoto): Squares | null {
  if (!corners || columns === null || rows === null) return null;
  if (kept) return { corners, columns, rows, pins };
  // Of the photo only its squares are left, as a plain grid.
  const [right, bottom] = [columns * STRAIGHT_PX, rows * STRAIGHT_PX];
  const straight: Corners = [
    [0, 0],
    [right, 0],
    [right, bottom],
    [0, bottom],
  ];
  return { corners: straight, columns, rows, pins: [] };
}

/** Squares of a photo that are in doubt. */
export function doubtfulIn({ reading }: ReadingPhoto): number {
  return reading ? countDoubtful(labelsOf(reading).doubt) : 0;
}

/** Colours of the list of which nobody has shown yet how they look in print. */
export function withoutSample(legend: readonly LegendLine[], { samples }: ReadingView): LegendLine[] {
  const known = new Set(samples.map(({ line }) => line));
  return legend.filter(({ line }) => !known.has(line));
}
