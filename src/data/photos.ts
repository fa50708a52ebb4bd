import { one, type Queries } from './engine/database';

/** A photo of the work, without its bytes. */
export interface Photo {
  id: string;
  /** `YYYY-MM-DD`. */
  takenOn: string;
  note: string;
  /** When it was removed; null while it is kept. */
  removedAt: string | null;
}

/** All photos of a canvas, removed ones among them, the newest first. */
export function photosOf(queries: Queries, canvasId: string): Promise<Photo[]> {
  return queries.query<Photo>(
    `select id, taken_on as "takenOn", note, removed_at as "removedAt" from canvas_photo
     where canvas_id = $1 order by taken_on desc, happened_at desc`,
    [canvasId],
  );
}

export async function addPhoto(
  queries: Queries,
  canvasId: string,
  { id, takenOn, note, photo }: Omit<Photo, 'removedAt'> & { photo: Uint8Array },
  happenedAt: string,
): Promise<void> {
  await queries.query(
    'insert into canvas_photo (id, canvas_id, happened_at, taken_on, note, photo) values ($1, $2, $3, $4, $5, $6)',
    [id, canvasId, happenedAt, takenOn, note, photo],
  );
}

/** @returns whether there is such a photo */
export async function changePhoto(
  queries: Queries,
  canvasId: string,
  id: string,
  { takenOn, note, removed }: { takenOn: string; note: string; removed: boolean },
  now: string,
): Promise<boolean> {
  const rows = await queries.query(
    `update canvas_photo set taken_on = $3, note = $4,
            removed_at = case when $5 then coalesce(removed_at, $6::timestamptz) end
     where canvas_id = $1 and id = $2 returning id`,
    [canvasId, id, takenOn, note, removed, now],
  );
  return rows.length > 0;
}

export async function photoOf(queries: Queries, canvasId: string, id: string): Promise<Uint8Array | null> {
  const row = await one<{ photo: Uint8Array }>(
    queries,
    'select photo from canvas_photo where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
  return row?.photo ?? null;
}
