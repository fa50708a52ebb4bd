import { spawnSync } from 'node:child_process';
import { closeSync, constants, existsSync, mkdirSync, openSync, realpathSync } from 'node:fs';
import { join } from 'node:path';

/** A data directory that this process alone may use. */
export interface HeldDirectory {
  /** Leads to the directory itself, also after it was renamed or another one took its name. */
  path: string;
  /** Gives the directory free again. */
  release(): void;
}

export class DirectoryInUse extends Error {
  constructor(readonly directory: string) {
    super(
      `Another Oculent is already using the data in ${directory}. Stop it first, or choose another directory with OCULENT_DATA.`,
    );
  }
}

/**
 * Takes a data directory for this process alone. The database itself has no lock, and two processes on one directory
 * would silently spoil it, so this comes before anything touches the files.
 *
 * The lock is the kernel's, on the directory's inode: it does not matter by which path, mount or network namespace a
 * second process comes, no clock is asked, and it is gone when this process is, in whatever way.
 * @throws DirectoryInUse
 */
export function takeDataLock(directory: string): HeldDirectory {
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  const real = realpathSync(directory);
  const file = process.platform === 'linux' ? lockedByFlock(real) : lockedAtOpening(real);
  const byHandle = `/proc/self/fd/${file}`;
  return {
    path: process.platform === 'linux' && existsSync(byHandle) ? byHandle : real,
    release: () => closeSync(file),
  };
}

const LOCKERS: [program: string, args: string[]][] = [
  ['flock', ['-n', '3']],
  [
    'perl',
    ['-e', 'use Fcntl qw(:flock); open(my $f, "<&=3") or exit 2; exit(flock($f, LOCK_EX | LOCK_NB) ? 0 : 1)'],
  ],
];

/**
 * Node has no flock(2). A small program takes the lock on the handle that it inherits; the lock belongs to the open
 * handle, not to that program, so it stays with us when it ends.
 */
function lockedByFlock(directory: string): number {
  const file = openSync(directory, constants.O_RDONLY | constants.O_DIRECTORY);
  for (const [program, args] of LOCKERS) {
    const { status } = spawnSync(program, args, { stdio: ['ignore', 'ignore', 'ignore', file] });
    if (status === 0) return file;
    if (status === 1) {
      closeSync(file);
      throw new DirectoryInUse(directory);
    }
  }
  closeSync(file);
  throw new Error(
    `The data in ${directory} cannot be locked: neither flock (Debian’s package util-linux) nor perl could be run.`,
  );
}

/** `O_EXLOCK | O_NONBLOCK` of BSD and macOS, `UV_FS_O_EXLOCK` of libuv on Windows: opened and locked in one step. */
const LOCKED_OPENING = process.platform === 'win32' ? 0x10000000 : 0x20 | 0x4;

function lockedAtOpening(directory: string): number {
  try {
    return openSync(join(directory, 'in-use'), constants.O_RDWR | constants.O_CREAT | LOCKED_OPENING, 0o600);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? '';
    if (['EAGAIN', 'EWOULDBLOCK', 'EBUSY'].includes(code)) throw new DirectoryInUse(directory);
    throw error;
  }
}
