import { randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Package } from 'datapackage';
import { strToU8, zipSync } from 'fflate';
import JSZip from 'jszip';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ARCHIVE_TABLES } from '../../src/core/archive/tables';
import type { Canvas } from '../../src/core/canvas/canvas';
import { isLaid } from '../../src/core/cells/bitmap';
import { archivedRows } from '../../src/data/archive';
import { bitmapOf } from '../../src/data/bench';
import { findCanvas, removeCanvas } from '../../src/data/canvas';
import { chartOf } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { archiveOf } from '../../src/server/archive/archiveOut';
import { restoreArchive } from '../../src/server/archive/restore';
import { planKitup } from '../../src/server/kitup/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { packed } from '../packed';
import { busyCanvas } from './busyCanvas';

let database: Database;
let canvas: Canvas;
let zip: Uint8Array;
const moment = new Date('2026-05-02T09:30:00Z');

beforeAll(async () => {
  database = await memoryDatabase();
  canvas = await busyCanvas(database, moment);
  zip = await archiveOf(database, canvas, moment);
});
afterAll(() => database.close());

/** Every row of a canvas, with its chart and what is laid. */
async function everything(from: Database, of: Canvas) {
  const tables: Record<string, unknown> = {};
  for (const table of ARCHIVE_TABLES) tables[table.name] = await archivedRows(from, table, of.id);
  return {
    tables,
    chart: await chartOf(from, of),
    laid: await bitmapOf(from, of.id, of.width * of.height),
  };
}

describe('the archive of a canvas', () => {
  it('comes back whole on another machine, and on the same once the canvas is removed', async () => {
    const before = await everything(database, canvas);
    for (const [name, rows] of Object.entries(before.tables)) expect(rows, name).not.toEqual([]);
    const elsewhere = await memoryDatabase();
    const report = await restoreArchive(elsewhere, zip, null);
    expect(report).toEqual({ id: canvas.id, title: canvas.title, notices: [] });
    expect(await everything(elsewhere, canvas)).toEqual(before);
    expect(await findCanvas(elsewhere, canvas.id)).toEqual(await findCanvas(database, canvas.id));
    await removeCanvas(elsewhere, canvas.id);
    await restoreArchive(elsewhere, await archiveOf(database, canvas, moment), null);
    expect(await everything(elsewhere, canvas)).toEqual(before);
    await elsewhere.close();
  });

  it('brings back a chart that was only begun, and a canvas that has none', async () => {
    for (const chart of [chartOfRows('..', '..'), null]) {
      const made = await shelve(database, [line(1)], chart, { width: 2, height: 2 });
      const out = await archiveOf(database, made, moment);
      await removeCanvas(database, made.id);
      await restoreArchive(database, out, null);
      expect(await chartOf(database, made)).toEqual(chart);
    }
  });

  it('is a Data Package by the published profiles, and its tables keep their Table Schemas (Frictionless Data)', async () => {
    const directory = await mkdtemp(join(tmpdir(), 'oculent-archive-'));
    // Another reader than the one that we read archives with.
    const files = await JSZip.loadAsync(zip);
    for (const [name, file] of Object.entries(files.files)) {
      await mkdir(dirname(join(directory, name)), { recursive: true });
      await writeFile(join(directory, name), await file.async('nodebuffer'));
    }
    const descriptor = JSON.parse(await files.file('datapackage.json')!.async('string')) as unknown;
    // The reference implementation of the specification, which brings the published profiles along.
    const loaded = await Package.load(descriptor, { basePath: directory, strict: false });
    expect(loaded.errors).toEqual([]);
    expect(loaded.valid).toBe(true);
    for (const resource of loaded.resources.filter(({ tabular }) => tabular)) {
      const rows = await resource.read({ keyed: true, relations: true });
      expect(rows.length, resource.name).toBeGreaterThan(0);
    }
    await rm(directory, { recursive: true });
  });

  it('shows the chart and what is laid to another decoder', async () => {
    const files = await JSZip.loadAsync(zip);
    const laid = PNG.sync.read(await files.file('laid.png')!.async('nodebuffer'));
    const bitmap = await bitmapOf(database, canvas.id, 12);
    expect([laid.width, laid.height]).toEqual([4, 3]);
    for (let cell = 0; cell < 12; cell++) expect(laid.data[cell * 4]).toBe(isLaid(bitmap, cell) ? 255 : 0);
    const chart = PNG.sync.read(await files.file('chart.png')!.async('nodebuffer'));
    expect([chart.width, chart.height]).toEqual([4, 3]);
  });

  it('becomes a second canvas with rows of its own, once for one id, without the pots', async () => {
    await expect(restoreArchive(database, zip, null)).rejects.toThrow('is on the shelf already');
    const copy = randomUUID();
    const report = await restoreArchive(database, zip, copy);
    expect(report.title).toBe('Owls, “old” & new (copy)');
    expect(report.notices[0]).toContain('no pots here');
    expect((await restoreArchive(database, zip, copy)).id).toBe(copy);
    const [own, other] = [
      await everything(database, canvas),
      await everything(database, { ...canvas, id: copy }),
    ];
    expect(other.chart).toEqual(own.chart);
    expect(other.laid).toEqual(own.laid);
    expect(other.tables.legend_line).toEqual(own.tables.legend_line);
    const ids = (rows: unknown) => (rows as { id: string }[]).map(({ id }) => id);
    expect(ids(other.tables.mark)).toHaveLength(ids(own.tables.mark).length);
    expect(ids(other.tables.mark).some((id) => ids(own.tables.mark).includes(id))).toBe(false);
    expect(other.tables.allotment).toEqual([]);
  });

  it('comes without its pots where another canvas has taken a slot since, and leaves that one alone', async () => {
    const elsewhere = await memoryDatabase();
    await restoreArchive(elsewhere, zip, null);
    const storageIds = (await elsewhere.query<{ id: string }>('select id from storage')).map(({ id }) => id);
    await removeCanvas(elsewhere, canvas.id);
    const other = await shelve(elsewhere, [line(1)], null);
    const goals = ['closes', 'overflow', 'refills', 'order', 'neighbours'] as const;
    await planKitup(elsewhere, other, {
      storageIds,
      order: 'code',
      leave: 'fewest drills',
      goals: [...goals],
      several: false,
      locks: [],
    });
    const slots = () => elsewhere.query('select canvas_id, line, slot from allotment order by line');
    const before = await slots();
    expect(before).toHaveLength(1);
    const report = await restoreArchive(elsewhere, zip, null);
    expect(report.notices[0]).toContain('no pots here');
    expect(await slots()).toEqual(before);
    await elsewhere.close();
  });
});

describe('an archive that is not what it should be', () => {
  /** The archive with some files changed or taken out; hashes are left out unless kept. */
  const changed = async (changes: Record<string, string | null>, keepHashes = false) => {
    const files = await JSZip.loadAsync(zip);
    if (!keepHashes) {
      const descriptor = JSON.parse(await files.file('datapackage.json')!.async('string')) as {
        resources: { hash?: string }[];
      };
      for (const resource of descriptor.resources) delete resource.hash;
      files.file('datapackage.json', JSON.stringify(descriptor));
    }
    for (const [name, text] of Object.entries(changes)) {
      if (text === null) files.remove(name);
      else files.file(name, text);
    }
    return files.generateAsync({ type: 'uint8array' });
  };
  const csv = async (name: string) => (await JSZip.loadAsync(zip)).file(name)!.async('string');
  const refused = async (bytes: Uint8Array, words: string) => {
    const count = 'select count(*)::int as n from canvas';
    const before = await database.query(count);
    await expect(restoreArchive(database, bytes, randomUUID())).rejects.toThrow(words);
    expect(await database.query(count)).toEqual(before);
  };

  it('is refused when it is no ZIP, cut short, or another ZIP', async () => {
    await refused(strToU8('PK but no more'), 'not a ZIP file, or it is damaged');
    await refused(zip.slice(0, zip.length - 40), 'not a ZIP file, or it is damaged');
    await refused(zipSync({ 'a.txt': strToU8('a') }), 'no archive of a canvas');
    await refused(await changed({ 'datapackage.json': '{' }), 'is not JSON');
    await refused(await changed({ 'canvas.csv': null }), 'canvas.csv is missing from this archive');
  });

  it('is refused when a name leads outside, and nothing is written there', async () => {
    await refused(zipSync({ '../canvas.csv': strToU8('a') }), 'leads outside of it');
    await refused(zipSync({ '/etc/canvas.csv': strToU8('a') }), 'leads outside of it');
  });

  it('is refused when it would unpack to too much, whether it says so or not', async () => {
    const flood = packed({ 'mark.csv': new Uint8Array(20_000_000) });
    expect(flood.length).toBeLessThan(200_000);
    /** The same file, whose directory says that it unpacks to another size (ZIP application note, 4.3.12 and 4.4.9). */
    const saying = (size: number) => {
      const bytes = flood.slice();
      const directory = bytes.length - 22 - 46 - 'mark.csv'.length;
      new DataView(bytes.buffer).setUint32(directory + 24, size, true);
      return bytes;
    };
    await refused(saying(400_000_000), 'more than 300 MB');
    await refused(saying(10), 'larger or smaller than the ZIP says');
  });

  it('is refused when a table was changed without its hash, or says what cannot be', async () => {
    const mark = await csv('mark.csv');
    await refused(
      await changed({ 'mark.csv': mark.replace(',lay,', ',lift,') }, true),
      'not as datapackage.json describes it',
    );
    await refused(
      await changed({ 'mark.csv': mark.replace(',lay,', ',flung,') }),
      'Row 1 of mark.csv: kind cannot be “flung”.',
    );
    await refused(
      await changed({ 'mark.csv': mark.replace('0 3 6 2', '0 3 2 2') }),
      'Row 1 of mark.csv: cells cannot be',
    );
    await refused(
      await changed({ 'mark.csv': mark.replace('0 3 6 2', '0 3 600 2') }),
      'beyond the last of 12 squares',
    );
    await refused(await changed({ 'mark.csv': mark.replace('0 3 6 2', '0 3') }), 'says 5 drills');
    await refused(await changed({ 'mark.csv': mark.replace('cells', 'zellen') }), 'has no column cells');
    const bags = await csv('bag_entry.csv');
    await refused(
      await changed({ 'bag_entry.csv': bags.replace(',count,1,', ',count,99000,') }),
      'line cannot be “99000”',
    );
    await refused(
      await changed({ 'bag_entry.csv': bags.replace(',count,1,', ',count,900,') }),
      'a bag of colour 900, which the list does not have',
    );
    await refused(await changed({ 'bag_entry.csv': bags.replace(',190,', ',-3,') }), 'do not fit together');
    const legend = await csv('legend_line.csv');
    await refused(
      await changed({ 'legend_line.csv': legend.replace('#d8432b', 'red') }),
      'legend_line.csv: A colour is written like #2f6f8f',
    );
    await refused(
      await changed({ 'chart.csv': 'row,column,drills,line\r\n1,4,2,1\r\n' }),
      'lies outside the canvas',
    );
    await refused(
      await changed({ 'symbol_drawing.csv': 'code,finish,path\r\n402,plain,"M0 0""/><a"\r\n' }),
      'symbol_drawing.csv: A drawing is made of',
    );
    // A ledger that is missing would bring the canvas back as if nothing had been done.
    await refused(await changed({ 'mark.csv': null }), 'mark.csv is missing from this archive');
    await refused(await changed({ 'laid.png': null }), 'laid.png is missing from this archive');
    const inspection = await csv('inspection_entry.csv');
    const photo = /photos\/[\w-]+\.jpg/.exec(inspection)![0];
    await refused(await changed({ [photo]: 'no picture' }), 'is no JPEG');
    await refused(await changed({ [photo]: null }), 'is missing from this archive');
  });
});
