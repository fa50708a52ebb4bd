import type { InspectionKey } from '../core/inspection/inspection';
import { one, type Queries } from './engine/database';

export interface InspectionEntry {
  id: string;
  happenedAt: string;
  kind: InspectionKey;
  note: string;
  widthCm: number | null;
  heightCm: number | null;
  hasPhoto: boolean;
  /** When it was taken out of the record; null while it is in it. */
  removedAt: string | null;
}

/** The newest entries first, as they were corrected last; those taken out of the record are among them. */
export async function inspectionEntries(queries: Queries, canvasId: string): Promise<InspectionEntry[]> {
  const rows = await queries.query<{
    id: string;
    happened_at: string;
    kind: InspectionKey;
    note: string;
    width_cm: number | null;
    height_cm: number | null;
    has_photo: boolean;
    removed_at: string | null;
  }>(
    `select e.id, e.happened_at, e.kind, e.note, e.width_cm, e.height_cm, e.photo is not null as has_photo,
            w.happened_at as removed_at
     from inspection_entry e left join inspection_withdrawal w on w.entry_id = e.id
     where e.canvas_id = $1 and not exists (select 1 from inspection_entry n where n.replaces = e.id)
     order by e.happened_at desc`,
    [canvasId],
  );
  return rows.map((row) => ({
    id: row.id,
    happenedAt: row.happened_at,
    kind: row.kind,
    note: row.note,
    widthCm: row.width_cm,
    heightCm: row.height_cm,
    hasPhoto: row.has_photo,
    removedAt: row.removed_at,
  }));
}

export async function addInspectionEntry(
  queries: Queries,
  canvasId: string,
  entry: Omit<InspectionEntry, 'hasPhoto' | 'removedAt'>,
  replaces: string | null = null,
): Promise<void> {
  await queries.query(
    `insert into inspection_entry
       (id, canvas_id, happened_at, kind, note, width_cm, height_cm, replaces, photo)
     values ($1, $2, $3, $4, $5, $6, $7, $8, (select photo from inspection_entry where id = $8))`,
    [entry.id, canvasId, entry.happenedAt, entry.kind, entry.note, entry.widthCm, entry.heightCm, replaces],
  );
}

/** Withdraws an entry from the log; the row stays. */
export async function withdrawInspectionEntry(
  queries: Queries,
  canvasId: string,
  id: string,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into inspection_withdrawal (entry_id, happened_at)
     select id, $3 from inspection_entry where canvas_id = $1 and id = $2 on conflict (entry_id) do nothing`,
    [canvasId, id, happenedAt],
  );
}

/** Puts a withdrawn entry back into the log. @returns whether it was withdrawn */
export async function bringBackInspectionEntry(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<boolean> {
  const rows = await queries.query(
    `delete from inspection_withdrawal w using inspection_entry e
     where e.id = w.entry_id and e.canvas_id = $1 and e.id = $2 returning w.entry_id`,
    [canvasId, id],
  );
  return rows.length > 0;
}

/** @returns false where there is no such entry */
export async function putInspectionPhoto(
  queries: Queries,
  canvasId: string,
  id: string,
  jpeg: Uint8Array,
): Promise<boolean> {
  const rows = await queries.query(
    'update inspection_entry set photo = $3 where canvas_id = $1 and id = $2 returning id',
    [canvasId, id, jpeg],
  );
  return rows.length > 0;
}

export async function inspectionPhoto(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<Uint8Array | null> {
  const row = await one<{ photo: Uint8Array | null }>(
    queries,
    'select photo from inspection_entry where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
  return row?.photo ?? null;
}
