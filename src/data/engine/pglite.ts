import { PGlite } from '@electric-sql/pglite';
import type { Database, Queries } from './database';
import { DataFault, diskFault } from './dataFault';
import { poolOf, queriesOnPool, within } from './driver';
import type { DurableFs } from './durableFs';
import { InsideStream } from './insideStream';

/** After so long (ms) a row of queries lets others have the thread. */
const BREATH_MS = 12;

/** A quarter of the usual memory: it is filled with zeros at each start, and a shelf seldom fills it otherwise. */
const MEMORY = ['-c', 'shared_buffers=32MB'];
/** For what is not kept, as PGlite starts by itself. */
const UNKEPT = { startParams: [...PGlite.defaultStartParams, ...MEMORY] };

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
  return databaseOf(await PGlite.create({ fs, startParams: START }), fs);
}

/**
 * PGlite as our queries see it.
 * @param fs that its answers wait for; null where nothing is kept
 */
export function databaseOf(pglite: PGlite, fs: DurableFs | null = null): Database {
  // One connection: whatever runs, runs alone.
  const pool = poolOf({
    max: 1,
    idleTimeoutMillis: 0,
    user: 'postgres',
    database: 'postgres',
    // Not what PGSSLMODE says of servers.
    ssl: false,
    stream: () => new InsideStream(pglite),
  });
  const hearers = new Map<string, (payload: string) => void>();
  pool.on('connect', (client) => {
    client.on('notification', ({ channel, payload }) => hearers.get(channel)?.(payload ?? ''));
    // Behind a stream that broke there is still the same session.
    client.query('deallocate all').catch(() => {});
  });
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
  const transaction = <Result>(work: (queries: Queries) => Promise<Result>): Promise<Result> =>
    answered(() =>
      within(pool, ['begin'], ({ query, script }) =>
        work({
          query: async (sql, parameters) => {
            const rows = await query<never>(sql, parameters);
            await breathe();
            return rows;
          },
          script,
        }),
      ),
    );
  const direct = queriesOnPool(pool);
  return {
    query: async (sql, parameters) => {
      const rows = await answered(() => direct.query<never>(sql, parameters));
      await breathe();
      return rows;
    },
    transaction,
    snapshot: transaction,
    script: (sql) => answered(() => direct.script(sql)),
    listen: async (channel, heard) => {
      hearers.set(channel, heard);
      await answered(() => direct.script(`listen ${channel}`));
    },
    close: async () => {
      await pool.end();
      await pglite.close();
    },
  };
}
