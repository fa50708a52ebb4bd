import { execFileSync, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { cp, mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';

/*
 * How soon one screen sees what another marked: a page of the machine itself and one of a “tablet” (a second browser on
 * 127.0.0.2 over HTTPS that trusts the authority) on the largest demo canvas, beside how long the mark itself takes.
 * Wants a built program and demo data: `npx tsx bench/live.ts [data directory]`.
 */

const CANVAS = '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f03';
const MARKS = 60;
const PORT = 4490;
const BASE = `http://127.0.0.1:${PORT}`;

const data = await mkdtemp(join(tmpdir(), 'oculent-live-'));
await cp(process.argv[2] ?? 'var/data', data, { recursive: true });
const server = spawn(process.execPath, ['dist/server/start.mjs'], {
  env: {
    ...process.env,
    OCULENT_DATA: data,
    PORT: String(PORT),
    OCULENT_BACKUPS: 'off',
    OCULENT_HOME_ADDRESSES: '127.0.0.2',
  },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise<void>((resolve) =>
  server.stdout.on('data', (text) => String(text).includes('is open') && resolve()),
);
const ask = async (method: string, path: string, body?: object) =>
  (
    await fetch(`${BASE}${path}`, {
      method,
      ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    })
  ).json() as Promise<Record<string, unknown>>;
await ask('PATCH', '/api/devices/network', { on: true });

const home = join(data, 'home');
const store = `sql:${join(home, '.pki/nssdb')}`;
await mkdir(join(home, '.pki/nssdb'), { recursive: true });
execFileSync('certutil', ['-d', store, '-N', '--empty-password']);
execFileSync('certutil', [
  '-d',
  store,
  '-A',
  '-t',
  'C,,',
  '-n',
  'oculent',
  '-i',
  join(data, 'network/authority.crt'),
]);
const options = {
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
};
const [own, other] = [
  await chromium.launch(options),
  await chromium.launch({ ...options, env: { ...process.env, HOME: home } as Record<string, string> }),
];
const [desk, tablet] = [await own.newPage(), await other.newPage()];
const { code } = (await ask('POST', '/api/devices/codes')) as { code: string };
await tablet.goto(`https://127.0.0.2:${PORT + 1}/join#${code}`);
await tablet.getByRole('button', { name: 'Join', exact: true }).click();
await tablet.waitForURL((url) => !url.pathname.startsWith('/join'));
await desk.goto(`${BASE}/canvas/${CANVAS}/bench`);
await tablet.goto(`https://127.0.0.2:${PORT + 1}/canvas/${CANVAS}/bench`);
for (const page of [desk, tablet]) await page.getByText(/left here of/).waitFor();

/** From now on a page notes when what it says of the canvas changes, by the clock of the machine. */
const watch = (page: Page) =>
  page.evaluate(() => {
    const changed: number[] = [];
    (window as unknown as { changed: number[] }).changed = changed;
    new MutationObserver(() => changed.push(performance.timeOrigin + performance.now())).observe(
      document.querySelector('header')!,
      { subtree: true, characterData: true, childList: true },
    );
  });
await watch(desk);
await watch(tablet);
const firstChange = (page: Page, after: number) =>
  page.evaluate(
    (moment) => (window as unknown as { changed: number[] }).changed.find((at) => at > moment) ?? 0,
    after,
  );

const took: number[] = [];
const seen: Record<'desk' | 'tablet', number[]> = { desk: [], tablet: [] };
for (let i = 0; i < MARKS; i++) {
  const before = performance.timeOrigin + performance.now();
  await ask('POST', `/api/canvases/${CANVAS}/marks`, {
    id: randomUUID(),
    kind: i % 2 ? 'lift' : 'lay',
    runs: [840 * 300, 120],
  });
  took.push(performance.timeOrigin + performance.now() - before);
  await desk.waitForTimeout(400);
  for (const [name, page] of [
    ['desk', desk],
    ['tablet', tablet],
  ] as const) {
    const at = await firstChange(page, before);
    if (at > before) seen[name].push(at - before);
  }
}
const quantile = (of: number[], share: number) =>
  [...of].sort((a, b) => a - b)[Math.min(of.length - 1, Math.floor(of.length * share))]!;
const told = (name: string, of: number[]) =>
  console.log(
    `${name.padEnd(24)} ${String(of.length).padStart(3)} of ${MARKS}   p50 ${quantile(of, 0.5).toFixed(0).padStart(4)} ms   p95 ${quantile(of, 0.95).toFixed(0).padStart(4)} ms`,
  );
told('the mark itself', took);
told('seen at the desk', seen.desk);
told('seen at the tablet', seen.tablet);

await own.close();
await other.close();
server.kill('SIGTERM');
await rm(data, { recursive: true, force: true });
