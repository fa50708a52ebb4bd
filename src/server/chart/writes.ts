import type { Canvas } from '../../core/canvas/canvas';
import { type Chart, makeChart } from '../../core/cells/chart';
import { cellsInPart } from '../../core/cells/rect';
import { counted } from '../../core/words/numbers';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf, putChart } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { conflict } from '../http/problem';
import { chartOrCloth } from './view';

/**
 * Saves a chart, in the caller's transaction.
 * @throws Problem when a drill is laid where the new chart wants none
 */
export async function saveChart(queries: Queries, canvas: Canvas, chart: Chart): Promise<void> {
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const all = { x: 0, y: 0, width: chart.width, height: chart.height };
  const kept = cellsInPart(chart, laid, all, null, true).length;
  const before = cellsInPart(await chartOrCloth(queries, canvas), laid, all, null, true).length;
  if (kept < before) {
    throw conflict(
      `${counted(before - kept, 'drill')} ${before - kept === 1 ? 'is' : 'are'} laid on squares that this chart leaves bare. Lift ${before - kept === 1 ? 'it' : 'them'} first, or check the file.`,
    );
  }
  await putChart(queries, canvas.id, chart);
}

/**
 * Begins a chart on which no square has a colour yet. What was laid by area stays laid, and is counted with each square as
 * its colour is typed.
 * @throws Problem when there is one, or no colour list
 */
export async function beginChart(database: Database, canvas: Canvas): Promise<void> {
  await database.transaction(async (queries) => {
    if (await chartOf(queries, canvas)) throw conflict('This canvas has a chart already.');
    if ((await legendOf(queries, canvas.id)).length === 0) {
      throw conflict('Read the colour list first: the chart’s squares are matched to its colours.');
    }
    const cells = new Uint16Array(canvas.width * canvas.height);
    await putChart(queries, canvas.id, makeChart(canvas.width, canvas.height, cells));
  });
}
