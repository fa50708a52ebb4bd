import { resolve } from 'node:path';
import { build } from 'esbuild';

/** The entry of the worker threads, by its path below the directory of the build. */
export const THREADS = { 'jobs/worker': 'src/server/jobs/worker.ts' };

/** Of three hundred files: read one by one they take longer than all else of a thread. The pages do the same. */
export const IN_ONE_FILE = { culori: resolve('node_modules/culori/bundled/culori.mjs') };

/** Makes programs of the server that the build of the pages does not make; packages stay outside. */
export async function buildPrograms(entryPoints: Record<string, string>, outdir: string): Promise<void> {
  await build({
    entryPoints,
    outdir,
    chunkNames: 'parts/[name]-[hash]',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    // What is only needed now and then is read then.
    splitting: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: IN_ONE_FILE,
    logLevel: 'warning',
  });
}
