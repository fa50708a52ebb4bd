import { spawn } from 'node:child_process';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { shelve } from './shelf';

/**
 * How long a start takes after a kill -9, beside a bare PGlite that opens the same files in a process of its own and
 * answers one question. Build first (`npm run build`), then run with `npx tsx bench/start.ts`.
 */
const ROUNDS = 7;
const PORT = 4485;

const root = await mkdtemp(join(tmpdir(), 'oculent-start-'));
const killed = join(root, 'killed');
const database = await openDataDirectory(killed);
await shelve(database, 840, 500, 74, 'Large');
await database.query(
  `insert into mark (id, canvas_id, happened_at, kind, cells, drills)
   select gen_random_uuid(), (select id from canvas), now(), 'lay', '\\x0000000001000000'::bytea, 1
   from generate_series(1, 20000)`,
);
// As the kernel leaves it: copied without closing.
await cp(killed, join(root, 'left'), { recursive: true });
await database.close();

const BARE = `const { PGlite } = await import('@electric-sql/pglite');
const db = await PGlite.create({ dataDir: process.argv[1] });
await db.query('select count(*) from mark'); console.log('is open');`;

/** Milliseconds until a program says that it is open. */
async function untilOpen(args: string[], env: Record<string, string>): Promise<number> {
  const start = performance.now();
  const child = spawn(process.execPath, args, {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve) =>
    child.stdout.on('data', (text) => String(text).includes('is open') && resolve()),
  );
  const took = performance.now() - start;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await gone;
  return took;
}

const median = (times: number[]) => times.sort((a, b) => a - b)[times.length >> 1]!;
try {
  const bare: number[] = [];
  const ours: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    for (const [times, args] of [
      [bare, (data: string) => ['--input-type=module', '-e', BARE, join(data, 'pglite')]],
      [ours, () => ['dist/server/start.mjs']],
    ] as const) {
      const data = join(root, 'run');
      await cp(join(root, 'left'), data, { recursive: true });
      times.push(
        await untilOpen(args(data), { OCULENT_DATA: data, PORT: String(PORT), OCULENT_BACKUPS: 'off' }),
      );
      await rm(data, { recursive: true });
    }
  }
  const [b, o] = [median(bare), median(ours)];
  console.log(
    `start after kill -9, median of ${ROUNDS}: bare PGlite ${b.toFixed(0)} ms, Oculent ${o.toFixed(0)} ms, ${(o / b).toFixed(2)} ×`,
  );
} finally {
  await rm(root, { recursive: true, force: true });
}
