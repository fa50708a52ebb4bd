import { spawn } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { shelve } from './shelf';

/**
 * Sends thousands of wrong requests to every route: none may be answered with a fault of ours (5xx), none that is refused
 * may change anything, none may take longer than two seconds. Bodies begin as the examples of docs/api.md have them, and
 * are then spoilt. Build first (`npm run build`), then run with `npx tsx bench/fuzz.ts [requests] [seed]`.
 */
const RUNS = Number(process.argv[2] ?? 10_000);
const SEED = Number(process.argv[3] ?? 11);
const PORT = 4481;
const BATCH = 25;
const SLOW_MS = 2000;
/** Copies the whole database each time, which takes longer on purpose. */
const LEFT_OUT = new Set([
  'POST /api/backups',
  'GET /api/records',
  'POST /api/backups/[name]/restore',
  'POST /api/everything',
]);

interface Route {
  method: string;
  path: string;
}

async function routes(): Promise<Route[]> {
  const root = 'src/pages/api';
  const files = (await readdir(root, { recursive: true })).filter((file) => file.endsWith('.ts'));
  const found = await Promise.all(
    files.map(async (file) => {
      const source = await readFile(join(root, file), 'utf8');
      const path = `/api/${file.replace(/(\/?index)?\.ts$/, '')}`;
      return [...source.matchAll(/export const ([A-Z]+)\b/g)].map(([, method]) => ({
        method: method!,
        path,
      }));
    }),
  );
  return found
    .flat()
    .filter(({ method, path }) => method !== 'ALL' && !LEFT_OUT.has(`${method} ${path}`))
    .sort((a, b) => `${a.path} ${a.method}`.localeCompare(`${b.path} ${b.method}`));
}

/** Bodies of the examples, by method and the last word of the path that has no braces. */
async function examples(): Promise<Map<string, unknown[]>> {
  const bodies = new Map<string, unknown[]>();
  const text = (await readFile('docs/api.md', 'utf8')).replaceAll('\\\n', ' ');
  const found = text.matchAll(/curl -X (\w+) "?\$BASE(\S+?)"? [^\n]*?-d '((?:[^']|'[^' ]+')*)'(?=\s|$)/g);
  for (const [, method, path, body] of found) {
    const word = path!
      .split('?')[0]!
      .split('/')
      .filter((part) => /^[a-z][a-z-]*$/.test(part))
      .at(-1);
    const json = body!.replaceAll(/'\$\(new\)'/g, randomUUID()).replaceAll(/'\$\w+'/g, randomUUID());
    try {
      const key = `${method} ${word}`;
      bodies.set(key, [...(bodies.get(key) ?? []), JSON.parse(json)]);
    } catch {
      // An example that the shell puts together from parts.
    }
  }
  return bodies;
}

const nasty: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom(
    null,
    true,
    '',
    ' ',
    '\u0000',
    'a\u0000b',
    '\ud800',
    '🦎',
    'x'.repeat(5000),
    '=1+1',
    '../..',
    '%2e%2e',
    '<b>',
    "'; drop table mark; --",
    -1,
    0,
    -0.5,
    1e308,
    -1e308,
    2 ** 31,
    2 ** 53,
    0.1,
    '1',
    '01',
    'NaN',
    [],
    {},
    [null],
    [[]],
    [[null]],
    { id: null },
    { toString: 1 },
    '018f3a2e-7c1d-7abc-8def-0123456789ab',
    '00000000-0000-0000-0000-000000000000',
    '2026-02-30',
    '9999999-01-01T00:00:00Z',
  ),
  fc.integer(),
  fc.double(),
  fc.string({ unit: 'binary' }),
  fc.uuid(),
  fc.array(fc.integer(), { maxLength: 6 }),
  fc.jsonValue({ maxDepth: 3 }),
  fc.constantFrom(3, 40, 4000).map((depth) => JSON.parse('['.repeat(depth) + ']'.repeat(depth))),
  fc.constantFrom(11, 10_001, 60_000).map((length) => new Array(length).fill(1)),
);

/** A body with some of its parts spoilt. */
function spoilt(body: unknown): fc.Arbitrary<unknown> {
  const paths = pathsIn(body).slice(0, 60);
  return fc.oneof(
    {
      weight: 6,
      arbitrary: fc
        .array(fc.tuple(fc.constantFrom(...paths), nasty), { minLength: 1, maxLength: 2 })
        .map((changes) =>
          changes.reduce<unknown>((value, [path, by]) => replaced(value, path, by), structuredClone(body)),
        ),
    },
    { weight: 1, arbitrary: fc.constant(body) },
    { weight: 1, arbitrary: nasty },
  );
}

function pathsIn(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([key, inner]) => pathsIn(inner, [...path, key]))];
}

function replaced(value: unknown, [first, ...rest]: string[], by: unknown): unknown {
  if (first === undefined) return by;
  if (typeof value !== 'object' || value === null) return value;
  const copy = (Array.isArray(value) ? [...value] : { ...value }) as Record<string, unknown>;
  copy[first] = replaced(copy[first], rest, by);
  return copy;
}

const directory = await mkdtemp(join(tmpdir(), 'oculent-fuzz-'));
const database = await openDataDirectory(directory);
const canvases = [await shelve(database, 60, 40, 12, 'One'), await shelve(database, 30, 30, 5, 'Two')];
await database.close();
const server = spawn(process.execPath, ['dist/server/start.mjs'], {
  env: { ...process.env, OCULENT_DATA: directory, PORT: String(PORT), OCULENT_BACKUPS: 'off' },
  stdio: ['ignore', 'pipe', 'pipe'],
});
let said = '';
server.stderr.on('data', (text) => {
  said = `${said}${text}`.slice(-20_000);
});
await new Promise<void>((resolve) =>
  server.stdout.on('data', (text) => String(text).includes('is open') && resolve()),
);

interface Answer {
  status: number;
  ms: number;
  body: Buffer;
}

function ask(
  method: string,
  path: string,
  body: Buffer | null = null,
  type = 'application/json',
): Promise<Answer> {
  const start = performance.now();
  return new Promise((resolve, reject) => {
    const headers = {
      origin: `http://127.0.0.1:${PORT}`,
      ...(body && { 'content-type': type, 'content-length': body.length }),
    };
    const sent = httpRequest({ host: '127.0.0.1', port: PORT, method, path, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part) => parts.push(part));
      response.on('end', () =>
        resolve({ status: response.statusCode!, ms: performance.now() - start, body: Buffer.concat(parts) }),
      );
    });
    // Refused before all of it was read.
    sent.on('error', (error) =>
      (error as NodeJS.ErrnoException).code === 'EPIPE' ? undefined : reject(error),
    );
    sent.end(body ?? undefined);
  });
}

/** What everything on the shelf amounts to. */
async function state(): Promise<string> {
  const digest = createHash('sha256');
  const addresses = ['/api/canvases', '/api/stash', '/api/storages', '/api/tips', '/api/deleted'];
  for (const { id } of canvases) {
    for (const part of [
      'sheet',
      'bags',
      'marks',
      'bitmap',
      'chart',
      'kitup',
      'sections',
      'panels',
      'inspection',
      'progress',
      'corrections',
      'symbols',
      'chart-edits',
      'requests',
    ])
      addresses.push(`/api/canvases/${id}/${part}`);
  }
  for (const address of addresses) digest.update((await ask('GET', address)).body);
  return digest.digest('hex');
}

const all = await routes();
const bodies = await examples();
const faults: string[] = [];
const slow: string[] = [];
let changedOnRefusal = 0;
let slowest = 0;
const byStatus = new Map<number, number>();
const segment = fc.oneof(
  { weight: 6, arbitrary: fc.constantFrom(...canvases.map(({ id }) => id)) },
  {
    weight: 2,
    arbitrary: fc.constantFrom(
      '1',
      '2',
      '0',
      '-1',
      '%00',
      '%2e%2e',
      '%ff',
      'x',
      ' ',
      '%F0%9F%A6%8E',
      'card',
      '../..',
      randomUUID(),
    ),
  },
);
const query = fc.oneof(
  { weight: 3, arbitrary: fc.constant('') },
  {
    weight: 2,
    arbitrary: fc
      .array(
        fc.tuple(
          fc.constantFrom(
            'paper',
            'cellMm',
            'every',
            'panel',
            'section',
            'zone',
            'width',
            'show',
            'sizes',
            'spare',
            'goal',
            'job',
            'copy',
            'header',
            'delimiter',
            'unmatched',
            'corners',
            'reading',
            'format',
            'of',
          ),
          fc.oneof(
            fc.constantFrom(
              '',
              '0',
              '-1',
              '1e9',
              'a0',
              'a4',
              '%00',
              '%ff',
              'NaN',
              'nearest',
              '1,2,3',
              'Mars/Olympus',
              '%F0%9F%A6%8E',
              '1'.repeat(400),
            ),
            fc.integer().map(String),
          ),
        ),
        { minLength: 1, maxLength: 3 },
      )
      .map((pairs) => `?${pairs.map(([name, value]) => `${name}=${value}`).join('&')}`),
  },
);
const methods = fc.oneof(
  { weight: 9, arbitrary: fc.constant(null) },
  { weight: 1, arbitrary: fc.constantFrom('TRACE', 'PATCH', 'DELETE', 'PUT', 'OPTIONS', 'HEAD') },
);

const requests = fc
  .tuple(fc.constantFrom(...all), fc.array(segment, { minLength: 3, maxLength: 3 }), query, methods)
  .chain(([route, segments, search, method]) => {
    let i = 0;
    const path = route.path.replace(/\[[^\]]+\]/g, () => encodeURI(decodeSafe(segments[i++]!))) + search;
    const word = route.path
      .split('/')
      .filter((part) => /^[a-z][a-z-]*$/.test(part))
      .at(-1);
    const known = bodies.get(`${route.method} ${word}`) ?? [{}];
    const json = fc
      .constantFrom(...known)
      .chain(spoilt)
      .map((value) => Buffer.from(JSON.stringify(value) ?? 'null'));
    const raw = fc.oneof(
      fc.uint8Array({ maxLength: 300 }).map((bytes) => Buffer.from(bytes)),
      fc
        .constantFrom(
          '[',
          '['.repeat(100_000),
          '{"id":',
          '\u0000',
          '[null]',
          'PK\u0003\u0004',
          '\u0089PNG\r\n\u001a\n',
          'GIF89a',
          '<svg><use/></svg>',
          'Key,Code\n1,2',
          '"'.repeat(3000),
        )
        .map((text) => Buffer.from(text, 'latin1')),
    );
    const types = fc.constantFrom(
      'application/json',
      'text/csv',
      'text/plain; charset=utf-16',
      'image/png',
      'image/jpeg',
      'application/zip',
      'application/octet-stream',
      'text/csv; charset=nonsense',
      '',
    );
    return fc.record({
      method: fc.constant(method ?? route.method),
      path: fc.constant(path),
      body:
        route.method === 'GET'
          ? fc.constant(null)
          : fc.oneof({ weight: 8, arbitrary: json }, { weight: 2, arbitrary: raw }),
      type: fc.oneof(
        { weight: 8, arbitrary: fc.constant('application/json') },
        { weight: 2, arbitrary: types },
      ),
    });
  });

function decodeSafe(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

try {
  const sample = fc.sample(requests, { numRuns: RUNS, seed: SEED });
  let before = await state();
  for (let from = 0; from < sample.length; from += BATCH) {
    let taken = false;
    for (const { method, path, body, type } of sample.slice(from, from + BATCH)) {
      if (method === 'DELETE' && path.startsWith('/api/deleted/')) continue;
      const line = `${method} ${path.slice(0, 120)} ${type} ${body?.toString('latin1').slice(0, 200) ?? ''}`;
      let answer: Answer;
      try {
        answer = await ask(method, path, body, type);
      } catch (error) {
        // What is no HTTP at all is hung up on.
        if ((error as NodeJS.ErrnoException).code !== 'ECONNRESET' && !String(error).includes('unescaped'))
          faults.push(`no answer: ${line} ${String(error)}`);
        continue;
      }
      byStatus.set(answer.status, (byStatus.get(answer.status) ?? 0) + 1);
      slowest = Math.max(slowest, answer.ms);
      if (answer.status >= 500)
        faults.push(`${answer.status}: ${line} → ${answer.body.toString().slice(0, 200)}`);
      if (answer.ms > SLOW_MS) slow.push(`${answer.ms.toFixed(0)} ms: ${line}`);
      if (answer.status < 400 && method !== 'GET' && method !== 'HEAD') taken = true;
    }
    // A canvas that was deleted, which is what was asked for, comes back for the next ones.
    for (const { id } of canvases) await ask('POST', `/api/deleted/${id}`);
    const after = await state();
    if (after !== before && !taken) {
      changedOnRefusal++;
      console.log(
        `changed on refusal, among: ${sample
          .slice(from, from + BATCH)
          .map(({ method, path }) => `${method} ${path}`)
          .join(' | ')}`,
      );
    }
    before = after;
  }
  console.log(`${all.length} routes, ${RUNS} requests, seed ${SEED}`);
  console.log(
    `answers: ${[...byStatus]
      .sort((a, b) => a[0] - b[0])
      .map(([status, n]) => `${status} × ${n}`)
      .join(', ')}`,
  );
  console.log(
    `5xx or none: ${faults.length}, changed on refusal: ${changedOnRefusal}, over 2 s: ${slow.length}, slowest ${slowest.toFixed(0)} ms`,
  );
  for (const fault of new Set(faults.map((each) => each))) console.log(fault);
  for (const each of slow) console.log(each);
} finally {
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  await rm(directory, { recursive: true, force: true });
  if (faults.length > 0) console.log(said.slice(-4000));
}
