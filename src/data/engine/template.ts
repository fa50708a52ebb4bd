import { PGlite } from '@electric-sql/pglite';
import { migrate } from './migrate';
import { databaseOf } from './pglite';

/**
 * Makes the database from which every new one begins: setting one up takes seconds, unpacking it half of one.
 * Without the two databases that PostgreSQL would copy new ones from, for here there is one: they are half of all files,
 * which each start would open and each backup copy.
 * @returns dumps of a data directory: with nothing in it, and with the tables of this program
 */
export async function makeTemplates(): Promise<{ empty: Uint8Array; migrated: Uint8Array }> {
  const pglite = await PGlite.create();
  const dumped = async () => {
    await pglite.exec('checkpoint');
    return new Uint8Array(await (await pglite.dumpDataDir('none')).arrayBuffer());
  };
  try {
    await pglite.exec("update pg_database set datistemplate = false where datname like 'template%'");
    await pglite.exec('drop database template0');
    await pglite.exec('drop database template1');
    const empty = await dumped();
    await migrate(databaseOf(pglite));
    return { empty, migrated: await dumped() };
  } finally {
    await pglite.close();
  }
}
