import { chmod, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { KEPT_DAYS } from '../../core/shelf/deleted';
import { removeArriving } from '../canvas';
import { emptyDeleted } from '../deleted';
import type { Database } from './database';
import { takeDataLock } from './dataLock';
import { migrate } from './migrate';
import { openPGlite } from './pglite';

const SYNC_EVERY_MS = 15_000;

/** Where the user's data lies, unless `OCULENT_DATA` says otherwise. */
export function dataDirectory(): string {
  return resolve(process.env.OCULENT_DATA ?? 'var/data');
}

/** Locks, opens and migrates the database of a directory, and keeps its files synced to the disk. */
export async function openDataDirectory(directory: string): Promise<Database> {
  const release = await takeDataLock(directory);
  try {
    const database = await openOrUnpack(join(directory, 'pglite'));
    await chmod(directory, 0o700);
    await migrate(database);
    await removeArriving(database);
    await emptyDeleted(database, {
      before: new Date(Date.now() - KEPT_DAYS * 86_400_000).toISOString(),
    });
    return keptOnDisk(database, directory, release);
  } catch (error) {
    await release();
    throw error;
  }
}

/** An empty database with all tables, made when the program is built; setting one up takes three times as long. */
export const TEMPLATE = 'dist/database.tar';

/** Opens the database of a directory; a new one begins as a copy of the template, where there is one. */
async function openOrUnpack(dataDir: string): Promise<Database> {
  const isNew = (await stat(dataDir).catch(() => null)) === null;
  const template = isNew ? await readFile(join(process.cwd(), TEMPLATE)).catch(() => null) : null;
  if (!template) return openPGlite({ dataDir });
  // Half a copy would not open: it gets its name when it is whole.
  const draft = `${dataDir}.new`;
  await rm(draft, { recursive: true, force: true });
  const copy = await openPGlite({ dataDir: draft, loadDataDir: new Blob([template]) });
  await copy.close();
  await rename(draft, dataDir);
  return openPGlite({ dataDir });
}

/**
 * PGlite hands its writes to the operating system but never asks for them to reach the disk: a killed process loses
 * nothing, a power cut might. So changed files are synced every few seconds and on closing.
 */
function keptOnDisk(database: Database, directory: string, release: () => Promise<void>): Database {
  let syncedAt = Date.now();
  let syncing: Promise<void> | null = null;
  const sync = () => {
    syncing ??= syncChangedFiles(directory, syncedAt)
      .then((startedAt) => {
        syncedAt = startedAt;
      })
      .catch((error: unknown) => console.error('The data could not be synced to the disk.', error))
      .finally(() => {
        syncing = null;
      });
    return syncing;
  };
  const timer = setInterval(sync, SYNC_EVERY_MS);
  timer.unref();
  let closing: Promise<void> | null = null;
  return {
    ...database,
    close: () => {
      closing ??= (async () => {
        clearInterval(timer);
        await database.close();
        await sync();
        await release();
      })();
      return closing;
    },
  };
}

async function syncChangedFiles(directory: string, since: number): Promise<number> {
  const startedAt = Date.now();
  const entries = await readdir(directory, { recursive: true, withFileTypes: true });
  for (const entry of entries) {
    if (!entry.isFile()) continue;
    const path = join(entry.parentPath, entry.name);
    try {
      // A second of grace: file times are coarser than the clock.
      if ((await stat(path)).mtimeMs < since - 1000) continue;
      const file = await open(path, 'r');
      await file.sync().finally(() => file.close());
    } catch (error) {
      // The database removes files of its own while we walk.
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    }
  }
  return startedAt;
}
