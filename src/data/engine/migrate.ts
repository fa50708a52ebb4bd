import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Database } from './database';

/** Runs the migrations that this database has not had yet, in order of their number; there is no way back. */
export async function migrate(database: Database, directory = migrationsDirectory()): Promise<void> {
  await database.script('create table if not exists migration (name text primary key)');
  const done = new Set(
    (await database.query<{ name: string }>('select name from migration')).map((m) => m.name),
  );
  const files = (await readdir(directory)).filter((file) => /^\d{3}-.+\.sql$/.test(file)).sort();
  for (const file of files) {
    if (done.has(file)) continue;
    const sql = await readFile(join(directory, file), 'utf8');
    // In one transaction, so that a faulty migration leaves nothing behind.
    try {
      await database.script(`begin;\n${sql}\ninsert into migration (name) values ('${file}');\ncommit;`);
    } catch (error) {
      await database.script('rollback');
      throw error;
    }
  }
}

/** The programs start from the project's root, where the built server finds the same files as the sources do. */
function migrationsDirectory(): string {
  return join(process.cwd(), 'src/data/migrations');
}
