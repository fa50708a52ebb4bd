import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { makeTemplates } from '../../src/data/engine/template';

/** Where packages are found from, and away with them. */
const CACHE = 'node_modules/.cache/oculent-templates';
const LATELY_MS = 3_600_000;
/** What the templates are made of and by. */
const SOURCES = ['src/data/engine', 'src/data/migrations'];

/** Makes the databases that the test files start from once, before any of them; they last until their sources change. */
export async function setup(): Promise<void> {
  const directory = join(CACHE, await keyOfSources());
  if (!(await stat(directory).catch(() => null))) {
    const draft = join(CACHE, randomUUID());
    await mkdir(draft, { recursive: true });
    await removeOld();
    const { empty, migrated } = await makeTemplates();
    await writeFile(join(draft, 'empty.tar'), empty);
    await writeFile(join(draft, 'migrated.tar'), migrated);
    // Another run may have made them meanwhile.
    await rename(draft, directory).catch(() => rm(draft, { recursive: true }));
  }
  process.env.OCULENT_TEST_DATABASE = join(directory, 'empty.tar');
  // In place of the one that the build makes.
  process.env.OCULENT_TEMPLATE = join(directory, 'migrated.tar');
}

/** What nobody uses any more; another run may still have what was made lately. */
async function removeOld(): Promise<void> {
  for (const name of await readdir(CACHE)) {
    const path = join(CACHE, name);
    const made = await stat(path);
    if (Date.now() - made.mtimeMs > LATELY_MS) await rm(path, { recursive: true, force: true });
  }
}

async function keyOfSources(): Promise<string> {
  const hash = createHash('sha256');
  hash.update(await readFile('node_modules/@electric-sql/pglite/package.json'));
  for (const source of SOURCES) {
    for (const name of (await readdir(source)).sort()) {
      hash.update(`${name}\n`);
      hash.update(await readFile(join(source, name)));
    }
  }
  return hash.digest('hex').slice(0, 16);
}
