import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { createServer, get, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { filesIn } from '../../src/server/http/files';

let directory: string;
let server: Server;
let url: string;
beforeEach(async () => {
  directory = await mkdtemp(join(tmpdir(), 'oculent-files-'));
  await mkdir(join(directory, 'client/_astro'), { recursive: true });
  await writeFile(join(directory, 'client/_astro/page.a1b2.js'), 'export {};');
  await writeFile(join(directory, 'client/service.js'), 'self;');
  await writeFile(join(directory, 'client/mark.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>');
  await writeFile(join(directory, 'secret.txt'), 'not a file of the pages');
  const files = await filesIn(join(directory, 'client'));
  server = createServer((request, response) =>
    files(request, response, () => response.writeHead(418).end('the pages')),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(async () => {
  server.closeAllConnections();
  server.close();
  await rm(directory, { recursive: true, force: true });
});

describe('the built files', () => {
  it('come with their kind, and those with a hash in their name are kept for a year', async () => {
    const script = await fetch(`${url}/_astro/page.a1b2.js`);
    expect([script.status, await script.text()]).toEqual([200, 'export {};']);
    expect(script.headers.get('content-type')).toBe('text/javascript; charset=utf-8');
    expect(script.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
    expect(script.headers.get('x-content-type-options')).toBe('nosniff');
    expect(script.headers.get('cross-origin-resource-policy')).toBe('same-origin');
    const worker = await fetch(`${url}/service.js?again`);
    expect(worker.headers.get('cache-control')).toBe('no-cache');
    const mark = await fetch(`${url}/mark.svg`, { method: 'HEAD' });
    expect([mark.status, mark.headers.get('content-type'), await mark.text()]).toEqual([
      200,
      'image/svg+xml',
      '',
    ]);
    expect(mark.headers.get('cache-control')).toBeNull();
  });

  it('are not sent again to who has them', async () => {
    const etag = (await fetch(`${url}/mark.svg`)).headers.get('etag')!;
    // By hand: fetch would ask for a fresh one besides.
    const again = await new Promise<number>((resolve, reject) => {
      get(`${url}/mark.svg`, { headers: { 'if-none-match': etag } }, (response) => {
        response.resume();
        resolve(response.statusCode!);
      }).once('error', reject);
    });
    expect(again).toBe(304);
  });

  it('are only those: all else is for the pages', async () => {
    const others = ['/', '/_astro', '/_astro/', '/../secret.txt', '/%2e%2e/secret.txt', '/_astro/page.js'];
    for (const path of others) expect((await fetch(`${url}${path}`)).status, path).toBe(418);
    expect((await fetch(`${url}/mark.svg`, { method: 'POST' })).status).toBe(418);
    await writeFile(join(directory, 'client/later.js'), '');
    expect((await fetch(`${url}/later.js`)).status).toBe(418);
  });

  it('that were removed since are not there, and the program goes on', async () => {
    await rm(join(directory, 'client/_astro'), { recursive: true });
    const gone = await fetch(`${url}/_astro/page.a1b2.js`);
    expect([gone.status, gone.headers.get('cache-control')]).toEqual([404, 'no-store']);
    expect((await fetch(`${url}/mark.svg`)).status).toBe(200);
    const beyond = await fetch(`${url}/mark.svg`, { headers: { range: 'bytes=9000-' } });
    expect(beyond.status).toBe(416);
  });
});
