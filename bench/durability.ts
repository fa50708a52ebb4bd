import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Canvas } from '../src/core/canvas/canvas';
import { seededRandom } from '../src/core/chance/random';
import { everyMark } from '../src/data/bench';
import { countedBags } from '../src/data/checkin';
import type { Database } from '../src/data/engine/database';
import { openDataDirectory } from '../src/data/engine/dataDirectory';
import { DurableFs } from '../src/data/engine/durableFs';
import { openInDirectory } from '../src/data/engine/pglite';
import { checkRecords } from '../src/server/backups/check';
import { enterMark } from '../src/server/bench/writes';
import { editChart } from '../src/server/chart/edits';
import { enterBag } from '../src/server/checkin/writes';
import { ForgetfulFs } from '../tests/data/forgetful';
import { bagRequest } from '../tests/server/bagRequest';
import { shelve } from './shelf';

/**
 * Kills and power cuts while marks, bags, undos and repairs are in flight: nothing acknowledged may be lost or doubled,
 * and the order must be kept. Build first (`npm run build`), then run with
 * `npx tsx bench/durability.ts [kills] [power cuts]`.
 */
const KILLS = Number(process.argv[2] ?? 200);
const CUTS = Number(process.argv[3] ?? 100);
const PORT = 4483;
const chance = seededRandom(2026);
const root = await mkdtemp(join(tmpdir(), 'oculent-durability-'));

interface Tally {
  rounds: number;
  acknowledged: number;
  lost: number;
  doubled: number;
  outOfOrder: number;
  wrongTotals: number;
}
const tally = (): Tally => ({
  rounds: 0,
  acknowledged: 0,
  lost: 0,
  doubled: 0,
  outOfOrder: 0,
  wrongTotals: 0,
});

/** Holds a database against what was acknowledged, in the order in which it was sent. */
async function judge(
  database: Database,
  canvas: Canvas,
  owed: { marks: string[]; bags: string[]; edits: string[] },
  into: Tally,
): Promise<void> {
  const ids = async (table: string) =>
    (
      await database.query<{ id: string }>(`select id from ${table} where canvas_id = $1 order by position`, [
        canvas.id,
      ])
    ).map(({ id }) => id);
  for (const [table, wanted] of [
    ['mark', owed.marks],
    ['bag_entry', owed.bags],
    ['chart_edit', owed.edits],
  ] as const) {
    const there = await ids(table);
    const place = new Map(there.map((id, i) => [id, i]));
    into.doubled += there.length - place.size;
    into.lost += wanted.filter((id) => !place.has(id)).length;
    const places = wanted.flatMap((id) => place.get(id) ?? []);
    into.outOfOrder += places.filter((at, i) => i > 0 && at < places[i - 1]!).length;
  }
  const { faults } = await checkRecords(database);
  into.wrongTotals += faults.length;
  for (const fault of faults) console.log(fault);
  // The ledgers can be read as well.
  await everyMark(database, canvas.id);
  await countedBags(database, canvas.id);
}

async function kills(): Promise<Tally> {
  const result = tally();
  const directory = join(root, 'killed');
  const made = await openDataDirectory(directory);
  const canvas = await shelve(made, 200, 150, 20, 'Killed');
  await made.close();
  const owed = { marks: [] as string[], bags: [] as string[], edits: [] as string[] };
  let cell = 0;
  for (let round = 0; round < KILLS; round++) {
    const server = await serve(directory);
    const at = `http://127.0.0.1:${PORT}/api/canvases/${canvas.id}`;
    const post = (path: string, body: object) =>
      fetch(`${at}/${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: `http://127.0.0.1:${PORT}` },
        body: JSON.stringify(body),
      });
    let dead = false;
    // Three at work at once; each sends one after the other.
    const worker = async (kind: 'marks' | 'bags' | 'edits') => {
      let last: string | null = null;
      while (!dead) {
        const id = randomUUID();
        const undo: boolean = last !== null && chance.uniform() < 0.3;
        const body =
          kind === 'marks'
            ? undo
              ? { id, undoes: last }
              : { id, runs: [cell++ % 30_000, 1] }
            : kind === 'bags'
              ? { id, line: 1 }
              : {
                  id,
                  edits: [
                    {
                      runs: [Math.floor(chance.uniform() * 29_000), 5],
                      line: 1 + Math.floor(chance.uniform() * 20),
                    },
                  ],
                };
        const path = kind === 'edits' ? 'chart-edits' : kind;
        const answer = await post(path, body).catch(() => null);
        if (answer?.ok) {
          const told =
            kind === 'marks'
              ? ((await answer.json().catch(() => ({ runs: [] }))) as { runs: number[] })
              : null;
          // A mark that changed nothing is no entry.
          if (!told || told.runs.length > 0) owed[kind].push(id);
          result.acknowledged++;
          last = undo ? null : id;
        } else if (answer && answer.status !== 409 && answer.status !== 422) {
          console.log(kind, answer.status, (await answer.text().catch(() => '')).slice(0, 200));
        } else last = null;
      }
    };
    const working = Promise.all([worker('marks'), worker('bags'), worker('edits')]);
    // The first answers take longer than all others: the pages are read from the disk.
    const before = result.acknowledged;
    while (result.acknowledged < before + 3) await new Promise((resolve) => setTimeout(resolve, 5));
    await new Promise((resolve) => setTimeout(resolve, chance.uniform() * 200));
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGKILL');
    await gone;
    dead = true;
    await working;
    result.rounds++;
  }
  const database = await openDataDirectory(directory);
  await judge(database, canvas, owed, result);
  await database.close();
  return result;
}

async function serve(directory: string): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['dist/server/start.mjs'], {
    env: { ...process.env, OCULENT_DATA: directory, PORT: String(PORT), OCULENT_BACKUPS: 'off' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout!.on('data', (text) => String(text).includes('is open') && resolve());
    server.once('exit', (code) => reject(new Error(`The server stopped with ${code}.`)));
  });
  return server;
}

async function powerCuts(): Promise<Tally> {
  const result = tally();
  const begun = join(root, 'begun');
  const made = await openDataDirectory(begun);
  const canvas = await shelve(made, 200, 150, 20, 'Cut');
  await made.close();
  const database = join(begun, 'pglite');
  const running = join(root, 'running');
  await cp(database, running, { recursive: true });
  const fs = new ForgetfulFs(running);
  const live = await openInDirectory(fs);
  const acknowledged: { kind: 'marks' | 'bags' | 'edits'; id: string; after: number }[] = [];
  const note = (kind: (typeof acknowledged)[number]['kind'], id: string) =>
    acknowledged.push({ kind, id, after: fs.steps.length });
  const mark = async (cell: number) => {
    const id = randomUUID();
    const plain = { kind: 'lay' as const, sittingId: null, undoes: null, redoes: null };
    await enterMark(live, canvas, { ...plain, id, runs: [cell, 1] });
    note('marks', id);
    if (chance.uniform() < 0.3) {
      const undo = randomUUID();
      await enterMark(live, canvas, { ...plain, id: undo, runs: [], undoes: id });
      note('marks', undo);
    }
  };
  for (let i = 0; i < 400; i++) {
    const bag = randomUUID();
    const edit = randomUUID();
    await Promise.all([
      mark(i * 3),
      mark(i * 3 + 1),
      enterBag(live, canvas, bagRequest({ id: bag, line: 1, label: '1000', drills: 200 })).then(() =>
        note('bags', bag),
      ),
      editChart(live, canvas, {
        id: edit,
        edits: [
          { runs: [Math.floor(chance.uniform() * 29_000), 5], line: 1 + Math.floor(chance.uniform() * 20) },
        ],
      }).then(() => note('edits', edit)),
    ]);
    if (i % 60 === 30) await live.script('checkpoint');
  }
  result.acknowledged = acknowledged.length;
  for (let cut = 0; cut < CUTS; cut++) {
    const at = Math.floor(chance.uniform() * fs.steps.length);
    const left = join(root, 'left');
    await fs.cut(database, left, at, chance.uniform);
    const again = await openInDirectory(new DurableFs(left));
    const owed = (kind: string) =>
      acknowledged.filter((each) => each.kind === kind && each.after <= at).map(({ id }) => id);
    await judge(again, canvas, { marks: owed('marks'), bags: owed('bags'), edits: owed('edits') }, result);
    await again.close();
    await rm(left, { recursive: true });
    result.rounds++;
  }
  await live.close();
  return result;
}

function tell(name: string, { rounds, acknowledged, lost, doubled, outOfOrder, wrongTotals }: Tally): void {
  console.log(
    `${name.padEnd(12)} ${String(rounds).padStart(4)} rounds, ${acknowledged} acknowledged: ${lost} lost, ${doubled} doubled, ${outOfOrder} out of order, ${wrongTotals} totals that are not their ledger`,
  );
}

try {
  tell('kill -9', await kills());
  tell('power cut', await powerCuts());
} finally {
  await rm(root, { recursive: true, force: true });
}
