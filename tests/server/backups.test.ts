import { randomUUID } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Package } from 'datapackage';
import JSZip from 'jszip';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { bitmapOf, replayMarks } from '../../src/data/bench';
import { addCanvas, deleteCanvas, removeCanvas } from '../../src/data/canvas';
import { type KeptDatabase, openKept } from '../../src/data/engine/connection';
import type { Database } from '../../src/data/engine/database';
import { migrate } from '../../src/data/engine/migrate';
import { openInMemory } from '../../src/data/engine/pglite';
import { storedColumns, storedRows, storedTables } from '../../src/data/everything';
import { putOwnTips } from '../../src/data/placing';
import { addStashItem, addStashMove, stashItems } from '../../src/data/stash';
import { hashOf } from '../../src/server/archive/pack';
import { backupPath, checkNow, listBackups, makeBackup } from '../../src/server/backups/backups';
import { checkRecords } from '../../src/server/backups/check';
import { packEverything } from '../../src/server/backups/everythingFile';
import { replaceWithBackup, restoreEverything } from '../../src/server/backups/restore';
import { enterMark } from '../../src/server/bench/writes';
import { chartOfRows, line } from '../core/samples';
import { emptyDump, shelve } from '../data/memory';
import { busyCanvas } from './busyCanvas';

const moment = new Date('2026-05-02T09:30:00Z');
let all: string;
let shelf: KeptDatabase;
let canvases: Canvas[];
let zip: Uint8Array;
const open: KeptDatabase[] = [];

/** A shelf of its own: in a directory, or where the tests run on a server, there. */
async function newShelf(where: 'as the tests' | 'directory' = 'as the tests'): Promise<KeptDatabase> {
  const server = process.env.OCULENT_TEST_SERVER_URL;
  const url =
    server && where === 'as the tests' ? `${server}&schema=k_${randomUUID().replaceAll('-', '')}` : null;
  const database = await openKept(join(all, randomUUID()), url);
  open.push(database);
  return database;
}

beforeAll(async () => {
  all = await mkdtemp(join(tmpdir(), 'oculent-backups-'));
  shelf = await newShelf();
  canvases = [await busyCanvas(shelf, moment, 'First'), await busyCanvas(shelf, moment, 'Second; “two”')];
  const item = {
    id: randomUUID(),
    code: '\\N',
    name: '',
    hex: null,
    finish: 'plain' as const,
    shape: 'round' as const,
  };
  await addStashItem(shelf, item, moment.toISOString());
  await addStashMove(
    shelf,
    { id: randomUUID(), itemId: item.id, drills: 77, bagId: null },
    moment.toISOString(),
  );
  await putOwnTips(shelf, [1, 4]);
  const gone = await shelve(shelf, [line(1)], chartOfRows('11'), { title: 'Deleted' });
  await deleteCanvas(shelf, gone.id, new Date().toISOString());
  await shelf.query(`insert into label_sheet (format, sheet) values ('card', '{"columns": 2}'::jsonb)`);
  const name = await makeBackup(shelf, 'by hand', moment);
  zip = new Uint8Array(await readFile(await backupPath(shelf, name)));
}, 120_000);
afterAll(async () => {
  for (const database of open) await database.close();
  await rm(all, { recursive: true, force: true });
});

/** Every row of every table. */
async function everyRow(database: Database): Promise<Record<string, unknown[]>> {
  const rows: Record<string, unknown[]> = {};
  for (const table of await storedTables(database)) {
    rows[table.name] = await storedRows(database, table, { from: 0, rows: 10_000 });
  }
  return rows;
}

async function titlesOn(database: Database): Promise<string[]> {
  const rows = await database.query<{ title: string }>('select title from canvas order by title');
  return rows.map(({ title }) => title);
}

describe('a backup', () => {
  it('is listed with what is in it, and brings everything back to an empty shelf', async () => {
    expect(await listBackups(shelf)).toMatchObject([
      {
        name: '2026-05-02T093000Z-hand.zip',
        why: 'by hand',
        bytes: zip.length,
        fault: null,
        contents: { bags: 4, marks: 4, leftovers: 1, cases: 2, photos: 2 },
      },
    ]);
    const elsewhere = await newShelf();
    const report = await restoreEverything(elsewhere, { bytes: zip });
    expect(report).toEqual({
      created: moment.toISOString(),
      back: expect.arrayContaining(['First', 'Second; “two”', 'Deleted']),
      hereAlready: [],
      bags: 4,
      marks: 4,
      leftovers: 1,
      cases: 2,
      photos: 2,
      leftOut: 0,
      faults: [],
    });
    const before = await everyRow(shelf);
    for (const [table, rows] of Object.entries(before)) {
      expect(rows, table).not.toEqual([]);
    }
    expect(await everyRow(elsewhere)).toEqual(before);
    for (const { id, width, height } of canvases) {
      const laid = await bitmapOf(elsewhere, id, width * height);
      expect(laid).toEqual(await bitmapOf(shelf, id, width * height));
      expect(laid).toEqual(await replayMarks(elsewhere, id, width * height));
    }
    // What comes next is numbered after what came back.
    const more = { kind: 'lay' as const, sittingId: null, undoes: null, redoes: null };
    await enterMark(elsewhere, canvases[0]!, { ...more, id: randomUUID(), runs: [10, 2] });
    expect((await checkNow(elsewhere)).faults).toEqual([]);
  }, 120_000);

  it('is a Data Package that other readers open', async () => {
    const files = await JSZip.loadAsync(zip);
    const descriptor = JSON.parse(await files.file('datapackage.json')!.async('string'));
    const pack = await Package.load(descriptor, { basePath: '.', strict: false });
    expect(pack.errors.map(({ message }) => message)).toEqual([]);
    const photos = Object.keys(files.files).filter((name) => /^photos\/.+\.jpg$/.test(name));
    expect(photos).toHaveLength(2);
    for (const { path, hash, bytes } of descriptor.resources) {
      const content = await files.file(path)!.async('uint8array');
      expect([hashOf(content), content.length], path).toEqual([hash, bytes]);
    }
    const stash = await files.file('tables/stash_item.csv')!.async('string');
    // No colour is no value; the code that looks like it is text.
    expect(stash).toMatch(/,\\\\N,,\\N,plain,round,/);
  });

  it('adds to a full shelf what is missing there, and leaves the rest as it is', async () => {
    const other = await newShelf();
    await restoreEverything(other, { bytes: zip });
    const [first, second] = canvases as [Canvas, Canvas];
    await other.query('update canvas set title = $2 where id = $1', [first.id, 'First, renamed']);
    await removeCanvas(other, second.id);
    const own = await shelve(other, [line(1)], chartOfRows('1'), { title: 'Own' });
    const [leftover] = await stashItems(other);
    await addStashMove(
      other,
      { id: randomUUID(), itemId: leftover!.id, drills: -7, bagId: null },
      moment.toISOString(),
    );
    const report = await restoreEverything(other, { bytes: zip });
    expect(report.back).toEqual(['Second; “two”']);
    expect(report.hereAlready.sort()).toEqual(['Deleted', 'First']);
    expect([report.marks, report.bags, report.photos, report.leftovers, report.cases]).toEqual([
      2, 2, 1, 0, 0,
    ]);
    expect(report.faults).toEqual([]);
    expect(await titlesOn(other)).toEqual(['Deleted', 'First, renamed', 'Own', 'Second; “two”']);
    expect((await stashItems(other))[0]!.drills).toBe(70);
    const laid = await bitmapOf(other, second.id, 12);
    expect(laid).toEqual(await bitmapOf(shelf, second.id, 12));
    expect(await bitmapOf(other, own.id, 1)).toEqual(new Uint8Array(1));
    // Its pots are where they were.
    const rows = await other.query('select line from allotment where canvas_id = $1', [second.id]);
    expect(rows.length).toBe(
      (await shelf.query('select line from allotment where canvas_id = $1', [second.id])).length,
    );
    // A second time there is nothing to do.
    expect((await restoreEverything(other, { bytes: zip })).back).toEqual([]);
  }, 120_000);

  it('is made while people work, and holds all that was there when it began', async () => {
    const busy = await newShelf();
    const canvas = await shelve(busy, [line(1)], {
      width: 100,
      height: 100,
      cells: new Uint16Array(10_000).fill(1),
    });
    const lay = (cell: number) =>
      enterMark(busy, canvas, {
        id: randomUUID(),
        kind: 'lay',
        runs: [cell, 1],
        sittingId: null,
        undoes: null,
        redoes: null,
      });
    for (let cell = 0; cell < 20; cell++) await lay(cell);
    let making = true;
    const made = makeBackup(busy, 'daily', moment).finally(() => {
      making = false;
    });
    let cell = 20;
    while (making && cell < 9000) {
      await lay(cell++);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    const name = await made;
    const elsewhere = await newShelf();
    const report = await restoreEverything(elsewhere, { path: await backupPath(busy, name) });
    expect(report.faults).toEqual([]);
    expect(report.marks).toBeGreaterThanOrEqual(20);
    expect(report.marks).toBeLessThanOrEqual(cell);
    const laid = await bitmapOf(elsewhere, canvas.id, 10_000);
    for (let at = 0; at < report.marks; at++) expect(laid[at >> 3]! & (1 << (at & 7))).not.toBe(0);
    expect((await checkNow(busy)).faults).toEqual([]);
    // Nothing but the backup is left there.
    expect(await readdir(join(busy.directory, 'backups'))).toEqual([name]);
  }, 120_000);

  it('of an older program goes through the steps that came since', async () => {
    const older = await openInMemory(await emptyDump());
    await migrate(older, { upTo: '008-panels.sql' });
    const id = randomUUID();
    await older.query(
      `insert into canvas (id, title, shape, pitch_mm, width, height, created_at) values ($1, 'Old', 'square', 2.5, 4, 2, now())`,
      [id],
    );
    await older.query(
      `insert into legend_line (canvas_id, line, key_number, code, name, finish, needed_drills, packets)
       values ($1, 1, '1', '401', '', 'plain', 100, 2)`,
      [id],
    );
    await older.query('insert into progress_cache (canvas_id, bitmap, laid) values ($1, $2, 0)', [
      id,
      new Uint8Array(1),
    ]);
    const { bytes, contents } = await packEverything(older, moment, () => {});
    await older.close();
    expect(contents).toBeNull();
    const now = await newShelf();
    const report = await restoreEverything(now, { bytes });
    expect([report.back, report.faults]).toEqual([['Old'], []]);
    expect(await now.query('select position, line from legend_line')).toEqual([{ position: 1, line: 1 }]);
  }, 120_000);
});

describe('a backup that is not what it should be', () => {
  const changed = async (
    change: (files: JSZip, descriptor: Record<string, unknown>) => void | Promise<void>,
  ) => {
    const files = await JSZip.loadAsync(zip);
    const descriptor = JSON.parse(await files.file('datapackage.json')!.async('string'));
    await change(files, descriptor);
    files.file('datapackage.json', JSON.stringify(descriptor));
    return files.generateAsync({ type: 'uint8array' });
  };
  /** Puts other content into a table, with a digest that fits it. */
  const withTable = (name: string, rewrite: (csv: string) => string) =>
    changed(async (files, descriptor) => {
      const path = `tables/${name}.csv`;
      const csv = rewrite(await files.file(path)!.async('string'));
      files.file(path, csv);
      for (const resource of descriptor.resources as { path: string; hash: string }[]) {
        if (resource.path === path) resource.hash = hashOf(Buffer.from(csv));
      }
    });
  const cases: [why: string, make: () => Promise<Uint8Array>, sentence: string][] = [
    ['cut short', async () => zip.slice(0, zip.length - 300), 'no ZIP file, or it is damaged'],
    ['no ZIP', async () => new TextEncoder().encode('PK? no'), 'no ZIP file'],
    [
      'another ZIP',
      async () => new JSZip().file('a.txt', 'a').generateAsync({ type: 'uint8array' }),
      'no file with everything',
    ],
    [
      'with a table that was changed',
      () => changed(async (files) => void files.file('tables/mark.csv', 'x')),
      'tables/mark.csv is damaged',
    ],
    [
      'with a table that is missing',
      () => changed((files) => void files.remove('tables/mark.csv')),
      'tables/mark.csv is missing',
    ],
    [
      'of a newer program',
      () => changed((_, d) => void (d.oculent as { migrations: string[] }).migrations.push('999-later.sql')),
      'written by a newer Oculent',
    ],
    [
      'of a newer format',
      () => changed((_, d) => void Object.assign(d.oculent as object, { everything: 2 })),
      'written by a newer Oculent',
    ],
    [
      'with a column of its own',
      () => withTable('mark', (csv) => csv.replace('happened_at', 'happened')),
      'has a column happened',
    ],
    [
      'with a row too short',
      () => withTable('pen_tip', (csv) => `${csv}3,4\r\n`),
      'another number of values',
    ],
    [
      'with a value that cannot be',
      () => withTable('canvas', (csv) => csv.replace(/,square,/, ',triangle,')),
      'do not fit together',
    ],
    [
      'with a row that points nowhere',
      () => withTable('lid_mark', (csv) => csv.replace(/[0-9a-f-]{36}/, randomUUID())),
      'do not fit together',
    ],
    [
      'with something nested without end',
      () => withTable('storage', (csv) => csv.replace(/"\[.*\]"/, `"${'['.repeat(500)}${']'.repeat(500)}"`)),
      'nested deeper',
    ],
  ];
  it.each(cases)(
    'is refused, and nothing comes in: %s',
    async (_why, make, sentence) => {
      const target = shelf;
      const before = await everyRow(target);
      await expect(restoreEverything(target, { bytes: await make() })).rejects.toThrow(sentence);
      expect(await everyRow(target)).toEqual(before);
    },
    60_000,
  );

  it('is told in the list', async () => {
    const other = await newShelf();
    await shelve(other, [line(1)], null);
    const name = await makeBackup(other, 'by hand', moment);
    const path = await backupPath(other, name);
    await writeFile(path.replace('093000', '093001'), 'no ZIP');
    const listed = await listBackups(other);
    expect(listed.map(({ fault }) => fault)).toEqual(['This file cannot be read.', null]);
    await expect(backupPath(other, '../oculent.json')).rejects.toThrow('no such backup');
    await expect(backupPath(other, '2020-01-01T000000Z-hand.zip')).rejects.toThrow('no such backup');
  }, 60_000);
});

describe('a check of the records', () => {
  it('finds a total that its ledger does not bear out, on the canvas that has it', async () => {
    const other = await newShelf();
    const [first, second] = [await busyCanvas(other, moment, 'One'), await busyCanvas(other, moment, 'Two')];
    expect((await checkRecords(other)).faults).toEqual([]);
    await other.query('update progress_cache set laid = laid + 1 where canvas_id = $1', [second.id]);
    expect((await checkRecords(other)).faults).toEqual([
      'Two: the number laid is not what its marks add up to.',
    ]);
    await other.query('update progress_cache set laid = laid - 1 where canvas_id = $1', [second.id]);
    await other.query('update progress_part set bits = set_byte(bits, 0, 255) where canvas_id = $1', [
      first.id,
    ]);
    expect((await checkRecords(other)).faults).toEqual([
      'One: the squares laid is not what its marks add up to.',
    ]);
  });

  it('finds what refers to nothing, and photos that are none', async () => {
    const other = await newShelf();
    const canvas = await busyCanvas(other, moment);
    await other.script('alter table lid_mark drop constraint lid_mark_canvas_id_fkey');
    await other.query('update lid_mark set canvas_id = $2 where canvas_id = $1', [canvas.id, randomUUID()]);
    // Without the constraint nobody knows that it refers to anything.
    await other.script('alter table lid_mark add foreign key (canvas_id) references canvas (id) not valid');
    await other.query("update inspection_entry set photo = 'no photo'::bytea");
    const { faults } = await checkRecords(other);
    expect(faults).toEqual([
      '1 row of lid_mark refer by canvas_id to something that is not there.',
      '1 of 1 photo cannot be shown.',
    ]);
  });
});

it('a damaged directory gets a backup in its place; what was there is set aside', async () => {
  const directory = join(all, randomUUID());
  const damaged = await openKept(directory, null);
  await addCanvas(damaged, { ...canvases[0]!, id: randomUUID(), title: 'Only here' }, moment.toISOString());
  await damaged.close();
  await writeFile(join(directory, 'pglite/global/pg_control'), new Uint8Array(8192));
  await expect(openKept(directory, null)).rejects.toThrow('its files are damaged');
  const file = join(all, 'kept.zip');
  await writeFile(file, zip);
  // One that does not come back changes nothing.
  const spoilt = join(all, 'spoilt.zip');
  await writeFile(spoilt, zip.slice(0, 900));
  await expect(replaceWithBackup(directory, { path: spoilt }, moment)).rejects.toThrow('no ZIP file');
  await expect(openKept(directory, null)).rejects.toThrow('its files are damaged');
  const report = await replaceWithBackup(directory, { path: file }, moment);
  expect(report.faults).toEqual([]);
  const names = (await readdir(directory)).sort();
  expect(names).toEqual([
    'oculent.json',
    'oculent.json.aside-2026-05-02T093000Z',
    'pglite',
    'pglite.aside-2026-05-02T093000Z',
  ]);
  const back = await openKept(directory, null);
  expect(await titlesOn(back)).toEqual(['Deleted', 'First', 'Second; “two”']);
  await back.close();
}, 120_000);

it.runIf(process.env.OCULENT_TEST_SERVER_URL)(
  'everything moves from a server to a directory and back',
  async () => {
    const here = await newShelf('directory');
    await restoreEverything(here, { bytes: zip });
    expect(await everyRow(here)).toEqual(await everyRow(shelf));
    const name = await makeBackup(here, 'by hand', moment);
    const there = await newShelf();
    await restoreEverything(there, { path: await backupPath(here, name) });
    expect(await everyRow(there)).toEqual(await everyRow(shelf));
  },
  120_000,
);

it('every column of every table is known to backups', async () => {
  for (const table of await storedTables(shelf)) {
    expect(table.key.length, table.name).toBeGreaterThan(0);
    expect(storedColumns(table).length, table.name).toBeGreaterThan(0);
  }
});
