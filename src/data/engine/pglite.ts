import { PGlite, type PGliteOptions, type Results } from '@electric-sql/pglite';
import type { Database, Queries } from './database';
import { DataFault, diskFault } from './dataFault';
import type { DurableFs } from './durableFs';

const BYTEA = 17;
const TIMESTAMPTZ = 1184;

/** After so long (ms) a row of queries lets others have the thread. */
const BREATH_MS = 12;

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

/** A quarter of the usual memory: it is filled with zeros at each start, and a shelf seldom fills it otherwise. */
const MEMORY = ['-c', 'shared_buffers=32MB'];
/** For what is not kept, as PGlite starts by itself. */
const UNKEPT = { startParams: [...PGlite.defaultStartParams, ...MEMORY], ...CODECS };

/** A database in memory. @param dump of a data directory to begin with; without it, an empty one is set up */
export async function openInMemory(dump: Uint8Array | null = null): Promise<Database> {
  const loadDataDir = dump && new Blob([Uint8Array.from(dump)]);
  return databaseOf(await PGlite.create({ ...(loadDataDir && { loadDataDir }), ...UNKEPT }));
}

/** A database in a directory that is only looked at and then thrown away: nothing is synced. */
export async function openThrowaway(directory: string): Promise<Database> {
  return databaseOf(await PGlite.create({ dataDir: directory, ...UNKEPT }));
}

/** As PGlite starts by itself, but with syncs, and with a file call that reaches {@link DurableFs}. */
const START = [
  ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
  ...['-c', 'wal_sync_method=fsync', '-c', 'max_wal_size=128MB', ...MEMORY],
];

/** A database in a directory. What it answers is on the disk: the answer waits for it. */
export async function openInDirectory(fs: DurableFs): Promise<Database> {
  return databaseOf(await PGlite.create({ fs, startParams: START, ...CODECS }), fs);
}

/**
 * PGlite as our queries see it.
 * @param pglite with the codecs from above where rows are read
 * @param fs that its answers wait for; null where nothing is kept
 */
export function databaseOf(pglite: PGlite, fs: DurableFs | null = null): Database {
  /** Why it answers no more. */
  let dead: DataFault | null = null;
  const answered = async <Result>(work: () => Promise<Result>): Promise<Result> => {
    if (dead) throw dead;
    try {
      const result = await work();
      await fs?.log.settled();
      return result;
    } catch (error) {
      const refused = diskFault(fs?.takeRefusal()) ?? diskFault(error);
      // The program of the database ended itself, or nobody knows any more what is on the disk.
      if (error instanceof WebAssembly.RuntimeError || fs?.log.isBroken) {
        dead =
          refused ??
          new DataFault('damaged', 'The database stopped. Start Oculent again; what was saved is kept.');
        throw dead;
      }
      throw refused ?? error;
    }
  };
  let breathed = 0;
  /** Queries run in this thread, and a row of them would hold up all that wait for the loop. */
  const breathe = async () => {
    if (performance.now() - breathed < BREATH_MS) return;
    await new Promise((resolve) => setImmediate(resolve));
    breathed = performance.now();
  };
  // One connection: whatever runs, runs alone.
  const transaction = <Result>(work: (queries: Queries) => Promise<Result>): Promise<Result> =>
    answered(() =>
      pglite.transaction((tx) =>
        work({
          query: async (sql, parameters) => {
            const rows = rowsOf<never>(await tx.query(sql, parameters));
            await breathe();
            return rows;
          },
          script: async (sql) => {
            await tx.exec(sql);
          },
        }),
      ),
    );
  return {
    query: async (sql, parameters) => {
      const rows = rowsOf<never>(await answered(() => pglite.query(sql, parameters)));
      await breathe();
      return rows;
    },
    transaction,
    snapshot: transaction,
    script: async (sql) => {
      await answered(() => pglite.exec(sql));
    },
    listen: async (channel, heard) => {
      await pglite.listen(channel, heard);
    },
    close: () => pglite.close(),
  };
}

function rowsOf<Row>(results: Results<unknown>): Row[] {
  return results.rows as Row[];
}
