import { randomUUID } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Canvas } from '../../src/core/canvas/canvas';
import { deleteCanvas } from '../../src/data/canvas';
import { addDevice, claimScreen, putHomeNetworkSetting } from '../../src/data/devices';
import { type KeptDatabase, openKept } from '../../src/data/engine/connection';
import type { Database } from '../../src/data/engine/database';
import { storedRows, storedTables } from '../../src/data/everything';
import { putOwnTips } from '../../src/data/placing';
import { addStashItem, addStashMove } from '../../src/data/stash';
import { backupPath, makeBackup } from '../../src/server/backups/backups';
import { chartOfRows, line } from '../core/samples';
import { shelve } from '../data/memory';
import { busyCanvas } from './busyCanvas';

/** When everything in these tests happened. */
export const moment = new Date('2026-05-02T09:30:00Z');

/** Shelves that a test file opens, in a directory that is thrown away. */
export class TestShelves {
  readonly #open: KeptDatabase[] = [];
  private constructor(readonly directory: string) {}

  static async begin(): Promise<TestShelves> {
    return new TestShelves(await mkdtemp(join(tmpdir(), 'oculent-backups-')));
  }

  /** A shelf of its own: in a directory, or where the tests run on a server, there. */
  async add(where: 'as the tests' | 'directory' = 'as the tests'): Promise<KeptDatabase> {
    const server = process.env.OCULENT_TEST_SERVER_URL;
    const url =
      server && where === 'as the tests' ? `${server}&schema=k_${randomUUID().replaceAll('-', '')}` : null;
    const database = await openKept(join(this.directory, randomUUID()), url);
    this.#open.push(database);
    return database;
  }

  /** A shelf with something in every table: two canvases, one that is deleted, leftovers, tips, a label sheet. */
  async busy(): Promise<{ shelf: KeptDatabase; canvases: [Canvas, Canvas] }> {
    const shelf = await this.add();
    const canvases: [Canvas, Canvas] = [
      await busyCanvas(shelf, moment, 'First'),
      await busyCanvas(shelf, moment, 'Second; “two”'),
    ];
    const plain = {
      id: randomUUID(),
      name: '',
      hex: null,
      finish: 'plain' as const,
      shape: 'round' as const,
    };
    await addStashItem(shelf, { ...plain, code: '\\N' }, moment.toISOString());
    await addStashMove(
      shelf,
      { id: randomUUID(), itemId: plain.id, drills: 77, bagId: null },
      moment.toISOString(),
    );
    await putOwnTips(shelf, [
      { size: 4, shape: 'round', pen: 'blue', worn: true },
      { size: 4, shape: 'square', pen: '', worn: false },
    ]);
    const gone = await shelve(shelf, [line(1)], chartOfRows('11'), { title: 'Deleted' });
    await deleteCanvas(shelf, gone.id, new Date().toISOString());
    const device = { id: randomUUID(), name: 'Tablet “two”', joinedBy: 'passphrase' as const };
    await addDevice(shelf, {
      ...device,
      tokenHash: 'secret',
      address: '127.0.0.9',
      at: moment.toISOString(),
    });
    await claimScreen(shelf, randomUUID(), device.id);
    await putHomeNetworkSetting(shelf, { on: true, passphrase: 'scrypt:1:2:3:a:b', deskName: 'Attic' });
    await shelf.query(`insert into label_sheet (format, sheet) values ('card', '{"columns": 2}'::jsonb)`);
    return { shelf, canvases };
  }

  async close(): Promise<void> {
    for (const database of this.#open) await database.close();
    await rm(this.directory, { recursive: true, force: true });
  }
}

/** A backup of a shelf, as its bytes. */
export async function backupOf(shelf: KeptDatabase): Promise<Uint8Array> {
  const name = await makeBackup(shelf, 'by hand', moment);
  return new Uint8Array(await readFile(await backupPath(shelf, name)));
}

/** Every row of every table. */
export async function everyRow(database: Database): Promise<Record<string, unknown[]>> {
  const rows: Record<string, unknown[]> = {};
  for (const table of await storedTables(database)) {
    rows[table.name] = await storedRows(database, table, { from: 0, rows: 10_000 });
  }
  return rows;
}

export async function titlesOn(database: Database): Promise<string[]> {
  const rows = await database.query<{ title: string }>('select title from canvas order by title');
  return rows.map(({ title }) => title);
}
