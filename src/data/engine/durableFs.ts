import { closeSync, fdatasync, fdatasyncSync, fsyncSync, openSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';

/*
 * PGlite hands its writes to the operating system and never asks for them to reach the disk. Here it does, and what the
 * database asks for is really done:
 *
 * - Data files, the control file and directories are synced when the database says so (checkpoints), at once.
 * - The log of changes (WAL) is synced by whoever waits for a commit, see {@link LogSync.settled}: commits that come
 *   together share one sync, and the event loop goes on meanwhile.
 * - The log is always on the disk before a data file is written that may rest on it (the rule that gives the log its
 *   name: write ahead).
 */

/** The parts of Emscripten's NODEFS that are watched. */
interface Node {
  name: string;
  mode: number;
  parent: Node;
}
interface Stream {
  node: Node;
  nfd: number;
  flags: number;
  shared: { refcount: number };
}
interface Attributes {
  size?: number;
  mode?: number;
}
export interface NodeFsOperations {
  realPath(node: Node): string;
  flagsForNode(flags: number): number;
  tryFSOperation<Result>(work: () => Result): Result;
  stream_ops: {
    open(stream: Stream): void;
    write(stream: Stream, buffer: Uint8Array, offset: number, length: number, position: number): number;
    setattr(stream: Stream, attributes: Attributes): void;
    fsync?(stream: Stream): number;
  };
  node_ops: {
    setattr(node: Node, attributes: Attributes): void;
    mknod(parent: Node, name: string, mode: number, dev: number): Node;
    rename(node: Node, parent: Node, name: string): void;
    unlink(parent: Node, name: string): void;
    rmdir(parent: Node, name: string): void;
  };
}

const DIRECTORY = 0o040000;
const KIND = 0o170000;
const isDirectory = ({ mode }: Node) => (mode & KIND) === DIRECTORY;
/** What a disk says that cannot take more. */
const DISK_CODES = new Set(['ENOSPC', 'EDQUOT', 'EROFS', 'EIO']);
/** Rights of everyone else. */
const OTHERS = 0o077;
const forOwner = (attributes: Attributes): Attributes =>
  attributes.mode === undefined ? attributes : { ...attributes, mode: attributes.mode & ~OTHERS };
const isLog = ({ name, parent }: Node) => parent.name === 'pg_wal' && /^[0-9A-F]{24}$/.test(name);

/** A file system of PGlite in a directory of the host, see above. */
export class DurableFs extends NodeFS {
  readonly log: LogSync;
  /** What the disk refused last, and nobody was told yet. */
  #refused: unknown = null;

  /** @param directory of the database; made when it is not there */
  constructor(directory: string) {
    super(directory);
    this.log = new LogSync(
      (path) => this.syncLog(path),
      (path) => this.syncLogNow(path),
    );
  }

  override async init(pg: PGlite, options: Parameters<NodeFS['init']>[1]) {
    const watch = (module: unknown) =>
      this.watch((module as { NODEFS: NodeFsOperations }).NODEFS, this.rootDir);
    return super.init(pg, { ...options, preRun: [...(options.preRun ?? []), watch] });
  }

  /** Puts our own steps round what the database does with files. */
  protected watch(fs: NodeFsOperations, root: string): void {
    const { stream_ops: stream, node_ops: node, tryFSOperation: attempt } = fs;
    const inner = { ...stream, ...node, streamSetattr: stream.setattr };
    fs.tryFSOperation = (work) =>
      attempt(() => {
        try {
          return work();
        } catch (error) {
          if (DISK_CODES.has(codeOf(error))) this.#refused = error;
          throw error;
        }
      });
    const logPath = ({ name }: Node) => join(root, 'pg_wal', name);
    stream.open = (opened) => {
      // Unlike the original: for the owner alone, whatever the umask.
      fs.tryFSOperation(() => {
        opened.shared.refcount = 1;
        opened.nfd = openSync(fs.realPath(opened.node), fs.flagsForNode(opened.flags), 0o600);
      });
    };
    stream.write = (opened, buffer, offset, length, position) => {
      if (isLog(opened.node)) this.log.wrote(logPath(opened.node));
      else fs.tryFSOperation(() => this.log.settleNow());
      return inner.write(opened, buffer, offset, length, position);
    };
    stream.fsync = (opened) => {
      if (!isLog(opened.node)) fs.tryFSOperation(() => this.syncFile(opened));
      return 0;
    };
    stream.setattr = (opened, attributes) => {
      if (attributes.size !== undefined) fs.tryFSOperation(() => this.log.settleNow());
      inner.streamSetattr(opened, forOwner(attributes));
    };
    node.setattr = (changed, attributes) => {
      if (attributes.size !== undefined) fs.tryFSOperation(() => this.log.settleNow());
      inner.setattr(changed, forOwner(attributes));
    };
    node.mknod = (parent, name, mode, dev) => inner.mknod(parent, name, mode & ~OTHERS, dev);
    node.rename = (moved, parent, name) => {
      fs.tryFSOperation(() => this.log.settleNow());
      inner.rename(moved, parent, name);
    };
    node.unlink = (parent, name) => {
      fs.tryFSOperation(() => this.log.settleNow());
      inner.unlink(parent, name);
    };
  }

  /** What the disk refused since this was asked last; null where it refused nothing. */
  takeRefusal(): unknown {
    const refused = this.#refused;
    this.#refused = null;
    return refused;
  }

  protected syncFile(opened: Stream): void {
    try {
      fsyncSync(opened.nfd);
    } catch (error) {
      // Some file systems cannot sync a directory; PostgreSQL passes over that too.
      if (isDirectory(opened.node) && ['EINVAL', 'EBADF', 'EPERM'].includes(codeOf(error))) return;
      throw error;
    }
  }

  protected async syncLog(path: string): Promise<void> {
    const file = openSync(path, 'r');
    try {
      await promisify(fdatasync)(file);
    } finally {
      closeSync(file);
    }
  }

  protected syncLogNow(path: string): void {
    const file = openSync(path, 'r');
    try {
      fdatasyncSync(file);
    } finally {
      closeSync(file);
    }
  }
}

function codeOf(error: unknown): string {
  return (error as NodeJS.ErrnoException).code ?? '';
}

/** Which files of the log wait for the disk, and who waits with them. */
export class LogSync {
  #written = 0;
  #synced = 0;
  #waiting = new Set<string>();
  #underWay: readonly string[] = [];
  #running: Promise<void> | null = null;
  #fault: unknown = null;

  /**
   * @param sync gets a file to the disk, without holding anybody up
   * @param syncNow the same, before it returns
   */
  constructor(
    readonly sync: (path: string) => Promise<void>,
    readonly syncNow: (path: string) => void,
  ) {}

  /** A sync failed, so nothing more is promised. */
  get isBroken(): boolean {
    return this.#fault !== null;
  }

  wrote(path: string): void {
    this.#written++;
    this.#waiting.add(path);
  }

  /** All that is written so far is on the disk. @throws what the disk threw; then nothing more is promised, ever */
  settleNow(): void {
    if (this.#fault !== null) throw this.#fault;
    if (this.#synced === this.#written) return;
    try {
      for (const path of new Set([...this.#underWay, ...this.#waiting])) this.syncNow(path);
    } catch (error) {
      this.#fault = error;
      throw error;
    }
    this.#waiting.clear();
    this.#synced = this.#written;
  }

  /** Waits until all that is written so far is on the disk. Those who wait together share a sync. */
  async settled(): Promise<void> {
    const target = this.#written;
    while (this.#synced < target && this.#fault === null) {
      this.#running ??= this.#run();
      await this.#running;
    }
    // After a failed sync the system may have dropped what it could not write: a second try would succeed wrongly.
    if (this.#fault !== null) throw this.#fault;
  }

  async #run(): Promise<void> {
    const upTo = this.#written;
    this.#underWay = [...this.#waiting];
    this.#waiting.clear();
    try {
      await Promise.all(this.#underWay.map((path) => this.sync(path)));
      this.#synced = Math.max(this.#synced, upTo);
    } catch (error) {
      this.#fault = error;
    } finally {
      this.#underWay = [];
      this.#running = null;
    }
  }
}
