import Papa from 'papaparse';
import { csvRows } from '../../core/archive/dataPackage';
import { DESCRIPTOR } from '../../core/archive/descriptor';
import type { Contents } from '../../core/backups/contents';
import { MISSING_VALUES, readStored, writeStored } from '../../core/backups/storedText';
import { tooMuchJson } from '../../core/words/nesting';
import { many } from '../../core/words/numbers';
import type { Queries } from '../../data/engine/database';
import { knownMigrations } from '../../data/engine/migrate';
import {
  countRows,
  migrationsOf,
  type StoredColumn,
  type StoredRow,
  type StoredTable,
  storedColumns,
  storedRows,
  storedTables,
} from '../../data/everything';
import { contentsOf } from '../../data/records';
import { hashOf } from '../archive/hash';
import { unzipped, zipped } from '../files/zip';
import { unreadable } from '../http/problem';
import { array, number, object, string } from '../http/schema';
import type { TellProgress } from '../jobs/progress';

/** The version of the file that this program writes and reads. */
const VERSION = 1;
/** Rows that are read at once; fewer where they hold pictures and charts. */
const PAGE = { rows: 2000, heavyRows: 40 };
/** Unpacked: decades of photos. */
const LIMITS = {
  bytes: 2_000_000_000,
  files: 50_000,
  flood: 'This file would unpack to more than 2 GB, which no shelf needs. It is refused.',
};
/** Nothing that a table holds is nested deeper. */
const MAX_NESTING = 12;
const MAX_ROWS = 5_000_000;

/** What everything-files tell of themselves. */
export interface EverythingDescriptor {
  created: string;
  /** Steps that the tables had gone through. */
  migrations: string[];
  contents: Contents | null;
}

const isPhoto = ({ name, kind }: StoredColumn) => name === 'photo' && kind === 'bytes';
const fileOf = (table: string) => `tables/${table}.csv`;

/** All tables of a database as one Data Package in a ZIP. It must stand still meanwhile. */
export async function packEverything(
  queries: Queries,
  moment: Date,
  report: TellProgress,
): Promise<{ bytes: Uint8Array; contents: Contents | null }> {
  const files = new Map<string, Uint8Array>();
  const resources: Record<string, unknown>[] = [];
  const tables = await storedTables(queries);
  for (const [i, table] of tables.entries()) {
    report(i, tables.length + 1);
    const path = fileOf(table.name);
    const bytes = Buffer.from(await tableCsv(queries, table, files));
    files.set(path, bytes);
    resources.push(tableResource(table, path, bytes));
  }
  for (const [path, bytes] of files) {
    if (path.startsWith('photos/')) resources.push(photoResource(path, bytes));
  }
  const migrations = await migrationsOf(queries);
  // Tables of an older program may not have what is counted.
  const isCurrent = migrations.length === (await knownMigrations()).length;
  const contents = isCurrent ? await contentsOf(queries) : null;
  const descriptor = {
    profile: 'data-package',
    name: 'oculent-everything',
    title: 'Everything in Oculent',
    description:
      'All canvases, leftovers, cases, tips and settings of one Oculent. docs/formats.md tells how to read it.',
    created: moment.toISOString(),
    oculent: {
      everything: VERSION,
      migrations,
      contents,
    },
    resources,
  };
  files.set(DESCRIPTOR, Buffer.from(JSON.stringify(descriptor, null, 2)));
  report(tables.length, tables.length + 1);
  return { bytes: zipped(files, moment), contents };
}

async function tableCsv(
  queries: Queries,
  table: StoredTable,
  files: Map<string, Uint8Array>,
): Promise<string> {
  const columns = storedColumns(table);
  const rows = columns.some(({ kind }) => kind === 'bytes' || kind === 'json') ? PAGE.heavyRows : PAGE.rows;
  const all = await countRows(queries, table);
  const parts = [`${Papa.unparse([columns.map(({ name }) => name)])}\r\n`];
  for (let from = 0; from < all; from += rows) {
    const page = await storedRows(queries, table, { from, rows });
    const cells = page.map((row) =>
      row.map((value, c) => {
        if (!(value instanceof Uint8Array)) return writeStored(value);
        if (!isPhoto(columns[c]!)) return Buffer.from(value).toString('base64');
        const path = `photos/${table.name}-${String(row[columns.findIndex(({ name }) => name === 'id')])}.jpg`;
        files.set(path, value);
        return path;
      }),
    );
    parts.push(`${Papa.unparse(cells, { newline: '\r\n' })}\r\n`);
  }
  return parts.join('');
}

const SCHEMA_TYPES: Record<StoredColumn['kind'], Record<string, string>> = {
  uuid: { type: 'string', format: 'uuid' },
  text: { type: 'string' },
  integer: { type: 'integer' },
  number: { type: 'number' },
  boolean: { type: 'boolean' },
  moment: { type: 'datetime', format: 'any' },
  json: { type: 'any' },
  bytes: { type: 'string', format: 'binary' },
};

function tableResource(table: StoredTable, path: string, bytes: Uint8Array): Record<string, unknown> {
  return {
    profile: 'tabular-data-resource',
    name: table.name.replace(/_/g, '-'),
    path,
    format: 'csv',
    mediatype: 'text/csv',
    encoding: 'utf-8',
    bytes: bytes.length,
    hash: hashOf(bytes),
    schema: {
      fields: storedColumns(table).map((column) => ({
        name: column.name,
        ...(isPhoto(column) ? { type: 'string' } : SCHEMA_TYPES[column.kind]),
        ...(column.optional ? {} : { constraints: { required: true } }),
      })),
      missingValues: MISSING_VALUES,
      primaryKey: table.key,
    },
  };
}

function photoResource(path: string, bytes: Uint8Array): Record<string, unknown> {
  return {
    profile: 'data-resource',
    name: path
      .replace(/^photos\//, 'photo-')
      .replace(/_/g, '-')
      .replace(/\.jpg$/, ''),
    path,
    format: 'jpg',
    mediatype: 'image/jpeg',
    bytes: bytes.length,
    hash: hashOf(bytes),
  };
}

const descriptorSchema = object({
  created: string().required(),
  oculent: object({
    everything: number().required(),
    migrations: array(string().required()).required(),
  }).required(),
  resources: array(object({ path: string().required(), hash: string().required() })).required(),
});

/** What an everything-file says of itself. @throws Problem when it is none, or a newer program's */
export async function readDescriptor(
  content: Uint8Array | undefined,
): Promise<EverythingDescriptor & { resources: { path: string; hash: string }[] }> {
  let value: unknown = null;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(content));
  } catch {
    // Told below.
  }
  const descriptor = await descriptorSchema.validate(value).catch(() => null);
  if (!content || !descriptor) {
    throw unreadable(`This is no file with everything: it has no ${DESCRIPTOR} of Oculent that tells so.`);
  }
  const { everything, migrations } = descriptor.oculent;
  if (everything > VERSION) {
    throw unreadable('This file was written by a newer Oculent. Bring this one up to date first.');
  }
  const contents = (value as { oculent: { contents?: Contents | null } }).oculent.contents ?? null;
  return { created: descriptor.created, migrations, contents, resources: descriptor.resources };
}

/** An everything-file, unpacked and whole. */
export interface EverythingFile extends EverythingDescriptor {
  /** Names of columns and rows, by table. */
  tables: Map<string, { columns: string[]; rows: StoredRow[] }>;
}

/** @throws Problem or Refusal when it is damaged, too large, or none */
export async function readEverything(bytes: Uint8Array): Promise<EverythingFile> {
  const wanted = (name: string) =>
    name === DESCRIPTOR || /^tables\/[a-z_]+\.csv$/.test(name) || /^photos\/[\w-]+\.jpg$/.test(name);
  const files = await unzipped(bytes, wanted, LIMITS);
  const { resources, ...descriptor } = await readDescriptor(files.get(DESCRIPTOR));
  for (const { path, hash } of resources) {
    const content = files.get(path);
    if (!content) throw unreadable(`${path} is missing from this file. Nothing was brought in.`);
    if (hash !== hashOf(content)) {
      throw unreadable(
        `${path} is damaged: it is not as ${DESCRIPTOR} describes it. Nothing was brought in.`,
      );
    }
  }
  const tables: EverythingFile['tables'] = new Map();
  for (const { path } of resources) {
    const table = /^tables\/([a-z_]+)\.csv$/.exec(path)?.[1];
    if (table === undefined) continue;
    const text = new TextDecoder('utf-8', { fatal: true }).decode(files.get(path));
    const [columns = [], ...lines] = csvRows(text, MAX_ROWS + 2);
    if (lines.length > MAX_ROWS) throw unreadable(`${path} has more than ${many(MAX_ROWS)} rows.`);
    const odd = lines.findIndex((line) => line.length !== columns.length);
    if (odd >= 0) throw unreadable(`Row ${odd + 1} of ${path} has another number of values than its header.`);
    const photo = columns.indexOf('photo');
    const rows = lines.map(
      (line): StoredRow =>
        line.map((cell, c) => {
          const value = readStored(cell);
          if (value !== null && tooMuchJson(value, MAX_NESTING)) {
            throw unreadable(`${path} holds something that is nested deeper than ${MAX_NESTING} levels.`);
          }
          return c === photo && value !== null ? (files.get(value) ?? null) : value;
        }),
    );
    tables.set(table, { columns, rows });
  }
  return { ...descriptor, tables };
}

/**
 * Rows as the tables of a database take them.
 * @throws Problem when the file has a column that the table does not have, or lacks one that must be there
 */
export function rowsFor(table: StoredTable, { tables }: EverythingFile): StoredRow[] | null {
  const stored = tables.get(table.name);
  if (!stored) return null;
  const columns = storedColumns(table);
  const unknown = stored.columns.find((name) => !columns.some((column) => column.name === name));
  if (unknown !== undefined) {
    throw unreadable(`${fileOf(table.name)} has a column ${unknown} that this Oculent does not know.`);
  }
  const places = columns.map(({ name }) => stored.columns.indexOf(name));
  const missing = columns.find(({ optional }, c) => places[c]! < 0 && !optional);
  if (missing) throw unreadable(`${fileOf(table.name)} has no column ${missing.name}.`);
  return stored.rows.map((row) =>
    columns.map((column, c): StoredRow[number] => {
      const value = row[places[c]!] ?? null;
      if (typeof value !== 'string') return value;
      if (column.kind === 'json' && tooMuchJson(value, MAX_NESTING)) {
        throw unreadable(
          `${fileOf(table.name)} holds something that is nested deeper than ${MAX_NESTING} levels.`,
        );
      }
      if (column.kind !== 'bytes') return value;
      return new Uint8Array(Buffer.from(value, 'base64'));
    }),
  );
}
