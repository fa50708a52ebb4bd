import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { expect, it } from 'vitest';

/** Packages that take long to read: printing is done in threads, and only they read them. */
const HEAVY = ['pdfkit', 'fontkit', 'subset-font', 'sharp'];

/** Which of them the code of some files reads, types left out. */
async function heavyIn(entryPoints: string[]): Promise<string[]> {
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
  const read = new Set(
    Object.values(metafile.inputs).flatMap(({ imports }) => imports.map(({ path }) => path)),
  );
  return HEAVY.filter((name) => read.has(name));
}

it('what answers requests reads no code that prints, for nobody is answered meanwhile', async () => {
  const routes = readdirSync('src/pages', { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.ts'))
    .map((path) => join('src/pages', path));
  expect(routes.length).toBeGreaterThan(100);
  expect(await heavyIn(['src/server/http/start.ts', 'src/middleware.ts', ...routes])).toEqual([]);
  expect(await heavyIn(['src/server/jobs/worker.ts'])).toEqual(HEAVY);
});
