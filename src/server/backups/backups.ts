import { mkdir, open, readdir, readFile, rename, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { fromFd } from 'yauzl';
import { DESCRIPTOR } from '../../core/archive/descriptor';
import {
  type BackupReason,
  backupName,
  isDue,
  outdated,
  type Retention,
  readBackupName,
  readRetention,
  retentionInWords,
} from '../../core/backups/retention';
import type { KeptDatabase } from '../../data/engine/connection';
import { diskFault } from '../../data/engine/dataFault';
import { copyLive } from '../../data/engine/liveCopy';
import { BACKUPS, DATABASE, syncDirectory } from '../../data/engine/marker';
import { isEmpty } from '../../data/everything';
import { notFound, Problem } from '../http/problem';
import { inWorker, type Job } from '../jobs/pool';
import type { BackupsView, BackupView, CheckReport } from './contract';
import { readDescriptor } from './everythingFile';
import type { Source } from './work';

/*
 * The start script and the built pages have each a copy of this module; what they share lives on the global object, as
 * the connection does.
 */
interface Shared {
  /** Ends when nobody copies the database any more; two at once cannot. */
  copying: Promise<unknown>;
  failed: string | null;
}
const holder = globalThis as typeof globalThis & { oculentBackups?: Shared };
function shared(): Shared {
  holder.oculentBackups ??= { copying: Promise.resolve(), failed: null };
  return holder.oculentBackups;
}

const PART = '.part';
const COPY = '.copy';

/** How many daily backups are kept; null where none are made by themselves. */
function retention(): Retention | null {
  return readRetention(process.env.OCULENT_BACKUPS);
}

function placeOf({ directory }: { directory: string }): string {
  return join(directory, BACKUPS);
}

/**
 * Does something with the data as it is at this moment, in another thread, while people work on.
 * @throws Problem when there is no room for a copy
 */
async function withSource<Result>(
  database: KeptDatabase,
  work: (source: Source) => Promise<Result>,
): Promise<Result> {
  if (database.url !== null) return work({ url: database.url });
  const mine = shared().copying.then(() => onCopy(database, work));
  shared().copying = mine.catch(() => {
    // Whoever asked for it is told; the next one begins all the same.
  });
  return mine;
}

async function onCopy<Result>(
  database: KeptDatabase,
  work: (source: Source) => Promise<Result>,
): Promise<Result> {
  const place = placeOf(database);
  const copy = join(place, COPY);
  try {
    await mkdir(place, { recursive: true, mode: 0o700 });
    await rm(copy, { recursive: true, force: true });
    await refuseTightDisk(database.directory);
    await copyLive(database, join(database.directory, DATABASE), copy);
    return await work({ copy });
  } finally {
    await rm(copy, { recursive: true, force: true });
  }
}

/** A copy needs the room of the database once more, for a while. */
async function refuseTightDisk(directory: string): Promise<void> {
  const { bavail, bsize } = await statfs(directory);
  let needed = 0;
  for (const entry of await readdir(join(directory, DATABASE), { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue;
    // The database removes files of its own while we walk.
    needed += (await stat(join(entry.parentPath, entry.name)).catch(() => ({ size: 0 }))).size;
  }
  const free = bavail * bsize;
  if (free < needed * 1.5) {
    const mb = (bytes: number) => Math.ceil(bytes / 1_000_000).toLocaleString('en');
    throw new Problem(
      507,
      'The disk is nearly full',
      `A backup needs ${mb(needed * 1.5)} MB for a while, and ${mb(free)} MB are free. Make room on the disk of the data.`,
    );
  }
}

/** Makes a backup, proves it good, and lets outdated ones go. @returns its name */
export async function makeBackup(
  database: KeptDatabase,
  why: BackupReason,
  moment: Date,
  job: Job | null = null,
): Promise<string> {
  const place = placeOf(database);
  await mkdir(place, { recursive: true, mode: 0o700 });
  const name = backupName(moment, why);
  const part = join(place, `${name}${PART}`);
  try {
    await withSource(database, (source) =>
      inWorker('backUp', { source, into: part, moment }, job, why === 'daily'),
    );
    // Under its name there are only backups that were proved good.
    await rename(part, join(place, name));
    await syncDirectory(place);
  } catch (error) {
    await rm(part, { force: true });
    throw diskFault(error) ?? error;
  }
  for (const old of outdated(await namesIn(place), retention() ?? undefined))
    await rm(join(place, old), { force: true });
  return name;
}

async function namesIn(place: string) {
  const names = await readdir(place).catch(() => []);
  return names.map(readBackupName).filter((each) => each !== null);
}

/** Every backup, the newest first. @param database or the directory of the data */
export async function listBackups(database: { directory: string }): Promise<BackupView[]> {
  const place = placeOf(database);
  const found = await namesIn(place);
  const views = found.map(async (each): Promise<BackupView> => {
    const path = join(place, each.name);
    const bytes = (await stat(path)).size;
    try {
      const { contents } = await descriptorIn(path);
      return { ...each, bytes, contents, fault: null };
    } catch (error) {
      const fault = error instanceof Problem ? error.detail : 'This file cannot be read.';
      return { ...each, bytes, contents: null, fault };
    }
  });
  return (await Promise.all(views)).sort((a, b) => (a.madeAt < b.madeAt ? 1 : -1));
}

/** What a backup says of itself, without unpacking the rest. */
async function descriptorIn(path: string) {
  const file = await open(path, 'r');
  return new Promise<Awaited<ReturnType<typeof readDescriptor>>>((resolve, reject) => {
    fromFd(file.fd, { lazyEntries: true, autoClose: false }, (error, zip) => {
      if (error || !zip) return reject(error ?? new Error('no ZIP'));
      zip.on('error', reject);
      zip.on('end', () => readDescriptor(undefined).catch(reject));
      zip.on('entry', (entry) => {
        if (entry.fileName !== DESCRIPTOR) return zip.readEntry();
        zip.openReadStream(entry, (fault, stream) => {
          if (fault || !stream) return reject(fault ?? new Error('no stream'));
          const parts: Buffer[] = [];
          stream.on('data', (part: Buffer) => parts.push(part));
          stream.on('error', reject);
          stream.on('end', () => {
            readDescriptor(new Uint8Array(Buffer.concat(parts))).then(resolve, reject);
          });
        });
      });
      zip.readEntry();
    });
  }).finally(() => file.close());
}

/** What the page of backups shows. */
export async function backupsView(database: KeptDatabase): Promise<BackupsView> {
  const keep = retention();
  return {
    backups: await listBackups(database),
    directory: join(database.shownDirectory, BACKUPS),
    kept: keep && retentionInWords(keep),
    failed: shared().failed,
  };
}

/** Path of a backup. @throws Problem when there is none of that name */
export async function backupPath(database: { directory: string }, name: string | undefined): Promise<string> {
  const known = name === undefined ? null : readBackupName(name);
  const path = known && join(placeOf(database), known.name);
  if (!path || !(await stat(path).catch(() => null))) throw notFound('such backup');
  return path;
}

export async function backupBytes(database: KeptDatabase, name: string | undefined): Promise<Uint8Array> {
  return new Uint8Array(await readFile(await backupPath(database, name)));
}

/** @throws Problem when there is none of that name */
export async function deleteBackup(database: KeptDatabase, name: string | undefined): Promise<void> {
  await rm(await backupPath(database, name));
}

/** Checks the records as they are now, see the contract. */
export function checkNow(database: KeptDatabase, job: Job | null = null): Promise<CheckReport> {
  return withSource(database, (source) => inWorker('checkSource', { source }, job));
}

/** How long after the start the first look is taken, and how often then. */
const FIRST_MS = 120_000;
const EVERY_MS = 30 * 60_000;

/** Makes a backup every day on which the program runs, while people work. Ends with the process. */
export function backUpDaily(database: KeptDatabase): void {
  if (retention() === null) return;
  const look = async () => {
    try {
      const newest = (await namesIn(placeOf(database)))
        .filter(({ why }) => why === 'daily')
        .reduce<string | null>((last, { madeAt }) => (last === null || madeAt > last ? madeAt : last), null);
      const now = new Date();
      if (!isDue(newest, now) || (await isEmpty(database))) return;
      await makeBackup(database, 'daily', now);
      shared().failed = null;
    } catch (error) {
      shared().failed = error instanceof Error ? error.message : String(error);
      console.error('The daily backup could not be made.', error);
    }
  };
  setTimeout(look, FIRST_MS).unref();
  setInterval(look, EVERY_MS).unref();
}
