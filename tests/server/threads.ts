import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { buildPrograms, THREADS } from '../../bin/programs';

/** Where packages are found from. */
const CACHE = 'node_modules/.cache';

/** Builds what runs in threads once, before any test: read from its source, each thread would take seconds to begin. */
export async function setup(): Promise<() => Promise<void>> {
  await mkdir(CACHE, { recursive: true });
  const directory = await mkdtemp(`${CACHE}/oculent-threads-`);
  await buildPrograms(THREADS, directory);
  process.env.OCULENT_THREADS = directory;
  return () => rm(directory, { recursive: true, force: true });
}
