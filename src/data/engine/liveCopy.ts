import { copyFile, mkdir, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Queries } from './database';

/**
 * Copies the files of a database while people go on working, by PostgreSQL's own way (its manual, "Making a Base
 * Backup Using the Low Level API"): files may change under the copy, and the log of changes that is copied last makes
 * good for it when the copy is opened.
 * @param directory of the database @param into a directory to be made
 */
export async function copyLive(queries: Queries, directory: string, into: string): Promise<void> {
  await queries.query("select pg_backup_start('oculent', true)");
  let label: string;
  try {
    await copyFiles(directory, into, (path) => path !== 'postmaster.pid' && !isLog(path));
  } finally {
    // The log reaches the disk with this, so that the copy below has all of it.
    const rows = await queries.query<{ labelfile: string }>('select labelfile from pg_backup_stop(false)');
    label = rows[0]!.labelfile;
  }
  await copyFiles(directory, into, isLog);
  await writeFile(join(into, 'backup_label'), label, { mode: 0o600 });
}

const isLog = (path: string) => /^pg_wal\/[0-9A-F]{24}$/.test(path);

/** @param wanted by its path within the directory */
async function copyFiles(
  directory: string,
  into: string,
  wanted: (path: string) => boolean,
  within = '',
): Promise<void> {
  await mkdir(join(into, within), { recursive: true, mode: 0o700 });
  for (const entry of await readdir(join(directory, within), { withFileTypes: true })) {
    const path = within === '' ? entry.name : `${within}/${entry.name}`;
    try {
      if (entry.isDirectory()) await copyFiles(directory, into, wanted, path);
      else if (wanted(path)) await copyFile(join(directory, path), join(into, path));
    } catch (error) {
      // What the database removed meanwhile is not needed: the log knows that it is gone.
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    }
  }
}
