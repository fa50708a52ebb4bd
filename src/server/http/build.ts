import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

/**
 * Names the build that runs: the entry of the pages names all that they are made of. Read at once, for it may be replaced
 * later. Null where nothing is built.
 */
const build = readFile(join(process.cwd(), 'dist/server/entry.mjs')).then(
  (entry) => createHash('sha256').update(entry).digest('hex').slice(0, 12),
  () => null,
);

/** Each answer of the API names its build here, so that a page of an older one notices. */
export const BUILD_HEADER = 'x-oculent-build';

export function currentBuild(): Promise<string | null> {
  return build;
}
