import { randomUUID } from 'node:crypto';
import { mkdir, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import JSZip from 'jszip';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { addCanvas } from '../../src/data/canvas';
import { type KeptDatabase, openKept } from '../../src/data/engine/connection';
import { hashOf } from '../../src/server/archive/hash';
import { backupPath, listBackups } from '../../src/server/backups/backups';
import { checkRecords } from '../../src/server/backups/check';
import { replaceWithBackup, restoreEverything } from '../../src/server/backups/restore';
import { busyCanvas } from './busyCanvas';
import { backupOf, everyRow, moment, TestShelves, titlesOn } from './testShelves';

let shelves: TestShelves;
let shelf: KeptDatabase;
let canvases: [Canvas, Canvas];
let zip: Uint8Array;

beforeAll(async () => {
  shelves = await TestShelves.begin();
  ({ shelf, canvases } = await shelves.busy());
  zip = await backupOf(shelf);
}, 120_000);
afterAll(() => shelves.close());

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
    ['cut short', async () => zip.slice(0, zip.length - 300), 'not a ZIP file, or it is damaged'],
    ['no ZIP', async () => new TextEncoder().encode('PK? no'), 'not a ZIP file'],
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
    const other = await shelves.add();
    const { name } = (await listBackups(shelf))[0]!;
    const path = join(other.directory, 'backups', name);
    await mkdir(join(other.directory, 'backups'), { recursive: true });
    await writeFile(path, zip);
    await writeFile(path.replace('093000', '093001'), 'no ZIP');
    expect(await backupPath(other, name)).toBe(path);
    const listed = await listBackups(other);
    expect(listed.map(({ fault }) => fault)).toEqual(['This file cannot be read.', null]);
    await expect(backupPath(other, '../oculent.json')).rejects.toThrow('no such backup');
    await expect(backupPath(other, '2020-01-01T000000Z-hand.zip')).rejects.toThrow('no such backup');
  });
});

describe('a check of the records', () => {
  it('finds a total that its ledger does not bear out, on the canvas that has it', async () => {
    const other = await shelves.add();
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
    const other = await shelves.add();
    const canvas = await busyCanvas(other, moment);
    await other.script('alter table lid_mark drop constraint lid_mark_canvas_id_fkey');
    await other.query('update lid_mark set canvas_id = $2 where canvas_id = $1', [canvas.id, randomUUID()]);
    // Without the constraint nobody knows that it refers to anything.
    await other.script('alter table lid_mark add foreign key (canvas_id) references canvas (id) not valid');
    for (const table of ['inspection_entry', 'canvas_photo', 'reading_photo', 'reading_result'])
      await other.query(`update ${table} set photo = 'no photo'::bytea`);
    const { faults } = await checkRecords(other);
    expect(faults).toEqual([
      '1 row of lid_mark refer by canvas_id to something that is not there.',
      '4 of 4 photos cannot be shown.',
    ]);
  });
});

it('a damaged directory gets a backup in its place; what was there is set aside', async () => {
  const directory = join(shelves.directory, randomUUID());
  const damaged = await openKept(directory, null);
  await addCanvas(damaged, { ...canvases[0]!, id: randomUUID(), title: 'Only here' }, moment.toISOString());
  await damaged.close();
  await writeFile(join(directory, 'pglite/global/pg_control'), new Uint8Array(8192));
  await expect(openKept(directory, null)).rejects.toThrow('its files are damaged');
  const file = join(shelves.directory, 'kept.zip');
  await writeFile(file, zip);
  // One that does not come back changes nothing.
  const spoilt = join(shelves.directory, 'spoilt.zip');
  await writeFile(spoilt, zip.slice(0, 900));
  await expect(replaceWithBackup(directory, { path: spoilt }, moment)).rejects.toThrow('not a ZIP file');
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
