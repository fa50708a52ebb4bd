import { setImmediate } from 'node:timers/promises';
import type { ArchiveRow } from '../core/archive/dataPackage';
import type { ArchiveColumn, ArchiveTable } from '../core/archive/tables';
import { runsFromBytes, runsToBytes } from './bench';
import type { Queries } from './engine/database';

/** How the rows of a canvas are found, and in which order, where it is not by `canvas_id` and the key. */
const FOUND_BY: Record<string, { where?: string; order?: string; own?: boolean }> = {
  canvas: { where: 'id = $1', own: true },
  sitting: { order: 'started_at, id' },
  sitting_end: { where: 'sitting_id in (select id from sitting where canvas_id = $1)', own: true },
  sitting_edit: { order: 'position' },
  mark: { order: 'position' },
  area_tick: { order: 'position' },
  section_cut: { order: 'position' },
  bag_entry: { order: 'position' },
  trash_record: { order: 'happened_at, id' },
  request_state: { order: 'position' },
  ran_out: { order: 'position' },
  inspection_entry: { order: 'happened_at, id' },
  inspection_withdrawal: {
    where: 'entry_id in (select id from inspection_entry where canvas_id = $1)',
    own: true,
  },
  chart_edit: { order: 'position' },
  sheet_edit: { order: 'position' },
  legend_line: { order: 'position' },
  storage: { where: 'id in (select storage_id from kitup_storage where canvas_id = $1)', own: true },
  kitup_storage: { order: 'position' },
  pot_event: { order: 'position' },
  canvas_photo: { order: 'taken_on, id' },
  finish_entry: { order: 'position' },
  reading_photo: { order: 'position' },
  reading_answer: { order: 'position' },
};

/** PostgreSQL takes 65,535 parameters in one statement; fewer let others have their turn sooner. */
const MAX_PARAMETERS = 1500;

/** Number of rows of the mark ledger, which only grows. */
export async function countMarks(queries: Queries, canvasId: string): Promise<number> {
  const sql = 'select count(*)::int as n from mark where canvas_id = $1';
  return (await queries.query<{ n: number }>(sql, [canvasId]))[0]!.n;
}

/**
 * Rows of one table that belong to a canvas. A photo comes as its bytes.
 * @param page so many rows from this one on; without it, all
 */
export async function archivedRows(
  queries: Queries,
  table: ArchiveTable,
  canvasId: string,
  page: { from: number; rows: number } | null = null,
): Promise<ArchiveRow[]> {
  const { where = 'canvas_id = $1', order = table.key.join(', ') } = FOUND_BY[table.name] ?? {};
  const columns = table.columns.map(({ name }) => name).join(', ');
  const rows = await queries.query<ArchiveRow>(
    `select ${columns} from ${table.name} where ${where} order by ${order}
     ${page ? 'limit $2 offset $3' : ''}`,
    page ? [canvasId, page.rows, page.from] : [canvasId],
  );
  const runs = table.columns.filter(({ kind }) => kind === 'runs');
  return rows.map((row) => ({
    ...row,
    ...Object.fromEntries(runs.map(({ name }) => [name, runsFromBytes(row[name] as Uint8Array)])),
  }));
}

/**
 * Puts rows of one table back. A case that is there already stays as it is.
 * @param rows a photo as its bytes
 */
export async function restoreRows(
  queries: Queries,
  table: ArchiveTable,
  canvasId: string,
  rows: readonly ArchiveRow[],
): Promise<void> {
  const own = FOUND_BY[table.name]?.own ?? false;
  const names = [...(own ? [] : ['canvas_id']), ...table.columns.map(({ name }) => name)];
  const json = new Set(table.columns.filter(({ kind }) => kind === 'json').map(({ name }) => name));
  const after = table.name === 'storage' ? 'on conflict (id) do nothing' : '';
  const most = Math.floor(MAX_PARAMETERS / names.length);
  for (let from = 0; from < rows.length; from += most) {
    // Outside of a transaction, others get their turn here.
    if (from > 0) await setImmediate();
    const some = rows.slice(from, from + most);
    const places = some.map(
      (_, r) =>
        `(${names.map((name, c) => `$${r * names.length + c + 1}${json.has(name) ? '::jsonb' : ''}`).join(', ')})`,
    );
    await queries.query(
      `insert into ${table.name} (${names.join(', ')}) values ${places.join(', ')} ${after}`,
      some.flatMap((row) => [
        ...(own ? [] : [canvasId]),
        ...table.columns.map((column) => stored(column, row[column.name] ?? null)),
      ]),
    );
  }
}

function stored({ kind }: ArchiveColumn, value: unknown): unknown {
  if (value === null) return null;
  if (kind === 'json') return JSON.stringify(value);
  if (kind === 'runs') return runsToBytes(value as number[]);
  return value;
}
