import { createHash } from 'node:crypto';
import { open, readFile } from 'node:fs/promises';
import type { Contents } from '../../core/backups/contents';
import { type Database, isDataError, type Queries } from '../../data/engine/database';
import { readTemplate } from '../../data/engine/dataDirectory';
import { knownMigrations, migrate } from '../../data/engine/migrate';
import { openInMemory, openThrowaway } from '../../data/engine/pglite';
import {
  clearSettings,
  countRows,
  putStored,
  type StoredRow,
  type StoredTable,
  storedRows,
  storedTables,
} from '../../data/everything';
import { Problem, unreadable } from '../http/problem';
import type { TellProgress } from '../jobs/progress';
import { checkRecords } from './check';
import type { CheckReport } from './contract';
import { type EverythingFile, packEverything, readEverything, rowsFor } from './everythingFile';

/*
 * The heavy part of backups. It runs in a thread of its own, on a copy of the database (or on a connection of its own
 * to a server), so that people work on meanwhile.
 */

/** Where the data is: a copy of a database directory that is thrown away afterwards, or a server. */
export type Source = { copy: string } | { url: string };

async function openSource(source: Source): Promise<Database> {
  if ('copy' in source) return openThrowaway(source.copy);
  return (await import('../../data/engine/postgres')).openServer(source.url);
}

/** What a backup holds, and that it was proved good. */
export interface MadeBackup {
  bytes: number;
  contents: Contents | null;
  check: CheckReport | null;
}

/**
 * Writes everything into one file and proves it: the file is read from the disk, put into an empty database, and every
 * row of every table is compared.
 * @throws Problem when what came back is not what went in
 */
export async function backUp(
  { source, into, moment }: { source: Source; into: string; moment: Date },
  report: TellProgress,
): Promise<MadeBackup> {
  const database = await openSource(source);
  try {
    return await database.snapshot(async (queries) => {
      const { bytes, contents } = await packEverything(queries, moment, (done, of) => report(done, of * 2));
      await writeToDisk(into, bytes);
      report(1, 2);
      await proveSame(queries, await readEverything(new Uint8Array(await readFile(into))));
      return { bytes: bytes.length, contents, check: null };
    });
  } finally {
    await database.close();
  }
}

/** Checks the records of a copy, see {@link checkRecords}. */
export async function checkSource(
  { source }: { source: Source },
  report: TellProgress,
): Promise<CheckReport> {
  const database = await openSource(source);
  try {
    return await checkRecords(database, report);
  } finally {
    await database.close();
  }
}

async function writeToDisk(path: string, bytes: Uint8Array): Promise<void> {
  const file = await open(path, 'w', 0o600);
  try {
    await file.writeFile(bytes);
    await file.sync();
  } finally {
    await file.close();
  }
}

/** @throws Problem naming the first table that differs */
async function proveSame(before: Queries, file: EverythingFile): Promise<void> {
  const database = await filledWith(file);
  try {
    for (const table of await storedTables(before)) {
      if ((await digestOfRows(before, table)) !== (await digestOfRows(database, table))) {
        throw new Problem(
          500,
          'Not good',
          `The backup was not kept: ${table.name} did not come back as it was.`,
        );
      }
    }
  } finally {
    await database.close();
  }
}

/** A database in memory with the tables that a file was made from, and its rows. */
async function filledWith(file: EverythingFile): Promise<Database> {
  const known = await knownMigrations();
  const last = file.migrations.at(-1);
  const isOurs = file.migrations.every((name, i) => known[i] === name) && last !== undefined;
  if (!isOurs) throw unreadable('This file was written by a newer Oculent. Bring this one up to date first.');
  const template = file.migrations.length === known.length ? await readTemplate() : null;
  const database = await openInMemory(template);
  try {
    await migrate(database, { upTo: last });
    await database.transaction(async (queries) => {
      await clearSettings(queries);
      const tables = await storedTables(queries);
      const strange = [...file.tables.keys()].find((name) => !tables.some((table) => table.name === name));
      if (strange !== undefined) throw unreadable(`This Oculent knows no table ${strange}.`);
      await putStored(queries, tables, (name) => rowsFor(tables.find((table) => table.name === name)!, file));
    });
    return database;
  } catch (error) {
    await database.close();
    throw isDataError(error)
      ? unreadable(
          'The tables of this file do not fit together: a row points at one that is missing, stands twice, or holds a value that cannot be. Nothing was brought in.',
        )
      : error;
  }
}

const PAGE = 500;

async function digestOfRows(queries: Queries, table: StoredTable): Promise<string> {
  const digest = createHash('sha256');
  const all = await countRows(queries, table);
  for (let from = 0; from < all; from += PAGE) {
    for (const row of await storedRows(queries, table, { from, rows: PAGE })) {
      for (const value of row) {
        digest.update(value === null ? '-' : `${value.length} `);
        if (value !== null) digest.update(value);
      }
    }
  }
  return digest.digest('hex');
}

/** Rows of an everything-file, as the tables of this program take them. */
export interface ReadyEverything {
  created: string;
  rows: Map<string, StoredRow[]>;
}

/**
 * Reads a file with everything; one of an older program goes through the steps that came since.
 * @throws Problem or Refusal when it is damaged, too large, a newer program's, or does not fit together
 */
export async function readyEverything(
  { from }: { from: { path: string } | { bytes: Uint8Array } },
  report: TellProgress,
): Promise<ReadyEverything> {
  report(0, 3);
  const bytes = 'bytes' in from ? from.bytes : new Uint8Array(await readFile(from.path));
  const file = await readEverything(bytes);
  report(1, 3);
  // In a database of its own first: what does not fit together is met there.
  const database = await filledWith(file);
  try {
    await migrate(database);
    report(2, 3);
    const rows = new Map<string, StoredRow[]>();
    for (const table of await storedTables(database)) {
      const all = await countRows(database, table);
      const own: StoredRow[] = [];
      for (let at = 0; at < all; at += PAGE) {
        own.push(...(await storedRows(database, table, { from: at, rows: PAGE })));
      }
      rows.set(table.name, own);
    }
    return { created: file.created, rows };
  } finally {
    await database.close();
  }
}
