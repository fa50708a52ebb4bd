/**
 * Why data cannot be used: `foreign` files where it should lie, parts that are `missing`, a `damaged` database, a
 * `newer` program's data, or a `disk` that does not do what it should.
 */
export type FaultKind = 'foreign' | 'missing' | 'damaged' | 'newer' | 'disk';

/** The data cannot be used as it is; the sentence says why and what to do. Nothing was changed. */
export class DataFault extends Error {
  override readonly name = 'DataFault';

  constructor(
    readonly kind: FaultKind,
    sentence: string,
    options?: ErrorOptions,
  ) {
    super(sentence, options);
  }
}

/** The start script and the built pages have each a copy of the class, so it is known by what it says of itself. */
export function isDataFault(error: unknown): error is DataFault {
  return error instanceof Error && error.name === 'DataFault';
}

/** Whether a backup in place of the data helps. */
export function backupHelps({ kind }: DataFault): boolean {
  return kind === 'damaged' || kind === 'missing';
}

const DISK_FAULTS: Record<string, string> = {
  ENOSPC: 'The disk that holds the data is full. Make room on it, then start Oculent again.',
  EDQUOT: 'The quota of the disk that holds the data is used up. Make room on it, then start Oculent again.',
  EROFS:
    'The disk that holds the data can only be read, not written. Mount it for writing, then start Oculent again.',
  EACCES:
    'The data may not be written by this user. Change who owns the data directory, then start Oculent again.',
  EPERM:
    'The data may not be written by this user. Change who owns the data directory, then start Oculent again.',
  EIO: 'The disk that holds the data reports an error. Save what you can of it, and restore the newest backup on another disk.',
};

/** A fault of the disk in words; null for any other error. @param error with a `code` of the operating system */
export function diskFault(error: unknown): DataFault | null {
  const code = (error as { code?: unknown } | null)?.code;
  const sentence = typeof code === 'string' ? DISK_FAULTS[code] : undefined;
  return sentence === undefined ? null : new DataFault('disk', sentence, { cause: error });
}
