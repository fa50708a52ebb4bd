import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeTemplates } from '../../src/data/engine/template';

/** Makes the databases that the test files start from once, before any of them. */
export async function setup(): Promise<() => Promise<void>> {
  const directory = await mkdtemp(join(tmpdir(), 'oculent-template-'));
  const { empty, migrated } = await makeTemplates();
  const write = async (name: string, dump: Uint8Array) => {
    const file = join(directory, name);
    await writeFile(file, dump);
    return file;
  };
  process.env.OCULENT_TEST_DATABASE = await write('empty.tar', empty);
  // In place of the one that the build makes.
  process.env.OCULENT_TEMPLATE = await write('migrated.tar', migrated);
  return () => rm(directory, { recursive: true, force: true });
}
