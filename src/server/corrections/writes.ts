import { randomUUID } from 'node:crypto';
import { asCanvas, type Canvas, type CanvasFacts, factsOf } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { countPerLine } from '../../core/cells/chart';
import { faultInPanels } from '../../core/chart/panels';
import {
  type ColourUse,
  faultInList,
  identified,
  type WishedColour,
} from '../../core/corrections/colourList';
import {
  type CanvasState,
  type ChangeReport,
  changeReport,
  resizedChart,
  resizedRuns,
} from '../../core/corrections/facts';
import { bitmapOf, putBitmap, replayMarks } from '../../data/bench';
import { findCanvas, legendOf, nextLine, replaceLegend, updateCanvas } from '../../data/canvas';
import { chartOf, putChart } from '../../data/chart';
import { countedBags } from '../../data/checkin';
import {
  addCorrection,
  type Correction,
  filledPots,
  findCorrection,
  moveDrawings,
  rewriteRuns,
} from '../../data/corrections';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import { allotmentOf, freeSlots } from '../../data/kitup';
import { digestOf } from '../../data/once';
import { panelPlanOf } from '../../data/panels';
import { putLidMark } from '../../data/symbols';
import { newCanvasSchema } from '../canvas/contract';
import { noteHeap } from '../checkin/heap';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';

type Entry = { screenId: string | null; id: string; undoes: string | null; redoes: string | null };

/** Names a state of a colour list. */
export function versionOf(legend: readonly LegendLine[]): string {
  // In one order of the fields: what comes out of the ledger has another.
  return digestOf(
    legend.map((colour) => [
      colour.line,
      colour.keyNumber,
      colour.symbol,
      colour.code,
      colour.name,
      colour.hex,
      colour.finish,
      colour.neededDrills,
      colour.packets,
      colour.origin ?? 'sheet',
    ]),
  );
}

/**
 * Puts a colour list in place of the one before; bags, pots, squares and marks stay with their colours. The same request
 * again changes nothing.
 * @throws Problem when a colour that is in use would be gone, the list does not fit itself, it was changed since it was
 * looked at, or the id is taken
 */
export async function saveColourList(
  database: Database,
  canvas: Canvas,
  wish: { id?: string | undefined; lines: readonly WishedColour[]; basedOn: string | null },
  screenId: string | null = null,
): Promise<void> {
  const id = wish.id ?? randomUUID();
  await once(database, { id, what: 'colour list', canvasId: canvas.id, content: wish }, async (queries) => {
    const before = await legendOf(queries, canvas.id);
    if (wish.basedOn !== null && wish.basedOn !== versionOf(before)) {
      throw conflict(
        'The colour list was changed at another screen since you opened it. Load it again; what you typed is kept here until then.',
      );
    }
    const first = await nextLine(queries, canvas.id);
    // The first list has no colours to correct: its rows are numbered in their order.
    const rows = before.length === 0 ? wish.lines.map((row) => ({ ...row, line: null })) : wish.lines;
    const unknown = rows.find(({ line }) => line != null && !ofLine(before, line));
    if (unknown) {
      throw unreadable(
        `The row of ${unknown.code} says that it is colour number ${unknown.line}, which this list does not have. Leave the number out for a new colour.`,
      );
    }
    // Where a colour came from, and its drawn symbol, are kept elsewhere; a list that is sent back does not change them.
    const after = identified(before, rows, first).map(({ origin: _, drawing: __, ...row }) => {
      const was = ofLine(before, row.line);
      return was?.origin === 'own' ? { ...row, origin: 'own' as const } : row;
    });
    await setList(queries, canvas, before, after, { screenId, id, undoes: null, redoes: null });
  });
}

async function setList(
  queries: Queries,
  canvas: Canvas,
  before: LegendLine[],
  after: LegendLine[],
  entry: Entry,
): Promise<void> {
  const fault = faultInList(before, after, await usesOf(queries, canvas));
  if (fault !== null) throw conflict(fault);
  if (versionOf(before) === versionOf(after)) return;
  await moveDrawings(queries, canvas.id, before, after);
  await replaceLegend(queries, canvas.id, after);
  for (const { line } of before) {
    if (ofLine(after, line)) continue;
    await freeSlots(queries, canvas.id, line);
    await putLidMark(queries, canvas.id, line, null);
  }
  await noteHeap(queries, canvas);
  const { screenId, ...rest } = entry;
  await addCorrection(
    queries,
    canvas.id,
    screenId,
    { ...rest, kind: 'list', before: bare(before), after: bare(after) },
    new Date().toISOString(),
  );
}

/** Drawings have a table of their own. */
function bare(legend: readonly LegendLine[]): LegendLine[] {
  return legend.map(({ drawing: _, ...colour }) => colour);
}

/** What hangs on each colour. */
async function usesOf(queries: Queries, canvas: Canvas): Promise<Map<number, ColourUse>> {
  const uses = new Map<number, ColourUse>();
  const entryFor = (line: number) => {
    const use = uses.get(line) ?? { bags: 0, squares: 0, pot: false };
    uses.set(line, use);
    return use;
  };
  const { bags } = await countedBags(queries, canvas.id);
  for (const { line } of bags) if (line !== null) entryFor(line).bags++;
  const chart = await chartOf(queries, canvas);
  if (chart) {
    countPerLine(chart, 65_535).forEach((squares, line) => {
      if (line > 0 && squares > 0) entryFor(line).squares = squares;
    });
  }
  for (const line of await filledPots(queries, canvas.id)) entryFor(line).pot = true;
  return uses;
}

/** Facts of a canvas; what is left out stays. */
export type FactsWish = { id?: string | undefined } & {
  [Fact in keyof Omit<CanvasFacts, 'id'>]?: CanvasFacts[Fact] | undefined;
};

/** What a correction of a canvas's facts would cost, before it is done. */
export async function reportOfFacts(
  queries: Queries,
  canvas: Canvas,
  { id: _, ...facts }: FactsWish,
): Promise<ChangeReport> {
  return changeReport(canvas, await corrected(canvas, said(facts)), await stateOf(queries, canvas));
}

/** @throws ValidationError where the facts do not go together */
function corrected(canvas: CanvasFacts, facts: Partial<CanvasFacts>): Promise<CanvasFacts> {
  return newCanvasSchema.validate({ ...factsOf(canvas), ...facts });
}

/** The facts that a wish names. */
function said(facts: Omit<FactsWish, 'id'>): Partial<CanvasFacts> {
  return Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== undefined));
}

async function stateOf(queries: Queries, canvas: Canvas): Promise<CanvasState> {
  const { bags } = await countedBags(queries, canvas.id);
  const plan = await panelPlanOf(queries, canvas.id);
  return {
    chart: await chartOf(queries, canvas),
    laid: await bitmapOf(queries, canvas.id, canvas.width * canvas.height),
    nominalBags: bags.filter(({ how }) => how === 'nominal').length,
    panelsFit: plan && ((size) => faultInPanels(plan, size) === null),
    hasPots: (await allotmentOf(queries, canvas.id)).length > 0,
  };
}

/**
 * Corrects the facts of a canvas: title, size, pitch, shape, packet size, panels, what its bags carry. The same request
 * again changes nothing.
 * @throws Problem when squares that want a drill would be cut off, or the id is taken
 */
export async function correctFacts(
  database: Database,
  canvas: Canvas,
  wish: FactsWish,
  screenId: string | null = null,
): Promise<Canvas> {
  const { id = randomUUID(), ...rest } = wish;
  const facts = said(rest);
  await once(database, { id, what: 'canvas', canvasId: canvas.id, content: wish }, async (queries) => {
    const before = factsOf((await findCanvas(queries, canvas.id)) ?? canvas);
    await setFacts(queries, before, await corrected(before, facts), {
      screenId,
      id,
      undoes: null,
      redoes: null,
    });
  });
  return (await findCanvas(database, canvas.id)) ?? canvas;
}

async function setFacts(
  queries: Queries,
  before: CanvasFacts,
  after: CanvasFacts,
  entry: Entry,
): Promise<void> {
  const state = await stateOf(queries, asCanvas(before));
  const { fault } = changeReport(before, after, state);
  if (fault !== null) throw conflict(fault);
  if (JSON.stringify(before) === JSON.stringify(after)) return;
  const resized = before.width !== after.width || before.height !== after.height;
  if (resized) {
    const chart = await chartOf(queries, before);
    await updateCanvas(queries, after);
    if (chart) await putChart(queries, after.id, resizedChart(chart, after));
    await rewriteRuns(queries, after.id, (runs) => resizedRuns(runs, before.width, after));
    await putBitmap(queries, after.id, await replayMarks(queries, after.id, after.width * after.height));
  } else await updateCanvas(queries, after);
  await noteHeap(queries, asCanvas(after));
  const { screenId, ...rest } = entry;
  await addCorrection(
    queries,
    after.id,
    screenId,
    { ...rest, kind: 'canvas', before, after },
    new Date().toISOString(),
  );
}

/**
 * Takes a correction back, or makes it again.
 * @throws Problem when it does not stand (or was not undone), or something was changed since
 */
export async function undoCorrection(
  database: Database,
  canvas: Canvas,
  wish: { id: string; undoes: string | null; redoes: string | null },
  screenId: string | null = null,
): Promise<void> {
  const request = { id: wish.id, what: 'correction', canvasId: canvas.id, content: wish };
  await once(database, request, async (queries) => {
    const target = (wish.undoes ?? wish.redoes)!;
    const standing = await standingOf(queries, 'sheet_edit', canvas.id, target);
    const found = standing === 'unknown' ? null : await findCorrection(queries, canvas.id, target);
    if (!found) throw notFound('such correction');
    if (wish.undoes !== null && standing !== 'stands')
      throw conflict('This correction was undone already, perhaps at another screen.');
    if (wish.redoes !== null && standing !== 'taken back')
      throw conflict('This correction is not undone, so it cannot be redone.');
    await turnTo(queries, canvas, found, wish.undoes !== null, { screenId, ...wish });
  });
}

async function turnTo(
  queries: Queries,
  canvas: Canvas,
  found: Correction,
  back: boolean,
  entry: Entry,
): Promise<void> {
  if (found.kind === 'canvas') {
    const here = factsOf((await findCanvas(queries, canvas.id)) ?? canvas);
    const [from, to] = back ? [found.after, found.before] : [found.before, found.after];
    if (JSON.stringify(here) !== JSON.stringify({ ...here, ...from }))
      throw conflict('The canvas was changed again since. Correct it by hand.');
    return setFacts(queries, here, { ...here, ...to }, entry);
  }
  const here = await legendOf(queries, canvas.id);
  const [from, to] = back ? [found.after, found.before] : [found.before, found.after];
  if (versionOf(here) !== versionOf(from))
    throw conflict(
      'The colour list was changed again since, by another correction or a finish. Undo that first.',
    );
  await setList(queries, canvas, here, to, entry);
}
