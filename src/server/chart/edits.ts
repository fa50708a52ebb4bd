import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { isLaid } from '../../core/cells/bitmap';
import { cellsOfRuns, countCells, faultInRuns } from '../../core/cells/cellRuns';
import { countPerLine } from '../../core/cells/chart';
import { applyEdit, type CellEdit, inverseOf, runsOfLine, suspects } from '../../core/chart/edit';
import type { Finish } from '../../core/colour/finish';
import { bitmapOf } from '../../data/bench';
import { legendOf, replaceLegend } from '../../data/canvas';
import {
  addChartEdit,
  type ChartEditEntry,
  chartEditKnown,
  chartOf,
  lastFinish,
  putChart,
} from '../../data/chart';
import { countedBags } from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { freeSlot } from '../../data/kitup';
import { putLidMark } from '../../data/symbols';
import { conflict, unreadable } from '../http/problem';
import type { RepairView } from './contract';

export async function repairView(queries: Queries, canvas: Canvas): Promise<RepairView> {
  const legend = await legendOf(queries, canvas.id);
  const chart = await chartOf(queries, canvas);
  const last = await lastFinish(queries, canvas.id);
  const [special, drills] = [last?.edits[0]?.line, countCells(last?.edits[0]?.runs ?? [])];
  const from = last?.before[0]?.line;
  return {
    legend,
    suspects: chart ? suspects(chart, legend) : [],
    finish: last && special && from ? { id: last.id, from, special, drills } : null,
  };
}

/**
 * Sets cells of the chart, all or none, and keeps what stood there in the ledger. The same id again changes nothing.
 * @throws Problem when there is no chart, a cell or line does not exist, or a laid drill would lose its cell
 */
export async function editChart(
  database: Database,
  canvas: Canvas,
  wish: { id: string; edits: CellEdit[] },
): Promise<void> {
  await database.transaction(async (queries) => {
    await setCells(queries, canvas, wish);
  });
}

async function setCells(
  queries: Queries,
  canvas: Canvas,
  { id, edits }: { id: string; edits: CellEdit[] },
  ledger: Pick<ChartEditEntry, 'kind' | 'undoes'> = { kind: 'repair', undoes: null },
): Promise<boolean> {
  if (await chartEditKnown(queries, id)) return false;
  const chart = await chartOf(queries, canvas);
  if (!chart) throw conflict('This canvas has no chart yet.');
  const lines = (await legendOf(queries, canvas.id)).length;
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const before: CellEdit[] = [];
  for (const edit of edits) {
    const fault = faultInRuns(edit.runs, chart.cells.length);
    if (fault) throw unreadable(fault);
    if (edit.line > lines) throw unreadable(`The sheet has no line ${edit.line}.`);
    if (edit.line === 0 && [...cellsOfRuns(edit.runs)].some((cell) => isLaid(laid, cell))) {
      throw conflict(
        'A drill is laid on one of these cells. Take that mark back before the cell is left bare.',
      );
    }
    before.unshift(...inverseOf(applyEdit(chart, edit)));
  }
  await addChartEdit(queries, canvas.id, { id, ...ledger, edits, before }, new Date().toISOString());
  await putChart(queries, canvas.id, chart);
  return true;
}

/**
 * Gives drills of a colour another finish: a line of its own, and the counts move with the cells.
 * @throws Problem as {@link editChart}, or when none of these cells has that colour
 */
export async function replaceFinish(
  database: Database,
  canvas: Canvas,
  wish: { id: string; line: number; finish: Finish; code: string; runs: number[] },
): Promise<void> {
  await database.transaction(async (queries) => {
    const legend = await legendOf(queries, canvas.id);
    const line = legend.find((each) => each.line === wish.line);
    if (!line) throw unreadable(`The sheet has no line ${wish.line}.`);
    const chart = await chartOf(queries, canvas);
    if (!chart) throw conflict('This canvas has no chart yet.');
    const fault = faultInRuns(wish.runs, chart.cells.length);
    if (fault) throw unreadable(fault);
    if (await chartEditKnown(queries, wish.id)) return;
    const runs = runsOfLine(chart, wish.runs, line.line);
    const moved = runs.reduce((sum, length, i) => (i % 2 === 1 ? sum + length : sum), 0);
    if (moved === 0) throw unreadable(`None of these cells wants ${line.code}.`);
    const known = legend.find((each) => each.code === wish.code && each.finish === wish.finish);
    if (known?.line === line.line) throw unreadable(`${line.code} already is ${wish.finish}.`);
    const special = known ?? {
      ...line,
      line: legend.length + 1,
      keyNumber: String(legend.length + 1),
      code: wish.code,
      finish: wish.finish,
      neededDrills: 0,
      packets: 0,
    };
    const all = known ? legend : [...legend, special];
    await replaceLegend(queries, canvas.id, movedCounts(all, line.line, special.line, moved));
    await setCells(
      queries,
      canvas,
      { id: wish.id, edits: [{ runs, line: special.line }] },
      { kind: 'finish', undoes: null },
    );
  });
}

/** The legend with so many drills moved from one line to another. */
function movedCounts(legend: readonly LegendLine[], from: number, to: number, drills: number): LegendLine[] {
  return legend.map((line) => ({
    ...line,
    neededDrills:
      line.line === from
        ? Math.max(0, line.neededDrills - drills)
        : line.line === to
          ? line.neededDrills + drills
          : line.neededDrills,
  }));
}

/**
 * Takes the last change of a finish back, with its counts. A line that was made for it and that nothing else uses goes.
 * The same id again changes nothing.
 * @throws Problem when it is not the last one, or its cells have changed since
 */
export async function undoFinish(
  database: Database,
  canvas: Canvas,
  wish: { id: string; undoes: string },
): Promise<void> {
  await database.transaction(async (queries) => {
    if (await chartEditKnown(queries, wish.id)) return;
    const last = await lastFinish(queries, canvas.id);
    const [edit, before] = [last?.edits[0], last?.before[0]];
    if (!last || last.id !== wish.undoes || !edit || !before) {
      throw conflict('Another finish was changed since, or this one is taken back already.');
    }
    const chart = await chartOf(queries, canvas);
    if (!chart || [...cellsOfRuns(edit.runs)].some((cell) => chart.cells[cell] !== edit.line)) {
      throw conflict('Some of these cells were changed since. Set them back by hand.');
    }
    await setCells(
      queries,
      canvas,
      { id: wish.id, edits: [...last.before] },
      { kind: 'finish', undoes: last.id },
    );
    const drills = countCells(edit.runs);
    const legend = movedCounts(await legendOf(queries, canvas.id), edit.line, before.line, drills);
    const special = legend.at(-1)!;
    const { bags } = await countedBags(queries, canvas.id);
    const after = (await chartOf(queries, canvas))!;
    const idle =
      special.line === edit.line &&
      special.neededDrills === 0 &&
      special.packets === 0 &&
      !bags.some((bag) => bag.line === special.line) &&
      countPerLine(after, special.line)[special.line] === 0;
    if (idle) {
      await freeSlot(queries, canvas.id, special.line);
      await putLidMark(queries, canvas.id, special.line, null);
    }
    await replaceLegend(queries, canvas.id, idle ? legend.slice(0, -1) : legend);
  });
}
