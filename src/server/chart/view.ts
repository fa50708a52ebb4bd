import type { Canvas } from '../../core/canvas/canvas';
import { type Chart, plainCloth } from '../../core/cells/chart';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { inWorker } from '../jobs/pool';
import type { KindView } from './contract';

/** The chart of a canvas; without one, a plain cloth on which progress is kept by area. */
export async function chartOrCloth(queries: Queries, canvas: Canvas): Promise<Chart> {
  return (await chartOf(queries, canvas)) ?? plainCloth(canvas.width, canvas.height);
}

/** What a canvas is like to work. @returns null without a chart */
export async function kindView(queries: Queries, canvas: Canvas): Promise<KindView | null> {
  const chart = await chartOf(queries, canvas);
  return chart && inWorker('chartKind', { chart, legend: await legendOf(queries, canvas.id) });
}
