import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';

/**
 * Makes the database that every test file starts from once, before any of them: setting one up takes seconds, unpacking
 * it one.
 */
export async function setup(): Promise<() => Promise<void>> {
  const directory = await mkdtemp(join(tmpdir(), 'oculent-template-'));
  const pglite = await PGlite.create();
  const dump = await pglite.dumpDataDir('none');
  await pglite.close();
  const file = join(directory, 'empty.tar');
  await writeFile(file, new Uint8Array(await dump.arrayBuffer()));
  process.env.OCULENT_TEST_DATABASE = file;
  // In place of the one that the build makes.
  process.env.OCULENT_TEMPLATE = file;
  return () => rm(directory, { recursive: true, force: true });
}
