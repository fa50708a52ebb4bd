import type { Canvas, Shape } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import type { Finish } from '../core/colour/finish';
import { one, type Queries } from './engine/database';

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
}

const COLUMNS = 'id, title, shape, pitch_mm, width, height, panels, symbols_printed, packet_drills';

export function canvasOf(row: CanvasRow): Canvas {
  return {
    id: row.id,
    title: row.title,
    shape: row.shape,
    pitchMm: row.pitch_mm,
    width: row.width,
    height: row.height,
    panels: row.panels,
    symbolsPrinted: row.symbols_printed,
    packetDrills: row.packet_drills,
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
}

/** The newest canvas first. @param id one canvas only */
export async function shelf(queries: Queries, id: string | null = null): Promise<ShelvedCanvas[]> {
  const rows = await queries.query<
    CanvasRow & {
      colours: number;
      bags_counted: number;
      bags_to_find: number;
      laid: number;
      drills: number;
      has_chart: boolean;
    }
  >(
    `with bag as (
       -- An assignment adds a stray to a line, and leaves the number of bags as it is.
       select canvas_id, line, sum(case kind when 'take back' then -1 else 1 end)::int as bags,
              sum(case when subject is not null then 0 when kind = 'count' then 1 else -1 end)::int as counted
       from bag_entry where $1::uuid is null or canvas_id = $1::uuid group by canvas_id, line
     ), line_bags as (
       select l.canvas_id, count(*)::int as colours,
              sum(greatest(0, l.packets - coalesce(b.bags, 0)))::int as bags_to_find
       from legend_line l left join bag b on b.canvas_id = l.canvas_id and b.line = l.line
       where $1::uuid is null or l.canvas_id = $1::uuid group by l.canvas_id
     ), all_bags as (
       select canvas_id, sum(counted)::int as bags_counted from bag group by canvas_id
     )
     select ${COLUMNS}, coalesce(lb.colours, 0) as colours, coalesce(lb.bags_to_find, 0) as bags_to_find,
            coalesce(ab.bags_counted, 0) as bags_counted, coalesce(p.laid, 0) as laid,
            coalesce(ch.drills, c.width * c.height) as drills, ch.canvas_id is not null as has_chart
     from canvas c
     left join line_bags lb on lb.canvas_id = c.id
     left join all_bags ab on ab.canvas_id = c.id
     left join progress_cache p on p.canvas_id = c.id
     left join chart ch on ch.canvas_id = c.id
     where not c.arriving and ($1::uuid is null or c.id = $1::uuid)
     order by c.created_at desc`,
    [id],
  );
  return rows.map((row) => ({
    canvas: canvasOf(row),
    colours: row.colours,
    bagsCounted: row.bags_counted,
    bagsToFind: row.bags_to_find,
    laid: row.laid,
    drills: row.drills,
    hasChart: row.has_chart,
  }));
}

export async function findCanvas(queries: Queries, id: string): Promise<Canvas | null> {
  const row = await one<CanvasRow>(queries, `select ${COLUMNS} from canvas where id = $1 and not arriving`, [
    id,
  ]);
  return row && canvasOf(row);
}

/** How a canvas of this id stands: on the shelf, on its way there in parts, or neither. */
export async function standingOfCanvas(
  queries: Queries,
  id: string,
): Promise<'here' | 'arriving' | 'unknown'> {
  const row = await one<{ arriving: boolean }>(queries, 'select arriving from canvas where id = $1', [id]);
  return row === null ? 'unknown' : row.arriving ? 'arriving' : 'here';
}

/** A canvas that is written in several transactions is on the shelf from the last of them on. */
export async function setArriving(queries: Queries, id: string, arriving: boolean): Promise<void> {
  await queries.query('update canvas set arriving = $2 where id = $1', [id, arriving]);
}

/** Takes away what was on its way to the shelf when the program ended. */
export async function removeArriving(queries: Queries): Promise<void> {
  await queries.query('delete from canvas where arriving');
}

/** Ids that end with these digits. */
export async function canvasIdsEnding(queries: Queries, digits: string): Promise<string[]> {
  const rows = await queries.query<{ id: string }>(
    'select id from canvas where right(id::text, length($1)) = $1 limit 2',
    [digits],
  );
  return rows.map(({ id }) => id);
}

/** A canvas with an id that is known already is left as it is. @returns whether it was added */
export async function addCanvas(queries: Queries, canvas: Canvas, createdAt: string): Promise<boolean> {
  const rows = await queries.query(
    `insert into canvas (${COLUMNS}, created_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
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
      createdAt,
    ],
  );
  return rows.length > 0;
}

/** Removes a canvas with all that belongs to it. @returns whether it was there */
export async function removeCanvas(queries: Queries, id: string): Promise<boolean> {
  return (await queries.query('delete from canvas where id = $1 returning id', [id])).length > 0;
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
    ...(row.path ? { drawing: row.path } : {}),
  };
}

export async function legendOf(queries: Queries, canvasId: string): Promise<LegendLine[]> {
  const rows = await queries.query<LegendRow>(
    `select l.line, l.key_number, l.symbol, l.code, l.name, l.hex, l.finish, l.needed_drills, l.packets, d.path
     from legend_line l
     left join symbol_drawing d on d.canvas_id = l.canvas_id and d.code = l.code and d.finish = l.finish
     where l.canvas_id = $1 order by l.line`,
    [canvasId],
  );
  return rows.map(legendLineOf);
}

/** Puts a legend in place of the one before. Runs in the caller's transaction. */
export async function replaceLegend(
  queries: Queries,
  canvasId: string,
  legend: readonly LegendLine[],
): Promise<void> {
  await queries.query('delete from legend_line where canvas_id = $1', [canvasId]);
  await queries.query(
    `insert into legend_line
       (canvas_id, line, key_number, symbol, code, name, hex, finish, needed_drills, packets)
     select $1, n.line, n."keyNumber", n.symbol, n.code, n.name, n.hex, n.finish, n."neededDrills", n.packets
     from jsonb_to_recordset($2::jsonb) as n
       (line integer, "keyNumber" text, symbol text, code text, name text, hex text, finish text,
        "neededDrills" integer, packets integer)`,
    [canvasId, JSON.stringify(legend)],
  );
}
