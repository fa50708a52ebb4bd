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
/** How long each mark took to be acknowledged, ms: while the server stood, and while it came back. */
const latencies = { standing: [] as number[], comingBack: [] as number[] };
/** Until when the server counts as coming back after it was killed: the first requests find all of it cold. */
const COMING_BACK_MS = 6000;
let back = Date.now() + COMING_BACK_MS;
let stopped = false;

try {
  const second = secondDevice();
  const desk = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await opened(desk, {});
  console.log(
    `opens ${(await openTime(page)).toFixed(0)} ms after its bytes, with ${LEDGER_ROWS} rows more in the ledger`,
  );
  console.log(`a key shows on the canvas ${await framesUntilShown(page)}`);
  await section(page, 'keyboard', STEPS.keyboard, () => page.keyboard.press('Enter'));
  await desk.close();
  const tablet = await browser.newContext({ viewport: { width: 820, height: 1180 }, hasTouch: true });
  const touch = await opened(tablet, {});
  await section(touch, 'touch', STEPS.touch, () =>
    touch
      .getByRole('button', { name: /^Lay it$|is done; go on to/ })
      .first()
      .tap(),
  );
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
  // What the compiler writes around named functions is not known in the page.
  await page.addInitScript('globalThis.__name = (named) => named');
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
    if (responseEnd > 0) took(responseEnd);
  });
  await page.goto(`${BASE}/canvas/${CANVAS}/bench`);
  await page.getByTestId('left-here').waitFor();
  // Where the section is done already there is nothing to lead through.
  await page
    .getByTestId('guide')
    .or(page.getByRole('button', { name: /is done; go on to/ }))
    .waitFor();
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

/** How many frames after a key its marks are in the pixels of the canvas. */
async function framesUntilShown(page: Page): Promise<string> {
  const frames: number[] = [];
  for (let i = 0; i < 20; i++) {
    await page.evaluate(() => {
      const canvas = [...document.querySelectorAll('canvas')].sort((a, b) => b.width - a.width)[0]!;
      const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d', {
        willReadFrequently: true,
      })!;
      const look = () => {
        copy.clearRect(0, 0, canvas.width, canvas.height);
        copy.drawImage(canvas, 0, 0);
        return copy.getImageData(0, 0, canvas.width, canvas.height).data;
      };
      const before = look();
      const differs = () => look().some((value, at) => value !== before[at]);
      Object.assign(window, {
        shown: new Promise((resolve) =>
          window.addEventListener(
            'keydown',
            () => {
              let count = 0;
              // What runs as a task after the callbacks of a frame sees what that frame shows.
              const frame = () =>
                requestAnimationFrame(() => {
                  count++;
                  const { port1, port2 } = new MessageChannel();
                  port1.onmessage = () => (count > 60 || differs() ? resolve(count) : frame());
                  port2.postMessage(null);
                });
              frame();
            },
            { once: true, capture: true },
          ),
        ),
      });
    });
    await page.keyboard.press('Enter');
    frames.push(await page.evaluate(() => (window as unknown as { shown: Promise<number> }).shown));
    await sleep(150);
  }
  const inFirst = frames.filter((count) => count === 1).length;
  return `in the next frame ${inFirst} of ${frames.length} times, at most ${Math.max(...frames)} frames later`;
}

/** Works for some steps; in the midst of them the server dies and comes back. */
async function section(page: Page, name: string, steps: number, act: () => Promise<void>): Promise<void> {
  const before = await laid(page);
  for (let step = 0; step < steps; step++) {
    if (step === Math.floor(steps / 2)) {
      server.kill('SIGKILL');
      back = Date.now() + COMING_BACK_MS;
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
      took(performance.now() - from);
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
  console.log(`${acknowledged.size} marks acknowledged, beside a second device`);
  console.log(`  while the server stood    ${quantiles(latencies.standing)}`);
  console.log(`  while it came back        ${quantiles(latencies.comingBack)}`);
  const kept = new Set(rows.map(({ id }) => id));
  const laidNow = countLaid(replayed);
  const follows = Buffer.compare(cached, replayed) === 0 ? 'equals' : 'DIFFERS FROM';
  console.log(
    `killed three times: ${acknowledged.size - kept.size} lost; the bitmap ${follows} the ledger; ` +
      `${laidNow} drills laid, by the sum of the ledger ${sum!.drills}`,
  );
}

/** Notes how long a mark took that is acknowledged now. */
function took(ms: number): void {
  (Date.now() - ms < back ? latencies.comingBack : latencies.standing).push(ms);
}

function quantiles(times: number[]): string {
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.floor((times.length - 1) * share)]?.toFixed(0) ?? '–';
  return `${times.length} marks, p50 ${at(0.5)} ms, p95 ${at(0.95)} ms, longest ${at(1)} ms`;
}
