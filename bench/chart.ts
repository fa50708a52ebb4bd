import { readFileSync } from 'node:fs';
import { type Browser, chromium } from '@playwright/test';
import { build } from 'esbuild';
import type { PathTimes } from './chartPage';

/** Private memory of the page's process in bytes, after a collection of garbage (Linux). */
async function privateBytes(browser: Browser, collect: () => Promise<unknown>): Promise<number> {
  await collect();
  const session = await browser.newBrowserCDPSession();
  const { processInfo } = await session.send('SystemInfo.getProcessInfo');
  await session.detach();
  const sizes = processInfo
    .filter(({ type }) => type === 'renderer')
    .map(({ id }) => {
      const rollup = readFileSync(`/proc/${id}/smaps_rollup`, 'utf8');
      const kilobytes = [...rollup.matchAll(/^Private_\w+:\s+(\d+) kB/gm)].map((match) => Number(match[1]));
      return kilobytes.reduce((sum, size) => sum + size, 0) * 1024;
    });
  return Math.max(...sizes);
}

/** Frame times of the cloth over a million cells, in a browser without a GPU, beside the floor in the same run. */
async function bench(): Promise<void> {
  const { outputFiles } = await build({
    entryPoints: ['bench/chartPage.ts'],
    bundle: true,
    write: false,
    format: 'iife',
  });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu', '--js-flags=--expose-gc'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.setContent('<body></body>');
  await page.addScriptTag({ content: outputFiles[0]!.text });
  const collect = () => page.evaluate(() => (window as unknown as { gc(): void }).gc());
  await page.evaluate(() => (window as unknown as { presentBench(): Promise<void> }).presentBench());
  const empty = await privateBytes(browser, collect);
  const { opened, paths } = await page.evaluate(() =>
    (window as unknown as { runBench(): Promise<{ opened: number; paths: PathTimes[] }> }).runBench(),
  );
  const used = await privateBytes(browser, collect);
  await browser.close();
  const floor = paths[0]!;
  console.log(`memory after all paths: ${((used - empty) / 1_000_000).toFixed(1)} bytes a cell`);
  console.log(`opened in ${opened.toFixed(0)} ms after the bytes were there`);
  console.log(
    'path                               p50 ms   p95 ms   × floor   script ms at most   frames lacking tiles',
  );
  for (const { path, p50, p95, script, lacking } of paths) {
    const ratio = (p95 / floor.p95).toFixed(2);
    console.log(
      `${path.padEnd(34)} ${p50.toFixed(2).padStart(6)}   ${p95.toFixed(2).padStart(6)}   ${ratio.padStart(7)}   ${script.toFixed(1).padStart(6)}   ${(lacking * 100).toFixed(0).padStart(16)} %`,
    );
  }
}

await bench();
