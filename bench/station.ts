import { spawn } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { shelve } from './shelf';

/**
 * Frames of the real chart page, React included, over a million cells and 200 colours, while the pointer hovers, drags
 * and zooms, beside the same page at rest. Build first, then `npx tsx bench/station.ts`.
 */
const PORT = 4478;
const SECONDS = 4;

const directory = await mkdtemp(join(tmpdir(), 'oculent-bench-'));
const database = await openDataDirectory(directory);
const canvas = await shelve(database, 1000, 1000, 200);
await database.close();
const server = spawn(process.execPath, ['dist/server/start.mjs'], {
  env: { ...process.env, OCULENT_DATA: directory, PORT: String(PORT) },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise<void>((resolve) =>
  server.stdout.on('data', (text) => String(text).includes('is open') && resolve()),
);
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});

/** Share of frames that came later than one and a half frames of 60 a second, and the longest. */
async function frames(page: Page, name: string, work: (at: number) => Promise<void>): Promise<void> {
  await page.evaluate(() => {
    const state = { times: [] as number[], on: true };
    Object.assign(window, { state });
    let last = performance.now();
    const tick = (now: number) => {
      state.times.push(now - last);
      last = now;
      if (state.on) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  const end = Date.now() + SECONDS * 1000;
  for (let at = 0; Date.now() < end; at++) await work(at);
  const times = await page.evaluate(() => {
    const { state } = window as unknown as { state: { times: number[]; on: boolean } };
    state.on = false;
    return state.times.slice(1);
  });
  times.sort((a, b) => a - b);
  const late = times.filter((time) => time > 25).length / times.length;
  const quantile = (share: number) => times[Math.floor((times.length - 1) * share)]!.toFixed(1).padStart(6);
  console.log(
    `${name.padEnd(26)} ${String(times.length).padStart(5)} frames, late ${(late * 100).toFixed(1).padStart(5)} %, p50 ${quantile(0.5)} ms, p95 ${quantile(0.95)} ms, longest ${quantile(1)} ms`,
  );
}

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // The loader of this script names functions by a helper that the page does not have.
  await page.addInitScript('globalThis.__name = (it) => it');
  await page.goto(`http://127.0.0.1:${PORT}/canvas/${canvas.id}/chart`);
  await page.waitForTimeout(2000);
  const box = (await page.locator('canvas').first().boundingBox())!;
  const x = (at: number) => box.x + box.width * (0.5 + 0.35 * Math.sin(at / 9));
  const y = (at: number) => box.y + box.height * (0.5 + 0.35 * Math.cos(at / 7));
  await frames(page, 'at rest', () => page.waitForTimeout(20));
  await frames(page, 'hovering, from afar', (at) => page.mouse.move(x(at), y(at)));
  if (!(await page.getByTestId('readout').isVisible()))
    throw new Error('The pointer did not reach the cloth.');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -300);
  await page.waitForTimeout(1000);
  await frames(page, 'hovering, near by', (at) => page.mouse.move(x(at), y(at)));
  await page.mouse.down();
  await frames(page, 'dragging, near by', (at) => page.mouse.move(x(at), y(at)));
  await page.mouse.up();
  await frames(page, 'zooming in and out', (at) => page.mouse.wheel(0, at % 60 < 30 ? 60 : -60));
} finally {
  await browser.close();
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  await rm(directory, { recursive: true, force: true });
}
