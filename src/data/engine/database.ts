/** What the queries need of a database: the same on PGlite and on a PostgreSQL server. */
export interface Queries {
  /** Runs one statement with `$1…` parameters and gives its rows. */
  query<Row>(sql: string, parameters?: unknown[]): Promise<Row[]>;
  /** Runs a script of several statements. */
  script(sql: string): Promise<void>;
}

/** What a transaction writes to: one canvas and nothing that others share, so that other canvases need not wait. */
export interface Scope {
  canvasId: string;
}

export interface Database extends Queries {
  /**
   * All or nothing: a throw inside rolls everything back. Transactions run one after the other; on a server, those of
   * different canvases side by side where they say so.
   * @param scope what is written; without it, anything may be
   */
  transaction<Result>(work: (queries: Queries) => Promise<Result>, scope?: Scope): Promise<Result>;
  /** Readings of one moment that change nothing and wait for nobody. */
  snapshot<Result>(work: (queries: Queries) => Promise<Result>): Promise<Result>;
  /**
   * Calls with what is told on a channel from now on (LISTEN), by this program or another one.
   * @param lost told when something may have been missed, because the connection broke
   */
  listen(channel: string, heard: (payload: string) => void, lost: () => void): Promise<void>;
  close(): Promise<void>;
}

/** The first row, or null. */
export async function one<Row>(queries: Queries, sql: string, parameters?: unknown[]): Promise<Row | null> {
  return (await queries.query<Row>(sql, parameters))[0] ?? null;
}

/**
 * Rows that may be hundreds, as one text of JSON: field by field they take two to three times as long.
 * @param sql a query for texts, numbers within 2⁵³, booleans and JSON; moments through {@link momentSql}, no bytes
 */
export async function manyRows<Row>(queries: Queries, sql: string, parameters?: unknown[]): Promise<Row[]> {
  const found = await one<{ rows: string }>(
    queries,
    `select coalesce(json_agg(r), '[]')::text as rows from (${sql}) r`,
    parameters,
  );
  return JSON.parse(found!.rows);
}

/** SQL for a moment as ISO 8601 text in UTC to the millisecond, as moments come that are read by themselves. */
export function momentSql(column: string): string {
  return `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
}

/** Whether values were refused: SQLSTATE classes 22 (data exception) and 23 (integrity constraint violation). */
export function isDataError(error: unknown): boolean {
  const code = (error as { code?: unknown } | null)?.code;
  return typeof code === 'string' && /^2[23]/.test(code);
}
