import { cellsInRect } from '../core/bench/marking';
import type { Canvas } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import { countLaid } from '../core/chart/bitmap';
import { type Chart, countDrills, countPerLine, makeChart, plainCloth } from '../core/chart/chart';
import type { ChartReading } from '../core/chart/files/fromPixels';
import { kindOf } from '../core/chart/kind';
import { shadePairs } from '../core/symbols/check';
import { bitmapOf } from '../data/bench';
import { legendOf } from '../data/canvases';
import { chartOf, putChart } from '../data/chart';
import type { Database, Queries } from '../data/database';
import type { ChartReport, KindView } from './contract/chart';
import { conflict } from './problem';

/** The chart of a canvas; without one, a plain cloth on which progress is kept by area. */
export async function chartOrCloth(queries: Queries, canvas: Canvas): Promise<Chart> {
  return (await chartOf(queries, canvas)) ?? plainCloth(canvas.width, canvas.height);
}

export function chartReport(reading: ChartReading, legend: LegendLine[]): ChartReport {
  const { chart } = reading;
  const counts = countPerLine(chart, legend.length);
  return {
    width: chart.width,
    height: chart.height,
    drills: countDrills(chart),
    bareCells: counts[0]!,
    lines: legend.map((line) => ({
      line: line.line,
      onChart: counts[line.line]!,
      onSheet: line.neededDrills,
    })),
    nearly: reading.nearly,
    unmatched: reading.unmatched,
    notices: reading.notices,
  };
}

/** Saves a chart. @throws Problem when a drill is laid where the new chart wants none */
export async function saveChart(database: Database, canvas: Canvas, chart: Chart): Promise<void> {
  await database.transaction(async (queries) => {
    const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
    const all = { x: 0, y: 0, width: chart.width, height: chart.height };
    const kept = cellsInRect(chart, laid, all, null, true).length;
    const before = cellsInRect(await chartOrCloth(queries, canvas), laid, all, null, true).length;
    if (kept < before) {
      throw conflict(
        `${before - kept} drills are laid on cells that this chart leaves bare. Take those marks back first, or check the file.`,
      );
    }
    await putChart(queries, canvas.id, chart);
  });
}

/** Begins a chart without a drill on it. @throws Problem when there is one, or no sheet, or drills are laid by area */
export async function beginChart(database: Database, canvas: Canvas): Promise<void> {
  await database.transaction(async (queries) => {
    if (await chartOf(queries, canvas)) throw conflict('This canvas has a chart already.');
    if ((await legendOf(queries, canvas.id)).length === 0) {
      throw conflict('Read the inventory sheet first: the chart’s cells are matched to its lines.');
    }
    const cells = canvas.width * canvas.height;
    if (countLaid(await bitmapOf(queries, canvas.id, cells)) > 0) {
      throw conflict('Drills are marked as laid by area. Take those marks back before the chart is typed.');
    }
    await putChart(queries, canvas.id, makeChart(canvas.width, canvas.height, new Uint16Array(cells)));
  });
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
