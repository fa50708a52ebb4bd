import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { migrate } from '../../src/data/engine/migrate';
import { databaseOf } from '../../src/data/engine/pglite';

/**
 * Makes the database that every test file starts from once, before any of them: setting one up takes seconds, unpacking
 * it one.
 */
export async function setup(): Promise<() => Promise<void>> {
  const directory = await mkdtemp(join(tmpdir(), 'oculent-template-'));
  const pglite = await PGlite.create();
  const dumpTo = async (name: string) => {
    const file = join(directory, name);
    await writeFile(file, new Uint8Array(await (await pglite.dumpDataDir('none')).arrayBuffer()));
    return file;
  };
  process.env.OCULENT_TEST_DATABASE = await dumpTo('empty.tar');
  await migrate(databaseOf(pglite));
  // In place of the one that the build makes.
  process.env.OCULENT_TEMPLATE = await dumpTo('migrated.tar');
  await pglite.close();
  return () => rm(directory, { recursive: true, force: true });
}
