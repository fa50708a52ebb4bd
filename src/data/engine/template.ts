import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { dumpOf } from './dump';
import { migrate } from './migrate';
import { databaseOf } from './pglite';

/**
 * Makes the database from which every new one begins: setting one up takes seconds, unpacking it a third of one. It is
 * closed before it is dumped, so that who opens it has no log of changes to go through.
 * Without the two databases that PostgreSQL would copy new ones from, for here there is one: they are half of all files,
 * which each start would open and each backup copy.
 * @returns dumps of a data directory: with nothing in it, and with the tables of this program
 */
export async function makeTemplates(): Promise<{ empty: Uint8Array; migrated: Uint8Array }> {
  const dataDir = await mkdtemp(join(tmpdir(), 'oculent-template-'));
  const dumpedAfter = async (work: (pglite: PGlite) => Promise<unknown>) => {
    const pglite = await PGlite.create({ dataDir });
    try {
      await work(pglite);
    } finally {
      await pglite.close();
    }
    return dumpOf(dataDir);
  };
  try {
    const empty = await dumpedAfter(async (pglite) => {
      await pglite.exec("update pg_database set datistemplate = false where datname like 'template%'");
      await pglite.exec('drop database template0');
      await pglite.exec('drop database template1');
    });
    return { empty, migrated: await dumpedAfter((pglite) => migrate(databaseOf(pglite))) };
  } finally {
    await rm(dataDir, { recursive: true, force: true });
  }
}
