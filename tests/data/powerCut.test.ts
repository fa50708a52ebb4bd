import { randomUUID } from 'node:crypto';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { seededRandom } from '../../src/core/chance/random';
import { unpackDump } from '../../src/data/engine/dump';
import { DurableFs, LogSync } from '../../src/data/engine/durableFs';
import { openInDirectory } from '../../src/data/engine/pglite';
import { ForgetfulFs } from './forgetful';
import { migratedDump } from './memory';

let directory: string;
beforeAll(async () => {
  directory = await mkdtemp(join(tmpdir(), 'oculent-cut-'));
});
afterAll(() => rm(directory, { recursive: true, force: true }));

it('what was acknowledged is there after a power cut at any moment, and nothing twice', async () => {
  const begun = join(directory, 'begun');
  await unpackDump(await migratedDump(), begun);
  const running = join(directory, 'running');
  await cp(begun, running, { recursive: true });
  const fs = new ForgetfulFs(running);
  const database = await openInDirectory(fs);
  const acknowledged: { id: string; after: number }[] = [];
  const sent = new Set<string>();
  const add = async () => {
    const id = randomUUID();
    sent.add(id);
    await database.transaction(async (queries) => {
      await queries.query(`insert into data_set (id, made_at) values ($1, now())`, [id]);
      await queries.query(`insert into label_sheet (format, sheet) values ($1, $2::jsonb)`, [
        id,
        JSON.stringify({ filler: id.repeat(20) }),
      ]);
    });
    acknowledged.push({ id, after: fs.steps.length });
  };
  const syncs = () => fs.steps.filter(({ kind }) => kind === 'sync').length;
  let together = 0;
  for (let round = 0; round < 8; round++) {
    for (let i = 0; i < 10; i++) await add();
    const before = syncs();
    // A disk so slow that others commit meanwhile, however slow the processor is.
    fs.slowMs = 50;
    await Promise.all(Array.from({ length: 10 }, add));
    fs.slowMs = 0;
    together += syncs() - before;
    if (round % 3 === 1) await database.script('checkpoint');
  }
  const chance = seededRandom(4).uniform;
  const steps = fs.steps.length;
  // Commits that come together share syncs.
  expect(together).toBeLessThan(acknowledged.length / 2);
  let lostSomething = false;
  for (let cut = 0; cut < 6; cut++) {
    const at = cut === 0 ? steps : Math.floor(chance() * steps);
    const left = join(directory, `cut-${cut}`);
    await fs.cut(begun, left, at, chance);
    const again = await openInDirectory(new DurableFs(left));
    const rows = await again.query<{ id: string; sheet: unknown }>(
      'select d.id, s.sheet from data_set d left join label_sheet s on s.format = d.id::text',
    );
    const there = rows.map(({ id }) => id);
    expect(new Set(there).size).toBe(there.length);
    expect(there.filter((id) => !sent.has(id))).toEqual([]);
    expect(rows.filter(({ sheet }) => sheet === null)).toEqual([]);
    const owed = acknowledged.filter(({ after }) => after <= at).map(({ id }) => id);
    expect(owed.filter((id) => !there.includes(id))).toEqual([]);
    lostSomething ||= there.length < sent.size;
    await again.close();
    await rm(left, { recursive: true });
  }
  expect(lostSomething).toBe(true);
  await database.close();
}, 120_000);

it('those who wait for the disk together share a sync, and nobody is answered before it', async () => {
  const open: (() => void)[] = [];
  let syncs = 0;
  const log = new LogSync(
    () => {
      syncs++;
      return new Promise((resolve) => open.push(resolve));
    },
    () => {},
  );
  const answered: number[] = [];
  const write = (n: number) => {
    log.wrote('log');
    return log.settled().then(() => answered.push(n));
  };
  const first = write(1);
  // These come while the first sync is under way; it does not count for them.
  const later = [write(2), write(3)];
  open.shift()!();
  await first;
  expect(answered).toEqual([1]);
  while (open.length === 0) await Promise.resolve();
  open.shift()!();
  await Promise.all(later);
  expect(answered).toEqual([1, 2, 3]);
  expect(syncs).toBe(2);
});

it('after a sync that failed nothing is promised any more', async () => {
  let fails = true;
  const log = new LogSync(
    async () => {
      if (fails) throw Object.assign(new Error('io'), { code: 'EIO' });
    },
    () => {},
  );
  log.wrote('log');
  await expect(log.settled()).rejects.toThrow('io');
  fails = false;
  log.wrote('log');
  await expect(log.settled()).rejects.toThrow('io');
  expect(() => log.settleNow()).toThrow('io');
});
