import type { Contents } from '../core/backups/contents';
import { countLaid } from '../core/cells/bitmap';
import { bitmapOf, laidOf, replayMarks } from './bench';
import type { Queries } from './engine/database';
import { countRows, storedTables } from './everything';

/** A canvas as far as its totals go. */
interface Totals {
  id: string;
  title: string;
  cells: number;
}

/** Every canvas, the deleted ones too; not one that comes or goes just now, of which a part is there. */
function everyCanvas(queries: Queries): Promise<Totals[]> {
  return queries.query(
    'select id, title, width * height as cells from canvas where not arriving order by created_at, id',
  );
}

/** A total that is kept, which does not equal what its ledger tells. */
export interface WrongTotal {
  title: string;
  /** What is kept wrongly. */
  what: 'squares laid' | 'number laid';
}

/** Holds what is kept of every canvas against its marks, from the first to the last. */
export async function wrongTotals(
  queries: Queries,
  report: (done: number, of: number) => void = () => {},
): Promise<{ canvases: number; marks: number; wrong: WrongTotal[] }> {
  const canvases = await everyCanvas(queries);
  const wrong: WrongTotal[] = [];
  for (const [i, { id, title, cells }] of canvases.entries()) {
    report(i, canvases.length);
    const told = await replayMarks(queries, id, cells);
    const kept = await bitmapOf(queries, id, cells);
    if (Buffer.compare(told, kept) !== 0) wrong.push({ title, what: 'squares laid' });
    if (countLaid(told) !== (await laidOf(queries, id))) wrong.push({ title, what: 'number laid' });
  }
  const [row] = await queries.query<{ n: number }>('select count(*)::int as n from mark');
  return { canvases: canvases.length, marks: row!.n, wrong };
}

/** References that lead nowhere, by table and column. */
export async function lostReferences(
  queries: Queries,
): Promise<{ references: number; lost: { table: string; column: string; rows: number }[] }> {
  const lost: { table: string; column: string; rows: number }[] = [];
  let references = 0;
  for (const { name, references: own } of await storedTables(queries)) {
    for (const { column, table, to } of own) {
      references++;
      const [row] = await queries.query<{ n: number }>(
        `select count(*)::int as n from ${name} a left join ${table} b on b.${to} = a.${column}
         where a.${column} is not null and b.${to} is null`,
      );
      if (row!.n > 0) lost.push({ table: name, column, rows: row!.n });
    }
  }
  return { references, lost };
}

/** Reads every row of every table, so that a page whose checksum is wrong is met. @returns rows read, and what could not be */
export async function unreadableTables(queries: Queries): Promise<{ rows: number; unreadable: string[] }> {
  const unreadable: string[] = [];
  let rows = 0;
  for (const table of await storedTables(queries)) {
    try {
      rows += await countRows(queries, table);
      // Large values lie apart from their rows; asking for their hash reads them.
      for (const { name, kind } of table.columns) {
        if (kind === 'bytes' || kind === 'json') {
          await queries.query(`select count(hashtext(${name}::text)) from ${table.name}`);
        }
      }
    } catch {
      unreadable.push(table.name);
    }
  }
  return { rows, unreadable };
}

/** Every photo that is kept: of inspections, of the work, and to read from. */
const EVERY_PHOTO = `select photo from inspection_entry where photo is not null union all select photo from canvas_photo
  union all select photo from reading_photo where photo is not null union all select photo from reading_result`;

/** Photos that do not begin as a JPEG does. */
export async function brokenPhotos(queries: Queries): Promise<{ photos: number; broken: number }> {
  const [row] = await queries.query<{ photos: number; broken: number }>(
    `select count(*)::int as photos,
            (count(*) filter (where substring(photo from 1 for 3) <> '\\xffd8ff'::bytea))::int as broken
     from (${EVERY_PHOTO}) as every_photo`,
  );
  return row!;
}

export async function contentsOf(queries: Queries): Promise<Contents> {
  const canvases = await queries.query<Contents['canvases'][number]>(
    `select c.title, coalesce(p.laid, 0) as laid, c.deleted_at is not null as deleted
     from canvas c left join progress_cache p on p.canvas_id = c.id order by c.created_at, c.id`,
  );
  const [row] = await queries.query<Omit<Contents, 'canvases'>>(
    `select (select count(*)::int from bag_entry where kind = 'count') as bags,
            (select count(*)::int from mark) as marks,
            (select count(*)::int from stash_item where deleted_at is null) as leftovers,
            (select count(*)::int from storage where deleted_at is null) as cases,
            (select count(*)::int from (${EVERY_PHOTO}) as every_photo) as photos`,
  );
  return { canvases, ...row! };
}
