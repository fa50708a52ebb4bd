import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Database, Queries } from './database';
import { DataFault } from './dataFault';

/** A step of the schema, as this program has it. */
interface Migration {
  name: string;
  sql: string;
  /** SHA-256 of its text. */
  hash: string;
}

/** What a database has had of the migrations that this program knows. */
export interface Migrated {
  /** Names of those that it has not had, in order. */
  pending: string[];
  /** How many this program knows. */
  known: number;
}

/**
 * How far a database has come. The steps that it had must be the first ones of ours, unchanged and without a gap.
 * @throws DataFault when a newer program wrote it, or its history is another one
 */
export async function migrated(queries: Queries, directory = migrationsDirectory()): Promise<Migrated> {
  const known = await migrationsIn(directory);
  const had = await history(queries);
  check(had, known);
  return { pending: known.slice(had.length).map(({ name }) => name), known: known.length };
}

/**
 * Runs the migrations that this database has not had yet, in order, all or none; there is no way back. Of several
 * programs that start at once on a server, one runs them and the others wait.
 * @param upTo name of the last one to run, for data of an older program
 * @throws DataFault as {@link migrated} does
 */
export async function migrate(
  database: Database,
  { directory = migrationsDirectory(), upTo }: { directory?: string; upTo?: string } = {},
): Promise<void> {
  const all = await migrationsIn(directory);
  const known = upTo === undefined ? all : all.filter(({ name }) => name <= upTo);
  await database.transaction(async (queries) => {
    await queries.script('create table if not exists migration (name text primary key)');
    await queries.script('alter table migration add column if not exists hash text');
    const had = await history(queries);
    check(had, known);
    for (const [i, { name, sql, hash }] of known.entries()) {
      if (i >= had.length) {
        await queries.script(sql);
        await queries.query('insert into migration (name, hash) values ($1, $2)', [name, hash]);
      } else if (had[i]!.hash === null) {
        // From before hashes were kept.
        await queries.query('update migration set hash = $2 where name = $1', [name, hash]);
      }
    }
  });
}

/** Names of the steps that this program knows, in order. */
export async function knownMigrations(): Promise<string[]> {
  return (await migrationsIn(migrationsDirectory())).map(({ name }) => name);
}

async function history(queries: Queries): Promise<{ name: string; hash: string | null }[]> {
  // One look at the catalogue; the views of information_schema take half a second when they are asked first.
  const [found] = await queries.query<{ there: boolean; hashed: boolean }>(
    `select to_regclass('migration') is not null as there, exists (
       select 1 from pg_attribute where attrelid = to_regclass('migration') and attname = 'hash') as hashed`,
  );
  if (!found!.there) return [];
  const hash = found!.hashed ? 'hash' : 'null as hash';
  return queries.query(`select name, ${hash} from migration order by name collate "C"`);
}

function check(had: readonly { name: string; hash: string | null }[], known: readonly Migration[]): void {
  for (const [i, { name, hash }] of had.entries()) {
    const own = known[i];
    if (!known.some((each) => each.name === name)) {
      throw new DataFault(
        'newer',
        `This data was written by a newer Oculent (it knows “${name}”). Bring this one up to date, then start it again; the data was not touched.`,
      );
    }
    if (own!.name !== name || (hash !== null && hash !== own!.hash)) {
      throw new DataFault(
        'damaged',
        `This data went through other steps than this Oculent knows (at “${name}”). It was not touched.`,
      );
    }
  }
}

async function migrationsIn(directory: string): Promise<Migration[]> {
  const names = (await readdir(directory)).filter((file) => /^\d{3}-.+\.sql$/.test(file)).sort();
  return Promise.all(
    names.map(async (name) => {
      const sql = await readFile(join(directory, name), 'utf8');
      return { name, sql, hash: createHash('sha256').update(sql).digest('hex') };
    }),
  );
}

/** The programs start from the project's root, where the built server finds the same files as the sources do. */
function migrationsDirectory(): string {
  return join(process.cwd(), 'src/data/migrations');
}
