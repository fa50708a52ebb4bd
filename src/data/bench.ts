import { applyMark, type MarkKind } from '../core/bench/marking';
import { type Bitmap, countLaid, emptyBitmap } from '../core/cells/bitmap';
import { type CellRuns, countCells } from '../core/cells/cellRuns';
import { type UndoState, undoState } from '../core/ledger/history';
import { one, type Queries } from './engine/database';

/** One row of the mark ledger. `runs` are exactly the cells that it changed. */
export interface Mark {
  id: string;
  canvasId: string;
  sittingId: string | null;
  happenedAt: string;
  kind: MarkKind;
  runs: CellRuns;
  undoes: string | null;
  redoes: string | null;
}

/** Rows that are read to find what undo acts on; no one takes back more in one go. */
const HISTORY_ROWS = 500;

export async function findMark(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<Pick<Mark, 'id' | 'kind' | 'runs'> | null> {
  const row = await one<{ id: string; kind: MarkKind; cells: Uint8Array }>(
    queries,
    'select id, kind, cells from mark where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
  return row && { id: row.id, kind: row.kind, runs: runsFromBytes(row.cells) };
}

/** Adds a mark to the ledger; {@link putBitmap} belongs in the same transaction. */
export async function addMark(queries: Queries, mark: Mark): Promise<void> {
  await queries.query(
    `insert into mark (id, canvas_id, sitting_id, happened_at, kind, cells, drills, undoes, redoes)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      mark.id,
      mark.canvasId,
      mark.sittingId,
      mark.happenedAt,
      mark.kind,
      runsToBytes(mark.runs),
      countCells(mark.runs),
      mark.undoes,
      mark.redoes,
    ],
  );
}

/** Caches what is laid once the ledger's marks are applied. */
export async function putBitmap(queries: Queries, canvasId: string, laid: Bitmap): Promise<void> {
  await queries.query(
    `insert into progress_cache (canvas_id, bitmap, laid) values ($1, $2, $3)
     on conflict (canvas_id) do update set bitmap = excluded.bitmap, laid = excluded.laid`,
    [canvasId, laid, countLaid(laid)],
  );
}

/** The cached bitmap of what is laid. */
export async function bitmapOf(queries: Queries, canvasId: string, cells: number): Promise<Bitmap> {
  const row = await one<{ bitmap: Uint8Array }>(
    queries,
    'select bitmap from progress_cache where canvas_id = $1',
    [canvasId],
  );
  return row?.bitmap ?? emptyBitmap(cells);
}

/** Every mark of a canvas in its order, as far as it tells what lies where. */
export async function everyMark(
  queries: Queries,
  canvasId: string,
): Promise<Pick<Mark, 'kind' | 'runs' | 'undoes'>[]> {
  const rows = await queries.query<{ kind: MarkKind; cells: Uint8Array; undoes: string | null }>(
    'select kind, cells, undoes from mark where canvas_id = $1 order by position',
    [canvasId],
  );
  return rows.map(({ kind, cells, undoes }) => ({ kind, runs: runsFromBytes(cells), undoes }));
}

/** The bitmap as the ledger tells it, mark by mark; the cache must always equal it. */
export async function replayMarks(queries: Queries, canvasId: string, cells: number): Promise<Bitmap> {
  const laid = emptyBitmap(cells);
  for (const { kind, runs } of await everyMark(queries, canvasId)) applyMark(laid, kind, runs);
  return laid;
}

export async function markHistory(queries: Queries, canvasId: string): Promise<UndoState> {
  const rows = await queries.query<{ id: string; undoes: string | null; redoes: string | null }>(
    `select id, undoes, redoes from mark where canvas_id = $1 order by position desc limit ${HISTORY_ROWS}`,
    [canvasId],
  );
  return undoState(rows.reverse());
}

/** Time at the bench. `drills` are those laid in it, less those lifted. */
export interface Sitting {
  id: string;
  startedAt: string;
  /** Null while it runs. */
  endedAt: string | null;
  note: string;
  drills: number;
}

export async function addSitting(
  queries: Queries,
  canvasId: string,
  id: string,
  startedAt: string,
): Promise<void> {
  await queries.query(
    'insert into sitting (id, canvas_id, started_at) values ($1, $2, $3) on conflict (id) do nothing',
    [id, canvasId, startedAt],
  );
}

/** Ends a sitting; one that has ended keeps its first end. */
export async function endSitting(
  queries: Queries,
  sittingId: string,
  endedAt: string,
  note: string,
): Promise<void> {
  await queries.query(
    `insert into sitting_end (sitting_id, ended_at, note) values ($1, $2, $3)
     on conflict (sitting_id) do nothing`,
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

/** The newest sittings first. */
export async function sittingsOf(queries: Queries, canvasId: string, limit: number): Promise<Sitting[]> {
  const rows = await queries.query<{
    id: string;
    started_at: string;
    ended_at: string | null;
    note: string | null;
    drills: number;
  }>(
    `select s.id, s.started_at, e.ended_at, e.note,
            coalesce((select sum(case m.kind when 'lay' then m.drills else -m.drills end)
                      from mark m where m.sitting_id = s.id), 0)::int as drills
     from sitting s left join sitting_end e on e.sitting_id = s.id
     where s.canvas_id = $1 order by s.started_at desc limit $2`,
    [canvasId, limit],
  );
  return rows.map((row) => ({
    id: row.id,
    startedAt: row.started_at,
    endedAt: row.ended_at,
    note: row.note ?? '',
    drills: row.drills,
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
