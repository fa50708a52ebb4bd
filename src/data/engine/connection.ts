import { mkdir } from 'node:fs/promises';
import type { Database } from './database';
import { dataDirectory, openDataDirectory } from './dataDirectory';

/** The database of this process, with where it keeps what lies beside the tables. */
export interface KeptDatabase extends Database {
  /** Leads to the data directory, in which backups lie. */
  directory: string;
  /** The same as a person knows it. */
  shownDirectory: string;
  /** Of a PostgreSQL server; null where the data lie in the directory. */
  url: string | null;
}

/** Done with the data as they are, before tables change. */
export type BeforeMigrating = (database: KeptDatabase) => Promise<void>;

// The development server loads this module anew after each edit, and the start script has a copy of its own:
// the one connection of the process therefore lives on the global object.
const holder = globalThis as typeof globalThis & { oculentDatabase?: Promise<KeptDatabase> };

/** The process's database, opened at the first call: on the server of `DATABASE_URL`, or in the data directory. */
export function connection(beforeMigrating: BeforeMigrating = async () => {}): Promise<KeptDatabase> {
  holder.oculentDatabase ??= openKept(dataDirectory(), process.env.DATABASE_URL ?? null, beforeMigrating);
  return holder.oculentDatabase;
}

/** Lets the next call open the database anew, after it could not be opened. */
export function forgetConnection(): void {
  delete holder.oculentDatabase;
}

export async function openKept(
  directory: string,
  url: string | null,
  beforeMigrating: BeforeMigrating = async () => {},
): Promise<KeptDatabase> {
  if (url !== null) {
    const { openServer } = await import('./postgres');
    await mkdir(directory, { recursive: true, mode: 0o700 });
    const place = { directory, shownDirectory: directory, url };
    return { ...(await openServer(url, (server) => beforeMigrating({ ...server, ...place }))), ...place };
  }
  const place = { shownDirectory: directory, url: null };
  const own = await openDataDirectory(directory, (database, held) =>
    beforeMigrating({ ...database, ...place, directory: held }),
  );
  return { ...own, ...place };
}
