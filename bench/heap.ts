import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { enterBag } from '../src/server/checkin/writes';
import { bagRequest } from '../tests/server/bagRequest';
import { shelve } from './shelf';

/**
 * What a counted bag costs beside a bare insert of a row, as the heap grows, with the wait for the disk. Run with
 * `npx tsx bench/heap.ts`.
 */
const COLOURS = 60;
const HEAPS = [0, 200, 700, 2000];
const BAGS = 60;

const directory = await mkdtemp(join(tmpdir(), 'oculent-bench-'));
const database = await openDataDirectory(directory);
const canvas = await shelve(database, 100, 100, COLOURS);
await database.script('create table bare (id uuid primary key, canvas_id uuid, label text)');
let counted = 0;
try {
  await median(BAGS, count);
  console.log('bags before   bare insert p50 ms   counted bag p50 ms   ratio');
  for (const bags of HEAPS) {
    while (counted < bags) await count();
    const bare = await median(BAGS, bareInsert);
    const bag = await median(BAGS, count);
    console.log(
      `${String(bags).padStart(11)}   ${bare.toFixed(2).padStart(18)}   ${bag.toFixed(2).padStart(18)}   ${(bag / bare).toFixed(1).padStart(5)}`,
    );
  }
} finally {
  await database.close();
  await rm(directory, { recursive: true, force: true });
}

async function count(): Promise<void> {
  await enterBag(database, canvas, bagRequest({ line: 1 + (counted++ % COLOURS) }));
}

async function bareInsert(): Promise<void> {
  await database.query('insert into bare (id, canvas_id, label) values ($1, $2, $3)', [
    randomUUID(),
    canvas.id,
    'as a bag',
  ]);
}

/** Middle time of so many, one after the other (ms). */
async function median(times: number, work: () => Promise<void>): Promise<number> {
  const took: number[] = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    await work();
    took.push(performance.now() - began);
  }
  return took.sort((a, b) => a - b)[times >> 1]!;
}
