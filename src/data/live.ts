import type { MarkKind } from '../core/bench/marking';
import type { CellRuns } from '../core/cells/cellRuns';
import { runsFromBytes } from './bench';
import { one, type Queries } from './engine/database';

/** What is told of that belongs to no canvas. */
export const SHELF = 'shelf';

/** The channel on which the database tells of what was committed: a canvas by its id, or {@link SHELF}. */
export async function channelOfSchema(queries: Queries): Promise<string> {
  // Where the tables are, and not where new ones would come.
  const told = await one<{ channel: string }>(
    queries,
    `select 'oculent_' || md5(n.nspname) as channel
     from pg_class c join pg_namespace n on n.oid = c.relnamespace where c.oid = to_regclass('canvas')`,
  );
  return told!.channel;
}

/** How far each ledger of a canvas has come; whatever grows has changed. */
export interface LedgerHeads {
  revision: number;
  /** Position of its last mark; 0 without any. */
  marks: number;
  bags: number;
  pots: number;
  trash: number;
  sittings: number;
  sections: number;
  repairs: number;
  sheet: number;
}

/** @returns null where there is no such canvas any more */
export function ledgerHeads(queries: Queries, canvasId: string): Promise<LedgerHeads | null> {
  const head = (table: string, name: string) =>
    `coalesce((select max(position) from ${table} where canvas_id = $1), 0)::int as "${name}"`;
  return one<LedgerHeads>(
    queries,
    `select revision, ${head('mark', 'marks')}, ${head('bag_entry', 'bags')}, ${head('pot_event', 'pots')},
            (select count(*) from trash_record where canvas_id = $1)::int as trash,
            ((select count(*) from sitting where canvas_id = $1)
             + (select count(*) from sitting_end e join sitting s on s.id = e.sitting_id where s.canvas_id = $1)
             + (select count(*) from sitting_edit where canvas_id = $1))::int as sittings,
            ${head('section_cut', 'sections')}, ${head('chart_edit', 'repairs')}, ${head('sheet_edit', 'sheet')}
     from canvas where id = $1 and deleted_at is null`,
    [canvasId],
  );
}

/** The revision of a canvas; null where there is none any more. */
export async function openRevision(queries: Queries, canvasId: string): Promise<number | null> {
  const row = await one<{ revision: number }>(
    queries,
    'select revision from canvas where id = $1 and deleted_at is null',
    [canvasId],
  );
  return row?.revision ?? null;
}

/** A mark as other screens are told of it. */
export interface ToldMark {
  id: string;
  position: number;
  kind: MarkKind;
  runs: CellRuns;
  screenId: string | null;
  /** The device that made it; null for the machine itself. */
  device: string | null;
}

/** Marks after a position, in their order. */
export async function marksAfter(
  queries: Queries,
  canvasId: string,
  position: number,
  limit: number,
): Promise<ToldMark[]> {
  const rows = await queries.query<Omit<ToldMark, 'runs'> & { cells: Uint8Array }>(
    `select m.id, m.position::int as position, m.kind, m.cells, m.screen_id as "screenId", d.name as device
     from mark m left join screen s on s.id = m.screen_id left join device d on d.id = s.device_id
     where m.canvas_id = $1 and m.position > $2 order by m.position limit $3`,
    [canvasId, position, limit],
  );
  return rows.map(({ cells, ...mark }) => ({ ...mark, runs: runsFromBytes(cells) }));
}
