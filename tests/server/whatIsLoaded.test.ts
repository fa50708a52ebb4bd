import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { expect, it } from 'vitest';

/** Packages that take long to read: printing is done in threads, and only they read them. */
const HEAVY = ['pdfkit', 'fontkit', 'subset-font', 'sharp'];

/** Which of them the code of some files reads, types left out: as it begins, and in all. */
async function heavyIn(entryPoints: string[]): Promise<{ atOnce: string[]; ever: string[] }> {
  const { metafile } = await build({
    entryPoints,
    bundle: true,
    write: false,
    metafile: true,
    outdir: 'out',
    platform: 'node',
    format: 'esm',
    packages: 'external',
    external: ['astro:*'],
    logLevel: 'error',
  });
  const reached = (counts: (kind: string) => boolean) => {
    const read = new Set(entryPoints);
    for (const path of read) {
      for (const { path: to, kind } of metafile.inputs[path]?.imports ?? []) if (counts(kind)) read.add(to);
    }
    return HEAVY.filter((name) => read.has(name));
  };
  return { atOnce: reached((kind) => kind !== 'dynamic-import'), ever: reached(() => true) };
}

it('what answers requests reads no code that prints, for nobody is answered meanwhile', async () => {
  const routes = readdirSync('src/pages', { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.ts'))
    .map((path) => join('src/pages', path));
  expect(routes.length).toBeGreaterThan(100);
  const answering = await heavyIn(['src/server/http/start.ts', 'src/middleware.ts', ...routes]);
  expect(answering.ever).toEqual([]);
  // Nor does a thread before it is asked to.
  expect(await heavyIn(['src/server/jobs/worker.ts'])).toEqual({ atOnce: [], ever: HEAVY });
});
