import { setImmediate } from 'node:timers/promises';
import type { Queries } from './engine/database';

/*
 * All tables of the user's data, row by row, as they are: what a backup holds and gives back. What the tables are is
 * asked of the database, so that a table that comes tomorrow is in tomorrow's backup.
 */

/** What a column holds, and how its text is written. */
type StoredKind = 'uuid' | 'text' | 'integer' | 'number' | 'boolean' | 'moment' | 'json' | 'bytes';

export interface StoredColumn {
  name: string;
  kind: StoredKind;
  /** Whether it may be null. */
  optional: boolean;
  /** Numbered by the database in the order in which rows come; not stored, for the order is what it tells. */
  numbered: boolean;
}

export interface StoredTable {
  name: string;
  columns: StoredColumn[];
  key: string[];
  references: { column: string; table: string; to: string; lets: 'go' | 'be forgotten' }[];
}

/** A value as it is stored: text, or bytes. */
type StoredValue = string | Uint8Array | null;
/** Values in the order of the columns that are not numbered. */
export type StoredRow = StoredValue[];

/** What is no data of the user, or lets somebody in: who has a backup may not come in by it. */
const LEFT_OUT = new Set(['migration', 'data_set', 'device_session']);

const KINDS: Record<string, StoredKind> = {
  uuid: 'uuid',
  text: 'text',
  int4: 'integer',
  int8: 'integer',
  float8: 'number',
  bool: 'boolean',
  timestamptz: 'moment',
  jsonb: 'json',
  bytea: 'bytes',
};

/** All tables of the user's data; what others refer to comes first. */
export async function storedTables(queries: Queries): Promise<StoredTable[]> {
  const columns = await queries.query<{
    table: string;
    name: string;
    type: string;
    optional: boolean;
    numbered: boolean;
  }>(
    `select table_name as "table", column_name as name, udt_name as type,
            is_nullable = 'YES' as optional, is_identity = 'YES' as numbered
     from information_schema.columns where table_schema = current_schema() order by table_name, ordinal_position`,
  );
  const constraints = await queries.query<{
    kind: 'p' | 'f';
    table: string;
    column: string;
    target: string | null;
    to: string | null;
    forgets: boolean;
  }>(
    `select c.contype as kind, t.relname as "table", a.attname as "column", o.relname as target, b.attname as "to",
            c.confdeltype = 'n' as forgets
     from pg_constraint c
     join pg_class t on t.oid = c.conrelid
     cross join lateral unnest(c.conkey) with ordinality as k (attribute, n)
     join pg_attribute a on a.attrelid = c.conrelid and a.attnum = k.attribute
     left join pg_class o on o.oid = c.confrelid
     left join pg_attribute b on b.attrelid = c.confrelid and b.attnum = c.confkey[k.n]
     where c.connamespace = current_schema()::regnamespace and c.contype in ('p', 'f')
     order by t.relname, c.oid, k.n`,
  );
  const names = [...new Set(columns.map(({ table }) => table))].filter((name) => !LEFT_OUT.has(name));
  const tables = names.map((name): StoredTable => {
    const own = constraints.filter(({ table }) => table === name);
    return {
      name,
      columns: columns
        .filter(({ table }) => table === name)
        .map(({ name: column, type, optional, numbered }) => {
          const kind = KINDS[type];
          if (!kind) throw new Error(`No backup knows how to keep ${name}.${column}, which is ${type}.`);
          return { name: column, kind, optional, numbered };
        }),
      key: own.filter(({ kind }) => kind === 'p').map(({ column }) => column),
      references: own
        .filter(({ kind }) => kind === 'f')
        .map(({ column, target, to, forgets }) => ({
          column,
          table: target!,
          to: to!,
          lets: forgets ? 'be forgotten' : 'go',
        })),
    };
  });
  return inOrder(tables);
}

function inOrder(tables: readonly StoredTable[]): StoredTable[] {
  const ordered: StoredTable[] = [];
  const left = [...tables];
  while (left.length > 0) {
    const next = left.findIndex(({ name, references }) =>
      references.every(({ table }) => table === name || ordered.some((each) => each.name === table)),
    );
    if (next < 0) throw new Error('The tables refer to each other in a circle.');
    ordered.push(...left.splice(next, 1));
  }
  return ordered;
}

export function storedColumns({ columns }: StoredTable): StoredColumn[] {
  return columns.filter(({ numbered }) => !numbered);
}

export async function countRows(queries: Queries, { name }: StoredTable): Promise<number> {
  return (await queries.query<{ n: number }>(`select count(*)::int as n from ${name}`))[0]!.n;
}

/** Rows of a table from one on, in the order in which they came. */
export async function storedRows(
  queries: Queries,
  table: StoredTable,
  { from, rows }: { from: number; rows: number },
): Promise<StoredRow[]> {
  const columns = storedColumns(table);
  const order = table.columns.find(({ numbered }) => numbered)?.name ?? table.key.join(', ');
  const found = await queries.query<Record<string, StoredValue>>(
    `select ${columns.map(({ name, kind }) => `${asStored(name, kind)} as ${name}`).join(', ')}
     from ${table.name} order by ${order} limit $1 offset $2`,
    [rows, from],
  );
  return found.map((row) => columns.map(({ name }) => row[name] ?? null));
}

function asStored(name: string, kind: StoredKind): string {
  if (kind === 'bytes') return name;
  if (kind === 'moment') return `to_char(${name} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;
  return `${name}::text`;
}

const TYPES: Record<StoredKind, string> = {
  uuid: 'uuid',
  text: 'text',
  integer: 'bigint',
  number: 'double precision',
  boolean: 'boolean',
  moment: 'timestamptz',
  json: 'jsonb',
  bytes: 'bytea',
};

/** PostgreSQL takes 65,535 parameters in one statement; fewer let others have their turn sooner. */
const MAX_PARAMETERS = 1500;

/** What became of the rows of a table. */
export interface PutTable {
  name: string;
  given: number;
  added: number;
  /** Rows that belong to what was here already, and stay out with it. */
  left: number;
  /** Rows for which there was no room: something else is in their place. */
  refused: number;
}

/** What owns rows of others: where it is here already, it stays as it is, with all that belongs to it. */
const OWNERS = new Set(['canvas', 'stash_item']);

/**
 * Puts stored rows in, beside what is there. A canvas or leftover that is here already (by its id) stays as it is, and
 * so do cases, tips and settings. Runs in the caller's transaction.
 * @param rowsOf the rows of a table, from the start; null where nothing is stored of it
 */
export async function putStored(
  queries: Queries,
  tables: readonly StoredTable[],
  rowsOf: (table: string) => StoredRow[] | null,
): Promise<PutTable[]> {
  const report: PutTable[] = [];
  /** Keys of the rows that stay out because their owner is here already, by table. */
  const out = new Map<string, Set<string>>();
  for (const table of tables) {
    const given = rowsOf(table.name) ?? [];
    const columns = storedColumns(table);
    const placeOf = (name: string) => columns.findIndex((column) => column.name === name);
    const keyOf = (row: StoredRow) => table.key.map((name) => row[placeOf(name)]).join(' ');
    const outHere = new Set<string>();
    out.set(table.name, outHere);
    if (OWNERS.has(table.name)) {
      const known = await queries.query<{ id: string }>(
        `select id from ${table.name} where id = any($1::uuid[])`,
        [given.map(keyOf)],
      );
      for (const { id } of known) outHere.add(id);
    }
    const wanted: StoredRow[] = [];
    for (const row of given) {
      const stays = table.references.some(({ column, table: target, lets }) => {
        const value = row[placeOf(column)];
        return lets === 'go' && typeof value === 'string' && (out.get(target)?.has(value) ?? false);
      });
      if (stays) outHere.add(keyOf(row));
      if (!outHere.has(keyOf(row))) wanted.push(row);
    }
    for (const { column, table: target, to, lets } of table.references) {
      if (lets === 'be forgotten')
        await forget(queries, wanted, placeOf(column), target, to, out.get(target));
    }
    const added = await insert(queries, table, columns, wanted);
    report.push({
      name: table.name,
      given: given.length,
      added,
      left: given.length - wanted.length,
      refused: wanted.length - added,
    });
  }
  return report;
}

/** Lets go of what points at a row that stays out and is not here either. */
async function forget(
  queries: Queries,
  rows: readonly StoredRow[],
  place: number,
  target: string,
  to: string,
  out: ReadonlySet<string> | undefined,
): Promise<void> {
  const asked = rows.filter((row) => typeof row[place] === 'string' && out?.has(row[place]));
  if (asked.length === 0) return;
  const here = await queries.query<{ id: string }>(
    `select ${to}::text as id from ${target} where ${to} = any($1::uuid[])`,
    [asked.map((row) => row[place])],
  );
  const known = new Set(here.map(({ id }) => id));
  for (const row of asked) if (!known.has(row[place] as string)) row[place] = null;
}

async function insert(
  queries: Queries,
  table: StoredTable,
  columns: readonly StoredColumn[],
  rows: readonly StoredRow[],
): Promise<number> {
  const most = Math.max(1, Math.floor(MAX_PARAMETERS / columns.length));
  let added = 0;
  for (let from = 0; from < rows.length; from += most) {
    const some = rows.slice(from, from + most);
    const places = some.map((_, r) => {
      const values = columns.map(({ kind }, c) => {
        const place = `$${r * columns.length + c + 1}`;
        return kind === 'bytes' ? `${place}::bytea` : `(${place}::text)::${TYPES[kind]}`;
      });
      return `(${values.join(', ')})`;
    });
    const done = await queries.query(
      `insert into ${table.name} (${columns.map(({ name }) => name).join(', ')}) values ${places.join(', ')}
       on conflict do nothing returning 1 as done`,
      some.flat(),
    );
    added += done.length;
    await setImmediate();
  }
  return added;
}

/** Whether there is nothing of the user's here yet. */
export async function isEmpty(queries: Queries): Promise<boolean> {
  const [row] = await queries.query<{ empty: boolean }>(
    `select not exists (select 1 from canvas) and not exists (select 1 from stash_item)
        and not exists (select 1 from storage) as empty`,
  );
  return row!.empty;
}

/** Takes what an empty shelf has of its own out of the way: the tips and label sheets that a new one begins with. */
export async function clearSettings(queries: Queries): Promise<void> {
  await queries.query('delete from pen_tip');
  await queries.query('delete from label_sheet');
}

/** Names of the steps that the tables went through, in order. */
export async function migrationsOf(queries: Queries): Promise<string[]> {
  const rows = await queries.query<{ name: string }>('select name from migration order by name collate "C"');
  return rows.map(({ name }) => name);
}
