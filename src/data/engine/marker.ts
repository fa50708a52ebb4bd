import { open, readdir, readFile, rename, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { DataFault } from './dataFault';

/** What stands in `oculent.json`: whose data a directory holds. */
export interface Marker {
  format: 1;
  /** The id of this collection of data; the database says the same. */
  dataSet: string;
  /** Laid out by the demo, which may throw it away again. */
  demo?: true;
}

export const MARKER = 'oculent.json';
export const DATABASE = 'pglite';
export const BACKUPS = 'backups';
/** A database while it is set up; it gets its name when it is whole. */
export const DRAFT = 'pglite.new';
/** A data directory of its own, in which a backup comes back before it takes the place of the database. */
export const RESTORING = 'restoring';
/** What a damaged database is called once a backup has taken its place. */
const SET_ASIDE = /^(pglite|oculent\.json)\.aside-/;

/** What a directory is: nothing yet, or ours and whole as far as its files tell. */
export type Standing = { kind: 'new' } | { kind: 'ours'; marker: Marker | null };

/**
 * Looks at a data directory before anything touches it. Only one that is empty is ever begun anew.
 * @throws DataFault
 */
export async function standingOf(directory: string): Promise<Standing> {
  const names = await readdir(directory);
  const has = (name: string) => names.includes(name);
  const marker = has(MARKER) ? await readMarker(directory) : null;
  if (has(DATABASE)) {
    for (const needed of ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal']) {
      if (!(await stat(join(directory, DATABASE, needed)).catch(() => null))) {
        throw new DataFault(
          'damaged',
          `The database is not whole: ${DATABASE}/${needed} is missing. Nothing was changed.`,
        );
      }
    }
    return { kind: 'ours', marker };
  }
  const backups = has(BACKUPS) && (await readdir(join(directory, BACKUPS))).length > 0;
  if (marker || backups || names.some((name) => SET_ASIDE.test(name))) {
    throw new DataFault(
      'missing',
      `The database is missing: there is no ${DATABASE} here, though ${marker ? MARKER : 'a backup'} shows that there was one. Nothing was changed.`,
    );
  }
  const own = new Set([DRAFT, BACKUPS, RESTORING, `${MARKER}.new`, 'in-use', 'lost+found']);
  const foreign = names.filter((name) => !own.has(name) && !name.startsWith('.'));
  if (foreign.length > 0) {
    const some = foreign.slice(0, 3).join(', ') + (foreign.length > 3 ? ' …' : '');
    throw new DataFault(
      'foreign',
      `This directory holds other files (${some}). Choose an empty one with OCULENT_DATA. Nothing was changed.`,
    );
  }
  return { kind: 'new' };
}

async function readMarker(directory: string): Promise<Marker> {
  let value: Partial<Marker> | null = null;
  try {
    value = JSON.parse(await readFile(join(directory, MARKER), 'utf8')) as Partial<Marker> | null;
  } catch {
    // Told below, like any other content that is none of ours.
  }
  if (typeof value?.format === 'number' && value.format > 1) {
    throw new DataFault('newer', 'This data was written by a newer Oculent. Bring this one up to date.');
  }
  if (value?.format !== 1 || typeof value.dataSet !== 'string') {
    throw new DataFault('damaged', `${MARKER} cannot be read. Nothing was changed.`);
  }
  return { format: 1, dataSet: value.dataSet, ...(value.demo === true && { demo: true }) };
}

/** Writes the marker, whole or not at all, and to the disk. */
export async function writeMarker(directory: string, marker: Marker): Promise<void> {
  const draft = join(directory, `${MARKER}.new`);
  const file = await open(draft, 'w', 0o600);
  try {
    await file.writeFile(`${JSON.stringify(marker, null, 2)}\n`);
    await file.sync();
  } finally {
    await file.close();
  }
  await rename(draft, join(directory, MARKER));
  await syncDirectory(directory);
}

/** What was renamed, made or removed in a directory is on the disk. */
export async function syncDirectory(directory: string): Promise<void> {
  const handle = await open(directory, 'r');
  try {
    await handle.sync();
  } catch {
    // Not every file system can sync a directory.
  } finally {
    await handle.close();
  }
}
