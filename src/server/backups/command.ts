import { copyFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { counted, many } from '../../core/words/numbers';
import { type KeptDatabase, openKept } from '../../data/engine/connection';
import { dataDirectory } from '../../data/engine/dataDirectory';
import { backupHelps, isDataFault } from '../../data/engine/dataFault';
import { backupPath, makeBackup } from './backups';
import { checkRecords } from './check';
import type { RestoreReport } from './contract';
import { replaceWithBackup, restoreEverything } from './restore';

const USAGE = `Usage: bin/oculent                  opens the shelf
       bin/oculent verify           checks all records, and says what is wrong
       bin/oculent backup [FILE]    makes a backup, and copies it to FILE
       bin/oculent restore FILE     takes everything in from a backup
(PORT, OCULENT_DATA and DATABASE_URL are honoured)`;

/** The commands of `bin/oculent` that work on the data without opening the shelf. Ends the process. */
export async function runCommand(command: string, rest: readonly string[]): Promise<never> {
  const [file] = rest;
  if (command === 'verify' && rest.length === 0) return withData(verify);
  if (command === 'backup' && rest.length <= 1) {
    return withData(async (database) => {
      const name = await makeBackup(database, 'by hand', new Date());
      const path = await backupPath(database, name);
      if (file !== undefined) await copyFile(path, resolve(file));
      console.log(`Everything is in ${file ?? `the backup ${name}`}.`);
      return 0;
    });
  }
  if (command === 'restore' && rest.length === 1) {
    const { back, hereAlready, faults } = await restored({ path: resolve(file!) });
    console.log(`${counted(back.length, 'canvas', 'canvases')} came back: ${back.join(', ') || 'none'}.`);
    if (hereAlready.length > 0) console.log(`Here already, left as they are: ${hereAlready.join(', ')}.`);
    for (const fault of faults) console.error(fault);
    process.exit(faults.length === 0 ? 0 : 1);
  }
  console.error(USAGE);
  process.exit(2);
}

async function verify(database: KeptDatabase): Promise<number> {
  const { canvases, marks, rows, references, photos, faults } = await checkRecords(database);
  console.log(
    `Checked ${counted(canvases, 'canvas', 'canvases')} with ${counted(marks, 'mark')}, ${many(rows)} rows, ${counted(references, 'kind')} of reference, ${counted(photos, 'photo')}.`,
  );
  for (const fault of faults) console.error(fault);
  console.log(faults.length === 0 ? 'All is as it should be.' : `${counted(faults.length, 'fault')} found.`);
  return faults.length === 0 ? 0 : 1;
}

function openData(): Promise<KeptDatabase> {
  return openKept(dataDirectory(), process.env.DATABASE_URL ?? null);
}

/** Takes everything in; where the data are damaged or missing, the backup takes their place. */
async function restored(from: { path: string }): Promise<RestoreReport> {
  let database: KeptDatabase;
  try {
    database = await openData();
  } catch (error) {
    if (process.env.DATABASE_URL || !isDataFault(error) || !backupHelps(error)) throw error;
    console.error(error.message);
    return replaceWithBackup(dataDirectory(), from, new Date());
  }
  return restoreEverything(database, from).finally(() => database.close());
}

async function withData(work: (database: KeptDatabase) => Promise<number>): Promise<never> {
  const database = await openData();
  let code: number;
  try {
    code = await work(database);
  } finally {
    await database.close();
  }
  process.exit(code);
}
