import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { KeptDatabase } from '../../data/engine/connection';
import { openKept } from '../../data/engine/connection';
import { isDataError } from '../../data/engine/database';
import { takeDataLock } from '../../data/engine/dataLock';
import { DATABASE, MARKER, RESTORING, syncDirectory } from '../../data/engine/marker';
import {
  clearSettings,
  isEmpty,
  putStored,
  type StoredRow,
  type StoredTable,
  storedColumns,
  storedTables,
} from '../../data/everything';
import { unreadable } from '../http/problem';
import { inWorker, type Job } from '../jobs/pool';
import { checkNow } from './backups';
import type { RestoreReport } from './contract';

/**
 * Puts everything from a backup onto the shelf, all or nothing. Canvases and leftovers that are here already stay as
 * they are; an empty shelf becomes as the backup was. Afterwards all records are checked.
 * @throws Problem or Refusal when the file is damaged, a newer program's, or does not fit together
 */
export async function restoreEverything(
  database: KeptDatabase,
  from: { path: string } | { bytes: Uint8Array },
  job: Job | null = null,
): Promise<RestoreReport> {
  const { created, rows } = await inWorker('readyEverything', { from }, job);
  const report = await database
    .transaction(async (queries) => {
      const tables = await storedTables(queries);
      const known = await queries.query<{ id: string }>('select id from canvas');
      if (await isEmpty(queries)) await clearSettings(queries);
      const put = await putStored(queries, tables, (table) => rows.get(table) ?? null);
      return told(tables, rows, put, new Set(known.map(({ id }) => id)));
    })
    .catch((error: unknown) => {
      if (!isDataError(error)) throw error;
      throw unreadable(
        'This backup does not fit together with what is on the shelf. Nothing was brought in.',
      );
    });
  return { created, ...report, faults: await faultsNow(database) };
}

/** What a check finds; it is all in by now, so a check that cannot be made is told, and refuses nothing. */
async function faultsNow(database: KeptDatabase): Promise<string[]> {
  try {
    return (await checkNow(database)).faults;
  } catch (error) {
    return [
      `Everything came in, but it could not be checked: ${error instanceof Error ? error.message : error}`,
    ];
  }
}

type Put = Awaited<ReturnType<typeof putStored>>;

function told(
  tables: readonly StoredTable[],
  rows: ReadonlyMap<string, StoredRow[]>,
  put: Put,
  known: ReadonlySet<string>,
): Omit<RestoreReport, 'created' | 'faults'> {
  const columns = storedColumns(tables.find(({ name }) => name === 'canvas')!).map(({ name }) => name);
  const [id, title] = [columns.indexOf('id'), columns.indexOf('title')];
  const canvases = rows.get('canvas') ?? [];
  /** Rows of canvases that came back. */
  const came = (name: string, counts: (value: (column: string) => StoredRow[number]) => boolean) => {
    const own = storedColumns(tables.find((table) => table.name === name)!).map((column) => column.name);
    return (rows.get(name) ?? []).filter((row) => {
      const value = (column: string) => row[own.indexOf(column)] ?? null;
      return !known.has(value('canvas_id') as string) && counts(value);
    }).length;
  };
  const titles = (here: boolean) =>
    canvases.filter((row) => known.has(row[id] as string) === here).map((row) => row[title] as string);
  const added = (name: string) => put.find((table) => table.name === name)?.added ?? 0;
  return {
    back: titles(false),
    hereAlready: titles(true),
    bags: came('bag_entry', (value) => value('kind') === 'count'),
    marks: came('mark', () => true),
    leftovers: added('stash_item'),
    cases: added('storage'),
    photos: ['inspection_entry', 'canvas_photo', 'reading_photo', 'reading_result'].reduce(
      (sum, table) => sum + came(table, (value) => value('photo') !== null),
      0,
    ),
    leftOut: put.find(({ name }) => name === 'allotment')?.refused ?? 0,
  };
}

/**
 * Puts a backup in the place of a database that does not open. What is there is set aside under another name, never
 * deleted, and only once the backup has come back whole.
 * @param directory the data directory, which nothing uses
 * @throws DirectoryInUse, or as {@link restoreEverything} does
 */
export async function replaceWithBackup(
  directory: string,
  from: { path: string },
  moment: Date,
): Promise<RestoreReport> {
  const held = takeDataLock(directory);
  try {
    const draft = join(held.path, RESTORING);
    await rm(draft, { recursive: true, force: true });
    const database = await openKept(draft, null);
    let report: RestoreReport;
    try {
      report = await restoreEverything(database, from);
    } finally {
      await database.close();
    }
    const aside = `aside-${moment.toISOString().slice(0, 19).replace(/:/g, '')}Z`;
    for (const name of [DATABASE, MARKER]) {
      await rename(join(held.path, name), join(held.path, `${name}.${aside}`)).catch(
        (error: NodeJS.ErrnoException) => {
          if (error.code !== 'ENOENT') throw error;
        },
      );
    }
    await rename(join(draft, DATABASE), join(held.path, DATABASE));
    await rename(join(draft, MARKER), join(held.path, MARKER));
    await rm(draft, { recursive: true, force: true });
    await syncDirectory(held.path);
    return report;
  } finally {
    held.release();
  }
}
