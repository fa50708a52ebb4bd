import { one, type Queries } from './engine/database';

/** A photo to read from, without its bytes. */
export interface ReadingPhotoRow {
  id: string;
  kind: 'canvas' | 'list';
  name: string;
  width: number;
  height: number;
  /** Whether the photo itself is still kept. */
  kept: boolean;
  corners: string | null;
  columns: number | null;
  rows: number | null;
  atColumn: number | null;
  atRow: number | null;
  pins: string;
  removedAt: string | null;
  addedAt: string;
}

const PHOTO_COLUMNS = `p.id, p.kind, p.name, p.width, p.height, p.photo is not null as kept, p.corners, p.columns, p.rows,
  p.at_column as "atColumn", p.at_row as "atRow", p.pins, p.removed_at as "removedAt", p.happened_at as "addedAt"`;

/** In the order in which they came. */
export function readingPhotos(queries: Queries, canvasId: string): Promise<ReadingPhotoRow[]> {
  return queries.query<ReadingPhotoRow>(
    `select ${PHOTO_COLUMNS} from reading_photo p where canvas_id = $1 order by position`,
    [canvasId],
  );
}

export function readingPhoto(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<ReadingPhotoRow | null> {
  return one<ReadingPhotoRow>(
    queries,
    `select ${PHOTO_COLUMNS} from reading_photo p where canvas_id = $1 and id = $2`,
    [canvasId, id],
  );
}

/** All that came, removed ones among them. */
export async function countReadingPhotos(queries: Queries, canvasId: string): Promise<number> {
  const row = await one<{ n: number }>(
    queries,
    'select count(*)::int as n from reading_photo where canvas_id = $1',
    [canvasId],
  );
  return row!.n;
}

export async function addReadingPhoto(
  queries: Queries,
  canvasId: string,
  photo: Pick<ReadingPhotoRow, 'id' | 'kind' | 'name' | 'width' | 'height'> & { bytes: Uint8Array },
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into reading_photo (id, canvas_id, happened_at, kind, name, width, height, photo, pins)
     values ($1, $2, $3, $4, $5, $6, $7, $8, '')`,
    [photo.id, canvasId, happenedAt, photo.kind, photo.name, photo.width, photo.height, photo.bytes],
  );
}

/** Says where the squares of a photo lie, or removes it. @returns whether there is such a photo */
export async function changeReadingPhoto(
  queries: Queries,
  canvasId: string,
  id: string,
  change: Pick<ReadingPhotoRow, 'corners' | 'columns' | 'rows' | 'atColumn' | 'atRow' | 'pins'> & {
    removed: boolean;
  },
  now: string,
): Promise<boolean> {
  const rows = await queries.query(
    `update reading_photo set corners = $3, columns = $4, rows = $5, at_column = $6, at_row = $7, pins = $8,
            removed_at = case when $9 then coalesce(removed_at, $10::timestamptz) end
     where canvas_id = $1 and id = $2 returning id`,
    [
      canvasId,
      id,
      change.corners,
      change.columns,
      change.rows,
      change.atColumn,
      change.atRow,
      change.pins,
      change.removed,
      now,
    ],
  );
  return rows.length > 0;
}

/** The photo as it came; null where it is no longer kept. */
export async function readingPhotoBytes(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<Uint8Array | null> {
  const row = await one<{ photo: Uint8Array | null }>(
    queries,
    'select photo from reading_photo where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
  return row?.photo ?? null;
}

/** What a photo was read as; numbers as core/reading/keptReading has them. */
export interface ReadingResultRow {
  id: string;
  photoId: string;
  columns: number;
  rows: number;
  cellPx: number;
  cells: string;
  others: string;
  doubt: string;
  torn: string;
}

/** Of photos that are not removed. */
export function readingResults(queries: Queries, canvasId: string): Promise<ReadingResultRow[]> {
  return queries.query<ReadingResultRow>(
    `select r.id, r.photo_id as "photoId", r.columns, r.rows, r.cell_px as "cellPx", r.cells, r.others, r.doubt, r.torn
     from reading_result r join reading_photo p on p.id = r.photo_id
     where r.canvas_id = $1 and p.removed_at is null order by p.position`,
    [canvasId],
  );
}

export async function readingMesh(
  queries: Queries,
  canvasId: string,
  photoId: string,
): Promise<string | null> {
  const row = await one<{ mesh: string }>(
    queries,
    'select mesh from reading_result where canvas_id = $1 and photo_id = $2',
    [canvasId, photoId],
  );
  return row?.mesh ?? null;
}

export async function straightPictureOf(
  queries: Queries,
  canvasId: string,
  photoId: string,
): Promise<Uint8Array | null> {
  const row = await one<{ photo: Uint8Array }>(
    queries,
    'select photo from reading_result where canvas_id = $1 and photo_id = $2',
    [canvasId, photoId],
  );
  return row?.photo ?? null;
}

/** Keeps what a photo was read as, in place of an earlier reading of it. */
export async function putReadingResult(
  queries: Queries,
  canvasId: string,
  result: ReadingResultRow & { mesh: string; picture: Uint8Array },
  happenedAt: string,
): Promise<void> {
  await queries.query('delete from reading_result where canvas_id = $1 and photo_id = $2', [
    canvasId,
    result.photoId,
  ]);
  await queries.query(
    `insert into reading_result (id, photo_id, canvas_id, happened_at, columns, rows, cell_px, cells, others, doubt, torn, mesh, photo)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      result.id,
      result.photoId,
      canvasId,
      happenedAt,
      result.columns,
      result.rows,
      result.cellPx,
      result.cells,
      result.others,
      result.doubt,
      result.torn,
      result.mesh,
      result.picture,
    ],
  );
}

/** What was read of a photo no longer holds, because its squares are said to lie elsewhere. */
export async function dropReadingResult(queries: Queries, canvasId: string, photoId: string): Promise<void> {
  await queries.query('delete from reading_result where canvas_id = $1 and photo_id = $2', [
    canvasId,
    photoId,
  ]);
}

/** Photos whose squares are read need not be kept themselves. */
export async function dropReadPhotos(queries: Queries, canvasId: string): Promise<void> {
  await queries.query(
    `update reading_photo set photo = null where canvas_id = $1
     and (kind = 'list' or id in (select photo_id from reading_result where canvas_id = $1))`,
    [canvasId],
  );
}

/** How a colour looks in print. */
export interface ReadingSampleRow {
  line: number;
  origin: 'list' | 'example';
  /** 16 × 16 floats, base64. */
  glyph: string;
  /** Linear light, three numbers. */
  tint: number[];
}

export function readingSamples(queries: Queries, canvasId: string): Promise<ReadingSampleRow[]> {
  return queries.query<ReadingSampleRow>(
    'select line, origin, glyph, tint from reading_sample where canvas_id = $1 order by line',
    [canvasId],
  );
}

/** Keeps samples, each in place of an earlier one of its line. @param all whether others are dropped */
export async function putReadingSamples(
  queries: Queries,
  canvasId: string,
  samples: readonly ReadingSampleRow[],
  all: boolean,
  happenedAt: string,
): Promise<void> {
  if (all) await queries.query('delete from reading_sample where canvas_id = $1', [canvasId]);
  for (const { line, origin, glyph, tint } of samples)
    await queries.query(
      `insert into reading_sample (canvas_id, line, happened_at, origin, glyph, tint) values ($1, $2, $3, $4, $5, $6::jsonb)
       on conflict (canvas_id, line) do update
       set happened_at = excluded.happened_at, origin = excluded.origin, glyph = excluded.glyph, tint = excluded.tint`,
      [canvasId, line, happenedAt, origin, glyph, JSON.stringify(tint)],
    );
}

/** What somebody said of squares. */
export interface ReadingAnswerRow {
  id: string;
  screenId: string | null;
  answers: [column: number, row: number, line: number][];
  undoes: string | null;
}

/** The ledger, the oldest first. */
export function readingAnswers(queries: Queries, canvasId: string): Promise<ReadingAnswerRow[]> {
  return queries.query<ReadingAnswerRow>(
    'select id, screen_id as "screenId", answers, undoes from reading_answer where canvas_id = $1 order by position',
    [canvasId],
  );
}

export async function addReadingAnswer(
  queries: Queries,
  canvasId: string,
  { id, screenId, answers, undoes }: ReadingAnswerRow,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into reading_answer (id, canvas_id, screen_id, happened_at, answers, undoes)
     values ($1, $2, $3, $4, $5::jsonb, $6)`,
    [id, canvasId, screenId, happenedAt, JSON.stringify(answers), undoes],
  );
}

/** Which photos a chart was read from. */
export interface ReadingChartRow {
  happenedAt: string;
  photos: string[];
  /** Of the canvas as it was then. */
  columns: number;
  origins: string;
}

export function readingChart(queries: Queries, canvasId: string): Promise<ReadingChartRow | null> {
  return one<ReadingChartRow>(
    queries,
    'select happened_at as "happenedAt", photos, columns, origins from reading_chart where canvas_id = $1',
    [canvasId],
  );
}

export async function putReadingChart(
  queries: Queries,
  canvasId: string,
  { happenedAt, photos, columns, origins }: ReadingChartRow,
): Promise<void> {
  await queries.query(
    `insert into reading_chart (canvas_id, happened_at, photos, columns, origins) values ($1, $2, $3::jsonb, $4, $5)
     on conflict (canvas_id) do update
     set happened_at = excluded.happened_at, photos = excluded.photos, columns = excluded.columns,
         origins = excluded.origins`,
    [canvasId, happenedAt, JSON.stringify(photos), columns, origins],
  );
}
