import { PGlite, type PGliteOptions, type Results } from '@electric-sql/pglite';
import type { Database, Queries } from './database';

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

/** @param options `dataDir` for a directory; nothing for a database in memory */
export async function openPGlite(options: PGliteOptions): Promise<Database> {
  return databaseOf(await PGlite.create({ ...options, ...CODECS }));
}

/** PGlite as our queries see it. @param pglite with the codecs of {@link openPGlite} where rows are read */
export function databaseOf(pglite: PGlite): Database {
  return {
    query: async (sql, parameters) => rowsOf(await pglite.query(sql, parameters)),
    transaction: (work) =>
      pglite.transaction((tx) => {
        const queries: Queries = {
          query: async (sql, parameters) => rowsOf(await tx.query(sql, parameters)),
        };
        return work(queries);
      }),
    script: async (sql) => {
      await pglite.exec(sql);
    },
    close: () => pglite.close(),
  };
}

function rowsOf<Row>(results: Results<unknown>): Row[] {
  return results.rows as Row[];
}
