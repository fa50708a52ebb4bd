import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { undoView } from '../../core/ledger/history';
import type { TimeModel } from '../../core/pace/timeModel';
import type { PaperName } from '../../core/print/paper';
import type { JudgedGround } from '../../core/sections/judge';
import { type SectionPlan, sectionsOfPlan } from '../../core/sections/plan';
import type { CutWish } from '../../core/sections/propose';
import type { Section } from '../../core/sections/section';
import { type SectionWish, USUAL_WISH } from '../../core/sections/wish';
import { dateInWords } from '../../core/words/moments';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { undoStateOf } from '../../data/history';
import { tipSizes } from '../../data/placing';
import { cutFacts, cutInUse, sectionPlanOf, sectionWishOf } from '../../data/sections';
import { inWorker } from '../jobs/pool';
import type { ProposalView, SectionsPage, SectionsView } from './contract';
import type { SectionPrint } from './print';
import { timeModel } from './timeModel';

/** The sections of a canvas as they are cut. */
export async function sectionsOf(
  queries: Queries,
  canvas: Canvas,
): Promise<{ plan: SectionPlan; sections: Section[] }> {
  const plan = await sectionPlanOf(queries, canvas);
  return { plan, sections: sectionsOfPlan(canvas, plan) };
}

/** What the pages of the station begin with: how it is cut, which thousands of sections follow from. */
export async function sectionsPage(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<SectionsPage> {
  return {
    plan: await sectionPlanOf(queries, canvas),
    wish: (await sectionWishOf(queries, canvas.id)) ?? USUAL_WISH,
    history: await cutHistory(queries, canvas, screenId),
  };
}

/**
 * What undo and redo act on: only the cut in use can be taken back, whoever made it, for an older one would show nothing.
 */
async function cutHistory(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null,
): Promise<SectionsPage['history']> {
  const used = await cutInUse(queries, canvas);
  const { redo } = await undoStateOf(queries, 'section_cut', canvas.id, screenId);
  const facts = await cutFacts(
    queries,
    [used?.id, redo].filter((id) => typeof id === 'string'),
  );
  const undo = facts.find(({ id }) => id === used?.id);
  return undoView(
    screenId,
    undo ? { ...undo, own: screenId !== null && used?.screenId === screenId } : null,
    facts.find(({ id }) => id === redo) ?? null,
  );
}

export async function sectionsView(
  database: Database,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<SectionsView> {
  const model = await timeModel(database);
  const { page, ground } = await database.snapshot(async (queries) => ({
    page: await sectionsPage(queries, canvas, screenId),
    ground: await groundOf(queries, canvas, model),
  }));
  return {
    ...page,
    sections: await inWorker('judgedSections', { ground, plan: page.plan, wish: page.wish }),
  };
}

/** A cut as it is wished, which is not kept. */
export async function proposal(
  database: Database,
  canvas: Canvas,
  cut: CutWish,
  more: Partial<Pick<SectionWish, 'hand' | 'cover'>>,
): Promise<ProposalView> {
  const model = await timeModel(database);
  const { page, ground } = await database.snapshot(async (queries) => ({
    page: await sectionsPage(queries, canvas),
    ground: await groundOf(queries, canvas, model),
  }));
  return inWorker('proposedSections', { ground, plan: page.plan, cut, wish: { ...page.wish, ...more } });
}

/** What the papers of the sections are made from, read at one moment. */
export async function sectionPrint(
  database: Database,
  canvas: Canvas,
  paper: PaperName,
): Promise<SectionPrint> {
  const model = await timeModel(database);
  const { page, ground } = await database.snapshot(async (queries) => ({
    page: await sectionsPage(queries, canvas),
    ground: await groundOf(queries, canvas, model),
  }));
  const head = { title: canvas.title, date: dateInWords(new Date()), paper };
  return { head, canvas, ground, plan: page.plan, wish: page.wish };
}

async function groundOf(queries: Queries, canvas: Canvas, model: TimeModel): Promise<JudgedGround> {
  const legend = await legendOf(queries, canvas.id);
  return {
    canvas,
    chart: await chartOf(queries, canvas),
    laid: await bitmapOf(queries, canvas.id, canvas.width * canvas.height),
    lines: highestLine(legend),
    colours: legend.length,
    tips: await tipSizes(queries, canvas.shape),
    model,
  };
}
