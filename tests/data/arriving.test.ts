import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  bringBackCanvas,
  deleteCanvas,
  findCanvas,
  removeArriving,
  setArriving,
  standingOfCanvas,
} from '../../src/data/canvas';
import { deletedThings, emptyDeleted } from '../../src/data/deleted';
import type { Database } from '../../src/data/engine/database';
import { wrongTotals } from '../../src/data/records';
import { shelfEntries } from '../../src/server/shelf/view';
import { line } from '../core/samples';
import { memoryDatabase, shelve } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

describe('a canvas that arrives in parts', () => {
  it('is not on the shelf until the last of them, and goes when the program ended before', async () => {
    const here = await shelve(database, [line(1)], null);
    const coming = await shelve(database, [line(1)], null);
    await setArriving(database, coming.id, true);
    expect(await standingOfCanvas(database, coming.id)).toBe('arriving');
    expect(await standingOfCanvas(database, here.id)).toBe('here');
    expect(await standingOfCanvas(database, randomUUID())).toBe('unknown');
    expect(await findCanvas(database, coming.id)).toBeNull();
    expect((await shelfEntries(database)).map(({ canvas }) => canvas.id)).toEqual([here.id]);
    await setArriving(database, coming.id, false);
    expect((await findCanvas(database, coming.id))?.id).toBe(coming.id);
    await setArriving(database, coming.id, true);
    await removeArriving(database);
    expect(await standingOfCanvas(database, coming.id)).toBe('unknown');
    expect(await standingOfCanvas(database, here.id)).toBe('here');
  });
});

describe('a canvas that is removed for good', () => {
  const MARKS = 600;
  /** A deleted canvas with marks, every third of them undone by a later one. */
  async function deleted(): Promise<string> {
    const { id } = await shelve(database, [line(1)], null);
    await database.query(
      `insert into mark (id, canvas_id, happened_at, kind, cells, drills)
       select gen_random_uuid(), $1, now(), 'lay', '\\x0000000001000000'::bytea, 1 from generate_series(1, $2::int)`,
      [id, MARKS],
    );
    await database.query(
      `insert into mark (id, canvas_id, happened_at, kind, cells, drills, undoes)
       select gen_random_uuid(), $1, now(), 'lift', cells, 1, id from mark where canvas_id = $1 and position % 3 = 0`,
      [id],
    );
    await deleteCanvas(database, id, '2026-05-01T10:00:00Z');
    return id;
  }
  const marksOf = async (id: string) =>
    (
      await database.query<{ n: number }>('select count(*)::int as n from mark where canvas_id = $1', [id])
    )[0]!.n;
  const throwaway = (id: string) => ({ before: new Date(0).toISOString(), id });

  it('goes in steps, so that others are served meanwhile, and another one stays', async () => {
    const [gone, other] = [await deleted(), await deleted()];
    let most = 0;
    const counting: Pick<Database, 'query' | 'script'> = {
      script: database.script,
      query: async <Row>(sql: string, parameters?: unknown[]) => {
        const before = await marksOf(gone);
        const rows = await database.query<Row>(sql, parameters);
        most = Math.max(most, before - (await marksOf(gone)));
        return rows;
      },
    };
    expect(await marksOf(gone)).toBe(MARKS + MARKS / 3);
    expect(await emptyDeleted(counting, throwaway(gone))).toBe(1);
    expect(most).toBeGreaterThan(0);
    expect(most).toBeLessThanOrEqual(150);
    expect(await standingOfCanvas(database, gone)).toBe('unknown');
    expect(await marksOf(gone)).toBe(0);
    expect(await marksOf(other)).toBe(MARKS + MARKS / 3);
    expect(await emptyDeleted(database, throwaway(gone))).toBe(0);
    expect((await deletedThings(database)).map(({ id }) => id)).toContain(other);
    // What refers to a mark stands in its way again.
    await expect(
      database.query(
        `delete from mark where id in (select undoes from mark where canvas_id = $1 and undoes is not null)`,
        [other],
      ),
    ).rejects.toThrow(/foreign key/);
  });

  it('is seen by nobody from the first step on, and goes at the next start when the program ended', async () => {
    const [gone, other] = [await deleted(), await deleted()];
    let steps = 0;
    const broken: Pick<Database, 'query' | 'script'> = {
      script: database.script,
      query: (sql, parameters) => {
        if (sql.startsWith('delete from mark') && ++steps === 2) throw new Error('killed');
        return database.query(sql, parameters);
      },
    };
    await expect(emptyDeleted(broken, throwaway(gone))).rejects.toThrow('killed');
    const left = await marksOf(gone);
    expect(left).toBeGreaterThan(0);
    expect(left).toBeLessThan(MARKS + MARKS / 3);
    expect(await standingOfCanvas(database, gone)).toBe('leaving');
    expect(await bringBackCanvas(database, gone)).toBe(false);
    expect((await deletedThings(database)).map(({ id }) => id)).not.toContain(gone);
    const { canvases } = await wrongTotals(database);
    await removeArriving(database);
    expect(await standingOfCanvas(database, gone)).toBe('unknown');
    expect(await marksOf(gone)).toBe(0);
    // Nothing of it was counted, and nothing of the others is gone.
    expect((await wrongTotals(database)).canvases).toBe(canvases);
    expect(await marksOf(other)).toBe(MARKS + MARKS / 3);
    expect(await bringBackCanvas(database, other)).toBe(true);
  });
});
