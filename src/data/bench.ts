import { applyMark, type MarkKind } from '../core/bench/marking';
import { CORRECTED_WITHIN_MS, type PopMark } from '../core/bench/popped';
import { type Bitmap, countLaid, emptyBitmap } from '../core/cells/bitmap';
import { type CellRuns, countCells } from '../core/cells/cellRuns';
import { chartFromBytes } from '../core/cells/chart';
import { deviceNameSql, makerSql } from './deviceName';
import { one, type Queries } from './engine/database';

/** One row of the mark ledger. `runs` are exactly the cells that it changed. */
export interface Mark {
  id: string;
  kind: MarkKind;
  runs: CellRuns;
  /** Laid before the canvas was kept here. */
  before: boolean;
  undoes: string | null;
  /** Its place in the ledger; later ones are higher. */
  position: number;
  /** Of a lift: whether its drills came off by themselves; null where nobody said. */
  popped: boolean | null;
}

/** Cells of a part of the bitmap; a mark reads and writes the parts that it touches. */
const PART_CELLS = 8192;
const PART_BYTES = PART_CELLS / 8;

/** The digest of the request that a mark came with, and its canvas; null where there is no such mark. */
export function markRequest(
  queries: Queries,
  id: string,
): Promise<{ canvasId: string; digest: string | null } | null> {
  return one(queries, 'select canvas_id as "canvasId", digest from mark where id = $1', [id]);
}

export async function findMark(queries: Queries, canvasId: string, id: string): Promise<Mark | null> {
  const row = await one<Omit<Mark, 'runs'> & { cells: Uint8Array }>(
    queries,
    'select id, kind, cells, before, undoes, position::int as position, popped from mark where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
  if (!row) return null;
  const { cells, ...facts } = row;
  return { ...facts, runs: runsFromBytes(cells) };
}

/** The stretch of a canvas that a mark touches, whole parts of it. */
export interface Stretch {
  /** First cell, and number of cells. */
  first: number;
  cells: number;
  /**
   * Legend line of each cell that was asked for, 0 of the others; null where the canvas has no chart, so that every cell
   * wants a drill.
   */
  lines: Uint16Array | null;
  laid: Bitmap;
}

/** Reads the stretch in which the cells from one to another lie, both included. @param cells of the canvas */
export async function stretchOf(
  queries: Queries,
  canvasId: string,
  from: number,
  to: number,
  cells: number,
): Promise<Stretch> {
  const firstPart = Math.floor(from / PART_CELLS);
  const lastPart = Math.floor(to / PART_CELLS);
  const first = firstPart * PART_CELLS;
  const length = Math.min(cells, (lastPart + 1) * PART_CELLS) - first;
  const rows = await queries.query<{
    part: number | null;
    bits: Uint8Array | null;
    lines: Uint8Array | null;
  }>(
    `select null::int as part, null::bytea as bits, substring(cells from $2 for $3) as lines
     from chart where canvas_id = $1
     union all
     select part, bits, null from progress_part where canvas_id = $1 and part between $4 and $5`,
    [canvasId, from * 2 + 1, (to - from + 1) * 2, firstPart, lastPart],
  );
  const laid = emptyBitmap(length);
  let lines: Uint16Array | null = null;
  for (const row of rows) {
    if (row.part !== null && row.bits) {
      const at = (row.part - firstPart) * PART_BYTES;
      laid.set(row.bits.subarray(0, laid.length - at), at);
    }
    if (row.lines) {
      lines = new Uint16Array(length);
      lines.set(chartFromBytes(row.lines.length / 2, 1, row.lines).cells, from - first);
    }
  }
  return { first, cells: length, lines, laid };
}

/** What is entered of a mark. */
export interface NewMark {
  id: string;
  canvasId: string;
  screenId: string | null;
  sittingId: string | null;
  happenedAt: string;
  kind: MarkKind;
  /** The cells that it changes, at least one. */
  changed: CellRuns;
  /** Colour that all these cells have. */
  line: number | null;
  /** Laid before the canvas was kept here. */
  before?: boolean;
  /** Of a lift: whether its drills came off by themselves. */
  popped?: boolean | null;
  undoes: string | null;
  redoes: string | null;
  /** SHA-256 of what was asked for. */
  digest: string;
}

/**
 * Enters a mark with all that follows from it in one statement: the row, the changed parts of the bitmap and the total.
 * Nothing of it happens where the id is known.
 * @param stretch with the mark applied
 * @returns what is laid now, and its place in the ledger; null where the id is known
 */
export async function addMark(
  queries: Queries,
  mark: NewMark,
  stretch: Stretch,
): Promise<{ laid: number; position: number } | null> {
  const drills = countCells(mark.changed);
  const parts = touchedParts(mark.changed, stretch);
  return one<{ laid: number; position: number }>(
    queries,
    `with entered as (
       insert into mark
         (id, canvas_id, screen_id, sitting_id, happened_at, kind, cells, drills, line, undoes, redoes, digest, before, popped)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $16, $17) on conflict (id) do nothing returning id, position
     ), part as (
       insert into progress_part (canvas_id, part, bits)
       select $2, n.part, substring($14::bytea from ((n.i - 1) * ${PART_BYTES} + 1)::int for ${PART_BYTES})
       from entered, unnest($13::int[]) with ordinality as n (part, i)
       on conflict (canvas_id, part) do update set bits = excluded.bits
     )
     insert into progress_cache (canvas_id, laid) select $2, greatest(0, $15::int) from entered
     on conflict (canvas_id) do update set laid = progress_cache.laid + $15::int
     returning laid, (select position::int from entered) as position`,
    [
      mark.id,
      mark.canvasId,
      mark.screenId,
      mark.sittingId,
      mark.happenedAt,
      mark.kind,
      runsToBytes(mark.changed),
      drills,
      mark.line,
      mark.undoes,
      mark.redoes,
      mark.digest,
      parts.map(({ part }) => part),
      Buffer.concat(parts.map(({ bits }) => bits)),
      mark.kind === 'lay' ? drills : -drills,
      mark.before ?? false,
      mark.popped ?? null,
    ],
  );
}

/** The parts in which runs lie, each in its full length. */
function touchedParts(runs: CellRuns, { first, laid }: Stretch): { part: number; bits: Uint8Array }[] {
  const touched = new Set<number>();
  for (let i = 0; i < runs.length; i += 2) {
    const last = Math.floor((runs[i]! + runs[i + 1]! - 1) / PART_CELLS);
    for (let part = Math.floor(runs[i]! / PART_CELLS); part <= last; part++) touched.add(part);
  }
  return [...touched].map((part) => {
    const from = (part * PART_CELLS - first) / 8;
    const bits = new Uint8Array(PART_BYTES);
    bits.set(laid.subarray(from, from + PART_BYTES));
    return { part, bits };
  });
}

/** Caches what is laid, in place of what was there. For the times when all of it is reckoned anew. */
export async function putBitmap(queries: Queries, canvasId: string, laid: Bitmap): Promise<void> {
  await queries.query('delete from progress_part where canvas_id = $1', [canvasId]);
  const parts = Math.ceil(laid.length / PART_BYTES);
  await queries.query(
    `insert into progress_part (canvas_id, part, bits)
     select $1, n.part, substring($2::bytea from n.part * $3::int + 1 for $3::int)
     from generate_series(0, $4::int - 1) as n (part)`,
    [canvasId, laid, PART_BYTES, parts],
  );
  await queries.query(
    `insert into progress_cache (canvas_id, laid) values ($1, $2)
     on conflict (canvas_id) do update set laid = excluded.laid`,
    [canvasId, countLaid(laid)],
  );
}

/** The cached bitmap of what is laid. */
export async function bitmapOf(queries: Queries, canvasId: string, cells: number): Promise<Bitmap> {
  const rows = await queries.query<{ part: number; bits: Uint8Array }>(
    'select part, bits from progress_part where canvas_id = $1',
    [canvasId],
  );
  const laid = emptyBitmap(cells);
  for (const { part, bits } of rows) {
    const from = part * PART_BYTES;
    laid.set(bits.subarray(0, laid.length - from), from);
  }
  return laid;
}

/** The cached number of laid drills. */
export async function laidOf(queries: Queries, canvasId: string): Promise<number> {
  const row = await one<{ laid: number }>(queries, 'select laid from progress_cache where canvas_id = $1', [
    canvasId,
  ]);
  return row?.laid ?? 0;
}

/** Every mark of a canvas in its order, as far as it tells what lies where. */
export async function everyMark(
  queries: Queries,
  canvasId: string,
): Promise<(Pick<Mark, 'kind' | 'runs' | 'undoes'> & { happenedAt: string })[]> {
  const rows = await queries.query<{
    kind: MarkKind;
    cells: Uint8Array;
    undoes: string | null;
    happenedAt: string;
  }>(
    'select kind, cells, undoes, happened_at as "happenedAt" from mark where canvas_id = $1 order by position',
    [canvasId],
  );
  return rows.map(({ cells, ...row }) => ({ ...row, runs: runsFromBytes(cells) }));
}

/** A row of marks as it comes from the database. */
interface MarkRow {
  kind: MarkKind;
  cells: Uint8Array;
  happenedAt: string;
}

/**
 * What tells which drills came off: the lifts that stand, and the layings shortly before those that do not say what they
 * were; in their order. Lifts are few, so that this costs little however long the ledger is.
 */
export async function popMarks(queries: Queries, canvasId: string): Promise<PopMark[]> {
  const lifts = await queries.query<MarkRow & { popped: boolean | null; position: number }>(
    `select m.kind, m.cells, m.happened_at as "happenedAt", m.popped, m.position::int as position
     from mark m where m.canvas_id = $1 and m.kind = 'lift' and m.undoes is null
       and (m.redoes is not null or not exists (select 1 from mark u where u.undoes = m.id))
     order by m.position`,
    [canvasId],
  );
  const unsaid = lifts.filter(({ popped }) => popped === null);
  const lays =
    unsaid.length === 0
      ? []
      : await queries.query<MarkRow & { position: number }>(
          // A query for each moment: a database without statistics would hold the whole ledger against all of them.
          `select distinct m.kind, m.cells, m.happened_at as "happenedAt", m.position::int as position
           from unnest($2::timestamptz[]) as l (at)
           cross join lateral (
             select * from mark m where m.canvas_id = $1
               and m.happened_at between l.at - make_interval(secs => $3) and l.at offset 0
           ) m where m.kind = 'lay'`,
          [canvasId, unsaid.map(({ happenedAt }) => happenedAt), CORRECTED_WITHIN_MS / 1000],
        );
  return [...lifts, ...lays.map((lay) => ({ ...lay, popped: null }))]
    .sort((a, b) => a.position - b.position)
    .map(({ kind, cells, happenedAt, popped }) => ({ kind, runs: runsFromBytes(cells), happenedAt, popped }));
}

/** When something was marked last in a sitting; null where nothing was. */
export async function lastMarkAt(
  queries: Queries,
  canvasId: string,
  sittingId: string,
): Promise<string | null> {
  const row = await one<{ at: string | null }>(
    queries,
    'select max(happened_at) as at from mark where canvas_id = $1 and sitting_id = $2',
    [canvasId, sittingId],
  );
  return row?.at ?? null;
}

/** When a screen marked last on a canvas; null where it did not. */
export async function lastMarkOf(
  queries: Queries,
  canvasId: string,
  screenId: string,
): Promise<string | null> {
  const row = await one<{ at: string }>(
    queries,
    `select happened_at as at from mark where canvas_id = $1 and screen_id = $2
     order by position desc limit 1`,
    [canvasId, screenId],
  );
  return row?.at ?? null;
}

/**
 * The bitmap as the ledger tells it, mark by mark; the cache must always equal it.
 * @param until only marks made before this moment
 */
export async function replayMarks(
  queries: Queries,
  canvasId: string,
  cells: number,
  until: string | null = null,
): Promise<Bitmap> {
  const laid = emptyBitmap(cells);
  const end = until === null ? Number.POSITIVE_INFINITY : Date.parse(until);
  for (const { kind, runs, happenedAt } of await everyMark(queries, canvasId)) {
    if (Date.parse(happenedAt) < end) applyMark(laid, kind, runs);
  }
  return laid;
}

/** What a mark did, as far as a person is told before it is taken back. */
export interface MarkFacts {
  id: string;
  kind: MarkKind;
  drills: number;
  line: number | null;
  /** Its first cell. */
  cell: number;
}

export async function markFacts(queries: Queries, ids: readonly string[]): Promise<MarkFacts[]> {
  const rows = await queries.query<Omit<MarkFacts, 'cell'> & { start: Uint8Array }>(
    'select id, kind, drills, line, substring(cells from 1 for 4) as start from mark where id = any($1::uuid[])',
    [ids],
  );
  return rows.map(({ start, ...facts }) => ({
    ...facts,
    cell: new DataView(start.buffer, start.byteOffset, start.byteLength).getUint32(0, true),
  }));
}

/** Time at the bench. `drills` are those laid in it, less those lifted. */
export interface Sitting {
  id: string;
  startedAt: string;
  /** Null while it runs. */
  endedAt: string | null;
  note: string;
  drills: number;
  /** It was a mistake; kept, but not reckoned with. */
  removed: boolean;
  /** The device at which it began, by name; left out where there is but one. */
  device?: string;
}

export async function addSitting(
  queries: Queries,
  canvasId: string,
  id: string,
  startedAt: string,
  screenId: string | null = null,
): Promise<void> {
  await queries.query('insert into sitting (id, canvas_id, started_at, screen_id) values ($1, $2, $3, $4)', [
    id,
    canvasId,
    startedAt,
    screenId,
  ]);
}

/** Marks of a stretch of time that belong to one sitting (or to none) go over to another. */
export async function moveMarks(
  queries: Queries,
  canvasId: string,
  from: string | null,
  to: string,
  { startedAt, endedAt }: { startedAt: string; endedAt: string | null },
): Promise<void> {
  await queries.query(
    `update mark set sitting_id = $3
     where canvas_id = $1 and sitting_id is not distinct from $2::uuid and not before
       and happened_at >= $4 and ($5::timestamptz is null or happened_at <= $5)`,
    [canvasId, from, to, startedAt, endedAt],
  );
}

/**
 * Ends a sitting; one that has ended keeps its first end, and a note that says more is added to what stands there. None
 * ends before it began, whatever the clock says.
 */
export async function endSitting(
  queries: Queries,
  sittingId: string,
  endedAt: string,
  note: string,
): Promise<void> {
  await queries.query(
    `insert into sitting_end (sitting_id, ended_at, note)
     select id, greatest(started_at, $2), $3 from sitting where id = $1
     on conflict (sitting_id) do update set note = concat_ws('; ', nullif(sitting_end.note, ''), excluded.note)
       where excluded.note <> '' and position(excluded.note in sitting_end.note) = 0`,
    [sittingId, endedAt, note],
  );
}

export async function sittingBelongs(
  queries: Queries,
  canvasId: string,
  sittingId: string,
): Promise<boolean> {
  return (
    (await one(queries, 'select id from sitting where id = $1 and canvas_id = $2', [sittingId, canvasId])) !==
    null
  );
}

/** Says anew when a sitting was, and whether it was one. */
export async function addSittingEdit(
  queries: Queries,
  canvasId: string,
  edit: { id: string; sittingId: string } & Omit<Sitting, 'id' | 'drills'>,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into sitting_edit (id, canvas_id, sitting_id, happened_at, started_at, ended_at, note, removed)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [edit.id, canvasId, edit.sittingId, happenedAt, edit.startedAt, edit.endedAt, edit.note, edit.removed],
  );
}

/**
 * The newest sittings first, as they were corrected last; removed ones among them.
 * @param limit so many at most; null for all
 * @param maker the id of a device, or `desk`; null for all
 * @param id of the only one that is wanted
 */
export async function sittingsOf(
  queries: Queries,
  canvasId: string,
  limit: number | null,
  maker: string | null = null,
  id: string | null = null,
): Promise<Sitting[]> {
  const rows = await queries.query<{
    id: string;
    started_at: string;
    ended_at: string | null;
    note: string | null;
    removed: boolean;
    drills: number;
    device: string | null;
  }>(
    `select s.id, coalesce(c.started_at, s.started_at) as started_at,
            case when c.id is null then e.ended_at else c.ended_at end as ended_at,
            coalesce(c.note, e.note) as note, coalesce(c.removed, false) as removed,
            coalesce((select sum(case m.kind when 'lay' then m.drills else -m.drills end)
                      from mark m where m.sitting_id = s.id), 0)::int as drills,
            ${deviceNameSql('s.screen_id')} as device
     from sitting s left join sitting_end e on e.sitting_id = s.id
     left join lateral (select * from sitting_edit c where c.sitting_id = s.id
                        order by position desc limit 1) c on true
     where s.canvas_id = $1 and ($3::text is null or ${makerSql('s.screen_id')} = $3)
       and ($4::uuid is null or s.id = $4)
     order by 2 desc limit $2`,
    [canvasId, limit, maker, id],
  );
  return rows.map((row) => ({
    id: row.id,
    startedAt: row.started_at,
    endedAt: row.ended_at,
    note: row.note ?? '',
    drills: row.drills,
    removed: row.removed,
    ...(row.device !== null && { device: row.device }),
  }));
}

export function runsToBytes(runs: CellRuns): Uint8Array {
  const bytes = new Uint8Array(runs.length * 4);
  const view = new DataView(bytes.buffer);
  runs.forEach((value, i) => {
    view.setUint32(i * 4, value, true);
  });
  return bytes;
}

export function runsFromBytes(bytes: Uint8Array): number[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Array.from({ length: bytes.byteLength / 4 }, (_, i) => view.getUint32(i * 4, true));
}
