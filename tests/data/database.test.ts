import { randomUUID } from 'node:crypto';
import { cp, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  addCanvas,
  bringBackCanvas,
  canvasIdsEnding,
  deleteCanvas,
  findCanvas,
  legendOf,
  removeCanvas,
  shelf,
} from '../../src/data/canvas';
import { chartOf } from '../../src/data/chart';
import { deletedThings, emptyDeleted } from '../../src/data/deleted';
import { type Database, manyRows, momentSql } from '../../src/data/engine/database';
import { migrate } from '../../src/data/engine/migrate';
import { ownTips, putOwnTips, tipSizes } from '../../src/data/placing';
import { sectionPlanOf } from '../../src/data/sections';
import { chartOfRows, line } from '../core/samples';
import { keepGrid, memoryDatabase, shelve } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

describe('migrations', () => {
  it('run once: a second time changes nothing', async () => {
    const before = await database.query('select name from migration order by name');
    await migrate(database);
    expect(await database.query('select name from migration order by name')).toEqual(before);
    expect(before.length).toBeGreaterThanOrEqual(3);
  });

  it('leave nothing behind when one is faulty', async () => {
    const directory = await mkdtemp(join(tmpdir(), 'oculent-migrations-'));
    await cp('src/data/migrations', directory, { recursive: true });
    await writeFile(
      join(directory, '900-faulty.sql'),
      'create table half (n integer); select no_such_function();',
    );
    await expect(migrate(database, { directory })).rejects.toThrow('no_such_function');
    await expect(database.query('select * from half')).rejects.toThrow('does not exist');
    expect(await database.query("select name from migration where name like '900%'")).toEqual([]);
    await rm(directory, { recursive: true });
  });
});

describe('many rows at once', () => {
  it('are what they are one by one: odd texts, nothing, whole and broken numbers, lists, moments, in their order', async () => {
    const rows = (happenedAt: string) =>
      `select name, n, spread, list, ${happenedAt} as "happenedAt" from (values
         (2, E'a "b" \\\\ c\n😀', 9007199254740991::bigint, 0.1::float8, '[1, null]'::jsonb, '2026-03-01T00:00:00.1Z'::timestamptz),
         (1, null, -1, 1e300, 'null', '2026-02-28T23:59:59.9996+01'),
         (3, '', 0, null, '{"a": "ä"}', '1999-12-31T23:59:59.999-08:00')) v(at, name, n, spread, list, happened_at)
       where at <> $1 order by at`;
    for (const left of [0, 2]) {
      const apart = await database.query(rows('happened_at'), [left]);
      expect(apart).toHaveLength(left === 0 ? 3 : 2);
      expect(await manyRows(database, rows(momentSql('happened_at')), [left])).toEqual(apart);
    }
    expect(await manyRows(database, 'select id from canvas where id = $1', [randomUUID()])).toEqual([]);
  });
});

describe('transactions', () => {
  it('take everything back when one step fails', async () => {
    const canvas = await shelve(database, [line(1)], null);
    await expect(
      database.transaction(async (queries) => {
        await queries.query('update canvas set title = $2 where id = $1', [canvas.id, 'Changed']);
        throw new Error('no');
      }),
    ).rejects.toThrow('no');
    expect((await findCanvas(database, canvas.id))?.title).toBe('Test cloth');
  });
});

describe('canvases', () => {
  it('come back as they were put', async () => {
    const canvas = await shelve(database, [], null, {
      shape: 'round',
      pitchMm: 2.8,
      panels: 2,
      symbolsPrinted: false,
    });
    expect(await findCanvas(database, canvas.id)).toEqual(canvas);
  });

  it('with a known id are left as they are', async () => {
    const canvas = await shelve(database, [], null);
    expect(await addCanvas(database, { ...canvas, title: 'Other' }, new Date().toISOString())).toBe(false);
    expect((await findCanvas(database, canvas.id))?.title).toBe('Test cloth');
  });

  it('keep legend and chart to the last cell', async () => {
    const legend = [line(1, { symbol: null, hex: null }), line(2, { finish: 'glow', name: "O'Neill; drop" })];
    const chart = chartOfRows('12.', '211');
    const canvas = await shelve(database, legend, chart);
    expect(await legendOf(database, canvas.id)).toEqual(legend);
    expect(await chartOf(database, canvas)).toEqual(chart);
    expect((await shelf(database, canvas.id))[0]).toMatchObject({
      colours: 2,
      drills: 5,
      hasChart: true,
      bagsToFind: 2,
    });
  });

  it('count their whole area while there is no chart', async () => {
    const canvas = await shelve(database, [], null, { width: 12, height: 5 });
    expect((await shelf(database, canvas.id))[0]).toMatchObject({ drills: 60, hasChart: false, laid: 0 });
  });

  it('go with all that belongs to them', async () => {
    const canvas = await shelve(database, [line(1)], chartOfRows('1'));
    expect(await removeCanvas(database, canvas.id)).toBe(true);
    expect(await removeCanvas(database, canvas.id)).toBe(false);
    expect(await legendOf(database, canvas.id)).toEqual([]);
    expect(await chartOf(database, canvas)).toBeNull();
  });

  it('that are deleted are off the shelf, kept for a while, and come back whole, the others untouched', async () => {
    const [gone, other] = [
      await shelve(database, [line(1)], chartOfRows('11')),
      await shelve(database, [line(1)], chartOfRows('11')),
    ];
    const ids = async () => (await shelf(database)).map(({ canvas }) => canvas.id);
    expect(await deleteCanvas(database, gone.id, '2026-05-01T10:00:00Z')).toBe(true);
    expect(await deleteCanvas(database, gone.id, '2026-05-01T11:00:00Z')).toBe(false);
    expect(await findCanvas(database, gone.id)).toBeNull();
    expect(await ids()).not.toContain(gone.id);
    expect(await ids()).toContain(other.id);
    expect(await canvasIdsEnding(database, gone.id.slice(-8))).toEqual([]);
    expect((await deletedThings(database)).map(({ id }) => id)).toEqual([gone.id]);
    expect(await emptyDeleted(database, { before: '2026-05-01T09:00:00Z' })).toBe(0);
    expect(await bringBackCanvas(database, gone.id)).toBe(true);
    expect(await bringBackCanvas(database, gone.id)).toBe(false);
    expect(await findCanvas(database, gone.id)).toEqual(gone);
    expect((await chartOf(database, gone))!.cells).toHaveLength(2);
    await deleteCanvas(database, gone.id, '2026-05-01T10:00:00Z');
    expect(await emptyDeleted(database, { before: '2026-06-01T10:00:00Z' })).toBe(1);
    expect(await deletedThings(database)).toEqual([]);
    expect(await findCanvas(database, other.id)).toEqual(other);
  });

  it('hold a chart of half a million cells', async () => {
    const cells = Uint16Array.from({ length: 840 * 500 }, (_, i) => i % 77);
    const canvas = await shelve(database, [], { width: 840, height: 500, cells });
    expect((await chartOf(database, canvas))!.cells).toEqual(cells);
  });
});

describe('plans', () => {
  it('of sections have the usual size until another is chosen', async () => {
    const canvas = await shelve(database, [], null);
    const other = await shelve(database, [], null);
    const block = async (of: typeof canvas) => (await sectionPlanOf(database, of)).block;
    expect(await block(canvas)).toEqual({ columns: 20, rows: 20 });
    await keepGrid(database, canvas, 10, 40);
    await keepGrid(database, canvas, 12, 40);
    expect(await block(canvas)).toEqual({ columns: 12, rows: 40 });
    expect(await block(other)).toEqual({ columns: 20, rows: 20 });
    // A grid from before there were cuts holds until the first.
    await database.query(
      'insert into section_plan (canvas_id, block_columns, block_rows) values ($1, 7, 8)',
      [other.id],
    );
    expect(await block(other)).toEqual({ columns: 7, rows: 8 });
  });

  it('keep the single placer among the tips', async () => {
    const tip = (size: number, more = {}) => ({
      size,
      shape: 'both' as const,
      pen: '',
      worn: false,
      ...more,
    });
    const put = [tip(9), tip(3, { shape: 'round', pen: 'blue' }), tip(9, { worn: true })];
    const kept = [tip(1), tip(3, { shape: 'round', pen: 'blue' }), tip(9, { worn: true })];
    expect(await putOwnTips(database, put)).toEqual(kept);
    expect(await ownTips(database)).toEqual(kept);
    expect(await tipSizes(database, 'square')).toEqual([1, 9]);
    expect(await tipSizes(database, 'round')).toEqual([1, 3, 9]);
    // Another screen, which saw only the single placer, adds a tip: it takes nothing out.
    expect(await putOwnTips(database, [tip(1), tip(4)], [tip(1)])).toEqual([
      ...kept.slice(0, 2),
      tip(4),
      kept[2],
    ]);
    expect(await putOwnTips(database, [], [tip(1), tip(4)])).toEqual(kept);
  });
});
