import { randomUUID } from 'node:crypto';
import { type Canvas, panelGrid } from '../../core/canvas/canvas';
import { type CellRect, countDrills } from '../../core/cells/chart';
import { equalCuts, faultInPanels, type PanelPlan, panelRects, panelsOf } from '../../core/chart/panels';
import { piecesFromText, piecesOnPanels, piecesToText, type SectionPlan } from '../../core/sections/plan';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { panelPlanOf, putPanelPlan } from '../../data/panels';
import { addCut, cutInUse, sectionPlanOf } from '../../data/sections';
import { notFound, unreadable } from '../http/problem';
import type { PanelsView } from './contract';

/** Bare cloth that is usual around a panel (common practice, no source). */
const USUAL_MARGIN_MM = 25;

/** The user's plan where it fits, else the panels that the kit comes in. */
async function planOf(queries: Queries, canvas: Canvas): Promise<PanelPlan> {
  const own = await panelPlanOf(queries, canvas.id);
  if (own && faultInPanels(own, canvas) === null) return own;
  return {
    columnCuts: equalCuts(canvas.width, canvas.panels),
    rowCuts: [],
    overlap: 0,
    marginMm: USUAL_MARGIN_MM,
    reachWidthCm: null,
    reachHeightCm: null,
  };
}

export async function panelsView(queries: Queries, canvas: Canvas): Promise<PanelsView> {
  const plan = await planOf(queries, canvas);
  const chart = await chartOf(queries, canvas);
  const lines = (await legendOf(queries, canvas.id)).length;
  const panels = panelsOf(plan, canvas, chart, lines);
  const once = chart ? countDrills(chart) : canvas.width * canvas.height;
  return { plan, panels, twice: panels.reduce((sum, { drills }) => sum + drills, 0) - once };
}

/** Keeps a plan. @throws Problem when it cannot be cut so */
export async function savePanels(database: Database, canvas: Canvas, plan: PanelPlan): Promise<void> {
  const fault = faultInPanels(plan, canvas);
  if (fault !== null) throw unreadable(fault);
  await database.transaction(async (queries) => {
    const sections = await sectionPlanOf(queries, canvas);
    await putPanelPlan(queries, canvas.id, plan);
    const anew = { ...canvas, panelRects: panelGrid(canvas, plan.columnCuts, plan.rowCuts) };
    await keepSections(queries, anew, sections);
  });
}

/** Sections that were cut one by one stay, cut where panels meet now; a grid begins afresh at each panel by itself. */
async function keepSections(queries: Queries, canvas: Canvas, { pieces, order }: SectionPlan): Promise<void> {
  if (pieces === null || (await cutInUse(queries, canvas)) !== null) return;
  const cut = piecesOnPanels(piecesFromText(pieces), canvas.panelRects);
  const kept = { block: null, pieces: piecesToText(cut), order };
  const entry = { id: randomUUID(), plan: kept, sections: cut.length, undoes: null, redoes: null };
  await addCut(queries, canvas, null, entry, new Date().toISOString());
}

/**
 * The part of a canvas to print, and what to call it.
 * @param panel number from 1; undefined for the whole
 * @throws Problem 404 when there is no such panel
 */
export async function printedPart(
  queries: Queries,
  canvas: Canvas,
  panel: number | undefined,
): Promise<{ area: CellRect; title: string }> {
  if (panel === undefined) {
    return { area: { x: 0, y: 0, width: canvas.width, height: canvas.height }, title: canvas.title };
  }
  const rects = panelRects(await planOf(queries, canvas), canvas);
  const area = rects[panel - 1];
  if (!area) throw notFound('panel of this number');
  return { area, title: `${canvas.title}, panel ${panel} of ${rects.length}` };
}
