import { randomUUID } from 'node:crypto';
import { chmod, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { KEPT_DAYS } from '../../core/shelf/deleted';
import { removeArriving } from '../canvas';
import { emptyDeleted } from '../deleted';
import { type Database, one } from './database';
import { DataFault, diskFault } from './dataFault';
import { takeDataLock } from './dataLock';
import { DurableFs } from './durableFs';
import { DATABASE, DRAFT, type Marker, standingOf, syncDirectory, writeMarker } from './marker';
import { migrate, migrated } from './migrate';
import { openInDirectory } from './pglite';

/** Where the user's data lies, unless `OCULENT_DATA` says otherwise. */
export function dataDirectory(): string {
  return resolve(process.env.OCULENT_DATA ?? 'var/data');
}

/** An empty database with all tables, made when the program is built; setting one up takes three times as long. */
export const TEMPLATE = 'dist/database.tar';

/** The template, or what `OCULENT_TEMPLATE` names in its place; null where there is none. */
export function readTemplate(): Promise<Uint8Array | null> {
  return readFile(resolve(process.env.OCULENT_TEMPLATE ?? TEMPLATE)).catch(() => null);
}

/** A database that lies in a directory of its own. */
export interface OwnDatabase extends Database {
  /** Leads to the directory, also after it was renamed. */
  directory: string;
}

/**
 * Locks, opens and migrates the database of a directory; an empty directory gets a new one.
 * @param beforeMigrating is done with the database as it is, before its tables change
 * @throws DirectoryInUse, DataFault
 */
export async function openDataDirectory(
  directory: string,
  beforeMigrating: (database: Database, directory: string) => Promise<void> = async () => {},
): Promise<OwnDatabase> {
  const held = takeDataLock(directory);
  try {
    const database = await openHeld(held.path, beforeMigrating);
    let closing: Promise<void> | null = null;
    return {
      ...database,
      directory: held.path,
      close: () => {
        closing ??= database.close().finally(() => held.release());
        return closing;
      },
    };
  } catch (error) {
    held.release();
    throw diskFault(error) ?? error;
  }
}

async function openHeld(
  directory: string,
  beforeMigrating: (database: Database, directory: string) => Promise<void>,
): Promise<Database> {
  const standing = await standingOf(directory);
  await chmod(directory, 0o700);
  const marker = standing.kind === 'ours' ? standing.marker : null;
  if (standing.kind === 'new') await beginIn(directory);
  else if (!marker) await forOwnerAlone(join(directory, DATABASE));
  const database = await openExisting(directory);
  try {
    const { pending } = await migrated(database);
    if (standing.kind === 'ours' && pending.length > 0) await beforeMigrating(database, directory);
    if (pending.length > 0 || !marker) await migrate(database);
    await agree(database, directory, marker);
    await removeArriving(database);
    await emptyDeleted(database, {
      before: new Date(Date.now() - KEPT_DAYS * 86_400_000).toISOString(),
    });
    return database;
  } catch (error) {
    await database.close();
    throw error;
  }
}

/** Sets a database up; half of one would not open, so it gets its name when it is whole and on the disk. */
async function beginIn(directory: string): Promise<void> {
  const draft = join(directory, DRAFT);
  await rm(draft, { recursive: true, force: true });
  const template = await readTemplate();
  if (template) await (await import('./dump')).unpackDump(template, draft);
  else await setUpIn(draft);
  await rename(draft, join(directory, DATABASE));
  await syncDirectory(directory);
}

/** The slow way, where the program was not built. */
async function setUpIn(directory: string): Promise<void> {
  const database = await openInDirectory(new DurableFs(directory));
  await database.close();
  await forOwnerAlone(directory);
}

async function openExisting(directory: string): Promise<Database> {
  const fs = new DurableFs(join(directory, DATABASE));
  try {
    return await openInDirectory(fs);
  } catch (error) {
    const refused = diskFault(fs.takeRefusal()) ?? diskFault(error);
    if (refused) throw refused;
    throw new DataFault(
      'damaged',
      'The database does not open: its files are damaged. Nothing was changed.',
      {
        cause: error,
      },
    );
  }
}

/** Database and marker name the same collection of data; whichever does not yet, learns it. */
async function agree(database: Database, directory: string, marker: Marker | null): Promise<void> {
  const row = await one<{ id: string }>(database, 'select id from data_set');
  if (row && marker && row.id !== marker.dataSet) {
    throw new DataFault(
      'damaged',
      'The database and oculent.json do not belong together: one of them was put here from elsewhere. Nothing was changed.',
    );
  }
  const dataSet = row?.id ?? marker?.dataSet ?? randomUUID();
  if (!row) await database.query('insert into data_set (id, made_at) values ($1, now())', [dataSet]);
  if (!marker) await writeMarker(directory, { format: 1, dataSet });
}

/** Takes everyone else's rights away from all files below a directory. */
async function forOwnerAlone(directory: string): Promise<void> {
  await chmod(directory, 0o700);
  for (const entry of await readdir(directory, { recursive: true, withFileTypes: true })) {
    const path = join(entry.parentPath, entry.name);
    const { mode } = await stat(path);
    if (mode & 0o077) await chmod(path, mode & 0o700);
  }
}
