import type { Canvas } from '../../core/canvas/canvas';
import type { CellPart } from '../../core/cells/rect';
import type { PlacingGround } from '../../core/placing/plan';
import { tipsFor } from '../../core/placing/tips';
import { USUAL_PLACING } from '../../core/placing/wish';
import type { PaperName } from '../../core/print/paper';
import { noSuchSection } from '../../core/sections/next';
import { USUAL_WISH } from '../../core/sections/wish';
import { dateInWords } from '../../core/words/moments';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { ownTips, placingWishOf } from '../../data/placing';
import { sectionWishOf } from '../../data/sections';
import { conflict, notFound } from '../http/problem';
import { inWorker } from '../jobs/pool';
import { timeModel } from '../sections/timeModel';
import { sectionsOf } from '../sections/view';
import type { PlacingStart, TipsWorthView } from './contract';

/** What a plan is asked for: a section, or the whole canvas with its sections' borders or without. */
export interface PlanScope {
  section?: number | undefined;
  borders: 'none' | 'sections';
}

export async function placingStart(queries: Queries, canvas: Canvas): Promise<PlacingStart> {
  return {
    tips: await ownTips(queries),
    wish: (await placingWishOf(queries, canvas.id)) ?? USUAL_PLACING,
    hand: ((await sectionWishOf(queries, canvas.id)) ?? USUAL_WISH).hand,
  };
}

/** @throws Problem when there is no chart or no such section */
async function groundOf(database: Database, canvas: Canvas, scope: PlanScope): Promise<PlacingGround> {
  const { seconds } = await timeModel(database);
  return database.snapshot(async (queries) => {
    const chart = await chartOf(queries, canvas);
    if (!chart) throw conflict('Placements are planned on the chart, and this canvas has none yet.');
    const { tips, hand } = await placingStart(queries, canvas);
    return {
      chart,
      laid: await bitmapOf(queries, canvas.id, chart.cells.length),
      legend: await legendOf(queries, canvas.id),
      parts: await partsOf(queries, canvas, scope),
      tips: tipsFor(tips, canvas.shape),
      seconds,
      hand,
    };
  });
}

async function partsOf(
  queries: Queries,
  canvas: Canvas,
  { section: number, borders }: PlanScope,
): Promise<CellPart[]> {
  // Panels lie apart: no bar reaches from one to the next.
  if (number === undefined && borders === 'none') return [...canvas.panelRects];
  const { sections } = await sectionsOf(queries, canvas);
  if (number === undefined) return [...sections].sort((a, b) => a.order - b.order);
  const section = sections[number - 1];
  if (!section) throw notFound(noSuchSection(number, sections.length));
  return [section];
}

/** The plan as JSON, see docs/api.md. @param seconds of the search; null for the usual rounds */
export async function placements(
  database: Database,
  canvas: Canvas,
  scope: PlanScope & { wishes: 'none' | 'own'; seconds: number | null },
): Promise<Uint8Array> {
  const ground = await groundOf(database, canvas, scope);
  const wish =
    scope.wishes === 'own' ? ((await placingWishOf(database, canvas.id)) ?? USUAL_PLACING) : USUAL_PLACING;
  return inWorker('placementsJson', { ground, wish, seconds: scope.seconds });
}

export async function tipsWorthView(
  database: Database,
  canvas: Canvas,
  section: number | undefined,
): Promise<TipsWorthView> {
  return inWorker('comparedTips', await groundOf(database, canvas, { section, borders: 'none' }));
}

/** What the sheet of a section is made from. */
export async function printedPlacing(
  database: Database,
  canvas: Canvas,
  { section, paper }: { section: number; paper: PaperName },
) {
  const ground = await groundOf(database, canvas, { section, borders: 'sections' });
  const wish = (await placingWishOf(database, canvas.id)) ?? USUAL_PLACING;
  return {
    head: { title: canvas.title, date: dateInWords(new Date()), paper },
    what: `Placements of section ${section}`,
    ground,
    wish: { ...wish, ownOrder: [...wish.ownOrder] },
    legend: ground.legend,
  };
}
