import type { Database } from './database';

/**
 * So many values of a column are looked at times three hundred rows: enough to tell a table of ten rows from one of fifty
 * thousand, and quick enough for a program that answers meanwhile.
 */
const STATISTICS_TARGET = 10;
const FIRST_MS = 30_000;
const EVERY_MS = 60 * 60_000;

/**
 * Tells the planner how large the tables are, one after the other. PostgreSQL as a server does so by itself; embedded it
 * never does, and takes a ledger of fifty thousand rows for one of two hundred.
 */
export async function refreshStatistics(database: Database): Promise<void> {
  const tables = await database.query<{ name: string }>(
    `select quote_ident(tablename) as name from pg_tables where schemaname = current_schema()`,
  );
  for (const { name } of tables) {
    await database.transaction(async (queries) => {
      await queries.query(`select set_config('default_statistics_target', $1, true)`, [
        String(STATISTICS_TARGET),
      ]);
      await queries.query(`analyze ${name}`);
    });
    // Whoever waits for an answer comes first.
    await new Promise((resolve) => setImmediate(resolve));
  }
}

/** Does so soon after the start and every hour. Ends with the process. */
export function keepStatistics(database: Database): void {
  const look = () =>
    refreshStatistics(database).catch((error: unknown) =>
      console.error('How large the tables are could not be told; some pages may be slow.', error),
    );
  setTimeout(look, FIRST_MS).unref();
  setInterval(look, EVERY_MS).unref();
}
