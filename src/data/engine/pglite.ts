import { PGlite, type PGliteOptions, type Results } from '@electric-sql/pglite';
import type { Database, Queries } from './database';
import type { DurableFs } from './durableFs';

const BYTEA = 17;
const TIMESTAMPTZ = 1184;

/** The built-in bytea codecs take ten times as long on a large chart. */
const CODECS: PGliteOptions = {
  serializers: {
    [BYTEA]: (value: Uint8Array) =>
      `\\x${Buffer.from(value.buffer, value.byteOffset, value.byteLength).toString('hex')}`,
  },
  parsers: {
    [BYTEA]: (text: string) => new Uint8Array(Buffer.from(text.slice(2), 'hex')),
    [TIMESTAMPTZ]: (text: string) => new Date(text).toISOString(),
  },
};

/** A database in memory. @param dump of a data directory to begin with; without it, an empty one is set up */
export async function openInMemory(dump: Uint8Array | null = null): Promise<Database> {
  const loadDataDir = dump && new Blob([Uint8Array.from(dump)]);
  return databaseOf(await PGlite.create({ ...(loadDataDir && { loadDataDir }), ...CODECS }));
}

/** As PGlite starts by itself, but with syncs, and with a file call that reaches {@link DurableFs}. */
const START = [
  ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
  ...['-c', 'wal_sync_method=fsync', '-c', 'max_wal_size=128MB'],
];

/**
 * A database in a directory. What it answers is on the disk: the answer waits for it.
 * @param dump of a data directory to begin with, for a new one
 */
export async function openInDirectory(fs: DurableFs, dump: Uint8Array | null = null): Promise<Database> {
  const loadDataDir = dump && new Blob([Uint8Array.from(dump)]);
  const pglite = await PGlite.create({
    fs,
    startParams: START,
    ...(loadDataDir && { loadDataDir }),
    ...CODECS,
  });
  return databaseOf(pglite, () => fs.log.settled());
}

/**
 * PGlite as our queries see it.
 * @param pglite with the codecs from above where rows are read
 * @param settled waits until all that the answer rests on will stay
 */
export function databaseOf(pglite: PGlite, settled: () => Promise<void> = async () => {}): Database {
  const answered = async <Result>(work: Promise<Result>): Promise<Result> => {
    const result = await work;
    await settled();
    return result;
  };
  // One connection: whatever runs, runs alone.
  const transaction = <Result>(work: (queries: Queries) => Promise<Result>): Promise<Result> =>
    answered(
      pglite.transaction((tx) =>
        work({
          query: async (sql, parameters) => rowsOf(await tx.query(sql, parameters)),
          script: async (sql) => {
            await tx.exec(sql);
          },
        }),
      ),
    );
  return {
    query: async (sql, parameters) => rowsOf(await answered(pglite.query(sql, parameters))),
    transaction,
    snapshot: transaction,
    script: async (sql) => {
      await answered(pglite.exec(sql));
    },
    close: () => pglite.close(),
  };
}

function rowsOf<Row>(results: Results<unknown>): Row[] {
  return results.rows as Row[];
}
