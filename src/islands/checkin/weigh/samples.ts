import type { Canvas } from '../../../core/canvas/canvas';
import type { LegendLine } from '../../../core/canvas/legend';
import type { WeighedSample } from '../../../core/checkin/weighing';
import { keptHere } from '../../../ui/kept';

/** Drills of one canvas, shape and finish on one scale share a sample. @param scale name of the scale, step included */
export function sampleKey(canvas: Canvas, line: LegendLine, scale: string): string {
  return `oculent-sample-${canvas.id}-${line.finish}-${scale}`;
}

/** The sample weighed last for a key, kept on this device because it belongs to its scale. */
export function storedSample(key: string): WeighedSample | null {
  const stored = keptHere.json(key) as Partial<WeighedSample> | null;
  const whole =
    typeof stored?.id === 'string' &&
    [stored.pieces, stored.grams, stored.uncertainty].every((each) => Number.isFinite(each) && each! > 0);
  return whole ? (stored as WeighedSample) : null;
}

export function keepSample(key: string, sample: WeighedSample): void {
  keptHere.set(key, JSON.stringify(sample));
}
