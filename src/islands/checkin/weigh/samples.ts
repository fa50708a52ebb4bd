import type { Canvas } from '../../../core/canvas/canvas';
import type { LegendLine } from '../../../core/canvas/legend';
import type { WeighedSample } from '../../../core/checkin/weighing';

/** Drills of one canvas, shape and finish on one scale share a sample. @param scale name of the scale, step included */
export function sampleKey(canvas: Canvas, line: LegendLine, scale: string): string {
  return `oculent-sample-${canvas.id}-${line.finish}-${scale}`;
}

/** The sample weighed last for a key, kept on this device because it belongs to its scale. */
export function storedSample(key: string): WeighedSample | null {
  try {
    const stored = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<WeighedSample> | null;
    const whole =
      typeof stored?.id === 'string' &&
      [stored.pieces, stored.grams, stored.uncertainty].every((each) => Number.isFinite(each) && each! > 0);
    return whole ? (stored as WeighedSample) : null;
  } catch {
    return null;
  }
}

export function keepSample(key: string, sample: WeighedSample): void {
  localStorage.setItem(key, JSON.stringify(sample));
}
