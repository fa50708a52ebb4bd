import { randomUUID } from 'node:crypto';
import { PGlite } from '@electric-sql/pglite';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Database } from '../../src/data/engine/database';
import { databaseOf } from '../../src/data/engine/pglite';
import { line } from '../core/samples';
import { emptyDump, memoryDatabase, shelve } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const TITLE = 'select title from canvas where id = $1';

describe('a statement that is asked again and again', () => {
  it('answers for what it is asked for, each canvas by itself', async () => {
    const [first, second] = [
      await shelve(database, [line(1)], null, { title: 'First' }),
      await shelve(database, [line(1)], null, { title: 'Second' }),
    ];
    // Generic plans come from the sixth time on.
    for (let time = 0; time < 8; time++) {
      expect(await database.query(TITLE, [first.id])).toEqual([{ title: 'First' }]);
      expect(await database.query(TITLE, [second.id])).toEqual([{ title: 'Second' }]);
      expect(await database.query(TITLE, [randomUUID()])).toEqual([]);
    }
  });

  it('is refused for a value that cannot be, and answers after that as before', async () => {
    const canvas = await shelve(database, [line(1)], null, { title: 'Third' });
    for (let time = 0; time < 4; time++) {
      await expect(database.query(TITLE, ['none'])).rejects.toMatchObject({ code: '22P02' });
      await expect(database.transaction((queries) => queries.query(TITLE, ['none']))).rejects.toMatchObject({
        code: '22P02',
      });
      expect(await database.query(TITLE, [canvas.id])).toEqual([{ title: 'Third' }]);
    }
  });

  it('knows of columns and rows that came since', async () => {
    await database.script('create table grows (a integer)');
    const ask = () => database.query<{ a: number }>('select a from grows order by a');
    for (let time = 0; time < 3; time++) expect(await ask()).toEqual([]);
    await database.script('alter table grows add column b text; insert into grows (a) values (2), (1)');
    expect(await ask()).toEqual([{ a: 1 }, { a: 2 }]);
    await database.script('drop table grows');
    await expect(ask()).rejects.toMatchObject({ code: '42P01' });
  });

  it('is one of thousands, and none of them gets the answer of another', async () => {
    for (let round = 0; round < 2; round++) {
      for (let n = 0; n < 1200; n++) {
        expect((await database.query<{ n: number }>(`select ${n} + $1::int as n`, [round]))[0]!.n).toBe(
          n + round,
        );
      }
    }
  });
});

describe('a transaction', () => {
  it('in which an error was swallowed is not said to be kept', async () => {
    const canvas = await shelve(database, [line(1)], null, { title: 'Before' });
    await expect(
      database.transaction(async (queries) => {
        await queries.query('update canvas set title = $2 where id = $1', [canvas.id, 'After']);
        await queries.query('select 1 / $1::int', [0]).catch(() => {});
      }),
    ).rejects.toThrow('rolled back instead of committed');
    expect(await database.query(TITLE, [canvas.id])).toEqual([{ title: 'Before' }]);
  });

  it('and others beside it wait for each other, and none is lost', async () => {
    const canvas = await shelve(database, [line(1)], null, { title: 'a' });
    const add = (letter: string) =>
      database.transaction(async (queries) => {
        const [row] = await queries.query<{ title: string }>(TITLE, [canvas.id]);
        await new Promise((resolve) => setTimeout(resolve, 5));
        await queries.query('update canvas set title = $2 where id = $1', [canvas.id, row!.title + letter]);
      });
    await Promise.all([add('b'), database.query('select 1'), add('c'), add('d')]);
    const [row] = await database.query<{ title: string }>(TITLE, [canvas.id]);
    // In this process they run in the order in which they came; on a server, as its connections come to their locks.
    const ordered = process.env.OCULENT_TEST_SERVER_URL ? [...row!.title].sort().join('') : row!.title;
    expect(ordered).toBe('abcd');
  });
});

describe.runIf(process.env.OCULENT_TEST_SERVER_URL)('a connection to a server that breaks', () => {
  it('is told to whoever asks it, and the next query has another one', async () => {
    const end = 'select pg_terminate_backend(pg_backend_pid())';
    await expect(database.query(end)).rejects.toThrow();
    await expect(database.transaction((queries) => queries.query(end))).rejects.toThrow();
    expect(await database.query('select 1 as a')).toEqual([{ a: 1 }]);
  });
});

describe('a database in this process', () => {
  const begin = async () => PGlite.create({ loadDataDir: new Blob([Uint8Array.from(await emptyDump())]) });

  it('opens whatever the environment says of servers', async () => {
    for (const [name, value] of [
      ['PGSSLMODE', 'require'],
      ['PGUSER', 'somebody'],
      ['PGDATABASE', 'elsewhere'],
      ['PGHOST', '/nowhere'],
      ['PGOPTIONS', '-c search_path=nowhere'],
    ] as const) {
      vi.stubEnv(name, value);
    }
    const here = databaseOf(await begin());
    await here.script('create table found (a integer)');
    expect(await here.query('select a from found')).toEqual([]);
    await here.close();
  });

  it('that ends itself says so to whoever asks, then and later, and can be closed', async () => {
    const pglite = await begin();
    const here = databaseOf(pglite);
    expect(await here.query('select 1 as a')).toEqual([{ a: 1 }]);
    vi.spyOn(pglite, 'execProtocolRawSync').mockImplementationOnce(() => {
      throw new WebAssembly.RuntimeError('unreachable');
    });
    const stopped = { name: 'DataFault', message: expect.stringContaining('Start Oculent again') };
    await expect(here.transaction((queries) => queries.query('select 1 as a'))).rejects.toMatchObject(
      stopped,
    );
    await expect(here.query('select 1 as a')).rejects.toMatchObject(stopped);
    await here.close();
  });

  it('whose answer was lost once knows what was prepared before', async () => {
    const pglite = await begin();
    const here = databaseOf(pglite);
    const ask = () => here.query('select 1 + $1::int as a', [1]);
    for (let time = 0; time < 3; time++) expect(await ask()).toEqual([{ a: 2 }]);
    vi.spyOn(pglite, 'execProtocolRawSync').mockImplementationOnce(() => {
      throw new Error('lost');
    });
    await expect(ask()).rejects.toThrow('lost');
    for (let time = 0; time < 3; time++) expect(await ask()).toEqual([{ a: 2 }]);
    await here.close();
  });
});
