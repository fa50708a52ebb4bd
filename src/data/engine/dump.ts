import { chmod, mkdir, open, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { create, Unpack } from 'tar';
import { syncDirectory } from './marker';

/** So many files are open at once; some systems let a program have 256. */
const TOGETHER = 32;

/** @param directory of a database that nobody has open @returns its files as a tar */
export async function dumpOf(directory: string): Promise<Uint8Array> {
  const packed = create({ cwd: directory, portable: true, noMtime: true }, await readdir(directory));
  return new Uint8Array(await packed.concat());
}

/**
 * Puts the files of a dump into a directory, for their owner alone. When this returns they are on the disk.
 * @param dump see {@link dumpOf} @param directory made when it is not there
 * @throws Error when it is no dump, or a part of one
 */
export async function unpackDump(dump: Uint8Array, directory: string): Promise<void> {
  await mkdir(directory, { recursive: true, mode: 0o700 });
  const unpack = new Unpack({ cwd: directory, strict: true, noMtime: true });
  await pipeline(Readable.from([Buffer.from(dump.buffer, dump.byteOffset, dump.byteLength)]), unpack).catch(
    (error: NodeJS.ErrnoException) => {
      if (!error.code?.startsWith('TAR_')) throw error;
      throw new Error('The empty database that comes with the program is damaged: build the program again.');
    },
  );
  const entries = await readdir(directory, { recursive: true, withFileTypes: true });
  for (let from = 0; from < entries.length; from += TOGETHER) {
    await Promise.all(
      entries.slice(from, from + TOGETHER).map(async (entry) => {
        const path = join(entry.parentPath, entry.name);
        if (entry.isDirectory()) {
          await chmod(path, 0o700);
          return syncDirectory(path);
        }
        const file = await open(path, 'r');
        try {
          await file.chmod(0o600);
          await file.sync();
        } finally {
          await file.close();
        }
      }),
    );
  }
  await syncDirectory(directory);
}
