import { spawn, spawnSync } from 'node:child_process';
import { appendFile, cp, readFile, rm, symlink } from 'node:fs/promises';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { allSaved, cloth, expect, left, pointOf, shelve, test } from './bench';
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

test.describe('what is acknowledged is kept', () => {
  let server: RunningServer;
  test.beforeEach(async () => {
    server = await startDemoServer();
  });
  test.afterEach(() => throwAway(server));

  test('over kill -9 between marks, again and again', async ({ playwright }) => {
    test.setTimeout(180_000);
    let request = await playwright.request.newContext({ baseURL: server.url });
    const id = await shelve(request, 'Killed');
    const acknowledged = new Set<number>();
    for (let round = 0; round < 3; round++) {
      // Marks go out one after the other; the server is killed while one of them is on its way.
      const killAt = round * 80 + 10 + round * 7;
      let dying = Promise.resolve();
      for (let cell = round * 80; cell < round * 80 + 80; cell++) {
        const sent = request.post(`/api/canvases/${id}/marks`, {
          data: { id: crypto.randomUUID(), runs: [cell, 1] },
        });
        if (cell === killAt) dying = stop(server, 'SIGKILL');
        const answer = await sent.catch(() => null);
        if (!answer?.ok()) break;
        acknowledged.add(cell);
      }
      await dying;
      server = await startServer(server.data, await freePort());
      request = await playwright.request.newContext({ baseURL: server.url });
      const bitmap = await (await request.get(`/api/canvases/${id}/bitmap`)).body();
      for (const cell of acknowledged)
        expect(bitmap[cell >> 3]! & (1 << (cell & 7)), `cell ${cell}`).toBeTruthy();
    }
    expect(acknowledged.size).toBeGreaterThanOrEqual(10 + 17 + 24);
  });

  test('and marks made while the server is away arrive when it is back', async ({ page, playwright }) => {
    const request = await playwright.request.newContext({ baseURL: server.url });
    const id = await shelve(request, 'Away');
    await page.goto(`${server.url}/canvas/${id}/bench?section=1`);
    await cloth(page).waitFor();
    const section = { x: 0, y: 0, width: 20, height: 16 };
    const click = async (x: number, y: number) => {
      const point = await pointOf(page, section, x, y);
      await page.mouse.click(point.x, point.y);
    };
    await click(0, 0);
    await allSaved(page);
    await stop(server, 'SIGKILL');
    await click(1, 0);
    await click(2, 0);
    await expect(page.getByTestId('outbox')).toContainText('2 changes wait here');
    server = await startServer(server.data, server.port);
    await allSaved(page);
    await page.reload();
    await expect(page.getByTestId('left-here')).toHaveText('157 left here of 160');
  });

  test('a second process on the same data says so and stops; a stopped server lets go of everything and starts again', async () => {
    const second = await run(START, [], {
      OCULENT_DATA: server.data,
      PORT: String(await freePort()),
    });
    expect(second.code).toBe(1);
    expect(second.output).toContain('Another Oculent is already using the data');
    const demo = await run('demo/lay.ts', ['--fresh'], { OCULENT_DATA: server.data });
    expect(demo.code).toBe(1);
    expect((await fetch(`${server.url}/api/canvases`)).status).toBe(200);
    await stop(server, 'SIGTERM');
    expect(server.process.exitCode).toBe(0);
    server = await startServer(server.data, server.port);
    expect((await fetch(`${server.url}/`)).status).toBe(200);
  });

  test('a program that is built anew while it runs closes by itself, and what is laid meanwhile waits for the next', async ({
    page,
    playwright,
  }) => {
    const request = await playwright.request.newContext({ baseURL: server.url });
    const id = await shelve(request, 'Built anew');
    await stop(server, 'SIGTERM');
    // A copy, for all the other tests run from the build itself.
    const where = await throwAwayDirectory();
    await cp('dist', join(where, 'dist'), { recursive: true });
    await cp('src/data/migrations', join(where, 'src/data/migrations'), { recursive: true });
    await symlink(resolve('node_modules'), join(where, 'node_modules'));
    server = await startServer(server.data, server.port, where);
    await page.goto(`${server.url}/canvas/${id}/bench?section=1`);
    await expect(left(page)).toHaveText('160 left here of 160');
    const html = await (await fetch(`${server.url}/stash`)).text();
    const script = /\/_astro\/StashPage[\w.-]+\.js/.exec(html)![0];
    expect((await fetch(`${server.url}${script}`)).status).toBe(200);
    const closed = new Promise((resolve) => server.process.once('exit', resolve));
    // A build begins with nothing. What a page asks for meanwhile is not there, and ends nothing.
    await rm(join(where, 'dist/client'), { recursive: true });
    expect((await fetch(`${server.url}${script}`)).status).toBe(404);
    await rm(join(where, 'dist'), { recursive: true });
    const code = await closed;
    expect(code, server.output()).toBe(0);
    expect(server.output()).toContain('Oculent was brought up to date, so this one closes. Start it again.');
    const point = await pointOf(page, { x: 0, y: 0, width: 20, height: 16 }, 0, 0);
    await page.mouse.click(point.x, point.y);
    await expect(page.getByTestId('outbox')).toContainText('1 change waits here');
    await cp('dist', join(where, 'dist'), { recursive: true });
    await appendFile(join(where, 'dist/server/entry.mjs'), '// Of a newer version.\n');
    server = await startServer(server.data, server.port, where);
    await allSaved(page);
    const told = page.getByText('Oculent was brought up to date. This page is the old one.');
    await expect(told).toBeVisible();
    await page.getByRole('button', { name: 'Show the new one' }).click();
    await expect(left(page)).toHaveText('159 left here of 160');
    await expect(told).toBeHidden();
    expect((await (await fetch(`${server.url}/api/canvases/${id}`)).json()).laid).toBe(1);
    await rm(where, { recursive: true });
  });
});

test('a taken port and a senseless one are told in one sentence', async () => {
  const data = await throwAwayDirectory();
  const port = await freePort();
  const holder = createServer().listen(port, '127.0.0.1');
  const taken = await run(START, [], { OCULENT_DATA: data, PORT: String(port) });
  expect(taken.code).toBe(1);
  expect(taken.output.trim().split('\n').at(-1)).toBe(
    `Port ${port} is taken. Choose another one, for example PORT=${port + 1} bin/oculent`,
  );
  holder.close();
  const senseless = await run(START, [], { OCULENT_DATA: data, PORT: 'front door' });
  expect(senseless.code).toBe(1);
  expect(senseless.output).toContain('PORT must be a number');
  await rm(data, { recursive: true, force: true });
});

test('the kernel counts a sync for each write that is acknowledged by itself, and fewer for those that come together', async () => {
  test.setTimeout(120_000);
  test.skip(spawnSync('strace', ['-V']).status !== 0, 'strace is not here (Debian’s package strace).');
  const data = await throwAwayDirectory();
  const trace = join(data, '..', `${Date.now()}-syncs`);
  const port = await freePort();
  // Each sync is made to last 20 ms longer, so that what comes together surely meets one under way.
  const slow = ['-e', 'trace=fdatasync', '-e', 'inject=fdatasync:delay_exit=20000'];
  const traced = spawn('strace', ['-f', '--seccomp-bpf', ...slow, '-o', trace, process.execPath, START], {
    env: { ...process.env, OCULENT_DATA: data, PORT: String(port), OCULENT_BACKUPS: 'off' },
    detached: true,
  });
  try {
    await new Promise<void>((resolve) =>
      traced.stdout.on('data', (text) => String(text).includes('is open') && resolve()),
    );
    const origin = `http://127.0.0.1:${port}`;
    const post = async (path: string, body: object) => {
      const answer = await fetch(`${origin}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin },
        body: JSON.stringify(body),
      });
      expect(answer.status).toBe(201);
    };
    const id = crypto.randomUUID();
    await post('/api/canvases', {
      id,
      title: 'Traced',
      shape: 'square',
      pitchMm: 2.5,
      width: 40,
      height: 40,
    });
    const mark = (cell: number) =>
      post(`/api/canvases/${id}/marks`, { id: crypto.randomUUID(), runs: [cell, 1] });
    const syncs = async () =>
      (await readFile(trace, 'utf8')).match(/fdatasync\(\d+\) += 0|resumed>\) += 0/g)?.length ?? 0;
    const before = await syncs();
    for (let cell = 0; cell < 20; cell++) await mark(cell);
    const alone = (await syncs()) - before;
    expect(alone).toBeGreaterThanOrEqual(20);
    await Promise.all(Array.from({ length: 60 }, (_, cell) => mark(100 + cell)));
    const together = (await syncs()) - before - alone;
    expect(together).toBeGreaterThan(0);
    expect(together).toBeLessThan(60);
  } finally {
    process.kill(-traced.pid!, 'SIGKILL');
    await rm(data, { recursive: true, force: true });
    await rm(trace, { force: true });
  }
});
