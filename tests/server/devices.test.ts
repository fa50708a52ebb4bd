import { execFileSync } from 'node:child_process';
import { createHash, X509Certificate } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import type { IncomingHttpHeaders } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join as joinPath } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { putHomeNetworkSetting } from '../../src/data/devices';
import type { Database } from '../../src/data/engine/database';
import { homeAddresses, isHomeAddress, sameAddress } from '../../src/server/devices/addresses';
import { openAuthority } from '../../src/server/devices/authority';
import { type Caller, callerOf } from '../../src/server/devices/caller';
import { behindDoor } from '../../src/server/devices/door';
import { HomeNetwork } from '../../src/server/devices/homeNetwork';
import {
  join,
  openCode,
  openCodeSeconds,
  sessionCookie,
  tokenOf,
  wasWithdrawn,
  wrongTries,
} from '../../src/server/devices/joining';
import { hashPassphrase, isPassphrase } from '../../src/server/devices/passphraseHash';
import { mayManage } from '../../src/server/devices/view';
import { memoryDatabase } from '../data/memory';
import { noGuesses } from './noGuesses';

const DAY_MS = 86_400_000;
let directory: string;
beforeEach(async () => {
  directory = await mkdtemp(joinPath(tmpdir(), 'oculent-home-'));
});
afterEach(() => rm(directory, { recursive: true, force: true }));

const openssl = (...args: string[]) => execFileSync('openssl', args, { encoding: 'utf8', stdio: 'pipe' });

describe('the authority, as OpenSSL sees it', () => {
  async function made(now = Date.now()) {
    const authority = await openAuthority(directory, 'attic', now);
    const identity = await authority.identityFor(['attic.local'], ['192.168.1.20', 'fd00::20'], now);
    const [server = ''] = identity.chain.split(/(?<=-----END CERTIFICATE-----)/);
    const path = (name: string) => joinPath(directory, name);
    await writeFile(path('ca.pem'), authority.certificate);
    await writeFile(path('server.pem'), server);
    const verify = (...more: string[]) =>
      openssl(
        'verify',
        '-x509_strict',
        '-purpose',
        'sslserver',
        '-CAfile',
        path('ca.pem'),
        ...more,
        path('server.pem'),
      );
    return { authority, identity, server, verify };
  }

  it('vouches for every name and address, strictly by RFC 5280, and for no other', async () => {
    const { verify, server, authority } = await made();
    for (const name of [
      ['-verify_hostname', 'attic.local'],
      ['-verify_ip', '192.168.1.20'],
      ['-verify_ip', 'fd00::20'],
    ]) {
      expect(verify(...name)).toContain('OK');
    }
    expect(() => verify('-verify_hostname', 'elsewhere.local')).toThrow();
    expect(() => verify('-verify_ip', '192.168.1.21')).toThrow();
    // The fingerprint is the one that others show.
    expect(
      openssl('x509', '-in', joinPath(directory, 'ca.pem'), '-noout', '-fingerprint', '-sha256').trim(),
    ).toBe(`sha256 Fingerprint=${authority.fingerprint}`);
    // Browsers take no certificate that is good for longer than 398 days (CA/Browser Forum, Baseline Requirements 6.3.2).
    const { validFrom, validTo } = new X509Certificate(server);
    expect((Date.parse(validTo) - Date.parse(validFrom)) / DAY_MS).toBeLessThanOrEqual(398);
  });

  it('can vouch for nothing outside a home', async () => {
    const authority = await openAuthority(directory, 'attic');
    for (const [names, addresses, name] of [
      [['bank.example'], [], ['-verify_hostname', 'bank.example']],
      [[], ['8.8.8.8'], ['-verify_ip', '8.8.8.8']],
    ] as const) {
      const { chain } = await authority.identityFor(names, addresses, Date.now());
      await writeFile(joinPath(directory, 'ca.pem'), authority.certificate);
      await writeFile(joinPath(directory, 'server.pem'), chain.split(/(?<=-----END CERTIFICATE-----)/)[0]!);
      expect(() =>
        openssl(
          'verify',
          '-CAfile',
          joinPath(directory, 'ca.pem'),
          ...name,
          joinPath(directory, 'server.pem'),
        ),
      ).toThrow(/permitted subtree violation/);
    }
  });

  it('is made once, with keys that only their owner can read', async () => {
    const { authority, identity } = await made();
    const again = await openAuthority(directory, 'attic');
    expect(again.certificate).toBe(authority.certificate);
    expect((await again.identityFor(['attic.local'], ['192.168.1.20'], Date.now())).chain).toBe(
      identity.chain,
    );
    const folder = joinPath(directory, 'network');
    expect((await stat(folder)).mode & 0o077).toBe(0);
    for (const name of await readdir(folder))
      expect((await stat(joinPath(folder, name))).mode & 0o077).toBe(0);
  });

  it('renews a certificate that runs out soon, names something else, or is not good yet', async () => {
    const { authority, identity } = await made();
    const now = Date.now();
    const renewed = async (names: string[], addresses: string[], at: number) =>
      (await authority.identityFor(names, addresses, at)).chain !== identity.chain;
    expect(await renewed(['attic.local'], ['192.168.1.20'], now + 300 * DAY_MS)).toBe(false);
    expect(await renewed(['attic.local'], ['192.168.1.20'], now + 340 * DAY_MS)).toBe(true);
    const kept = (await authority.identityFor(['attic.local'], ['192.168.1.99'], now)).chain;
    expect(new X509Certificate(kept).checkIP('192.168.1.99')).toBe('192.168.1.99');
    // The clock was set back by a year.
    const early = (await authority.identityFor(['attic.local'], ['192.168.1.99'], now - 365 * DAY_MS)).chain;
    expect(Date.parse(new X509Certificate(early).validFrom)).toBeLessThan(now - 365 * DAY_MS);
  });

  it('makes a new certificate where the kept one is broken or another authority’s', async () => {
    const { authority } = await made();
    await writeFile(joinPath(directory, 'network', 'server.crt'), 'broken');
    const { chain } = await authority.identityFor(['attic.local'], [], Date.now());
    expect(new X509Certificate(chain).checkIssued(new X509Certificate(authority.certificate))).toBe(true);
    await rm(joinPath(directory, 'network', 'authority.key'));
    const fresh = await openAuthority(directory, 'attic');
    const next = await fresh.identityFor(['attic.local'], [], Date.now());
    expect(next.chain).not.toBe(chain);
    expect(new X509Certificate(next.chain).verify(new X509Certificate(fresh.certificate).publicKey)).toBe(
      true,
    );
  });
});

describe('addresses', () => {
  it.each([
    ['10.1.2.3', true],
    ['172.31.255.255', true],
    ['172.32.0.1', false],
    ['192.168.0.1', true],
    ['193.168.0.1', false],
    ['127.0.0.2', true],
    ['169.254.7.7', true],
    ['8.8.8.8', false],
    ['fd12::1', true],
    ['fe80::1', true],
    ['2001:db8::1', false],
    ['::1', true],
    ['::2', false],
    ['attic.local', false],
    ['', false],
  ])('%s is of a home: %s', (address, home) => {
    expect(isHomeAddress(address)).toBe(home);
  });

  it('are the same however they are written', () => {
    expect(sameAddress('fd00::20', 'FD00:0:0:0:0:0:0:20')).toBe(true);
    expect(sameAddress('fd00::20', 'fd00::21')).toBe(false);
    expect(sameAddress('10.0.0.1', '::ffff:10.0.0.1')).toBe(false);
    expect(sameAddress('x', 'x')).toBe(false);
  });

  it('can be chosen, but only those of a home', () => {
    expect(homeAddresses('127.0.0.2, 192.168.7.7')).toEqual(['127.0.0.2', '192.168.7.7']);
    expect(() => homeAddresses('127.0.0.2, 8.8.8.8')).toThrow('“8.8.8.8” is no address of a home network');
    for (const own of homeAddresses(undefined)) expect(isHomeAddress(own)).toBe(true);
  });
});

describe('the passphrase', () => {
  it('is hashed as RFC 7914 says (section 12, third test vector)', async () => {
    const key = Buffer.from(
      '7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2' +
        'd5432955613f0fcf62d49705242a9af9e61e85dc0d651e40dfcf017b45575887',
      'hex',
    );
    // PBKDF2 gives its key block by block, so the first half is what a key of half the length is.
    const parts = ['scrypt', 2 ** 14, 8, 1, Buffer.from('SodiumChloride').toString('base64')];
    const hash = [...parts, key.subarray(0, 32).toString('base64')].join(':');
    expect(await isPassphrase('pleaseletmein', hash)).toBe(true);
    expect(await isPassphrase('pleaseletmeout', hash)).toBe(false);
  });

  it('is known again however its signs are typed, and by nothing else', async () => {
    const hash = await hashPassphrase('Café am Ufer 1907');
    expect(hash).not.toContain('Ufer');
    expect(await isPassphrase('Cafe\u0301 am Ufer 1907', hash)).toBe(true);
    expect(await isPassphrase('Cafe am Ufer 1907', hash)).toBe(false);
    expect(await isPassphrase('', hash)).toBe(false);
    expect(await isPassphrase('x', 'plain:x')).toBe(false);
    expect(await hashPassphrase('Café am Ufer 1907')).not.toBe(hash);
  });
});

/** A port that is free on the addresses that stand for other machines. */
function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.2', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

describe('the door', () => {
  let database: Database;
  let network: HomeNetwork;
  let port: number;
  let now = Date.now();
  const came: { path: string; caller: Caller | null }[] = [];
  let certificates: string;

  beforeAll(async () => {
    certificates = await mkdtemp(joinPath(tmpdir(), 'oculent-door-'));
    database = await memoryDatabase();
    port = await freePort();
    network = new HomeNetwork(
      certificates,
      port,
      '127.0.0.2,127.0.0.3',
      behindDoor(
        (request, response) => {
          came.push({ path: request.url!, caller: callerOf(request) });
          response.end('inside');
        },
        { queries: async () => database, isOurs: (host) => network.isOurs(host), now: () => now },
      ),
      'attic',
    );
    await network.turnOn();
  });
  afterAll(async () => {
    await network.turnOff();
    await database.close();
    await rm(certificates, { recursive: true, force: true });
  });
  beforeEach(() => {
    now = Date.now();
    came.length = 0;
  });
  afterEach(() => void vi.useRealTimers());

  /** Asks as a device with this address, over HTTPS under the authority alone. */
  function ask(
    path: string,
    headers: Record<string, string> = {},
    host = '127.0.0.2',
  ): Promise<{ status: number; headers: IncomingHttpHeaders; body: string }> {
    return new Promise((resolve, reject) => {
      const sent = httpsRequest(
        { host, port, path, headers, ca: network.authorityCertificate()!, agent: false, servername: '' },
        (response) => {
          let body = '';
          response.on('data', (text) => {
            body += text;
          });
          response.on('end', () =>
            resolve({ status: response.statusCode!, headers: response.headers, body }),
          );
        },
      );
      sent.on('error', reject);
      sent.end();
    });
  }
  const joined = async (name = 'Tablet', address = '127.0.0.7') => {
    const { code } = openCode();
    const { token, device } = await join(database, { code, passphrase: null, name }, address);
    return { device, cookie: sessionCookie(token).split(';')[0]! };
  };

  it('lets nobody in who has not joined, and tells strangers nothing', async () => {
    expect(await ask('/api/canvases')).toMatchObject({ status: 401 });
    const page = await ask('/canvas/secret?x=1', { accept: 'text/html' });
    expect([page.status, page.headers.location]).toEqual([303, '/join?to=%2Fcanvas%2Fsecret%3Fx%3D1']);
    expect(came).toEqual([]);
    expect(await ask('/join')).toMatchObject({ status: 200, body: 'inside' });
    expect(came[0]!.caller).toMatchObject({ device: null });
  });

  it.each([
    '/join/../canvas/x',
    '/join?x=/..',
    '/api/devices/joining/x',
    '/_astro/../api/canvases',
    '/service.js/x',
    '//join',
  ])('is not talked round by %s', async (path) => {
    const { status } = await ask(path);
    const inside = came.filter(
      (each) => each.path.split('?')[0] !== '/join' && !each.path.startsWith('/_astro/'),
    );
    expect([inside, status === 401 || status === 200]).toEqual([[], true]);
  });

  it('answers under its own names only', async () => {
    for (const host of [
      'evil.example',
      `evil.example:${port}`,
      `127.0.0.2.evil.example:${port}`,
      '127.0.0.2',
      `127.0.0.9:${port}`,
    ]) {
      expect((await ask('/join', { host })).status).toBe(421);
    }
    for (const host of [`127.0.0.3:${port}`, `attic.local:${port}`, `ATTIC.local:${port}`]) {
      expect((await ask('/join', { host })).status).toBe(200);
    }
  });

  it('lets a device in by its cookie, and no longer once it was signed out', async () => {
    const { cookie, device } = await joined();
    expect((await ask('/', { cookie })).status).toBe(200);
    expect(came.at(-1)!.caller).toMatchObject({
      device: { id: device.id, name: 'Tablet', joinedBy: 'code' },
    });
    for (const other of [`${cookie}x`, cookie.replace('__Host-oculent', 'oculent'), '__Host-oculent=']) {
      expect((await ask('/', { cookie: other })).status).toBe(401);
    }
    await database.query('delete from device_session');
    expect((await ask('/', { cookie })).status).toBe(401);
    // Its browser forgets what it kept.
    const page = await ask('/', { cookie, accept: 'text/html' });
    expect(page.headers['clear-site-data']).toBe('"cache"');
  });

  it('keeps a session for 90 days since it was seen last, also when the clock is set back', async () => {
    const { cookie } = await joined();
    const start = now;
    for (const [days, status] of [
      [80, 200],
      [160, 200],
      [251, 401],
      [160, 401],
    ] as const) {
      now = start + days * DAY_MS;
      expect([days, (await ask('/', { cookie })).status]).toEqual([days, status]);
    }
    now = start;
    const other = await joined();
    // A machine without a battery begins in another year, and is set right later.
    now = start - 400 * DAY_MS;
    const back = await ask('/', { cookie: other.cookie });
    now = start + DAY_MS;
    expect((await ask('/', { cookie: other.cookie })).status).toBe(200);
    expect(back.status).toBe(200);
    // Given out anew, so that it does not run out in the browser.
    expect(String(back.headers['set-cookie'])).toMatch(
      /__Host-oculent=[\w-]{43}; Path=\/; Max-Age=7776000; HttpOnly; Secure; SameSite=Strict/,
    );
  });

  it('is called as no other is, and is the same again when it comes back', async () => {
    const [first, second] = [await joined('Sewing room'), await joined('sewing room')];
    expect([first.device.name, second.device.name]).toEqual(['Sewing room', 'sewing room 2']);
    await database.query('delete from device_session where device_id = $1', [first.device.id]);
    expect((await joined('Sewing room')).device).toEqual(first.device);
    expect((await joined('Sewing room')).device.name).toBe('Sewing room 3');
  });

  it('keeps only a hash of what lets a device in', async () => {
    const { cookie } = await joined();
    const token = tokenOf(cookie)!;
    expect(Buffer.from(token, 'base64url')).toHaveLength(32);
    const rows = await database.query<{ token_hash: string }>('select * from device_session');
    expect(JSON.stringify(rows)).not.toContain(token);
    expect(rows.map((row) => row.token_hash)).toContain(createHash('sha256').update(token).digest('hex'));
  });

  it('serves fifty devices', async () => {
    const all = await Promise.all(Array.from({ length: 50 }, (_, i) => joinedInTurn(i)));
    const answers = await Promise.all(all.map(({ cookie }) => ask('/', { cookie })));
    expect(answers.every(({ status }) => status === 200)).toBe(true);
    expect(new Set(came.map(({ caller }) => caller!.device!.id)).size).toBe(50);
  });
  let last: Promise<unknown> = Promise.resolve();
  function joinedInTurn(i: number) {
    const mine = last.then(() => joined(`Device ${i}`, `127.0.1.${i}`));
    last = mine;
    return mine;
  }

  it('stops to answer when it is switched off', async () => {
    const own = new HomeNetwork(certificates, await freePort(), '127.0.0.4', () => {}, 'attic');
    await own.turnOn();
    expect(own.state()).toMatchObject({ listening: true, hosts: ['127.0.0.4', 'attic.local'], fault: null });
    await own.turnOff();
    expect(own.state()).toMatchObject({ listening: false, hosts: [] });
    const taken = new HomeNetwork(certificates, port, '127.0.0.2', () => {}, 'attic');
    await taken.turnOn();
    expect(taken.state()).toMatchObject({
      listening: false,
      fault: expect.stringContaining(`Port ${port} is taken`),
    });
    await taken.turnOff();
  });

  describe('joining', () => {
    beforeEach(noGuesses);
    afterEach(noGuesses);

    const wish = (code: string) => ({ code, passphrase: null, name: 'Tablet' });

    it('works once for each code', async () => {
      const { code } = openCode();
      expect(openCodeSeconds()).toBe(600);
      await join(database, wish(code.toLowerCase().replace('-', ' ')), '127.0.2.1');
      await expect(join(database, wish(code), '127.0.2.1')).rejects.toMatchObject({ status: 401 });
      expect(openCodeSeconds()).toBeNull();
    });

    it('is too late after ten minutes, whatever the machine’s clock is set to', async () => {
      vi.useFakeTimers({ toFake: ['performance', 'Date'] });
      const { code } = openCode();
      vi.setSystemTime(Date.now() - 7 * DAY_MS);
      vi.advanceTimersByTime(599_000);
      vi.setSystemTime(Date.now() - 7 * DAY_MS);
      expect(openCodeSeconds()).toBe(1);
      vi.advanceTimersByTime(2000);
      await expect(join(database, wish(code), '127.0.2.2')).rejects.toMatchObject({ status: 410 });
      await expect(join(database, wish(code), '127.0.2.2')).rejects.toMatchObject({ status: 401 });
    });

    it('is slowed after a few wrong codes, which are shown, and ten of them withdraw the code', async () => {
      const { code } = openCode();
      vi.useFakeTimers({ toFake: ['performance'] });
      const statuses: number[] = [];
      for (let i = 0; i < 10; i++) {
        await join(database, wish('2222-2222'), '127.0.2.3').catch((error: { status: number }) =>
          statuses.push(error.status),
        );
      }
      expect(statuses).toEqual([401, 401, 401, 401, 429, 429, 429, 429, 429, 429]);
      expect(wrongTries()[0]).toMatchObject({ address: '127.0.2.3', wrong: 4 });
      // Somebody else is not held up.
      for (let i = 0; i < 6; i++) {
        await expect(join(database, wish('2222-2222'), `127.0.3.${i}`)).rejects.toMatchObject({
          status: 401,
        });
      }
      expect(wasWithdrawn()).toBe(true);
      await expect(join(database, wish(code), '127.0.2.9')).rejects.toMatchObject({ status: 401 });
      openCode();
      expect(wasWithdrawn()).toBe(false);
    });

    it('works with the passphrase at any time, and such a device may change the settings', async () => {
      const setting = { on: true, deskName: 'Desk' };
      await putHomeNetworkSetting(database, {
        ...setting,
        passphrase: await hashPassphrase('four words make one'),
      });
      const by = (passphrase: string) => ({ code: null, passphrase, name: 'Attic' });
      await expect(join(database, by('four words make two'), '127.0.2.4')).rejects.toMatchObject({
        status: 401,
      });
      // Many at once are slowed as well as one after the other.
      const burst = await Promise.allSettled(
        Array.from({ length: 12 }, () => join(database, by('four words make two'), '127.0.2.8')),
      );
      const statuses = burst.map((each) => (each as PromiseRejectedResult).reason.status);
      expect(statuses.filter((status) => status === 401)).toHaveLength(4);
      expect(statuses.filter((status) => status === 429)).toHaveLength(8);
      const { token } = await join(database, by('four words make one'), '127.0.2.4');
      await ask('/', { cookie: sessionCookie(token).split(';')[0]! });
      const { caller } = came.at(-1)!;
      expect(caller).toMatchObject({ device: { name: 'Attic', joinedBy: 'passphrase' } });
      expect(mayManage(caller)).toBe(true);
      const guest = await joined('Guest', '127.0.2.5');
      await ask('/', { cookie: guest.cookie });
      expect(mayManage(came.at(-1)!.caller)).toBe(false);
      expect(mayManage({ address: '127.0.0.9', device: null })).toBe(false);
      expect(mayManage(null)).toBe(true);
      await putHomeNetworkSetting(database, { ...setting, passphrase: null });
      await expect(join(database, by('four words make one'), '127.0.2.6')).rejects.toMatchObject({
        status: 401,
      });
    });
  });
});

it('no key lies where backups are made from', async () => {
  await openAuthority(directory, 'attic');
  expect(await readdir(directory)).toEqual(['network']);
  expect(await readFile(joinPath(directory, 'network', 'authority.key'), 'utf8')).toContain('PRIVATE KEY');
});
