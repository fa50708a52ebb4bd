import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Database } from '../../src/data/engine/database';
import { memoryDatabase } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

describe('the tables', () => {
  it('have an index that begins with each foreign key', async () => {
    // Without one, deleting a row reads the whole of the other table (PostgreSQL manual, 5.5.5 Foreign Keys).
    const bare = await database.query(
      `select c.conrelid::regclass::text as of, a.attname as by
       from pg_constraint c
       join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
       where c.contype = 'f' and not exists (
         select 1 from pg_index i where i.indrelid = c.conrelid and i.indkey[0] = c.conkey[1]
       )`,
    );
    expect(bare).toEqual([]);
  });
});
