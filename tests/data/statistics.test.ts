import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Database } from '../../src/data/engine/database';
import { refreshStatistics } from '../../src/data/engine/statistics';
import { memoryDatabase } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

describe('what the planner knows of the tables', () => {
  it('is refreshed: it takes a large table for a large one, and the setting for it stays where it was', async () => {
    const known = () =>
      database.query<{ rows: number }>(
        `select reltuples::int as rows from pg_class 
         where relname = 'known_request' and relnamespace = current_schema()::regnamespace`,
      );
    await database.query(
      `insert into known_request (id, what, digest) select gen_random_uuid(), 'mark', 'd' from generate_series(1, 3000)`,
    );
    expect((await known())[0]!.rows).toBeLessThan(1);
    const target = () => database.query('show default_statistics_target');
    const before = await target();
    await refreshStatistics(database);
    expect((await known())[0]!.rows).toBe(3000);
    expect(await target()).toEqual(before);
    expect(await database.query(`select id from known_request where id = $1`, [randomUUID()])).toEqual([]);
  });
});
