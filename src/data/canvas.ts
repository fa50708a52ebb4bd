import {
  type BagsCarry,
  type Canvas,
  type CanvasFacts,
  panelGrid,
  panelsSideBySide,
  type Shape,
} from '../core/canvas/canvas';
import { highestLine, type LegendLine } from '../core/canvas/legend';
import { faultInPanels } from '../core/chart/panels';
import type { Finish } from '../core/colour/finish';
import type { InFront } from '../core/sections/inFront';
import { manyRows, one, type Queries } from './engine/database';

/** A row of the table `canvas`. */
export interface CanvasRow {
  id: string;
  title: string;
  shape: Shape;
  pitch_mm: number;
  width: number;
  height: number;
  panels: number;
  symbols_printed: boolean;
  packet_drills: number;
  bags_carry: BagsCarry | null;
  own_column_cuts: number[] | null;
  own_row_cuts: number[] | null;
  own_overlap: number | null;
}

const COLUMNS =
  'id, title, shape, pitch_mm, width, height, panels, symbols_printed, packet_drills, bags_carry';

/** With the panels that the user cut it into himself. */
const READ = `${COLUMNS},
  (select column_cuts from panel_plan where canvas_id = id) as own_column_cuts,
  (select row_cuts from panel_plan where canvas_id = id) as own_row_cuts,
  (select overlap from panel_plan where canvas_id = id) as own_overlap`;

export function canvasOf(row: CanvasRow): Canvas {
  const own = row.own_column_cuts && {
    columnCuts: row.own_column_cuts,
    rowCuts: row.own_row_cuts ?? [],
    overlap: row.own_overlap ?? 0,
  };
  return {
    id: row.id,
    title: row.title,
    shape: row.shape,
    pitchMm: row.pitch_mm,
    width: row.width,
    height: row.height,
    panels: row.panels,
    // Those that do not fit a size that was corrected rest until it is another one.
    panelRects:
      own && faultInPanels(own, row) === null
        ? panelGrid(row, own.columnCuts, own.rowCuts)
        : panelsSideBySide(row, row.panels),
    symbolsPrinted: row.symbols_printed,
    packetDrills: row.packet_drills,
    bagsCarry: row.bags_carry,
  };
}

/** A canvas on the shelf with the facts that its stage of work follows from. */
export interface ShelvedCanvas {
  canvas: Canvas;
  colours: number;
  bagsCounted: number;
  bagsToFind: number;
  laid: number;
  /** Cells that want a drill. */
  drills: number;
  hasChart: boolean;
  inFront: InFront | null;
  /** When something was marked, counted, put into pots or brought forward last; when it came where nothing was yet. */
  workedAt: string;
  /** Whether every planned pot is filled, or none are wanted. */
  kittedUp: boolean;
}

/**
 * The newest canvas first.
 * @param id one canvas only
 * @param begun those only on which something is laid: of a shelf of hundreds they are few
 */
export async function shelf(
  queries: Queries,
  id: string | null = null,
  { begun = false } = {},
): Promise<ShelvedCanvas[]> {
  const rows = await queries.query<
    CanvasRow & {
      colours: number;
      bags_counted: number;
      bags_to_find: number;
      laid: number;
      drills: number;
      has_chart: boolean;
      front_section: number | null;
      front_line: number | null;
      worked_at: string;
      kitted_up: boolean;
    }
  >(
    `select ${READ}, c.bags_counted, c.bags_to_find, coalesce(p.laid, 0) as laid,
            (select count(*)::int from legend_line l where l.canvas_id = c.id) as colours,
            coalesce(ch.drills, c.width * c.height) as drills, ch.canvas_id is not null as has_chart,
            f.section as front_section, f.line as front_line,
            greatest(c.created_at, f.changed_at,
              (select m.happened_at from mark m where m.canvas_id = c.id order by m.position desc limit 1),
              (select b.happened_at from bag_entry b where b.canvas_id = c.id order by b.position desc limit 1),
              (select e.happened_at from pot_event e where e.canvas_id = c.id order by e.position desc limit 1)
            ) as worked_at,
            c.no_cases or (exists (select 1 from allotment a where a.canvas_id = c.id) and not exists (
              select 1 from allotment a where a.canvas_id = c.id and coalesce((
                select e.kind from pot_event e where e.canvas_id = c.id and e.line = a.line
                  and e.undoes is null and e.kind <> 'amount'
                  and not exists (select 1 from pot_event u where u.undoes = e.id)
                order by e.position desc limit 1), '') <> 'fill')) as kitted_up
     from canvas c
     left join progress_cache p on p.canvas_id = c.id
     left join chart ch on ch.canvas_id = c.id
     left join in_front f on f.canvas_id = c.id
     where not c.arriving and c.deleted_at is null and ($1::uuid is null or c.id = $1::uuid)
       and (not $2 or p.laid > 0)
     order by c.created_at desc`,
    [id, begun],
  );
  return rows.map((row) => ({
    canvas: canvasOf(row),
    colours: row.colours,
    bagsCounted: row.bags_counted,
    bagsToFind: row.bags_to_find,
    laid: row.laid,
    drills: row.drills,
    hasChart: row.has_chart,
    kittedUp: row.kitted_up,
    workedAt: row.worked_at,
    inFront: row.front_section === null ? null : { section: row.front_section, line: row.front_line },
  }));
}

export async function findCanvas(queries: Queries, id: string): Promise<Canvas | null> {
  const row = await one<CanvasRow>(
    queries,
    `select ${READ} from canvas where id = $1 and not arriving and deleted_at is null`,
    [id],
  );
  return row && canvasOf(row);
}

/** The code of one colour; null where the list has none of that number. */
export async function codeOf(queries: Queries, canvasId: string, line: number): Promise<string | null> {
  const row = await one<{ code: string }>(
    queries,
    'select code from legend_line where canvas_id = $1 and line = $2',
    [canvasId, line],
  );
  return row?.code ?? null;
}

/** How a canvas of this id stands: on the shelf, on its way there in parts, deleted, on its way out for good, or none. */
export async function standingOfCanvas(
  queries: Queries,
  id: string,
): Promise<'here' | 'arriving' | 'deleted' | 'leaving' | 'unknown'> {
  const row = await one<{ arriving: boolean; deleted: boolean }>(
    queries,
    'select arriving, deleted_at is not null as deleted from canvas where id = $1',
    [id],
  );
  if (row === null) return 'unknown';
  if (row.deleted) return row.arriving ? 'leaving' : 'deleted';
  return row.arriving ? 'arriving' : 'here';
}

/**
 * A canvas that is written in several transactions is on the shelf from the last of them on; one that is removed in several,
 * to the first.
 */
export async function setArriving(queries: Queries, id: string, arriving: boolean): Promise<void> {
  await queries.query('update canvas set arriving = $2 where id = $1', [id, arriving]);
}

/** Takes away what was on its way to the shelf, or off it for good, when the program ended. */
export async function removeArriving(queries: Queries): Promise<void> {
  const rows = await queries.query<{ id: string }>('select id from canvas where arriving');
  for (const { id } of rows) await removeCanvas(queries, id);
}

/** Ids that end with these digits. */
export async function canvasIdsEnding(queries: Queries, digits: string): Promise<string[]> {
  const rows = await queries.query<{ id: string }>(
    'select id from canvas where right(id::text, length($1)) = $1 and deleted_at is null limit 2',
    [digits],
  );
  return rows.map(({ id }) => id);
}

/** A canvas with an id that is known already is left as it is. @returns whether it was added */
export async function addCanvas(queries: Queries, canvas: CanvasFacts, createdAt: string): Promise<boolean> {
  const rows = await queries.query(
    `insert into canvas (${COLUMNS}, created_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
     on conflict (id) do nothing returning id`,
    [
      canvas.id,
      canvas.title,
      canvas.shape,
      canvas.pitchMm,
      canvas.width,
      canvas.height,
      canvas.panels,
      canvas.symbolsPrinted,
      canvas.packetDrills,
      canvas.bagsCarry,
      createdAt,
    ],
  );
  return rows.length > 0;
}

/** Takes a canvas off the shelf and keeps it for a while; its pots are free at once. @returns whether it was there */
export async function deleteCanvas(queries: Queries, id: string, deletedAt: string): Promise<boolean> {
  const rows = await queries.query(
    `update canvas set deleted_at = $2,
       kept_pots = (select coalesce(jsonb_agg(jsonb_build_object('line', line, 'nth', nth, 'storage_id', storage_id, 'slot', slot,
         'locked', locked)), '[]') from allotment where canvas_id = $1)
     where id = $1 and deleted_at is null and not arriving returning id`,
    [id, deletedAt],
  );
  if (rows.length === 0) return false;
  await queries.query('delete from allotment where canvas_id = $1', [id]);
  return true;
}

/** Puts a deleted canvas back, with those of its pots that nobody has taken since. @returns whether it was there */
export async function bringBackCanvas(queries: Queries, id: string): Promise<boolean> {
  const rows = await queries.query(
    'update canvas set deleted_at = null where id = $1 and deleted_at is not null and not arriving returning id',
    [id],
  );
  if (rows.length === 0) return false;
  await queries.query(
    `insert into allotment (canvas_id, line, nth, storage_id, slot, locked)
     select $1, p.line, coalesce(p.nth, 1), p.storage_id, p.slot, p.locked
     from canvas c, jsonb_to_recordset(c.kept_pots) as p (line int, nth int, storage_id uuid, slot text, locked boolean)
     join storage s on s.id = p.storage_id
     where c.id = $1 on conflict do nothing`,
    [id],
  );
  await queries.query('update canvas set kept_pots = null where id = $1', [id]);
  return true;
}

/** So many marks go at once, and others wait meanwhile. */
const MARKS_AT_ONCE = 150;

/**
 * For the statement in which it stands, looks no more for what refers to a deleted row, where the database lets us: two
 * searches a mark are most of the time that they take.
 */
const UNCHECKED = `case when current_setting('is_superuser') = 'on'
       then set_config('session_replication_role', 'replica', true) end`;

/**
 * Removes a canvas with all that belongs to it, in steps between which others are served. From the first of them on nobody
 * sees it, and the next start goes on where this was broken off: not to be asked within a transaction.
 * @returns whether it was there
 */
export async function removeCanvas(queries: Queries, id: string): Promise<boolean> {
  await setArriving(queries, id, true);
  let removed: unknown[];
  do {
    // The newest first: what undoes a mark goes before it, and with it at the latest, for all marks of a canvas go.
    removed = await queries.query(
      `delete from mark where id in (
         with unchecked as materialized (select ${UNCHECKED})
         select m.id from unchecked, mark m where m.canvas_id = $1 order by m.position desc limit $2)
       returning 1`,
      [id, MARKS_AT_ONCE],
    );
  } while (removed.length === MARKS_AT_ONCE);
  return (await queries.query('delete from canvas where id = $1 returning id', [id])).length > 0;
}

/** Writes the facts of a canvas anew. */
export async function updateCanvas(queries: Queries, canvas: CanvasFacts): Promise<void> {
  await queries.query(
    `update canvas set title = $2, shape = $3, pitch_mm = $4, width = $5, height = $6, panels = $7,
            symbols_printed = $8, packet_drills = $9, bags_carry = $10 where id = $1`,
    [
      canvas.id,
      canvas.title,
      canvas.shape,
      canvas.pitchMm,
      canvas.width,
      canvas.height,
      canvas.panels,
      canvas.symbolsPrinted,
      canvas.packetDrills,
      canvas.bagsCarry,
    ],
  );
}

/** Keeps how the heap stands for the shelf. */
export async function putHeap(
  queries: Queries,
  canvasId: string,
  { bags, bagsToFind }: { bags: number; bagsToFind: number },
): Promise<void> {
  await queries.query('update canvas set bags_counted = $2, bags_to_find = $3 where id = $1', [
    canvasId,
    bags,
    bagsToFind,
  ]);
}

/** A row of the table `legend_line`, with the symbol that the user drew. */
export interface LegendRow {
  line: number;
  key_number: string;
  symbol: string | null;
  code: string;
  name: string;
  hex: string | null;
  finish: Finish;
  needed_drills: number;
  packets: number;
  origin?: 'sheet' | 'own' | null;
  path?: string | null;
}

export function legendLineOf(row: LegendRow): LegendLine {
  return {
    line: row.line,
    keyNumber: row.key_number,
    symbol: row.symbol,
    code: row.code,
    name: row.name,
    hex: row.hex,
    finish: row.finish,
    neededDrills: row.needed_drills,
    packets: row.packets,
    ...(row.origin === 'own' ? { origin: 'own' } : {}),
    ...(row.path ? { drawing: row.path } : {}),
  };
}

/** The colours of a canvas in the order of its list. */
export async function legendOf(queries: Queries, canvasId: string): Promise<LegendLine[]> {
  const rows = await manyRows<LegendRow>(
    queries,
    `select l.line, l.key_number, l.symbol, l.code, l.name, l.hex, l.finish, l.needed_drills, l.packets, l.origin,
            d.path
     from legend_line l
     left join symbol_drawing d on d.canvas_id = l.canvas_id and d.code = l.code and d.finish = l.finish
     where l.canvas_id = $1 order by l.position, l.line`,
    [canvasId],
  );
  return rows.map(legendLineOf);
}

/** Puts a list of colours in place of the one before. Runs in the caller's transaction. */
export async function replaceLegend(
  queries: Queries,
  canvasId: string,
  legend: readonly LegendLine[],
): Promise<void> {
  await queries.query('delete from legend_line where canvas_id = $1', [canvasId]);
  await queries.query(
    `insert into legend_line
       (canvas_id, position, line, key_number, symbol, code, name, hex, finish, needed_drills, packets, origin)
     select $1, n.position, n.line, n."keyNumber", n.symbol, n.code, n.name, n.hex, n.finish, n."neededDrills",
            n.packets, coalesce(n.origin, 'sheet')
     from jsonb_to_recordset($2::jsonb) as n
       (position integer, line integer, "keyNumber" text, symbol text, code text, name text, hex text, finish text,
        "neededDrills" integer, packets integer, origin text)`,
    [canvasId, JSON.stringify(legend.map((line, i) => ({ ...line, position: i + 1 })))],
  );
  await queries.query('update canvas set next_line = greatest(next_line, $2) where id = $1', [
    canvasId,
    highestLine(legend) + 1,
  ]);
}

/** The number that the next new colour of a canvas gets: one that none ever had. */
export async function nextLine(queries: Queries, canvasId: string): Promise<number> {
  const row = await one<{ next_line: number }>(queries, 'select next_line from canvas where id = $1', [
    canvasId,
  ]);
  return row?.next_line ?? 1;
}

/** Reckons that number from all that was ever entered of a canvas, for one that was taken in. */
export async function renewNextLine(queries: Queries, canvasId: string): Promise<void> {
  await queries.query(
    `update canvas set next_line = 1 + greatest(
       (select max(line) from legend_line where canvas_id = $1), (select max(line) from bag_entry where canvas_id = $1),
       (select max(line) from pot_event where canvas_id = $1), (select max(line) from mark where canvas_id = $1),
       (select max(line) from request_state where canvas_id = $1),
       (select max((each ->> 'line')::int) from sheet_edit e, jsonb_array_elements(e.before || e.after) each
        where e.canvas_id = $1),
       (select max((each ->> 'line')::int) from chart_edit e, jsonb_array_elements(e.before || e.edits) each
        where e.canvas_id = $1), 0)
     where id = $1`,
    [canvasId],
  );
}
