import { EFFORTS } from '../../core/pace/effort';
import {
  fitTimeModel,
  foretold,
  type TimedEffort,
  type TimeModel,
  USUAL_SECONDS,
} from '../../core/pace/timeModel';
import { type Tips, tipsFor } from '../../core/placing/tips';
import { findCanvas } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { ownTips } from '../../data/placing';
import { lastSittings, sittingMakers, sittingsStamp } from '../../data/timeModel';
import { inWorker } from '../jobs/pool';
import type { TimeModelView } from './contract';
import type { LearnTask } from './sittingEfforts';

/** The hand as it is now, not as it was years ago. */
const SITTINGS_LEARNT_FROM = 60;
/** What was learnt, of all and of each device. */
const known = new Map<string | null, { stamp: string; learnt: Promise<TimedEffort[]> }>();
const MOST_KNOWN = 20;

/** How long the user takes, from the sittings on all canvases that have a chart. */
export async function timeModel(queries: Queries): Promise<TimeModel> {
  return fitTimeModel(await timedSittings(queries));
}

async function timedSittings(queries: Queries, maker: string | null = null): Promise<TimedEffort[]> {
  const tips = await ownTips(queries);
  const sizes = { square: tipsFor(tips, 'square'), round: tipsFor(tips, 'round') };
  const stamp = `${await sittingsStamp(queries)} ${sizes.square} ${sizes.round}`;
  const before = known.get(maker);
  const learnt = before?.stamp === stamp ? before.learnt : learn(queries, sizes, maker);
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(maker, { stamp, learnt });
  try {
    return await learnt;
  } catch (error) {
    // What failed once may go well the next time.
    if (known.get(maker)?.learnt === learnt) known.delete(maker);
    throw error;
  }
}

async function learn(
  queries: Queries,
  tips: Record<'square' | 'round', Tips>,
  maker: string | null,
): Promise<TimedEffort[]> {
  const sittings = await lastSittings(queries, SITTINGS_LEARNT_FROM, maker);
  const charts: LearnTask['charts'] = [];
  for (const canvasId of new Set(sittings.map((sitting) => sitting.canvasId))) {
    const canvas = await findCanvas(queries, canvasId);
    const chart = canvas && (await chartOf(queries, canvas));
    if (chart) charts.push({ canvasId, chart, tips: tips[canvas.shape] });
  }
  return sittings.length === 0 ? [] : inWorker('sittingEfforts', { sittings, charts });
}

/** @param maker whose pace: a device by its id, or `desk`; null for everybody's */
export async function timeModelView(queries: Queries, maker: string | null = null): Promise<TimeModelView> {
  const sittings = await timedSittings(queries, maker);
  const makers = await sittingMakers(queries);
  const model = fitTimeModel(sittings);
  const last = foretold(sittings);
  return {
    efforts: EFFORTS.map((kind, i) => ({
      kind,
      seconds: model.seconds[kind],
      usual: USUAL_SECONDS[kind],
      spread: Math.sqrt(Math.max(0, model.covariance[i]![i]!)),
    })),
    covariance: model.covariance,
    spread: model.spread,
    sittings: model.sittings,
    makers: makers.length > 1 ? makers : [],
    foretold: last,
    inBand: last.filter(({ foretold: { low, high }, minutes }) => minutes >= low && minutes <= high).length,
    meanError:
      last.length === 0
        ? null
        : last.reduce(
            (sum, { foretold: { expected }, minutes }) =>
              sum + Math.abs(minutes - expected) / Math.max(1, expected),
            0,
          ) / last.length,
  };
}
