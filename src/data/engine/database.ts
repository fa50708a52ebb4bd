/** What the queries need of a database: the same on PGlite and on a PostgreSQL server. */
export interface Queries {
  /** Runs one statement with `$1…` parameters and gives its rows. */
  query<Row>(sql: string, parameters?: unknown[]): Promise<Row[]>;
}

export interface Database extends Queries {
  /** All or nothing: a throw inside rolls everything back. Transactions run one after the other. */
  transaction<Result>(work: (queries: Queries) => Promise<Result>): Promise<Result>;
  /** Runs a script of several statements. */
  script(sql: string): Promise<void>;
  close(): Promise<void>;
}

/** The first row, or null. */
export async function one<Row>(queries: Queries, sql: string, parameters?: unknown[]): Promise<Row | null> {
  return (await queries.query<Row>(sql, parameters))[0] ?? null;
}
