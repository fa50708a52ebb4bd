import { randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { createServer, request as httpRequest, type Server } from 'node:http';
import { request as httpsRequest } from 'node:https';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import jsQR from 'jsqr';
import sharp from 'sharp';
import { percentLaid } from '../../src/core/progress/progress';
import { dayIn } from '../../src/core/words/calendar';
import { DEMO } from './bench';
import { type RunningServer, startDemoServer, startServer, stop } from './server';
import { closeAll, homeUrl, joinedDevice, newCode, type OtherDevice, switchOn } from './tablet';

test.describe.configure({ mode: 'serial' });

let server: RunningServer;
const devices: OtherDevice[] = [];
const keep = (device: OtherDevice) => {
  devices.push(device);
  return device;
};
test.beforeAll(async () => {
  server = await startDemoServer();
});
test.afterAll(() => closeAll(server, devices));

const canvas = DEMO.kingfisher;
const api = (path = '') => `${server.url}/api/canvases/${canvas}${path}`;
const bench = (base: string) => `${base}/canvas/${canvas}/bench`;
async function laid(): Promise<number> {
  return ((await (await fetch(api('/stamp'))).json()) as { laid: number }).laid;
}
/** Squares that want a drill and have none, the first of them first. */
async function bare(): Promise<number[]> {
  const [bits, cells] = await Promise.all(
    ['/bitmap', '/chart'].map(async (path) => new Uint8Array(await (await fetch(api(path))).arrayBuffer())),
  );
  const lines = new DataView(cells!.buffer);
  return Array.from({ length: cells!.length / 2 }, (_, cell) => cell).filter(
    (cell) => lines.getUint16(cell * 2, true) > 0 && !(bits![cell >> 3]! & (1 << (cell & 7))),
  );
}
function mark(cell: number, kind = 'lay'): Promise<Response> {
  return fetch(api('/marks'), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), kind, runs: [cell, 1] }),
  });
}
/** Lays so many drills that a header shows it. */
async function markSome(): Promise<void> {
  for (const cell of (await bare()).slice(0, 5)) await mark(cell);
}
/** What the header of a page says of the canvas, to two places. */
const percentOn = (page: Page) => page.locator('header').getByText(/% laid/);
const inPercent = (drills: number) => `${percentLaid(drills, 19_200).toFixed(2)} % laid`;

test('is off at first; switched on, it lets a device in by a code that another decoder reads', async ({
  page,
}) => {
  await expect(fetch(homeUrl(server))).rejects.toThrow();
  await page.goto(`${server.url}/devices`);
  await expect(page.getByText('Only this machine can open Oculent')).toBeVisible();
  await page.getByRole('button', { name: 'Switch it on' }).click();
  await expect(page.getByText('Devices of this house can open Oculent')).toBeVisible();
  await page.getByRole('button', { name: 'Let a device join' }).click();
  const code = await page.getByTestId('join-code').textContent();
  const source = await page.getByAltText(/^QR code that opens/).getAttribute('src');
  const svg = decodeURIComponent(source!.split(',').slice(1).join(','));
  const { data, info } = await sharp(Buffer.from(svg), { density: 300 })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const read = jsQR(Uint8ClampedArray.from(data), info.width, info.height)!.data;
  expect(read).toBe(`${homeUrl(server)}/join#${code}`);

  const tablet = keep(await joinedDevice(server, 'Tablet'));
  // That opened a code of its own; the one on the screen is void, and the device is in the list without a reload.
  await expect(page.getByRole('listitem').filter({ hasText: 'Tablet' })).toContainText('with a code');
  await expect(page.getByTestId('join-code')).toHaveCount(0);
  expect(await tablet.page.evaluate(() => window.isSecureContext)).toBe(true);
  expect(await tablet.page.evaluate(() => document.cookie)).not.toContain('__Host-oculent');
  await tablet.page.goto(`${homeUrl(server)}/devices`);
  await expect(tablet.page.getByText('This device', { exact: true })).toBeVisible();
  await expect(tablet.page.getByRole('button', { name: 'Switch it off' })).toHaveCount(0);
  const refused = await tablet.page.request
    .fetch(`${homeUrl(server)}/api/devices/network`, {
      method: 'PATCH',
      data: { on: false },
    })
    .catch(() => null);
  expect(refused?.status() ?? 403).toBe(403);
});

test('a stranger and another site get nothing', async () => {
  const ask = (path: string, headers: Record<string, string>) =>
    new Promise<{ status: number; body: string }>((resolve, reject) => {
      const sent = httpsRequest(
        `${homeUrl(server)}${path}`,
        { headers, rejectUnauthorized: false },
        (response) => {
          let body = '';
          response.on('data', (text) => {
            body += text;
          });
          response.on('end', () => resolve({ status: response.statusCode!, body }));
        },
      );
      sent.on('error', reject);
      sent.end();
    });
  for (const path of [
    '/',
    `/canvas/${canvas}/bench`,
    '/api/canvases',
    `/Q/${canvas.slice(-8)}/1`,
    '/nowhere',
  ]) {
    const { status, body } = await ask(path, {});
    expect([path, status]).toEqual([path, 401]);
    expect(body).not.toContain('Kingfisher');
  }
  // What looks like a file of the program leads to nothing else.
  for (const path of ['/_astro/..%2fapi/canvases', '/_astro/../../api/canvases', '/_astro//api/canvases']) {
    const { status, body } = await ask(path, {});
    expect([path, status >= 400]).toEqual([path, true]);
    expect(body).not.toContain('Kingfisher');
  }
  expect((await ask('/join', { host: 'evil.example' })).status).toBe(421);
  expect((await ask('/join', {})).body).not.toContain('Kingfisher');

  // A page of another site sends a form on the tablet's behalf: its cookie is not sent along.
  const form = `<form method="post" enctype="text/plain" action="${homeUrl(server)}/api/canvases/${canvas}/marks"><button>go</button></form>`;
  const evil: Server = createServer((_, response) => {
    response.setHeader('content-type', 'text/html');
    response.end(form);
  });
  await new Promise<void>((resolve) => evil.listen(0, '127.0.0.1', resolve));
  const before = await laid();
  const { page } = devices[0]!;
  await page.goto(`http://127.0.0.1:${(evil.address() as AddressInfo).port}/`);
  await page.getByRole('button', { name: 'go' }).click();
  await expect(page.getByText(/has not joined|Not from another site/)).toBeVisible();
  expect(await laid()).toBe(before);
  evil.close();
});

test('what one screen does is seen on the other, who has it open is said, and both end alike', async ({
  page,
}) => {
  const tablet = devices[0]!.page;
  await page.goto(bench(server.url));
  await tablet.goto(bench(homeUrl(server)));
  await expect(page.getByText('Also open at “Tablet”')).toBeVisible();
  await expect(tablet.getByText('Also open at “Desk”')).toHaveCount(1);
  const start = await laid();
  await page.getByRole('button', { name: /^All of it laid/ }).click();
  await expect.poll(laid).toBeGreaterThan(start);
  await expect(percentOn(tablet)).toContainText(inPercent(await laid()));
  // The tablet's undo acts on what it did itself; what the desk did it names.
  await tablet.getByRole('button', { name: /^Undo/ }).hover();
  await expect(tablet.getByRole('button', { name: /^Undo: .* laid/ })).toBeVisible();
  await markSome();
  await expect(percentOn(tablet)).toContainText(inPercent(await laid()));
  await expect(percentOn(page)).toContainText(inPercent(await laid()));
  // Sittings and bad drills too.
  await tablet.getByRole('button', { name: 'Start a sitting' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await tablet.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Start a sitting' })).toBeVisible();
});

test('pages that show bags, pots and the cut follow; others say what was changed and where', async ({
  page,
}) => {
  const tablet = devices[0]!.page;
  const id = DEMO.lantern;
  await page.goto(`${server.url}/canvas/${id}/checkin`);
  await tablet.goto(`${homeUrl(server)}/canvas/${id}/checkin`);
  const toFind = (of: Page) => of.getByText(/^[\d,]+ bags to find$/);
  const field = tablet.getByLabel('Code on this bag');
  const before = Number((await toFind(tablet).textContent())!.split(' ')[0]);
  await field.fill('207');
  await field.press('Enter');
  // On both, so that what comes next is another change.
  for (const each of [tablet, page]) await expect(toFind(each)).toHaveText(`${before - 1} bags to find`);
  await expect(page.getByText(/was changed|were changed/)).toHaveCount(0);
  // The placing page shows no bags. Who changed them is told by the stream alone, which a busy machine opens late.
  const streaming = page.waitForResponse((answer) => answer.url().includes('/api/events'));
  await page.goto(`${server.url}/canvas/${id}/placing`);
  await streaming;
  await expect(page.getByText('Also open at “Tablet”')).toBeVisible();
  await field.fill('207');
  await field.press('Enter');
  await expect(page.getByText('The bags were changed on another page, at “Tablet”.')).toBeVisible();
});

test('who changed something is told, also while another page says where it is', async () => {
  const canvas = `${server.url}/api/canvases/${DEMO.lantern}`;
  const [writer, other] = [randomUUID(), randomUUID()];
  const stream = new AbortController();
  const { body } = await fetch(`${server.url}/api/events?canvas=${DEMO.lantern}`, { signal: stream.signal });
  const events = body!.pipeThrough(new TextDecoderStream()).getReader();
  let told = '';
  const heard = async (what: RegExp) => {
    while (!what.test(told)) told += (await events.read()).value;
  };
  await heard(/event: here/);
  // The other page has begun to say so, and the rest of it is on its way.
  const front = httpRequest(`${canvas}/in-front`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json', 'x-oculent-screen': other },
  });
  front.write('{"section": 1, ');
  const bag = { id: randomUUID(), line: 3, drills: 140 };
  const counted = await fetch(`${canvas}/bags`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-oculent-screen': writer },
    body: JSON.stringify(bag),
  });
  expect(counted.status).toBe(201);
  await heard(/event: changed\ndata: .*bags/);
  expect(told).toContain(writer);
  const answered = new Promise<number>((resolve) => {
    front.on('response', (response) => resolve(response.resume().statusCode!));
  });
  front.end('"line": 3}');
  expect(await answered).toBe(200);
  stream.abort();
});

test('two tabs of a device share one stream, which passes on when its tab is closed', async () => {
  const { context } = devices[0]!;
  const streams: string[] = [];
  const [first, second] = [await context.newPage(), await context.newPage()];
  for (const [name, tab] of [
    ['first', first],
    ['second', second],
  ] as const) {
    tab.on('request', (request) => request.url().includes('/api/events') && streams.push(name));
  }
  await devices[0]!.page.goto('about:blank');
  await first.goto(bench(homeUrl(server)));
  await expect.poll(() => streams.length).toBeGreaterThan(0);
  await second.goto(bench(homeUrl(server)));
  const next = async () => {
    await markSome();
    return inPercent(await laid());
  };
  const shown = await next();
  for (const tab of [first, second]) await expect(percentOn(tab)).toContainText(shown);
  expect(new Set(streams)).toEqual(new Set(['first']));
  await first.close();
  await expect(percentOn(second)).toContainText(await next());
  await expect.poll(() => streams).toContain('second');
  await second.close();
});

test('an hour without an answer: the tablet opens the canvas, marks, and brings everything over once', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const tablet = devices[0]!.page;
  await tablet.goto(`${homeUrl(server)}/canvas/${canvas}/kitup`);
  // Another page of the canvas is enough for the bench to be kept, as it stands now.
  const { stamp } = (await (await fetch(api('/stamp'))).json()) as { stamp: string };
  const kept = (path: string) =>
    tablet.evaluate(async (url) => (await caches.match(url))?.headers.get('x-oculent-stamp'), path);
  await expect
    .poll(async () => (await kept(`/api/canvases/${canvas}/bitmap`))?.split('-')[1])
    .toBe(stamp.split('-')[1]);
  await expect
    .poll(() =>
      tablet.evaluate(async (url) => Boolean(await caches.match(url)), `/api/canvases/${canvas}/time-model`),
    )
    .toBe(true);
  const start = await laid();
  const squares = await bare();
  // The home network is off; the desk works on.
  await fetch(`${server.url}/api/devices/network`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ on: false }),
  });
  await tablet.goto(bench(homeUrl(server)));
  await expect(tablet.getByRole('button', { name: /^All of it laid/ })).toBeVisible();
  const slip = await tablet
    .getByText(/left here of/)
    .locator('..')
    .textContent();
  const left = Number(/(\d+) ?left here/.exec(slip ?? '')![1]);
  // The clock runs too; the marks are of its sitting.
  await tablet.getByRole('button', { name: 'Start a sitting' }).click();
  await expect(tablet.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await tablet.getByRole('button', { name: /^All of it laid/ }).click();
  await expect(tablet.getByText(/2 changes wait here/)).toBeVisible();
  // Over a reload all of it is still there, and counted.
  await tablet.reload();
  await expect(tablet.getByText(/2 changes wait here/)).toBeVisible();
  // What time it is at the machine is not learnt from an answer that is kept here.
  const dateOf = (path: string) =>
    tablet.evaluate(async (url) => [(await fetch(url)).status, (await fetch(url)).headers.get('date')], path);
  expect(await dateOf(`/api/canvases/${canvas}/bitmap`)).toEqual([200, null]);
  await tablet.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(tablet.getByText(/3 changes wait here/)).toBeVisible();
  await expect(percentOn(tablet)).toContainText(inPercent(start + left));
  // A page that was never opened here says so.
  await tablet.goto(`${homeUrl(server)}/stitches`);
  await expect(tablet.getByRole('heading', { name: 'This page is not kept on this device' })).toBeVisible();
  await tablet.goto(bench(homeUrl(server)));
  // Meanwhile the desk lays one of the same squares, and one that the tablet did not.
  const waiting = await tablet.evaluate(async () => {
    const open = indexedDB.open('oculent-outbox');
    const database = await new Promise<IDBDatabase>((resolve) => {
      open.onsuccess = () => resolve(open.result);
    });
    const all = database.transaction('waiting').objectStore('waiting').getAll();
    return new Promise<{ url: string; body: { runs: number[] } }[]>((resolve) => {
      all.onsuccess = () => resolve(all.result);
    });
  });
  const { runs } = waiting.find(({ url }) => url.endsWith('/marks'))!.body;
  const same = runs[0]!;
  const covered = new Set<number>();
  for (let i = 0; i < runs.length; i += 2) {
    for (let n = 0; n < runs[i + 1]!; n++) covered.add(runs[i]! + n);
  }
  const other = squares.find((cell) => !covered.has(cell))!;
  await mark(same);
  await mark(other);
  await page.goto(bench(server.url));
  // The machine is switched on again a day later, as the tablet's clock has it: the marks are of yesterday.
  const laidOn = async (day: string) => {
    const rows = (await (await fetch(api('/days.csv?zone=UTC'))).text()).split(/\r?\n/);
    return Number(rows.map((row) => row.split(',')).find(([of]) => of === day)?.[1] ?? 0);
  };
  const yesterday = dayIn('UTC', Date.now() - 86_400_000);
  const before = await laidOn(yesterday);
  const sittingsOf = async (day: string) => {
    const rows = (await (await fetch(api('/sittings.csv'))).text()).split(/\r?\n/);
    return rows.filter((row) => row.startsWith(day)).map((row) => row.split(',')[3]);
  };
  const sittings = await sittingsOf(yesterday);
  await tablet.clock.setSystemTime(Date.now() + 86_400_000);
  await switchOn(server);
  await expect.poll(laid, { timeout: 30_000 }).toBe(start + left + 1);
  await expect(
    tablet.getByText(/1 drill that you marked here while Oculent was away was marked the same way/),
  ).toBeVisible();
  for (const shown of [page, tablet])
    await expect(percentOn(shown)).toContainText(inPercent(start + left + 1));
  await tablet.getByRole('button', { name: 'Understood' }).click();
  // Nothing is left to send, and nothing came twice.
  await tablet.reload();
  await expect(tablet.getByText(/waits here/)).toHaveCount(0);
  expect(await laid()).toBe(start + left + 1);
  expect((await laidOn(yesterday)) - before).toBe(left - 1);
  expect((await sittingsOf(yesterday)).toSorted()).toEqual([...sittings, String(left - 1)].toSorted());
});

test('a server that is killed and comes back is found again by pages that stayed open', async ({ page }) => {
  const tablet = devices[0]!.page;
  await tablet.goto(bench(homeUrl(server)));
  await page.goto(bench(server.url));
  for (const shown of [page, tablet]) await expect(shown.getByText(/left here of/)).toBeVisible();
  await stop(server, 'SIGKILL');
  server = await startServer(server.data, server.port);
  await markSome();
  for (const shown of [page, tablet])
    await expect(percentOn(shown)).toContainText(inPercent(await laid()), { timeout: 20_000 });
});

test('can be installed, as Chromium sees it', async () => {
  const { context, page } = devices[0]!;
  await page.goto(`${homeUrl(server)}/`);
  const session = await context.newCDPSession(page);
  expect(await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state)).toBe(
    'activated',
  );
  const { errors } = (await session.send('Page.getAppManifest')) as { errors: unknown[] };
  const { installabilityErrors } = (await session.send('Page.getInstallabilityErrors')) as {
    installabilityErrors: unknown[];
  };
  expect([errors, installabilityErrors]).toEqual([[], []]);
});

test('a phone reads the printed label with its camera, and counts a bag only when that is agreed to', async () => {
  test.setTimeout(120_000);
  // The label as it is printed, with the address under which the phone finds this machine.
  const sheet = await (
    await fetch(`${server.url}/api/canvases/${DEMO.lantern}/labels.svg?format=cards&colours=207`)
  ).text();
  const picture = sharp(Buffer.from(sheet), { density: 300 });
  const { width = 0, height = 0 } = await picture.metadata();
  const { data, info } = await picture
    .flatten({ background: '#fff' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const found = jsQR(Uint8ClampedArray.from(data), info.width, info.height)!;
  expect(found.data).toMatch(new RegExp(`^HTTPS://127\\.0\\.0\\.2:${server.port + 1}/Q/[0-9A-F]{8}/\\d+$`));
  const { topLeftCorner: from, bottomRightCorner: to } = found.location;
  const side = Math.round(Math.max(to.x - from.x, to.y - from.y));
  const label = await sharp(Buffer.from(sheet), { density: 300 })
    .flatten({ background: '#fff' })
    .extract({
      left: Math.max(0, Math.round(from.x - side / 4)),
      top: Math.max(0, Math.round(from.y - side / 4)),
      width: Math.min(Math.round(side * 1.5), width - Math.round(from.x - side / 4)),
      height: Math.min(Math.round(side * 1.5), height - Math.round(from.y - side / 4)),
    })
    .resize({ width: 300 })
    .rotate(-7, { background: '#cfc8bd' })
    .toBuffer();
  const video = join(server.data, 'label.y4m');
  await writeFile(video, await asVideo(label));
  const phone = keep(
    await joinedDevice(server, 'Phone', {
      viewport: { width: 390, height: 844 },
      args: [
        '--use-fake-ui-for-media-stream',
        '--use-fake-device-for-media-stream',
        `--use-file-for-fake-video-capture=${video}`,
      ],
    }),
  );
  const bags = async () =>
    ((await (await fetch(`${server.url}/api/canvases/${DEMO.lantern}/bags`)).json()) as { bags: unknown[] })
      .bags.length;
  const before = await bags();
  await phone.page.goto(`${homeUrl(server)}/canvas/${DEMO.lantern}/checkin`);
  await phone.page.getByRole('button', { name: 'Read a code with the camera' }).click();
  const count = phone.page.getByRole('button', { name: 'Count one bag' });
  await expect(count).toBeVisible({ timeout: 30_000 });
  expect(await bags()).toBe(before);
  await count.click();
  await expect(phone.page.getByText(/done\. The next one, please/)).toBeVisible();
  await expect.poll(bags).toBe(before + 1);
  // The same label opened as a link leads to its colour on this device.
  await phone.page.goto(found.data.replace('HTTPS', 'https'));
  await expect(phone.page).toHaveURL(/\/kitup\?colour=\d+$/);
});

test('a device that is signed out is out at once, and keeps nothing', async ({ page }) => {
  const tablet = devices[0]!.page;
  await tablet.goto(bench(homeUrl(server)));
  await page.goto(`${server.url}/devices`);
  await page.getByRole('button', { name: 'Sign out Tablet' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Tablet' })).toContainText('Signed out');
  await tablet.goto(bench(homeUrl(server)));
  await expect(tablet.getByRole('heading', { name: 'This device has not joined yet' })).toBeVisible();
  const kept = () =>
    tablet.evaluate(async () => {
      const all: string[] = [];
      for (const name of await caches.keys()) {
        if (!name.startsWith('oculent')) continue;
        for (const { url } of await (await caches.open(name)).keys()) all.push(url);
      }
      return all;
    });
  // The page is there before its program, which throws away what was kept.
  await expect.poll(kept).toEqual([]);
  // Back with a new code, typed by hand in small letters.
  const code = await newCode(server);
  await tablet.getByLabel('Code that the other screen shows').fill(code.toLowerCase().replace('-', ' '));
  await tablet.getByRole('button', { name: 'Join', exact: true }).click();
  // The bench adds to its address what it shows.
  await expect(tablet).toHaveURL((url) => url.href.startsWith(bench(homeUrl(server))));
});

/** A video of one picture, as Chromium takes it for a camera (YUV4MPEG2, grey). */
async function asVideo(picture: Buffer): Promise<Buffer> {
  const [width, height] = [640, 480];
  const { data, info } = await sharp({ create: { width, height, channels: 3, background: '#8a8378' } })
    .composite([{ input: picture }])
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const grey = Buffer.from(data.filter((_, i) => i % info.channels === 0));
  const frame = Buffer.concat([Buffer.from('FRAME\n'), grey, Buffer.alloc((width * height) / 2, 128)]);
  return Buffer.concat([
    Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`),
    ...Array<Buffer>(10).fill(frame),
  ]);
}
