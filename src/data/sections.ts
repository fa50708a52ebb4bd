import type { BlockSize } from '../core/sections/blockGrid';
import { USUAL_BLOCK } from '../core/sections/blockGrid';
import { type Corner, USUAL_ORDER, type WorkWay } from '../core/sections/order';
import { type CutCanvas, piecesToText, type SectionPlan } from '../core/sections/plan';
import type { SectionWish } from '../core/sections/wish';
import { one, type Queries } from './engine/database';

interface CutRow {
  block_columns: number | null;
  block_rows: number | null;
  pieces: string | null;
  way: WorkWay;
  corner: Corner;
  focal_x: number | null;
  focal_y: number | null;
}

const PLAN_COLUMNS = 'block_columns, block_rows, pieces, way, corner, focal_x, focal_y';

function planOfRow(row: CutRow): SectionPlan {
  return {
    block: row.pieces === null ? { columns: row.block_columns!, rows: row.block_rows! } : null,
    pieces: row.pieces,
    order: {
      way: row.way,
      corner: row.corner,
      focal: row.focal_x === null || row.focal_y === null ? null : { x: row.focal_x, y: row.focal_y },
    },
  };
}

/** What a plan is made for: with other panels, or another size, it does not hold. */
function madeFor({ panelRects }: CutCanvas): string {
  return piecesToText([{ rects: panelRects, name: null }]);
}

/** The cut in use: the newest that stands and is made for the canvas as it is; null where there is none. */
const IN_USE = `canvas_id = $1 and made_for = $2 and e.undoes is null
  and not exists (select 1 from section_cut u where u.undoes = e.id)`;

/** How a canvas is cut: the newest cut that stands, else the grid from before there were cuts, else the usual one. */
export async function sectionPlanOf(
  queries: Queries,
  canvas: CutCanvas & { id: string },
): Promise<SectionPlan> {
  const cut = await one<CutRow>(
    queries,
    `select ${PLAN_COLUMNS} from section_cut e where ${IN_USE} order by e.position desc limit 1`,
    [canvas.id, madeFor(canvas)],
  );
  if (cut) return planOfRow(cut);
  const grid = await one<BlockSize>(
    queries,
    'select block_columns as columns, block_rows as rows from section_plan where canvas_id = $1',
    [canvas.id],
  );
  return { block: grid ?? USUAL_BLOCK, pieces: null, order: USUAL_ORDER };
}

/** The cut in use and the screen that made it; null where there is none. */
export async function cutInUse(
  queries: Queries,
  canvas: CutCanvas & { id: string },
): Promise<{ id: string; screenId: string | null } | null> {
  return one(
    queries,
    `select e.id, e.screen_id as "screenId" from section_cut e where ${IN_USE} order by e.position desc limit 1`,
    [canvas.id, madeFor(canvas)],
  );
}

/** An entry of the ledger of cuts. */
export interface CutEntry {
  id: string;
  plan: SectionPlan;
  /** Number of its sections. */
  sections: number;
  undoes: string | null;
  redoes: string | null;
}

export async function addCut(
  queries: Queries,
  canvas: CutCanvas & { id: string },
  screenId: string | null,
  { id, plan, sections, undoes, redoes }: CutEntry,
  happenedAt: string,
): Promise<void> {
  const { block, pieces, order } = plan;
  await queries.query(
    `insert into section_cut (id, canvas_id, screen_id, happened_at, block_columns, block_rows, pieces, sections,
       way, corner, focal_x, focal_y, made_for, undoes, redoes)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)`,
    [
      id,
      canvas.id,
      screenId,
      happenedAt,
      block?.columns ?? null,
      block?.rows ?? null,
      pieces,
      sections,
      order.way,
      order.corner,
      order.focal?.x ?? null,
      order.focal?.y ?? null,
      madeFor(canvas),
      undoes,
      redoes,
    ],
  );
}

export async function findCut(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<{ plan: SectionPlan; sections: number; madeFor: string } | null> {
  const row = await one<CutRow & { sections: number; made_for: string }>(
    queries,
    `select ${PLAN_COLUMNS}, sections, made_for from section_cut where canvas_id = $1 and id = $2`,
    [canvasId, id],
  );
  return row && { plan: planOfRow(row), sections: row.sections, madeFor: row.made_for };
}

/** Whether a cut is made for a canvas as it is now. */
export function isMadeFor(cut: { madeFor: string }, canvas: CutCanvas): boolean {
  return cut.madeFor === madeFor(canvas);
}

/** How many sections these cuts made, and whether as a grid, to name them. */
export function cutFacts(
  queries: Queries,
  ids: readonly string[],
): Promise<{ id: string; sections: number; way: WorkWay }[]> {
  return queries.query('select id, sections, way from section_cut where id = any($1::uuid[])', [ids]);
}

export interface WishRow {
  minutes: number;
  hand: SectionWish['hand'];
  cover: SectionWish['cover'];
  sheet_width_mm: number;
  sheet_height_mm: number;
  overlap_mm: number;
  roll_mm: number | null;
  pad: SectionWish['pad'];
  pad_long_mm: number;
  pad_short_mm: number;
  reach_mm: number | null;
  window_mm: number | null;
}

const WISH_COLUMNS = [
  'minutes',
  'hand',
  'cover',
  'sheet_width_mm',
  'sheet_height_mm',
  'overlap_mm',
  'roll_mm',
  'pad',
  'pad_long_mm',
  'pad_short_mm',
  'reach_mm',
  'window_mm',
] as const;

/** A row of the table `section_wish` as a wish. */
export function wishOfRow(row: WishRow): SectionWish {
  return {
    minutes: row.minutes,
    hand: row.hand,
    cover: row.cover,
    sheets: { widthMm: row.sheet_width_mm, heightMm: row.sheet_height_mm, overlapMm: row.overlap_mm },
    rollMm: row.roll_mm,
    pad: row.pad,
    ownPadMm: { longMm: row.pad_long_mm, shortMm: row.pad_short_mm },
    reachMm: row.reach_mm,
    windowMm: row.window_mm,
  };
}

/** How the user works on a canvas; null before he says. */
export async function sectionWishOf(queries: Queries, canvasId: string): Promise<SectionWish | null> {
  const row = await one<WishRow>(
    queries,
    `select ${WISH_COLUMNS.join(', ')} from section_wish where canvas_id = $1`,
    [canvasId],
  );
  return row && wishOfRow(row);
}

export async function putSectionWish(queries: Queries, canvasId: string, wish: SectionWish): Promise<void> {
  const places = WISH_COLUMNS.map((_, i) => `$${i + 2}`).join(', ');
  const set = WISH_COLUMNS.map((name) => `${name} = excluded.${name}`).join(', ');
  await queries.query(
    `insert into section_wish (canvas_id, ${WISH_COLUMNS.join(', ')}) values ($1, ${places})
     on conflict (canvas_id) do update set ${set}`,
    [
      canvasId,
      wish.minutes,
      wish.hand,
      wish.cover,
      wish.sheets.widthMm,
      wish.sheets.heightMm,
      wish.sheets.overlapMm,
      wish.rollMm,
      wish.pad,
      wish.ownPadMm.longMm,
      wish.ownPadMm.shortMm,
      wish.reachMm,
      wish.windowMm,
    ],
  );
}
