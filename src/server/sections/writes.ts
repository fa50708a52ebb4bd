import type { Canvas } from '../../core/canvas/canvas';
import type { BlockSize } from '../../core/sections/blockGrid';
import { USUAL_ORDER, type WorkOrder } from '../../core/sections/order';
import { MAX_SECTIONS, type SectionPlan, sectionsOfPlan } from '../../core/sections/plan';
import { many } from '../../core/words/numbers';
import { chartOf } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import { forgetInFront } from '../../data/inFront';
import { addCut, cutInUse, findCut, isMadeFor, sectionPlanOf } from '../../data/sections';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';
import { inWorker } from '../jobs/pool';

/** A cut that is to be kept, see `cutSchema`. */
export interface CutRequest {
  id: string;
  columns?: number | undefined;
  rows?: number | undefined;
  pieces?: string | undefined;
  sections?: unknown;
  order?: WorkOrder | undefined;
  undoes?: string | undefined;
  redoes?: string | undefined;
}

/**
 * Keeps a cut, takes one back or makes it again. The same request again changes nothing.
 * @throws Problem where it does not cover the canvas, there is nothing to undo or redo, or the id is taken
 */
export async function keepCut(
  database: Database,
  canvas: Canvas,
  wish: CutRequest,
  screenId: string | null,
): Promise<void> {
  const fresh = wish.undoes === undefined && wish.redoes === undefined;
  // Looked at before the transaction: large ones take a while.
  const made = fresh ? await checked(database, canvas, wish) : null;
  await once(database, { id: wish.id, what: 'cut', canvasId: canvas.id, content: wish }, async (queries) => {
    const entry = made ?? (await earlier(queries, canvas, wish));
    const happenedAt = new Date().toISOString();
    const { id, undoes = null, redoes = null } = wish;
    await addCut(queries, canvas, screenId, { id, ...entry, undoes, redoes }, happenedAt);
    // Numbers mean other squares from here on.
    await forgetInFront(queries, canvas.id);
  });
}

async function checked(
  database: Database,
  canvas: Canvas,
  wish: CutRequest,
): Promise<{ plan: SectionPlan; sections: number }> {
  const { columns, rows, pieces, sections, order } = wish;
  if (columns !== undefined && rows !== undefined) {
    const block = { columns, rows };
    const fault = faultInBlock(canvas, block);
    if (fault !== null) throw unreadable(fault);
    const plan = { block, pieces: null, order: order ?? USUAL_ORDER };
    return { plan, sections: sectionsOfPlan(canvas, plan).length };
  }
  const sent = pieces ?? sections;
  if (sent === undefined) {
    // Only the order is changed.
    if (!order) throw unreadable('Say how to cut: the size of the blocks, or the sections.');
    const plan = { ...(await sectionPlanOf(database, canvas)), order };
    return { plan, sections: sectionsOfPlan(canvas, plan).length };
  }
  const chart = await chartOf(database, canvas);
  const { text, fault, count } = await inWorker('checkedPieces', { pieces: sent, canvas, chart });
  if (fault !== null) throw unreadable(fault);
  const kept = order ?? (await sectionPlanOf(database, canvas)).order;
  return { plan: { block: null, pieces: text, order: kept }, sections: count };
}

/** What an undo or a redo is about. */
async function earlier(
  queries: Queries,
  canvas: Canvas,
  { undoes, redoes }: CutRequest,
): Promise<{ plan: SectionPlan; sections: number }> {
  const target = (undoes ?? redoes)!;
  const standing = await standingOf(queries, 'section_cut', canvas.id, target);
  const cut = standing === 'unknown' ? null : await findCut(queries, canvas.id, target);
  if (!cut) throw notFound('such cut');
  if (undoes !== undefined) {
    if (standing !== 'stands') throw conflict('This cut was undone already, perhaps at another screen.');
    if ((await cutInUse(queries, canvas))?.id !== target) {
      throw conflict('The canvas was cut again since, or its size was changed. Undo that first.');
    }
  } else {
    if (standing !== 'taken back') throw conflict('This cut is not undone, so it cannot be redone.');
    if (!isMadeFor(cut, canvas)) throw conflict('This cut is for another size or other panels.');
  }
  return { plan: cut.plan, sections: cut.sections };
}

/** Why a block size would cut a canvas into too many pieces; null when it is well. */
function faultInBlock(canvas: Canvas, block: BlockSize): string | null {
  const count = canvas.panelRects.reduce(
    (sum, { width, height }) => sum + Math.ceil(width / block.columns) * Math.ceil(height / block.rows),
    0,
  );
  return count > MAX_SECTIONS
    ? `This would cut the canvas into ${many(count)} sections. Choose a larger size.`
    : null;
}
