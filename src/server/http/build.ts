import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

/** The entry of the pages names what they are made of, the service worker what browsers load. */
const NAMES_ALL = ['dist/server/entry.mjs', 'dist/client/service.js'];

/** Names the build that runs. Read at once, for it may be replaced later. Null where nothing is built. */
const build = Promise.all(NAMES_ALL.map((path) => readFile(join(process.cwd(), path)))).then(
  (files) => createHash('sha256').update(Buffer.concat(files)).digest('hex').slice(0, 12),
  () => null,
);

/** Each answer of the API names its build here, so that a page of an older one notices. */
export const BUILD_HEADER = 'x-oculent-build';

export function currentBuild(): Promise<string | null> {
  return build;
}
