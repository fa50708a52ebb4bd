import { randomUUID } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { Package } from 'datapackage';
import JSZip from 'jszip';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { bitmapOf, replayMarks } from '../../src/data/bench';
import { removeCanvas } from '../../src/data/canvas';
import type { KeptDatabase } from '../../src/data/engine/connection';
import { migrate } from '../../src/data/engine/migrate';
import { openInMemory } from '../../src/data/engine/pglite';
import { storedColumns, storedTables } from '../../src/data/everything';
import { addStashMove, stashItems } from '../../src/data/stash';
import { hashOf } from '../../src/server/archive/hash';
import { backupPath, checkNow, listBackups, makeBackup } from '../../src/server/backups/backups';
import { packEverything } from '../../src/server/backups/everythingFile';
import { restoreEverything } from '../../src/server/backups/restore';
import { enterMark } from '../../src/server/bench/writes';
import { chartOfRows, line } from '../core/samples';
import { emptyDump, shelve } from '../data/memory';
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

let broughtBack: ReturnType<typeof bringBack> | undefined;
async function bringBack() {
  const elsewhere = await shelves.add();
  return { elsewhere, report: await restoreEverything(elsewhere, { bytes: zip }) };
}
/** A shelf to which the backup was brought back; one test after the other uses it, for opening one takes seconds. */
const restored = () => {
  broughtBack ??= bringBack();
  return broughtBack;
};

describe('a backup', () => {
  it('is listed with what is in it, and brings everything back to an empty shelf', async () => {
    expect(await listBackups(shelf)).toMatchObject([
      {
        name: '2026-05-02T093000Z-hand.zip',
        why: 'by hand',
        bytes: zip.length,
        fault: null,
        contents: { bags: 4, marks: 4, leftovers: 1, cases: 2, photos: 8 },
      },
    ]);
    const { elsewhere, report } = await restored();
    expect(report).toEqual({
      created: moment.toISOString(),
      back: expect.arrayContaining(['First', 'Second; “two”', 'Deleted']),
      hereAlready: [],
      bags: 4,
      marks: 4,
      leftovers: 1,
      cases: 2,
      photos: 8,
      leftOut: 0,
      faults: [],
    });
    // Who has a backup does not come in by it: what lets a device in is left out.
    expect(await elsewhere.query('select * from device_session')).toEqual([]);
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

  it.skipIf(process.env.OCULENT_TEST_SERVER_URL)('is a Data Package that other readers open', async () => {
    const files = await JSZip.loadAsync(zip);
    const descriptor = JSON.parse(await files.file('datapackage.json')!.async('string'));
    const pack = await Package.load(descriptor, { basePath: '.', strict: false });
    expect(pack.errors.map(({ message }) => message)).toEqual([]);
    const photos = Object.keys(files.files).filter((name) => /^photos\/.+\.jpg$/.test(name));
    expect(photos).toHaveLength(8);
    for (const { path, hash, bytes } of descriptor.resources) {
      const content = await files.file(path)!.async('uint8array');
      expect([hashOf(content), content.length], path).toEqual([hash, bytes]);
    }
    const stash = await files.file('tables/stash_item.csv')!.async('string');
    // No colour is no value; the code that looks like it is text.
    expect(stash).toMatch(/,\\\\N,,\\N,plain,round,/);
  });

  it('adds to a full shelf what is missing there, and leaves the rest as it is', async () => {
    const { elsewhere: other } = await restored();
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
      2, 2, 4, 0, 0,
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
    const busy = await shelves.add();
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
    const { elsewhere } = await restored();
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

  // In memory wherever the shelf is.
  it.skipIf(process.env.OCULENT_TEST_SERVER_URL)(
    'of an older program goes through the steps that came since',
    async () => {
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
      const { elsewhere: now } = await restored();
      const report = await restoreEverything(now, { bytes });
      expect([report.back, report.faults]).toEqual([['Old'], []]);
      expect(await now.query('select position, line from legend_line where canvas_id = $1', [id])).toEqual([
        { position: 1, line: 1 },
      ]);
    },
    120_000,
  );
});

it.runIf(process.env.OCULENT_TEST_SERVER_URL)(
  'everything moves from a server to a directory and back',
  async () => {
    const here = await shelves.add('directory');
    await restoreEverything(here, { bytes: zip });
    expect(await everyRow(here)).toEqual(await everyRow(shelf));
    const name = await makeBackup(here, 'by hand', moment);
    const there = await shelves.add();
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
