import { readFile } from 'node:fs/promises';
import { createServer, request as httpRequest, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { noticeOf } from '../../bin/notice';
import { limited } from '../../src/server/http/limits';
import { behindPassphrase, readPassphrase } from '../../src/server/http/passphrase';

let server: Server | null = null;
afterEach(() => server?.close());

async function open(listener: RequestListener): Promise<number> {
  server = createServer(listener);
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
  return (server.address() as AddressInfo).port;
}

function ask(
  port: number,
  method: string,
  path: string,
  headers: Record<string, string> = {},
): Promise<{ status: number; asks: boolean }> {
  return new Promise((resolve, reject) => {
    const sent = httpRequest({ host: '127.0.0.1', port, method, path, headers }, (response) => {
      response.resume();
      resolve({ status: response.statusCode!, asks: 'www-authenticate' in response.headers });
    });
    sent.on('error', reject);
    sent.end();
  });
}

describe('the door', () => {
  it('lets no address through that means another one than it says', async () => {
    const seen: string[] = [];
    const port = await open(
      limited((request, response) => {
        seen.push(request.url!);
        response.end();
      }),
    );
    for (const path of ['/a/../b', '/a/%2e%2e/b', '/a/%2E./b', '/a/.%2e', '/./b', '/a/%00', '/a/%ff']) {
      expect((await ask(port, 'DELETE', path)).status, path).toBe(400);
    }
    for (const method of ['TRACE', 'PROPFIND']) expect((await ask(port, method, '/a')).status).toBe(405);
    expect(seen).toEqual([]);
    for (const path of ['/a/b', '/a..b', '/...', '/%F0%9F%A6%8E', '/a?b=../c']) {
      expect((await ask(port, 'GET', path)).status, path).toBe(200);
    }
    expect(seen).toHaveLength(5);
  });
});

describe('a passphrase', () => {
  const basic = (text: string) => ({ authorization: `Basic ${Buffer.from(text).toString('base64')}` });

  it('is asked for where one is set, and only there', async () => {
    const yes: RequestListener = (_, response) => response.end();
    const port = await open(behindPassphrase(yes, 'lamp over the bench'));
    expect(await ask(port, 'GET', '/')).toEqual({ status: 401, asks: true });
    expect((await ask(port, 'GET', '/', basic('me:lamp over the bench'))).status).toBe(200);
    expect((await ask(port, 'GET', '/', basic(':lamp over the bench'))).status).toBe(200);
    for (const wrong of ['me:lamp over the benc', 'me:', 'lamp over the bench', 'me:lamp over the bench:']) {
      expect((await ask(port, 'GET', '/', basic(wrong))).status, wrong).toBe(401);
    }
    expect((await ask(port, 'GET', '/', { authorization: 'Bearer lamp over the bench' })).status).toBe(401);
    expect(behindPassphrase(yes, null)).toBe(yes);
  });

  it('must be long enough', () => {
    expect(readPassphrase(undefined)).toBeNull();
    expect(readPassphrase('')).toBeNull();
    expect(readPassphrase('twelve chars')).toBe('twelve chars');
    expect(() => readPassphrase('short')).toThrow('12 characters');
  });
});

it('NOTICE lists what the lock file has', async () => {
  const lock = JSON.parse(await readFile('package-lock.json', 'utf8'));
  expect(await readFile('NOTICE', 'utf8'), 'Run npm run notice').toBe(noticeOf(lock));
});
