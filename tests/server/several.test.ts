import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { countLaid } from '../../src/core/cells/bitmap';
import { bitmapOf, laidOf, replayMarks } from '../../src/data/bench';
import { openServer, type ServerDatabase } from '../../src/data/engine/postgres';
import { checkRecords } from '../../src/server/backups/check';
import { enterMark } from '../../src/server/bench/writes';
import { enterBag } from '../../src/server/checkin/writes';
import { line } from '../core/samples';
import { shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

const server = process.env.OCULENT_TEST_SERVER_URL;

describe.runIf(server)('several programs on one server', () => {
  const url = `${server}&schema=s_${randomUUID().replaceAll('-', '')}`;
  let programs: ServerDatabase[];
  let canvases: [Canvas, Canvas];
  const cells = 2400;

  beforeAll(async () => {
    // They start at once on a database in which nothing is yet: one makes the tables, the others wait.
    programs = await Promise.all([0, 1, 2, 3].map(() => openServer(url)));
    const chart = { width: 60, height: 40, cells: new Uint16Array(cells).fill(1) };
    canvases = [await shelve(programs[0]!, [line(1)], chart), await shelve(programs[0]!, [line(1)], chart)];
  });
  afterAll(() => Promise.all(programs.map((program) => program.close())));

  it('are one to their users: every total is what the ledger tells', async () => {
    const [sets] = await programs[0]!.query<{ n: number }>('select count(*)::int as n from data_set');
    expect(sets!.n).toBe(1);
    const work = programs.flatMap((program, p) =>
      canvases.flatMap((canvas) => [
        ...Array.from({ length: 60 }, (_, i) =>
          enterMark(program, canvas, {
            id: randomUUID(),
            // Each overlaps what the others lay, and lifts some of it.
            kind: i % 5 === 4 ? 'lift' : 'lay',
            runs: [(i * 37 + p * 11) % (cells - 40), 40],
            sittingId: null,
            undoes: null,
            redoes: null,
          }),
        ),
        ...Array.from({ length: 10 }, () => enterBag(program, canvas, bagRequest({ line: 1, label: '401' }))),
      ]),
    );
    await Promise.all(work);
    for (const canvas of canvases) {
      const laid = await bitmapOf(programs[1]!, canvas.id, cells);
      expect(laid).toEqual(await replayMarks(programs[2]!, canvas.id, cells));
      expect(countLaid(laid)).toBe(await laidOf(programs[3]!, canvas.id));
      const [row] = await programs[0]!.query<{ counted: number }>(
        'select bags_counted as counted from canvas where id = $1',
        [canvas.id],
      );
      expect(row!.counted).toBe(40);
    }
    expect((await checkRecords(programs[0]!)).faults).toEqual([]);
  });

  it('the same request at two of them is done once', async () => {
    const id = randomUUID();
    const wish = { id, kind: 'lay' as const, runs: [2399, 1], sittingId: null, undoes: null, redoes: null };
    const [canvas] = canvases;
    const answers = await Promise.all(programs.map((program) => enterMark(program, canvas, wish)));
    expect(new Set(answers.map(({ runs }) => JSON.stringify(runs))).size).toBe(1);
    const rows = await programs[0]!.query('select id from mark where id = $1', [id]);
    expect(rows).toHaveLength(1);
  });

  it('says in words when it does not let us in', async () => {
    await expect(openServer('postgres://oculent@127.0.0.1:1/none')).rejects.toThrow('does not let us in');
    await expect(openServer(`${server}&schema=Odd-Name`)).rejects.toThrow('small letters');
  });
});

it.runIf(server)('these tests run on a PostgreSQL server', async () => {
  const database = await openServer(`${server}&schema=v_${randomUUID().replaceAll('-', '')}`);
  const [row] = await database.query<{ version: string }>('select version() as version');
  expect(row!.version).toMatch(/^PostgreSQL 1[5-9].*linux-gnu/);
  await database.close();
});
