import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { type BrowserContext, chromium, type Page } from '@playwright/test';
import { applyMark } from '../src/core/bench/marking';
import { countLaid, isLaid } from '../src/core/cells/bitmap';
import { bitmapOf, putBitmap, replayMarks, runsToBytes } from '../src/data/bench';
import { findCanvas } from '../src/data/canvas';
import { chartOf } from '../src/data/chart';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { digestOf } from '../src/data/once';

/*
 * An hour at the bench of the largest demo canvas, as a script: by keyboard, by touch, by pedal and voice, beside a second
 * device that works too, with a year of marks in the ledger; the server is killed three times meanwhile. Prints how soon
 * the bench opens, how soon marks are acknowledged, actions for 100 drills, and whether anything acknowledged was lost or
 * doubled. Wants a built program and demo data: `npx tsx bench/hour.ts [data directory]`.
 */

const CANVAS = '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f03';
const LEDGER_ROWS = 50_000;
const PORT = 4491;
const BASE = `http://127.0.0.1:${PORT}`;
const STEPS = { keyboard: 150, touch: 80, voice: 60 };

const data = await mkdtemp(join(tmpdir(), 'oculent-hour-'));
await cp(process.argv[2] ?? 'var/data', data, { recursive: true });
await yearOfMarks();
let server = await start();
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});
const acknowledged = new Set<string>();
const latencies: number[] = [];
let stopped = false;

try {
  const second = secondDevice();
  const desk = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await opened(desk, {});
  console.log(
    `opens ${(await openTime(page)).toFixed(0)} ms after its bytes, with ${LEDGER_ROWS} rows more in the ledger`,
  );
  await section(page, 'keyboard', STEPS.keyboard, () => page.keyboard.press('Enter'));
  await desk.close();
  const tablet = await browser.newContext({ viewport: { width: 820, height: 1180 }, hasTouch: true });
  const touch = await opened(tablet, {});
  await section(touch, 'touch', STEPS.touch, () => touch.getByRole('button', { name: 'Lay it' }).tap());
  await tablet.close();
  const ear = await browser.newContext({ viewport: { width: 1180, height: 820 } });
  const voice = await opened(ear, { guide: 'rows', voice: true });
  await section(voice, 'pedal and voice', STEPS.voice, () => voice.keyboard.press('PageDown'));
  stopped = true;
  await second;
  await browser.close();
  await end(server);
  await check();
} finally {
  stopped = true;
  await browser.close();
  server.kill('SIGKILL');
  await rm(data, { recursive: true, force: true });
}

/** Lays single drills all over what is bare, each a row of the ledger; many rows a statement, which is quicker. */
async function yearOfMarks(): Promise<void> {
  const database = await openDataDirectory(data);
  const canvas = (await findCanvas(database, CANVAS))!;
  const chart = (await chartOf(database, canvas))!;
  const cells = chart.cells.length;
  const laid = await bitmapOf(database, CANVAS, cells);
  const chosen: number[] = [];
  for (let cell = cells - 1; chosen.length < LEDGER_ROWS && cell > 0; cell -= 3) {
    if (chart.cells[cell] !== 0 && !isLaid(laid, cell)) chosen.push(cell);
  }
  applyMark(
    laid,
    'lay',
    chosen.flatMap((cell) => [cell, 1]),
  );
  await database.transaction(async (queries) => {
    for (let from = 0; from < chosen.length; from += 5000) {
      const rows = chosen.slice(from, from + 5000);
      await queries.query(
        `insert into mark (id, canvas_id, happened_at, kind, cells, drills, line, digest)
         select n.id, $1, n.at, 'lay', n.cells, 1, n.line, n.digest
         from unnest($2::uuid[], $3::timestamptz[], $4::bytea[], $5::int[], $6::text[]) as n (id, at, cells, line, digest)`,
        [
          CANVAS,
          rows.map(() => randomUUID()),
          rows.map((_, i) => new Date(Date.now() - (LEDGER_ROWS - from - i) * 600_000).toISOString()),
          rows.map((cell) => runsToBytes([cell, 1])),
          rows.map((cell) => chart.cells[cell]!),
          rows.map((cell) => digestOf(cell)),
        ],
      );
    }
    await putBitmap(queries, CANVAS, laid);
  });
  await database.close();
}

async function start(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['dist/server/start.mjs'], {
    env: { ...process.env, OCULENT_DATA: data, PORT: String(PORT), OCULENT_BACKUPS: 'off' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve) =>
    child.stdout!.on('data', (text) => String(text).includes('is open') && resolve()),
  );
  return child;
}

async function end(child: ChildProcess): Promise<void> {
  child.kill('SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
}

/** A bench with what suits it, whose marks and their answers are noted. */
async function opened(context: BrowserContext, comfort: object): Promise<Page> {
  const page = await context.newPage();
  await page.addInitScript((kept) => {
    localStorage.setItem('oculent-bench', kept);
    new MutationObserver(() => {
      if (document.querySelector('[data-testid="left-here"]') && !('shownAt' in window))
        requestAnimationFrame(() => Object.assign(window, { shownAt: performance.now() }));
    }).observe(document, { childList: true, subtree: true });
  }, JSON.stringify(comfort));
  page.on('response', async (response) => {
    const request = response.request();
    if (request.method() !== 'POST' || !request.url().endsWith('/marks') || response.status() !== 201) return;
    await response.finished().catch(() => {});
    acknowledged.add((request.postDataJSON() as { id: string }).id);
    const { responseEnd } = request.timing();
    if (responseEnd > 0) latencies.push(responseEnd);
  });
  await page.goto(`${BASE}/canvas/${CANVAS}/bench`);
  await page.getByTestId('left-here').waitFor();
  await page.getByTestId('guide').waitFor();
  return page;
}

/** From the last byte of chart and bitmap to the frame that shows the bench, ms. */
function openTime(page: Page): Promise<number> {
  return page.evaluate(() => {
    const bytes = performance
      .getEntriesByType('resource')
      .filter(({ name }) => /\/(chart|bitmap)$/.test(name))
      .map((entry) => (entry as PerformanceResourceTiming).responseEnd);
    return (window as unknown as { shownAt: number }).shownAt - Math.max(...bytes);
  });
}

/** Works for some steps; in the midst of them the server dies and comes back. */
async function section(page: Page, name: string, steps: number, act: () => Promise<void>): Promise<void> {
  const before = await laid(page);
  for (let step = 0; step < steps; step++) {
    if (step === Math.floor(steps / 2)) {
      server.kill('SIGKILL');
      void sleep(1500).then(async () => {
        server = await start();
      });
    }
    await act();
    await sleep(120);
  }
  await page.waitForFunction(
    () => document.querySelector('[data-testid="saved"]')?.textContent?.startsWith('Every mark is saved'),
    null,
    { timeout: 60_000 },
  );
  const drills = (await laid(page)) - before;
  console.log(
    `${name.padEnd(16)} ${steps} actions, about ${drills} drills on screen: ${((steps / Math.max(1, drills)) * 100).toFixed(1)} for 100`,
  );
}

async function laid(page: Page): Promise<number> {
  const text = (await page.getByTestId('laid-in-all').textContent()) ?? '';
  return Number(text.split(' of ')[0]!.replaceAll(',', ''));
}

/** Another device that marks in another corner, as long as the hour lasts. */
async function secondDevice(): Promise<void> {
  for (let cell = 0; !stopped; cell += 2) {
    const id = randomUUID();
    const body = JSON.stringify({ id, kind: cell % 4 === 0 ? 'lay' : 'lift', runs: [cell % 800, 1] });
    const from = performance.now();
    const answer = await fetch(`${BASE}/api/canvases/${CANVAS}/marks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
    }).catch(() => null);
    if (answer?.status === 201) {
      await answer.text();
      latencies.push(performance.now() - from);
      acknowledged.add(id);
    }
    await sleep(250);
  }
}

/** Whether all that was acknowledged stands in the ledger once, and the bitmap follows from it. */
async function check(): Promise<void> {
  const database = await openDataDirectory(data);
  const rows = await database.query<{ id: string }>(
    `select id from mark where canvas_id = $1 and id = any($2::uuid[])
     union all select id from known_request r where id = any($2::uuid[])
       and not exists (select 1 from mark m where m.id = r.id)`,
    [CANVAS, [...acknowledged]],
  );
  const [sum] = await database.query<{ drills: number }>(
    `select sum(case kind when 'lay' then drills else -drills end)::int as drills from mark where canvas_id = $1`,
    [CANVAS],
  );
  const cells = 840 * 500;
  const cached = await bitmapOf(database, CANVAS, cells);
  const replayed = await replayMarks(database, CANVAS, cells);
  await database.close();
  latencies.sort((a, b) => a - b);
  const quantile = (share: number) => latencies[Math.floor((latencies.length - 1) * share)]!.toFixed(0);
  console.log(
    `acknowledged ${acknowledged.size} marks: p50 ${quantile(0.5)} ms, p95 ${quantile(0.95)} ms, beside a second device`,
  );
  const kept = new Set(rows.map(({ id }) => id));
  const laidNow = countLaid(replayed);
  const follows = Buffer.compare(cached, replayed) === 0 ? 'equals' : 'DIFFERS FROM';
  console.log(
    `killed three times: ${acknowledged.size - kept.size} lost; the bitmap ${follows} the ledger; ` +
      `${laidNow} drills laid, by the sum of the ledger ${sum!.drills}`,
  );
}
