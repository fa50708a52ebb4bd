import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { shelve } from './shelf';

/**
 * How long a small request waits while the server does something heavy, and what the heavy thing takes. Build first
 * (`npm run build`), then run with `npx tsx bench/loop.ts`.
 */
const PORT = 4479;
const BASE = `http://127.0.0.1:${PORT}`;
const MARKS = 20_000;

const directory = await mkdtemp(join(tmpdir(), 'oculent-bench-'));
const database = await openDataDirectory(directory);
const large = await shelve(database, 840, 500, 74, 'Large');
const many = await shelve(database, 300, 300, 200, 'Many colours');
await database.query(
  `insert into mark (id, canvas_id, happened_at, kind, cells, drills)
   select gen_random_uuid(), $1, now(), 'lay', '\\x0000000001000000'::bytea, 1 from generate_series(1, $2::int)`,
  [large.id, MARKS],
);
const storage = randomUUID();
await database.close();

const server = spawn(process.execPath, ['dist/server/start.mjs'], {
  env: { ...process.env, OCULENT_DATA: directory, PORT: String(PORT) },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise<void>((resolve) =>
  server.stdout.on('data', (text) => String(text).includes('is open') && resolve()),
);

async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  return fetch(`${BASE}${path}`, { ...init, headers: { origin: BASE, ...init.headers } });
}

async function ping(): Promise<number> {
  const start = performance.now();
  await (await ask('/api/tips')).text();
  return performance.now() - start;
}

/** Pings all the while. */
async function meanwhile(name: string, work: () => Promise<Response>): Promise<void> {
  const waits: number[] = [];
  let over = false;
  const pinging = (async () => {
    while (!over) {
      waits.push(await ping());
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  const start = performance.now();
  const answer = await work();
  const bytes = (await answer.arrayBuffer()).byteLength;
  const seconds = (performance.now() - start) / 1000;
  over = true;
  await pinging;
  waits.sort((a, b) => a - b);
  console.log(
    `${name.padEnd(44)} ${String(answer.status).padStart(4)} ${seconds.toFixed(2).padStart(7)} s ${(bytes / 1e6).toFixed(2).padStart(8)} MB   waits p50 ${waits[waits.length >> 1]!.toFixed(1).padStart(6)} ms, longest ${waits.at(-1)!.toFixed(0).padStart(5)} ms`,
  );
}

const post = (path: string, body: unknown, method = 'POST') =>
  ask(path, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });

try {
  for (let i = 0; i < 20; i++) await ping();
  await post(
    `/api/storages/${storage}`,
    {
      id: storage,
      name: 'Bench case',
      packingShare: 0.6,
      trays: Array.from({ length: 4 }, (_, tray) => ({
        columns: 10,
        rows: 10,
        unitWidthMm: 20,
        unitDepthMm: 20,
        heightMm: 20,
        wallMm: 1,
        slots: Array.from({ length: 100 }, (_, i) => ({
          id: `s${tray * 100 + i}`,
          x: i % 10,
          y: Math.floor(i / 10),
          width: 1,
          height: 1,
          form: 'box',
        })),
      })),
    },
    'PUT',
  ).then(async (answer) => answer.ok || console.log(await answer.text()));
  const at = `/api/canvases/${large.id}`;
  await meanwhile(
    'nothing else, the first seconds',
    // The first thread starts three seconds after the program.
    () => new Promise((resolve) => setTimeout(() => resolve(new Response()), 5000)),
  );
  await meanwhile('chart as PDF, 840 × 500', () => ask(`${at}/chart.pdf`));
  await meanwhile('chart as SVG', () => ask(`${at}/chart.svg`));
  await meanwhile('chart as CSV', () => ask(`${at}/chart.csv`));
  await meanwhile('picture of the cloth', () => ask(`${at}/picture.png`));
  let zip = new Uint8Array();
  await meanwhile(`archive with ${MARKS} marks`, async () => {
    const answer = await ask(`${at}/archive.zip`);
    zip = new Uint8Array(await answer.clone().arrayBuffer());
    return answer;
  });
  await meanwhile('archive taken in as a copy', () =>
    ask(`/api/archives?copy=${randomUUID()}`, {
      method: 'POST',
      body: zip,
      headers: { 'content-type': 'application/zip' },
    }),
  );
  const raw = { width: 840 * 5, height: 500 * 5, channels: 3 as const };
  const photo = await sharp(Buffer.alloc(raw.width * raw.height * 3, 90), { raw })
    .png()
    .toBuffer();
  await meanwhile('picture of 10 megapixels read as a chart', () =>
    ask(`${at}/chart-readings?unmatched=nearest`, {
      method: 'POST',
      body: Uint8Array.from(photo),
      headers: { 'content-type': 'image/png' },
    }),
  );
  for (const order of ['usual', 'parting first'] as const) {
    await meanwhile(`200 colours into 400 slots, ${order}`, () =>
      post(
        `/api/canvases/${many.id}/kitup`,
        {
          storageIds: [storage],
          order: 'code',
          leave: 'fewest drills',
          goals:
            order === 'usual'
              ? ['closes', 'overflow', 'refills', 'order', 'neighbours']
              : ['closes', 'overflow', 'refills', 'neighbours', 'order'],
          locks: [],
        },
        'PUT',
      ),
    );
  }
  await meanwhile('symbols of 200 colours compared', () => ask(`/api/canvases/${many.id}/symbols`));
  // Written down beforehand: this process is busy with it, and would take its own time for the server's.
  const runs = JSON.stringify({
    id: randomUUID(),
    kind: 'lay',
    runs: Array.from({ length: 200_000 }, (_, i) => [i * 2, 1]).flat(),
    sittingId: null,
  });
  const tips = JSON.stringify({ tips: Array.from({ length: 300_000 }, () => ({ wide: 3 })) });
  const sent = (path: string, method: string, body: string) =>
    ask(path, { method, body, headers: { 'content-type': 'application/json' } });
  await meanwhile('a mark of 200,000 runs', () => sent(`${at}/marks`, 'POST', runs));
  await meanwhile('300,000 tips', () => sent('/api/tips', 'PUT', tips));
  for (const view of [
    'kitup',
    'progress?zone=UTC',
    'forecast?zone=UTC',
    'finish?zone=UTC',
    'popped',
    'checkin',
  ]) {
    await meanwhile(`GET ${view}`, () => ask(`${at}/${view}`));
  }
  await meanwhile('a page of the largest canvas', () => ask(`/canvas/${large.id}/bench`));
  console.log(`memory of the process: ${(await rss()).toFixed(0)} MB`);
} finally {
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  await rm(directory, { recursive: true, force: true });
}

async function rss(): Promise<number> {
  const { readFile } = await import('node:fs/promises');
  const status = await readFile(`/proc/${server.pid}/status`, 'utf8').catch(() => '');
  return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
}
