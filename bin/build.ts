import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { build } from 'esbuild';
import { TEMPLATE } from '../src/data/engine/dataDirectory';
import { makeTemplates } from '../src/data/engine/template';
import { buildPrograms, THREADS } from './programs';

/*
 * What the build of the pages does not make: the start script and the entry of the worker threads, the service worker
 * with the list of what it keeps, and the empty database from which a new data directory begins.
 */
await buildPrograms({ start: 'src/server/http/start.ts', ...THREADS }, 'dist/server');

/** Files of the pages that a device keeps. A hashed name needs no revision. */
async function keptFiles(directory: string): Promise<{ url: string; revision: string | null }[]> {
  const entries = await readdir(directory, { recursive: true, withFileTypes: true });
  const paths = entries.filter((entry) => entry.isFile()).map((entry) => join(entry.parentPath, entry.name));
  return Promise.all(
    paths
      .map((path) => ({ path, url: `/${relative(directory, path)}` }))
      .filter(({ url }) => url !== '/service.js')
      .map(async ({ path, url }) => ({
        url,
        revision: url.startsWith('/_astro/')
          ? null
          : createHash('sha256')
              .update(await readFile(path))
              .digest('hex')
              .slice(0, 16),
      })),
  );
}

await build({
  entryPoints: ['src/service/worker.ts'],
  outfile: 'dist/client/service.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: {
    'self.__WB_MANIFEST': JSON.stringify(await keptFiles('dist/client')),
    'process.env.NODE_ENV': '"production"',
  },
  logLevel: 'warning',
});

await mkdir(dirname(TEMPLATE), { recursive: true });
await writeFile(TEMPLATE, (await makeTemplates()).migrated);
