import type { Canvas } from '../../core/canvas/canvas';
import { type Chart, plainCloth } from '../../core/cells/chart';
import { kindOf } from '../../core/chart/kind';
import { shadePairs } from '../../core/symbols/check';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import type { KindView } from './contract';

/** The chart of a canvas; without one, a plain cloth on which progress is kept by area. */
export async function chartOrCloth(queries: Queries, canvas: Canvas): Promise<Chart> {
  return (await chartOf(queries, canvas)) ?? plainCloth(canvas.width, canvas.height);
}

/** What a canvas is like to work. @returns null without a chart */
export async function kindView(queries: Queries, canvas: Canvas): Promise<KindView | null> {
  const chart = await chartOf(queries, canvas);
  if (!chart) return null;
  const { inWords, confetti, blocks, runs, heat, drills } = kindOf(chart);
  const colours = [...heat.colours];
  const laidOut = colours.filter((count) => count > 0);
  return {
    inWords,
    confetti,
    blocks,
    runs: runs.flatMap((count, length) => {
      const last = length === runs.length - 1;
      return count === 0
        ? []
        : [
            {
              length: last ? `${length} and more` : String(length),
              runs: count,
              share: last ? lastShare(runs, drills) : (count * length) / drills,
            },
          ];
    }),
    heat: { columns: heat.columns, rows: heat.rows, colours },
    fewest:
      Math.min(...laidOut, Number.POSITIVE_INFINITY) === Number.POSITIVE_INFINITY ? 0 : Math.min(...laidOut),
    most: Math.max(0, ...laidOut),
    shades: shadePairs(await legendOf(queries, canvas.id), chart),
  };
}

/** Share of the drills in the longest runs: what the shorter ones leave. */
function lastShare(runs: readonly number[], drills: number): number {
  const shorter = runs.slice(0, -1).reduce((sum, count, length) => sum + count * length, 0);
  return (drills - shorter) / drills;
}
