import { spawnSync } from 'node:child_process';
import { cp, mkdir, readdir, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DEMO, expect, shelve, test } from './bench';
import {
  freePort,
  type RunningServer,
  run,
  START,
  startDemoServer,
  startServer,
  stop,
  throwAway,
  throwAwayDirectory,
} from './server';

test.describe('backups', () => {
  let server: RunningServer;
  test.beforeEach(async () => {
    server = await startDemoServer();
  });
  test.afterEach(() => throwAway(server));
  /** The largest canvas is most of the work of a backup; one test with it is enough. */
  const withoutTheLargest = async () => {
    for (const path of ['canvases', 'deleted']) {
      const method = 'DELETE';
      const removed = await fetch(`${server.url}/api/${path}/${DEMO.glasshouse}`, {
        method,
        headers: { origin: server.url },
      });
      expect(removed.ok).toBe(true);
    }
  };

  test('are made, kept elsewhere, and bring back what was deleted for good', async ({ page, playwright }) => {
    test.setTimeout(120_000);
    await withoutTheLargest();
    const request = await playwright.request.newContext({ baseURL: server.url });
    const id = await shelve(request, 'Kept twice');
    await request.post(`/api/canvases/${id}/marks`, { data: { id: crypto.randomUUID(), runs: [0, 7] } });
    await page.goto(`${server.url}/backups`);
    await expect(page.getByText('No backup yet')).toBeVisible();
    await page.getByRole('button', { name: 'Back up now' }).click();
    await expect(page.getByText(/^Last backup today at/)).toBeVisible({ timeout: 40_000 });
    const row = page.getByRole('row', { name: /by hand/ });
    await expect(row).toContainText('3 canvases');
    await expect(row).toContainText('Kept twice');
    // On a phone the list scrolls, and not the page.
    await page.setViewportSize({ width: 390, height: 844 });
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
    ).toBeLessThanOrEqual(0);
    await page.setViewportSize({ width: 1280, height: 800 });
    const downloading = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Download the newest' }).click();
    const file = await (await downloading).path();
    await request.delete(`/api/canvases/${id}`);
    await request.delete(`/api/deleted/${id}`);
    expect((await request.get(`/api/canvases/${id}`)).status()).toBe(404);
    // From the list.
    await row.getByRole('button', { name: /^Restore/ }).click();
    await page.getByRole('button', { name: 'Restore what is missing' }).click();
    await expect(page.getByText('1 canvas came back: Kept twice.')).toBeVisible({ timeout: 40_000 });
    await expect(page.getByText('All records were checked afterwards and are whole.')).toBeVisible();
    expect((await (await request.get(`/api/canvases/${id}`)).json()).laid).toBe(7);
    // From the file, when nothing is missing.
    await page.getByLabel('Restore from a file').setInputFiles({
      name: 'kept.zip',
      mimeType: 'application/zip',
      buffer: await (await import('node:fs/promises')).readFile(file),
    });
    await expect(
      page.getByText('Nothing came back: every canvas of this backup is on the shelf already.'),
    ).toBeVisible({
      timeout: 40_000,
    });
    await page.getByLabel('Restore from a file').setInputFiles({
      name: 'other.zip',
      mimeType: 'application/zip',
      buffer: Buffer.from('no ZIP at all'),
    });
    await expect(page.getByRole('alert')).toContainText('not a ZIP file');
    await page.getByRole('button', { name: 'Check the records' }).click();
    await expect(page.getByText(/^All is well: 3 canvases/)).toBeVisible({ timeout: 40_000 });
    await row.getByRole('button', { name: /^Delete/ }).click();
    await page.getByRole('button', { name: 'Delete for good' }).click();
    await expect(page.getByText('No backup yet')).toBeVisible();
    // All of it is for the owner alone.
    for (const entry of await readdir(server.data, { recursive: true, withFileTypes: true })) {
      const path = join(entry.parentPath, entry.name);
      expect((await stat(path)).mode & 0o077, path).toBe(0);
    }
  });

  test('come back at a press when the data are damaged', async ({ page }) => {
    test.setTimeout(300_000);
    const made = await fetch(`${server.url}/api/backups`, {
      method: 'POST',
      headers: { origin: server.url },
    });
    expect(made.status).toBe(201);
    await stop(server, 'SIGTERM');
    await rm(join(server.data, 'pglite'), { recursive: true });
    server = await startServer(server.data, server.port);
    expect(server.output()).toContain('The database is missing');
    await page.goto(server.url);
    await expect(page.getByRole('heading', { name: 'The shelf does not open' })).toBeVisible();
    await expect(page.getByText('The database is missing')).toBeVisible();
    await expect(page.getByText(/3 canvases/)).toBeVisible();
    // Another site cannot press the button.
    const foreign = await fetch(`${server.url}/restore`, {
      method: 'POST',
      headers: { origin: 'http://elsewhere.example' },
    });
    expect(foreign.status).toBe(403);
    expect((await fetch(`${server.url}/api/canvases`)).status).toBe(503);
    // The page answers once all is back; pressed on another page too, both are told.
    const elsewhere = fetch(`${server.url}/restore`, { method: 'POST', headers: { origin: server.url } });
    await page.getByRole('button', { name: 'Restore this backup' }).click({ timeout: 250_000 });
    await expect(page.getByRole('heading', { name: 'The shelf is back' })).toBeVisible({ timeout: 250_000 });
    expect((await elsewhere).status).toBe(200);
    await expect(page.getByText('All records were checked and are whole.')).toBeVisible();
    await page.getByRole('link', { name: 'To the shelf' }).click();
    await expect(page.getByRole('heading', { name: 'Lantern Harbour' })).toBeVisible();
    await page.waitForLoadState('networkidle');
    await stop(server, 'SIGTERM');
    server = await startServer(server.data, server.port);
    expect((await (await fetch(`${server.url}/api/canvases`)).json()).length).toBe(3);
  });

  test('are made, restored and checked from the command line', async () => {
    test.setTimeout(180_000);
    await withoutTheLargest();
    await stop(server, 'SIGTERM');
    const env = { OCULENT_DATA: server.data };
    const checked = await run(START, ['verify'], env);
    expect(checked.output).toContain('All is as it should be.');
    expect(checked.code).toBe(0);
    const file = join(server.data, '..', `${server.port}-kept.zip`);
    const saved = await run(START, ['backup', file], env);
    expect(saved).toMatchObject({ code: 0 });
    const elsewhere = await throwAwayDirectory();
    const restored = await run(START, ['restore', file], { OCULENT_DATA: elsewhere });
    expect(restored.output).toMatch(/2 canvases came back: .*Lantern Harbour/);
    expect(restored.code).toBe(0);
    // Where the data are damaged, it takes their place.
    await rm(join(elsewhere, 'pglite/global/pg_control'));
    const replaced = await run(START, ['restore', file], { OCULENT_DATA: elsewhere });
    expect(replaced.output).toContain('pg_control is missing');
    expect(replaced.output).toMatch(/2 canvases came back: .*Lantern Harbour/);
    expect(replaced.code).toBe(0);
    expect(await run(START, ['verify'], { OCULENT_DATA: elsewhere })).toMatchObject({ code: 0 });
    const nothing = await run(START, ['restore', join(elsewhere, 'none.zip')], { OCULENT_DATA: elsewhere });
    expect(nothing.code).toBe(1);
    const unknown = await run(START, ['polish'], env);
    expect(unknown).toMatchObject({ code: 2 });
    expect(unknown.output).toContain('Usage: bin/oculent');
    await rm(elsewhere, { recursive: true });
    await rm(file);
  });

  test('a server that works hard ends when it is asked to', async () => {
    const picture = await (await import('sharp'))
      .default({
        create: { width: 6000, height: 4000, channels: 3, background: '#446688' },
      })
      .png()
      .toBuffer();
    const { 0: canvas } = await (await fetch(`${server.url}/api/canvases`)).json();
    const busy = fetch(`${server.url}/api/canvases/${canvas.canvas.id}/chart-readings?unmatched=nearest`, {
      method: 'POST',
      headers: { 'content-type': 'image/png', origin: server.url },
      body: Uint8Array.from(picture),
    }).catch(() => null);
    const pdf = fetch(`${server.url}/api/canvases/6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f03/chart.pdf`).catch(
      () => null,
    );
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const { process: program } = server;
    await stop(server, 'SIGTERM');
    // By itself, or by the end that it has set itself for whatever hangs.
    expect(program.exitCode === 0 || program.signalCode === 'SIGKILL').toBe(true);
    await Promise.all([busy, pdf]);
  });
});

/** A file system of its own that is full soon; null where this machine lets nobody mount one. */
async function smallDisk(options: string): Promise<string | null> {
  const place = await throwAwayDirectory();
  return spawnSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', place]).status === 0 ? place : null;
}

test('a full disk is told in words, and what was acknowledged stays', async () => {
  test.setTimeout(120_000);
  const place = await smallDisk('size=110m');
  test.skip(place === null, 'This machine lets nobody mount a file system.');
  const data = join(place!, 'data');
  await mkdir(data);
  let server = await startServer(data, await freePort());
  try {
    const id = crypto.randomUUID();
    const post = (path: string, body: object) =>
      fetch(`${server.url}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: server.url },
        body: JSON.stringify(body),
      });
    await post('/api/canvases', {
      id,
      title: 'Full',
      shape: 'square',
      pitchMm: 2.5,
      width: 1000,
      height: 1000,
    });
    // Nothing is left but what lies there already.
    const filler = join(place!, 'filler');
    const { output } = await run('tests/e2e/fillDisk.mjs', [filler], {});
    expect(output).toContain('full');
    let acknowledged = 0;
    let refusal: { status: number; detail: string } | null = null;
    for (let row = 0; row < 1000 && !refusal; row++) {
      const runs = Array.from({ length: 200 }, (_, i) => [row * 1000 + i * 5, 3]).flat();
      const answer = await post(`/api/canvases/${id}/marks`, { id: crypto.randomUUID(), runs });
      if (answer.ok) acknowledged += 600;
      else refusal = { status: answer.status, detail: (await answer.json()).detail };
    }
    expect(refusal).toMatchObject({ status: 507, detail: expect.stringContaining('disk') });
    expect(refusal!.detail).toContain('full');
    await stop(server, 'SIGKILL');
    await rm(filler);
    server = await startServer(data, server.port);
    const { laid } = await (await fetch(`${server.url}/api/canvases/${id}`)).json();
    expect(laid).toBeGreaterThanOrEqual(acknowledged);
    await stop(server, 'SIGTERM');
    const checked = await run(START, ['verify'], { OCULENT_DATA: data });
    expect(checked).toMatchObject({ code: 0, output: expect.stringContaining('All is as it should be.') });
  } finally {
    await stop(server, 'SIGKILL');
    spawnSync('umount', [place!]);
  }
});

test('a disk that can only be read is told at the start', async () => {
  const place = await smallDisk('size=200m');
  test.skip(place === null, 'This machine lets nobody mount a file system.');
  try {
    await cp(process.env.OCULENT_TEST_TEMPLATE!, join(place!, 'data'), { recursive: true });
    spawnSync('mount', ['-o', 'remount,ro', place!]);
    const started = await run(START, [], {
      OCULENT_DATA: join(place!, 'data'),
      PORT: String(await freePort()),
    });
    expect(started.code).toBe(1);
    expect(started.output).toContain('can only be read');
  } finally {
    spawnSync('umount', [place!]);
  }
});

test('a directory of other files is left alone', async () => {
  const data = await throwAwayDirectory();
  await writeFile(join(data, 'letter.txt'), 'Dear …');
  const started = await run(START, [], { OCULENT_DATA: data, PORT: String(await freePort()) });
  expect(started.code).toBe(1);
  expect(started.output).toContain('This directory holds other files (letter.txt)');
  expect(await readdir(data)).toEqual(['letter.txt']);
  await rm(data, { recursive: true });
});
