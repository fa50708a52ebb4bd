import { createHash } from 'node:crypto';
import { mkdir, realpath } from 'node:fs/promises';
import { createServer } from 'node:net';
import lockfile from 'proper-lockfile';

/** Gives the data directory free again. */
export type Release = () => Promise<void>;

export class DirectoryInUse extends Error {
  constructor(readonly directory: string) {
    super(
      `Another Oculent is already using the data in ${directory}. Stop it first, or choose another directory with OCULENT_DATA.`,
    );
  }
}

/**
 * Takes a data directory for this process alone. The database itself has no lock, and two processes on one
 * directory would silently spoil it, so this comes before anything touches the files.
 * On Linux the lock is an abstract socket, which the kernel frees when the process dies in whatever way.
 * @throws DirectoryInUse
 */
export async function takeDataLock(directory: string): Promise<Release> {
  await mkdir(directory, { recursive: true, mode: 0o700 });
  const path = await realpath(directory);
  return process.platform === 'linux' ? lockBySocket(path) : lockByFile(path);
}

function lockBySocket(path: string): Promise<Release> {
  const name = `\0oculent-${createHash('sha256').update(path).digest('hex').slice(0, 32)}`;
  return new Promise((resolve, reject) => {
    const holder = createServer();
    holder.once('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'EADDRINUSE' ? new DirectoryInUse(path) : error),
    );
    holder.listen(name, () => {
      holder.unref();
      resolve(() => new Promise((done) => holder.close(() => done())));
    });
  });
}

async function lockByFile(path: string): Promise<Release> {
  try {
    return await lockfile.lock(path, { stale: 10_000 });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ELOCKED') throw new DirectoryInUse(path);
    throw error;
  }
}
