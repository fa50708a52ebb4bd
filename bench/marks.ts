import { randomUUID } from 'node:crypto';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { countLaid } from '../src/core/cells/bitmap';
import { bitmapOf, laidOf, replayMarks } from '../src/data/bench';
import { removeCanvas } from '../src/data/canvas';
import type { Database } from '../src/data/engine/database';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { openThrowaway } from '../src/data/engine/pglite';
import { enterMark } from '../src/server/bench/writes';
import { shelve } from './shelf';

/**
 * What a mark costs beside a bare insert of a row of the same size, on the size of the largest demo canvas, with and
 * without the wait for the disk, and how long the removal of a canvas with a year of marks takes. Run with `npx tsx bench/marks.ts`.
 */
const WIDTH = 840;
const HEIGHT = 500;
const COLOURS = 74;
const MARKS = 480;
const ROUNDS = 10;
const CLIENTS = [1, 4, 16];
const YEAR_OF_MARKS = 40_000;
let at = 0;

const directory = await mkdtemp(join(tmpdir(), 'oculent-bench-'));
const kept = await openDataDirectory(join(directory, 'kept'));
const canvas = await shelve(kept, WIDTH, HEIGHT, COLOURS);
await kept.script(
  'create table bare (id uuid primary key, canvas_id uuid, happened_at timestamptz, cells bytea)',
);
await kept.script('checkpoint');
await cp(join(directory, 'kept', 'pglite'), join(directory, 'unsynced'), { recursive: true });
// As the database comes: it answers before anything is on the disk.
const unsynced = await openThrowaway(join(directory, 'unsynced'));
const database = kept;
try {
  console.log(`marks of ${WIDTH} × ${HEIGHT} squares, ${MARKS} for each line`);
  console.log('answers                  clients   bare insert p50 ms   mark p50 ms   ratio   marks a second');
  for (const [name, on] of [
    ['once on the disk', kept],
    ['before', unsynced],
  ] as const) {
    await run(1, MARKS, () => mark(on));
    for (const clients of CLIENTS) {
      const [bare, real] = await inTurn(
        clients,
        () => bareInsert(on),
        () => mark(on),
      );
      console.log(
        `${name.padEnd(22)} ${String(clients).padStart(9)}   ${bare.p50.toFixed(2).padStart(18)}   ${real.p50.toFixed(2).padStart(11)}   ${(real.p50 / bare.p50).toFixed(2).padStart(5)}   ${real.aSecond.toFixed(0).padStart(14)}`,
      );
    }
  }
  const laid = await bitmapOf(database, canvas.id, WIDTH * HEIGHT);
  const replayed = await replayMarks(database, canvas.id, WIDTH * HEIGHT);
  const equal =
    Buffer.compare(laid, replayed) === 0 && countLaid(laid) === (await laidOf(database, canvas.id));
  console.log(`cache equal to the ledger: ${equal ? 'yes' : 'NO'}`);

  await database.query(
    `insert into mark (id, canvas_id, happened_at, kind, cells, drills)
     select gen_random_uuid(), $1, now(), 'lay', '\\x0000000001000000'::bytea, 1 from generate_series(1, $2::int)`,
    [canvas.id, YEAR_OF_MARKS],
  );
  const held = monitorEventLoopDelay({ resolution: 1 });
  held.enable();
  const began = performance.now();
  await removeCanvas(database, canvas.id);
  const seconds = (performance.now() - began) / 1000;
  held.disable();
  console.log(
    `removing a canvas with ${YEAR_OF_MARKS} marks: ${seconds.toFixed(2)} s, others waiting ${(held.max / 1e6).toFixed(0)} ms at most`,
  );
} finally {
  await database.close();
  await unsynced.close();
  await rm(directory, { recursive: true, force: true });
}

/** A drag over twelve squares of one row, each somewhere else. */
async function mark(on: Database): Promise<void> {
  at = (at + 7919) % (WIDTH * HEIGHT - 12);
  await enterMark(on, canvas, {
    id: randomUUID(),
    kind: 'lay',
    runs: [at, 12],
    sittingId: null,
    undoes: null,
    redoes: null,
  });
}

async function bareInsert(on: Database): Promise<void> {
  await on.transaction((queries) =>
    queries.query('insert into bare (id, canvas_id, happened_at, cells) values ($1, $2, $3, $4)', [
      randomUUID(),
      canvas.id,
      new Date().toISOString(),
      new Uint8Array(8),
    ]),
  );
}

interface Pace {
  p50: number;
  aSecond: number;
}

/** Both works by turns, in short rounds: what else the machine does then meets both. */
async function inTurn(
  clients: number,
  one: () => Promise<void>,
  other: () => Promise<void>,
): Promise<[Pace, Pace]> {
  const paces: [Timed, Timed] = [noTime(), noTime()];
  for (let round = 0; round < ROUNDS; round++) {
    for (const [i, work] of [one, other].entries()) {
      const { times, seconds } = await run(clients, MARKS / ROUNDS, work);
      paces[i]!.times.push(...times);
      paces[i]!.seconds += seconds;
    }
  }
  return [paceOf(paces[0]), paceOf(paces[1])];
}

interface Timed {
  times: number[];
  seconds: number;
}

function noTime(): Timed {
  return { times: [], seconds: 0 };
}

function paceOf({ times, seconds }: Timed): Pace {
  times.sort((a, b) => a - b);
  return { p50: times[times.length >> 1]!, aSecond: times.length / seconds };
}

/** Runs so many of a work, as so many clients at once. */
async function run(clients: number, count: number, work: () => Promise<void>): Promise<Timed> {
  const times: number[] = [];
  const began = performance.now();
  await Promise.all(
    Array.from({ length: clients }, async () => {
      for (let i = 0; i < count / clients; i++) {
        const start = performance.now();
        await work();
        times.push(performance.now() - start);
      }
    }),
  );
  return { times, seconds: (performance.now() - began) / 1000 };
}
