import type { InferType } from 'yup';
import { countDrills } from '../../core/cells/chart';
import { readStitches, type StitchReading } from '../../core/stitches/fromStitches';
import { readRange, readThreads } from '../../core/stitches/threadList';
import type { StitchView, stitchReadingSchema } from './contract';

/** What an ordinary packet holds where nothing else is known (common practice, no source). */
export const PACKET_DRILLS = 200;

/**
 * Reads a stitch chart, and tells what it becomes.
 * @throws Refusal naming the line or cell that cannot be taken
 */
export function stitchReading(wish: InferType<typeof stitchReadingSchema>): {
  view: StitchView;
  result: StitchReading['result'];
} {
  const { result, ...rest } = readStitches(
    wish.grid,
    readThreads(wish.threads),
    wish.range === null ? null : readRange(wish.range),
    new Map(wish.chosen.map(({ thread, drill }) => [thread, drill])),
    PACKET_DRILLS,
    wish.words,
  );
  const view = {
    ...rest,
    drills: result && countDrills(result.chart),
    colours: result ? result.legend.length : null,
  };
  return { view, result };
}
