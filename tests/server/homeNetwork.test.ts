import { X509Certificate } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { request as httpsRequest } from 'node:https';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join as joinPath } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { homeNetworkSetting, putHomeNetworkSetting } from '../../src/data/devices';
import type { KeptDatabase } from '../../src/data/engine/connection';
import type { Database } from '../../src/data/engine/database';
import type { Caller } from '../../src/server/devices/caller';
import { setHomeNetwork, theHomeNetwork } from '../../src/server/devices/homeNetwork';
import { join, openCode, sessionCookie, tokenOf } from '../../src/server/devices/joining';
import { openHome } from '../../src/server/devices/opening';
import { isPassphrase } from '../../src/server/devices/passphraseHash';
import { devicesView, homeOrigins } from '../../src/server/devices/view';
import { refuseGuests, setNetwork, showCode, signOut } from '../../src/server/devices/writes';
import { liveHub } from '../../src/server/live/hub';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { noGuesses } from './noGuesses';

const ADDRESS = '127.0.0.2';
let database: Database;
let directory: string;
let port: number;
let printed: string[];
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());
beforeEach(async () => {
  noGuesses();
  directory = await mkdtemp(joinPath(tmpdir(), 'oculent-home-'));
  port = await freePort();
  printed = [];
  for (const way of ['log', 'error'] as const) {
    vi.spyOn(console, way).mockImplementation((...words) => void printed.push(words.join(' ')));
  }
  vi.stubEnv('OCULENT_HOME_ADDRESSES', ADDRESS);
  vi.stubEnv('OCULENT_HOME_PORT', String(port));
  vi.stubEnv('OCULENT_PASSPHRASE', '');
});
afterEach(async () => {
  noGuesses();
  vi.restoreAllMocks();
  await theHomeNetwork()?.turnOff();
  setHomeNetwork(null as never);
  await database.query('delete from home_network');
  await database.query('delete from device_session');
  await database.query('delete from device');
  await rm(directory, { recursive: true, force: true });
});

/** A port that is free on an address that stands for another machine. */
function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, ADDRESS, () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

const openedAt = (loopback: number) =>
  openHome(Object.assign(Object.create(database), { directory }) as KeptDatabase, loopback, (_, response) =>
    response.end('inside'),
  );
const DESK = { on: false, deskName: 'Desk', passphrase: null };
const by = (joinedBy: 'code' | 'passphrase', id: string = crypto.randomUUID()): Caller => ({
  address: '127.0.0.9',
  device: { id, name: 'Tablet', joinedBy },
});

/** Asks over HTTPS under the authority alone. */
function ask(path: string, cookie = ''): Promise<{ status: number; certificate: X509Certificate }> {
  const ca = theHomeNetwork()!.authorityCertificate()!;
  return new Promise((resolve, reject) => {
    const options = { host: ADDRESS, port, path, headers: { cookie }, ca, agent: false, servername: '' };
    const sent = httpsRequest(options, (response) => {
      const { raw } = (
        response.socket as unknown as { getPeerCertificate(): { raw: Buffer } }
      ).getPeerCertificate();
      response.resume();
      response.once('end', () =>
        resolve({ status: response.statusCode!, certificate: new X509Certificate(raw) }),
      );
    });
    sent.on('error', reject);
    sent.end();
  });
}

describe('how the home network is set', () => {
  it.each([
    ['OCULENT_HOME_NETWORK', 'yes', 'must be on or off, not “yes”'],
    ['OCULENT_HOME_PORT', '0', 'from 1 to 65535, not “0”'],
    ['OCULENT_HOME_PORT', '65536', 'from 1 to 65535, not “65536”'],
    ['OCULENT_HOME_PORT', '44.5', 'from 1 to 65535, not “44.5”'],
    ['OCULENT_HOME_PORT', 'front door', 'from 1 to 65535, not “front door”'],
  ])('is refused where %s is %s', async (name, value, words) => {
    vi.stubEnv(name, value);
    await expect(openedAt(4470)).rejects.toThrow(words);
    expect(theHomeNetwork()).toBeNull();
  });

  it('is the port after that of the machine where nothing else is said', async () => {
    vi.stubEnv('OCULENT_HOME_PORT', undefined);
    await openedAt(4470);
    expect(theHomeNetwork()!.state()).toMatchObject({ port: 4471, listening: false });
    vi.stubEnv('OCULENT_HOME_PORT', '65535');
    await openedAt(4470);
    expect(theHomeNetwork()!.state().port).toBe(65_535);
  });

  it.each([
    ['', false, false],
    ['', true, true],
    ['off', true, false],
    ['on', false, true],
  ])('is listened to where %j is wished and the setting is %s: %s', async (wish, on, listens) => {
    vi.stubEnv('OCULENT_HOME_NETWORK', wish);
    await putHomeNetworkSetting(database, { ...DESK, on });
    await openedAt(4470);
    expect(theHomeNetwork()!.state().listening).toBe(listens);
    expect(homeOrigins()[0]).toBe(listens ? `https://${ADDRESS}:${port}` : undefined);
    const told = printed.join('\n');
    expect(told.includes(`Other devices find Oculent at https://${ADDRESS}:${port}/`)).toBe(listens);
    // A code is printed where there is no screen to show one, and only there.
    expect(/joins with the code [0-9A-Z]{4}-[0-9A-Z]{4} within ten minutes/.test(told)).toBe(wish === 'on');
    if (wish === 'on') {
      expect(told).toContain(`at https://${ADDRESS}:${port}/join`);
      const [, code] = /the code (\S+)/.exec(told)!;
      const { device } = await join(database, { code: code!, passphrase: null, name: 'First' }, '127.0.4.1');
      expect(device.name).toBe('First');
      printed.length = 0;
      await theHomeNetwork()!.turnOff();
      await openedAt(4470);
      expect(printed.join('\n')).not.toContain('the code');
    }
  });

  it('says why it does not listen, and Oculent opens all the same', async () => {
    vi.stubEnv('OCULENT_HOME_NETWORK', 'on');
    const taken = createServer();
    await new Promise<void>((resolve) => taken.listen(port, ADDRESS, resolve));
    await openedAt(4470);
    expect(printed.join('\n')).toContain(`does not listen: Port ${port} is taken on ${ADDRESS}`);
    expect(printed.join('\n')).not.toContain('the code');
    await new Promise((resolve) => taken.close(resolve));
  });

  it('lets in who has joined, under a certificate for each of its names', async () => {
    vi.stubEnv('OCULENT_HOME_NETWORK', 'on');
    await openedAt(4470);
    const { certificate, status } = await ask('/api/canvases');
    expect(status).toBe(401);
    for (const name of ['localhost', ...theHomeNetwork()!.state().hosts.slice(1)]) {
      expect(certificate.checkHost(name), name).toBeDefined();
    }
    for (const address of [ADDRESS, '127.0.0.1']) expect(certificate.checkIP(address)).toBeDefined();
    expect(certificate.ca).toBe(false);
    const { token } = await join(
      database,
      { code: openCode().code, passphrase: null, name: 'Pad' },
      '127.0.4.2',
    );
    const [cookie] = sessionCookie(token).split(';');
    expect((await ask('/api/canvases', cookie)).status).toBe(200);
    // Beside cookies of others, however they are spaced.
    expect((await ask('/api/canvases', `theme=evening;   ${cookie}`)).status).toBe(200);
    expect(tokenOf(`${cookie}0`)).toBeNull();
  });
});

describe('who may change who comes in', () => {
  it('is the machine itself, and who joined with the passphrase', () => {
    expect(() => refuseGuests(null)).not.toThrow();
    expect(() => refuseGuests(by('passphrase'))).not.toThrow();
    for (const caller of [by('code'), { address: '127.0.0.9', device: null }]) {
      expect(() => refuseGuests(caller)).toThrow(
        expect.objectContaining({ status: 403, message: expect.stringContaining('at the machine itself') }),
      );
    }
  });

  it('sees each device, itself among them, and wrong tries only where it may act on them', async () => {
    vi.stubEnv('OCULENT_HOME_NETWORK', 'on');
    await openedAt(4470);
    const joined = async (name: string, address: string) =>
      (await join(database, { code: openCode().code, passphrase: null, name }, address)).device;
    const [own, other] = [await joined('Tablet', '127.0.5.1'), await joined('Phone', '127.0.5.2')];
    await join(database, { code: '2222-2222', passphrase: null, name: 'Guess' }, '127.0.5.3').catch(() => {});
    const seen = await devicesView(database, by('code', own.id));
    expect(new Map(seen.devices.map(({ id, own }) => [id, own]))).toEqual(
      new Map([
        [own.id, true],
        [other.id, false],
      ]),
    );
    expect(seen).toMatchObject({ mayManage: false, wrongTries: [] });
    const atTheMachine = await devicesView(database, null);
    expect(atTheMachine).toMatchObject({
      mayManage: true,
      network: { listening: true, urls: homeOrigins(), hasPassphrase: false, fault: null },
    });
    expect(atTheMachine.devices.every(({ own }) => !own)).toBe(true);
    const [tries] = atTheMachine.wrongTries.filter(({ address }) => address === '127.0.5.3');
    expect(tries).toMatchObject({ wrong: 1 });
    expect(tries!.secondsAgo).toBeLessThanOrEqual(60);
    expect(atTheMachine.network.fingerprint).toMatch(/^([0-9A-F]{2}[: ]?){32}$/i);
  });

  it('signs one device out, or all, and closes what it follows', async () => {
    const canvas = await shelve(database, [line(1)], chartOfRows('11'));
    const joined = async (name: string, address: string) =>
      (await join(database, { code: openCode().code, passphrase: null, name }, address)).device;
    const [first, second] = [await joined('One', '127.0.6.1'), await joined('Two', '127.0.6.2')];
    const hub = await liveHub(database);
    const closed: string[] = [];
    for (const device of [first, second]) {
      const close = () => {
        closed.push(device.name);
        stop?.();
      };
      const stop = await hub.read(canvas.id, { device, send: () => {}, close }, null);
    }
    await signOut(database, first.id);
    expect(closed).toEqual(['One']);
    const signedIn = async () =>
      (await devicesView(database, null)).devices
        .filter(({ lastSeenAt }) => lastSeenAt !== null)
        .map(({ name }) => name);
    expect(await signedIn()).toEqual(['Two']);
    await signOut(database, null);
    expect(closed).toEqual(['One', 'Two']);
    expect(await signedIn()).toEqual([]);
  });
});

describe('the setting', () => {
  it('is changed in what is named, and the network follows its switch', async () => {
    await openedAt(4470);
    await expect(showCode()).rejects.toThrow('Switch the home network on first');
    await setNetwork(database, { on: true, passphrase: 'four words make one' });
    expect(theHomeNetwork()!.state().listening).toBe(true);
    await setNetwork(database, { deskName: 'Attic desk' });
    const setting = await homeNetworkSetting(database);
    expect(setting).toMatchObject({ on: true, deskName: 'Attic desk' });
    expect(await isPassphrase('four words make one', setting.passphrase!)).toBe(true);
    expect((await devicesView(database, null)).network).toMatchObject({
      hasPassphrase: true,
      deskName: 'Attic desk',
    });
    const { code, seconds, ways } = await showCode();
    expect(seconds).toBe(600);
    expect(ways.map(({ url }) => url)).toEqual(homeOrigins().map((origin) => `${origin}/join`));
    expect(ways[0]!.qr).toContain('<svg');
    await join(database, { code, passphrase: null, name: 'Tablet' }, '127.0.7.1');
    await setNetwork(database, { passphrase: null, on: false });
    expect(await homeNetworkSetting(database)).toMatchObject({ on: false, passphrase: null });
    expect(theHomeNetwork()!.state()).toMatchObject({ listening: false, hosts: [] });
  });

  it('does not come on where nothing can listen, and says so', async () => {
    await expect(setNetwork(database, { on: true })).rejects.toThrow('only there in the built program');
    expect((await homeNetworkSetting(database)).on).toBe(false);
    expect((await devicesView(database, null)).network).toMatchObject({
      on: false,
      listening: false,
      urls: [],
      fault: expect.stringContaining('only there in the built program'),
    });
    await setNetwork(database, { deskName: 'Elsewhere' });
    expect((await homeNetworkSetting(database)).deskName).toBe('Elsewhere');
  });

  it('knows the passphrase of the environment however its signs are typed', async () => {
    vi.stubEnv('OCULENT_PASSPHRASE', 'Café am Ufer 1907');
    const wish = (passphrase: string) => ({ code: null, passphrase, name: 'Pad' });
    await expect(join(database, wish('Cafe am Ufer 1907'), '127.0.8.1')).rejects.toMatchObject({
      status: 401,
    });
    const { device } = await join(database, wish('Cafe\u0301 am Ufer 1907'), '127.0.8.2');
    expect(device.name).toBe('Pad');
    expect((await devicesView(database, null)).network.hasPassphrase).toBe(true);
  });

  it('counts a wrong code as a guess also when the right one has just run out', async () => {
    vi.useFakeTimers({ toFake: ['performance'] });
    try {
      openCode();
      vi.advanceTimersByTime(601_000);
      const wish = { code: '2222-2222', passphrase: null, name: 'Pad' };
      const statuses: number[] = [];
      for (let i = 0; i < 5; i++) {
        await join(database, wish, '127.0.9.1').catch((error: { status: number; message: string }) => {
          statuses.push(error.status);
          if (error.status === 429)
            expect(error.message).toMatch(/Wait 1 second, then|Wait \d+ seconds, then/);
        });
      }
      expect(statuses).toEqual([401, 401, 401, 401, 429]);
    } finally {
      vi.useRealTimers();
    }
  });
});
