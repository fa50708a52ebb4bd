import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { isLaid } from '../../core/cells/bitmap';
import { cellsOfRuns, countCells, faultInRuns } from '../../core/cells/cellRuns';
import { type Chart, countPerLine } from '../../core/cells/chart';
import { applyEdit, type CellEdit, inverseOf, runsOfLine, suspects } from '../../core/chart/edit';
import { movedCounts, specialLine, takenOff } from '../../core/chart/finish';
import type { Finish } from '../../core/colour/finish';
import { runsOfColumns } from '../../core/corrections/facts';
import { counted } from '../../core/words/numbers';
import { bitmapOf, replayMarks } from '../../data/bench';
import { legendOf, nextLine, replaceLegend } from '../../data/canvas';
import {
  addChartEdit,
  type ChartEditEntry,
  chartOf,
  findChartEdit,
  lastFinish,
  momentOfEdit,
  putChart,
} from '../../data/chart';
import { countedBags } from '../../data/checkin';
import { filledPots } from '../../data/corrections';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf, undoViewOf } from '../../data/history';
import { freeSlots } from '../../data/kitup';
import { putLidMark } from '../../data/symbols';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';
import type { RepairOffer, RepairView } from './contract';

export async function repairView(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<RepairView> {
  const legend = await legendOf(queries, canvas.id);
  const chart = await chartOf(queries, canvas);
  const last = await lastFinish(queries, canvas.id);
  const finish = last && offerOf(last);
  return {
    legend,
    suspects: chart ? suspects(chart, legend) : [],
    finish: finish && { id: finish.id, from: finish.from, special: finish.to, drills: finish.cells },
    history: await undoViewOf(queries, 'chart_edit', canvas.id, screenId, async (ids) => {
      const offers: RepairOffer[] = [];
      for (const id of ids) {
        const entry = await findChartEdit(queries, canvas.id, id);
        if (entry) offers.push(offerOf(entry));
      }
      return offers;
    }),
  };
}

function offerOf({ id, kind, edits, before }: ChartEditEntry): RepairOffer {
  return {
    id,
    kind,
    cells: edits.reduce((sum, { runs }) => sum + countCells(runs), 0),
    cell: edits[0]?.runs[0] ?? 0,
    from: before[0]?.line ?? 0,
    to: edits[0]?.line ?? 0,
  };
}

/** What is to be changed on a chart: cells, or an earlier change taken back or made again. */
export interface ChartEditRequest {
  id: string;
  edits?: CellEdit[];
  /** Of the canvas when the runs were counted; its own where left out. */
  columns?: number | undefined;
  undoes?: string | null;
  redoes?: string | null;
}

/**
 * Sets cells of the chart, all or none, and keeps what stood there in the ledger; or takes such a change back, a finish
 * with its counts; or makes it again. The same request again changes nothing.
 * @throws Problem when there is no chart, a cell or line does not exist, a laid drill would lose its cell, a later change
 * stands in the way, or the id is taken
 */
export async function editChart(
  database: Database,
  canvas: Canvas,
  wish: ChartEditRequest,
  screenId: string | null = null,
): Promise<void> {
  const request = { id: wish.id, what: 'chart edit', canvasId: canvas.id, content: wish };
  await once(database, request, async (queries) => {
    const { id, columns, undoes = null, redoes = null } = wish;
    const edits = (wish.edits ?? []).map((edit) => ({
      ...edit,
      runs: runsOfColumns(edit.runs, columns, canvas),
    }));
    const entry = { screenId, id, undoes, redoes };
    if (undoes !== null) await undoEdit(queries, canvas, undoes, entry);
    else if (redoes !== null) await redoEdit(queries, canvas, redoes, entry);
    else if (edits.length === 0) throw unreadable('Say what is changed.');
    else await setCells(queries, canvas, { ...entry, kind: 'repair', edits });
  });
}

type Entry = Omit<ChartEditEntry, 'before' | 'moved'> & { moved?: number | null; screenId: string | null };

async function setCells(
  queries: Queries,
  canvas: Canvas,
  { screenId, moved = null, ...entry }: Entry,
): Promise<void> {
  const chart = await neededChart(queries, canvas);
  const legend = await legendOf(queries, canvas.id);
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const before: CellEdit[] = [];
  for (const edit of entry.edits) {
    const fault = faultInRuns(edit.runs, chart.cells.length);
    if (fault) throw unreadable(fault);
    if (edit.line !== 0 && !ofLine(legend, edit.line))
      throw unreadable(`The colour list has no colour number ${edit.line}.`);
    const losing = edit.line === 0 ? [...cellsOfRuns(edit.runs)].filter((cell) => isLaid(laid, cell)) : [];
    if (losing.length > 0 && !(await wereLaidBefore(queries, canvas, entry.undoes, losing))) {
      throw conflict('A drill is laid on one of these squares. Lift it before the square is left bare.');
    }
    before.unshift(...inverseOf(applyEdit(chart, edit)));
  }
  await addChartEdit(queries, canvas.id, screenId, { ...entry, moved, before }, new Date().toISOString());
  await putChart(queries, canvas.id, chart);
}

/**
 * Whether drills lay on these squares before a change was made: laid by area, when their colour was not typed yet. They
 * stay laid when the typing is undone.
 */
async function wereLaidBefore(
  queries: Queries,
  canvas: Canvas,
  edit: string | null,
  squares: readonly number[],
): Promise<boolean> {
  const moment = edit && (await momentOfEdit(queries, edit));
  if (!moment) return false;
  const before = await replayMarks(queries, canvas.id, canvas.width * canvas.height, moment);
  return squares.every((square) => isLaid(before, square));
}

async function neededChart(queries: Queries, canvas: Canvas): Promise<Chart> {
  const chart = await chartOf(queries, canvas);
  if (!chart) throw conflict('This canvas has no chart yet.');
  return chart;
}

/** @throws Problem unless every cell still is as these edits left it */
async function refuseChanged(queries: Queries, canvas: Canvas, edits: readonly CellEdit[]): Promise<void> {
  const chart = await neededChart(queries, canvas);
  const after = new Map<number, number>();
  for (const { runs, line } of edits) for (const cell of cellsOfRuns(runs)) after.set(cell, line);
  const other = [...after].filter(([cell, line]) => chart.cells[cell] !== line).length;
  if (other > 0) {
    throw conflict(
      `${counted(other, 'square')} of this ${other === 1 ? 'was' : 'were'} changed since. Undo that change first, or set them by hand.`,
    );
  }
}

async function undoEdit(
  queries: Queries,
  canvas: Canvas,
  id: string,
  entry: Pick<Entry, 'id' | 'screenId' | 'undoes' | 'redoes'>,
): Promise<void> {
  const standing = await standingOf(queries, 'chart_edit', canvas.id, id);
  const target = standing === 'unknown' ? null : await findChartEdit(queries, canvas.id, id);
  if (!target) throw notFound('such change');
  if (standing !== 'stands') throw conflict('This change was undone already, perhaps at another screen.');
  await refuseChanged(queries, canvas, target.edits);
  await setCells(queries, canvas, { ...entry, kind: target.kind, edits: [...target.before] });
  if (target.kind === 'finish') await moveBack(queries, canvas, target);
}

async function redoEdit(
  queries: Queries,
  canvas: Canvas,
  id: string,
  entry: Pick<Entry, 'id' | 'screenId' | 'undoes' | 'redoes'>,
): Promise<void> {
  const target = await findChartEdit(queries, canvas.id, id);
  if (!target || (await standingOf(queries, 'chart_edit', canvas.id, id)) !== 'taken back') {
    throw conflict('This change is not undone, so it cannot be redone.');
  }
  await refuseChanged(queries, canvas, target.before);
  const { from, to, cells } = offerOf(target);
  const legend = await legendOf(queries, canvas.id);
  if (to !== 0 && !ofLine(legend, to)) {
    throw conflict('The colour of that finish is gone from the list. Replace the drills again.');
  }
  const redone = { ...entry, kind: target.kind, edits: [...target.edits] };
  if (target.kind !== 'finish') return setCells(queries, canvas, redone);
  const taken = takenOff(legend, from, cells);
  await replaceLegend(queries, canvas.id, movedCounts(legend, { from, taken, to, given: cells }));
  await setCells(queries, canvas, { ...redone, moved: taken });
}

/**
 * Gives drills of a colour another finish: a line of its own, and the counts move with the cells.
 * @throws Problem as {@link editChart}, or when none of these cells has that colour
 */
export async function replaceFinish(
  database: Database,
  canvas: Canvas,
  wish: { id: string; line: number; finish: Finish; code: string; runs: number[] },
  screenId: string | null = null,
): Promise<void> {
  await once(
    database,
    { id: wish.id, what: 'finish', canvasId: canvas.id, content: wish },
    async (queries) => {
      const legend = await legendOf(queries, canvas.id);
      const line = legend.find((each) => each.line === wish.line);
      if (!line) throw unreadable('The colour list no longer has this colour.');
      const chart = await neededChart(queries, canvas);
      const fault = faultInRuns(wish.runs, chart.cells.length);
      if (fault) throw unreadable(fault);
      const runs = runsOfLine(chart, wish.runs, line.line);
      if (countCells(runs) === 0) throw unreadable(`None of these squares is for ${line.code}.`);
      const next = await nextLine(queries, canvas.id);
      const { special, all } = specialLine(legend, line, wish.code, wish.finish, next);
      const squares = countCells(runs);
      const taken = takenOff(legend, line.line, squares);
      const move = { from: line.line, taken, to: special.line, given: squares };
      await replaceLegend(queries, canvas.id, movedCounts(all, move));
      await setCells(queries, canvas, {
        moved: taken,
        screenId,
        id: wish.id,
        kind: 'finish',
        edits: [{ runs, line: special.line }],
        undoes: null,
        redoes: null,
      });
    },
  );
}

/** Gives the counts of a finish back. A colour that was made for it and that nothing else uses goes, with its number. */
async function moveBack(queries: Queries, canvas: Canvas, target: ChartEditEntry): Promise<void> {
  const { from, to, cells } = offerOf(target);
  const move = { from: to, taken: cells, to: from, given: target.moved ?? cells };
  const legend: LegendLine[] = movedCounts(await legendOf(queries, canvas.id), move);
  const special = ofLine(legend, to);
  const { bags } = await countedBags(queries, canvas.id);
  const after = await neededChart(queries, canvas);
  const idle =
    special !== undefined &&
    special.neededDrills === 0 &&
    special.packets === 0 &&
    !bags.some((bag) => bag.line === to) &&
    countPerLine(after, to)[to] === 0 &&
    !(await filledPots(queries, canvas.id)).has(to);
  if (idle) {
    await freeSlots(queries, canvas.id, to);
    await putLidMark(queries, canvas.id, to, null);
  }
  await replaceLegend(queries, canvas.id, idle ? legend.filter(({ line }) => line !== to) : legend);
}
