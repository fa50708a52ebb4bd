import pg from 'pg';
import type { Queries } from './database';

/*
 * What PGlite and a PostgreSQL server have in common: one driver speaks to both.
 */

const TIMESTAMPTZ = 1184;
const INT8 = 20;

/** Moments come as ISO text, counts as numbers. */
const types: pg.CustomTypesConfig = {
  getTypeParser: (oid: number, format?: 'text' | 'binary') => {
    if (oid === TIMESTAMPTZ) return (text: string) => new Date(text).toISOString();
    if (oid === INT8) return Number;
    return pg.types.getTypeParser(oid, format as 'text');
  },
};

/** A pool in which a connection that breaks is told to whoever asks it, and stops nothing else. */
export function poolOf(config: pg.PoolConfig): pg.Pool {
  const pool = new pg.Pool({ ...config, types });
  // Its query fails by itself; without a listener the whole program would.
  pool.on('connect', (client) => client.on('error', () => {}));
  // One that rests; the next query takes a new one.
  pool.on('error', (error) => console.error('A connection to the database broke.', error.message));
  return pool;
}

/** So many statements are kept prepared, and so many are remembered as asked once. */
const PREPARED = 1000;
/** Longer ones (characters) put many rows in at once; their plans would take the memory of all others. */
const LONGEST = 10_000;
const prepared = new Map<string, string>();
const askedOnce = new Set<string>();

/**
 * The name under which a statement is prepared: the database reads and plans it once, which takes longer than most of them
 * take to run. From the second time on, for a statement with as many parameters as there are rows comes but once.
 */
function nameOf(sql: string): string | undefined {
  if (sql.length > LONGEST) return undefined;
  const known = prepared.get(sql);
  if (known !== undefined || prepared.size >= PREPARED) return known;
  if (!askedOnce.has(sql)) {
    if (askedOnce.size >= PREPARED) askedOnce.clear();
    askedOnce.add(sql);
    return undefined;
  }
  const name = `q${prepared.size}`;
  prepared.set(sql, name);
  askedOnce.delete(sql);
  return name;
}

function queriesOn(client: pg.ClientBase): Queries {
  return {
    query: async <Row>(sql: string, parameters: unknown[] = []) => {
      const name = nameOf(sql);
      const { rows } = await client.query({
        text: sql,
        values: parameters.map(sent),
        ...(name !== undefined && { name }),
      });
      return rows.map((row: Record<string, unknown>) => received(row)) as Row[];
    },
    script: async (sql) => {
      await client.query(sql);
    },
  };
}

/**
 * Each query on a connection of the pool. A statement that is refused does not cost the connection, as it does where the
 * pool is asked itself: what is prepared there is there still.
 */
export function queriesOnPool(pool: pg.Pool): Queries {
  const borrowed = async <Result>(work: (queries: Queries) => Promise<Result>): Promise<Result> => {
    const client = await pool.connect();
    try {
      return await work(queriesOn(client));
    } finally {
      client.release();
    }
  };
  return {
    query: (sql, parameters) => borrowed((queries) => queries.query(sql, parameters)),
    script: (sql) => borrowed((queries) => queries.script(sql)),
  };
}

/**
 * A transaction on a connection of its own.
 * @param begin statements that it begins with
 * @throws what `work` throws, after everything was rolled back
 */
export async function within<Result>(
  pool: pg.Pool,
  begin: readonly string[],
  work: (queries: Queries) => Promise<Result>,
): Promise<Result> {
  const client = await pool.connect();
  let broken: Error | undefined;
  try {
    for (const step of begin) await client.query(step);
    const result = await work(queriesOn(client));
    const { command } = await client.query('commit');
    // An error that the work had swallowed.
    if (command === 'ROLLBACK') throw new Error('The transaction was rolled back instead of committed.');
    return result;
  } catch (error) {
    await client.query('rollback').catch((lost: Error) => {
      broken = lost;
    });
    throw error;
  } finally {
    client.release(broken);
  }
}

/** Bytes go as a buffer; the driver would write other byte arrays as lists of numbers. */
function sent(value: unknown): unknown {
  return value instanceof Uint8Array && !Buffer.isBuffer(value)
    ? Buffer.from(value.buffer, value.byteOffset, value.byteLength)
    : value;
}

function received(row: Record<string, unknown>): Record<string, unknown> {
  for (const [name, value] of Object.entries(row)) {
    if (Buffer.isBuffer(value)) row[name] = new Uint8Array(value);
  }
  return row;
}
