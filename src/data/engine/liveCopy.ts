import { copyFile, cp, readdir, writeFile } from 'node:fs/promises';
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
    await cp(directory, into, { recursive: true, filter: (path) => !path.endsWith('postmaster.pid') });
  } finally {
    // The log reaches the disk with this, so that the copy below has all of it.
    const rows = await queries.query<{ labelfile: string }>('select labelfile from pg_backup_stop(false)');
    label = rows[0]!.labelfile;
  }
  const log = join(directory, 'pg_wal');
  for (const name of await readdir(log)) {
    if (/^[0-9A-F]{24}$/.test(name)) await copyFile(join(log, name), join(into, 'pg_wal', name));
  }
  await writeFile(join(into, 'backup_label'), label, { mode: 0o600 });
}
