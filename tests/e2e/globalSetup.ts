import { rm } from 'node:fs/promises';
import { run, throwAwayDirectory } from './server';

/**
 * Lays the demo data once, in a directory that is thrown away; each worker serves a copy of its own. Where they were laid
 * before, those are taken.
 */
export default async function globalSetup(): Promise<() => Promise<void>> {
  if (process.env.OCULENT_TEST_TEMPLATE) return async () => {};
  const data = await throwAwayDirectory();
  const laid = await run('demo/lay.ts', [], { OCULENT_DATA: data });
  if (laid.code !== 0) throw new Error(`The demo data could not be laid: ${laid.output}`);
  process.env.OCULENT_TEST_TEMPLATE = data;
  return () => rm(data, { recursive: true, force: true });
}
