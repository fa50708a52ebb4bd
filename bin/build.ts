import { mkdir, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { build } from 'esbuild';
import { TEMPLATE } from '../src/data/engine/dataDirectory';
import { migrate } from '../src/data/engine/migrate';
import { databaseOf } from '../src/data/engine/pglite';

/*
 * What the build of the pages does not make: the start script and the entry of the worker threads (packages stay
 * outside), and the empty database from which a new data directory begins.
 */
await build({
  entryPoints: { start: 'src/server/http/start.ts', 'jobs/worker': 'src/server/jobs/worker.ts' },
  outdir: 'dist/server',
  chunkNames: 'parts/[name]-[hash]',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  // What is only needed now and then is read then.
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});

const pglite = await PGlite.create();
await migrate(databaseOf(pglite));
const dump = await pglite.dumpDataDir('none');
await pglite.close();
await mkdir(dirname(TEMPLATE), { recursive: true });
await writeFile(TEMPLATE, new Uint8Array(await dump.arrayBuffer()));
