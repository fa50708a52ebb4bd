import { closeSync, mkdirSync, openSync, renameSync, rmSync, truncateSync, writeSync } from 'node:fs';
import { cp } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { DurableFs, type NodeFsOperations } from '../../src/data/engine/durableFs';

/*
 * A disk that forgets what was not synced: what the database does with its files is written down, and a power cut at any
 * of these moments is played out in a copy of the directory. Contents that no sync covers are kept, lost or torn by
 * chance, sector by sector; names that no sync of their directory covers are kept up to a chance moment, in order.
 */
type Step =
  | { kind: 'write'; file: number; at: number; bytes: Uint8Array }
  | { kind: 'size'; file: number; size: number }
  | { kind: 'make'; file: number; path: string; directory: boolean }
  | { kind: 'rename'; from: string; to: string }
  | { kind: 'remove'; path: string }
  | { kind: 'sync'; file: number; upTo: number }
  | { kind: 'sync names'; directory: string; upTo: number };

const SECTOR = 512;

export class ForgetfulFs extends DurableFs {
  readonly steps: Step[] = [];
  /** How long a sync of the log takes at least, in ms. */
  slowMs = 0;
  readonly #files = new Map<string, number>();
  /** Paths of the files at the beginning, by their number. */
  readonly #begun: string[] = [];

  #fileAt(path: string): number {
    const known = this.#files.get(path);
    if (known !== undefined) return known;
    this.#files.set(path, this.#begun.length);
    this.#begun.push(path);
    return this.#begun.length - 1;
  }

  protected override watch(fs: NodeFsOperations, root: string): void {
    super.watch(fs, root);
    const { stream_ops: stream, node_ops: node } = fs;
    const inner = { ...stream, ...node, streamSetattr: stream.setattr };
    const at = (each: Parameters<typeof fs.realPath>[0]) => relative(root, fs.realPath(each));
    stream.write = (opened, buffer, offset, length, position) => {
      const done = inner.write(opened, buffer, offset, length, position);
      const bytes = new Uint8Array(buffer.slice(offset, offset + done));
      this.steps.push({ kind: 'write', file: this.#fileAt(at(opened.node)), at: position, bytes });
      return done;
    };
    const sized = (path: string, size: number | undefined) => {
      if (size !== undefined) this.steps.push({ kind: 'size', file: this.#fileAt(path), size });
    };
    stream.setattr = (opened, attributes) => {
      inner.streamSetattr(opened, attributes);
      sized(at(opened.node), attributes.size);
    };
    node.setattr = (changed, attributes) => {
      inner.setattr(changed, attributes);
      sized(at(changed), attributes.size);
    };
    node.mknod = (parent, name, mode, dev) => {
      const made = inner.mknod(parent, name, mode, dev);
      const path = at(made);
      this.#files.set(path, this.#begun.length);
      this.#begun.push('');
      const directory = (mode & 0o170000) === 0o040000;
      this.steps.push({ kind: 'make', file: this.#files.get(path)!, path, directory });
      return made;
    };
    node.rename = (moved, parent, name) => {
      const [from, to] = [at(moved), join(at(parent), name)];
      inner.rename(moved, parent, name);
      this.#files.set(to, this.#fileAt(from));
      this.#files.delete(from);
      this.steps.push({ kind: 'rename', from, to });
    };
    const removed = (inner: (parent: Parameters<typeof at>[0], name: string) => void) => {
      return (parent: Parameters<typeof at>[0], name: string) => {
        const path = join(at(parent), name);
        inner(parent, name);
        this.#files.delete(path);
        this.steps.push({ kind: 'remove', path });
      };
    };
    node.unlink = removed(inner.unlink);
    node.rmdir = removed(inner.rmdir);
    const fsync = stream.fsync!;
    stream.fsync = (opened) => {
      const path = at(opened.node);
      const isLog = /^pg_wal\/[0-9A-F]{24}$/.test(path);
      const answer = fsync(opened);
      const upTo = this.steps.length;
      if ((opened.node.mode & 0o170000) === 0o040000) {
        this.steps.push({ kind: 'sync names', directory: path, upTo });
      } else if (!isLog) this.steps.push({ kind: 'sync', file: this.#fileAt(path), upTo });
      return answer;
    };
  }

  protected override async syncLog(path: string): Promise<void> {
    const upTo = this.steps.length;
    await super.syncLog(path);
    if (this.slowMs > 0) await setTimeout(this.slowMs);
    this.steps.push({ kind: 'sync', file: this.#fileAt(relative(this.rootDir, path)), upTo });
  }

  protected override syncLogNow(path: string): void {
    super.syncLogNow(path);
    const upTo = this.steps.length;
    this.steps.push({ kind: 'sync', file: this.#fileAt(relative(this.rootDir, path)), upTo });
  }

  /**
   * What the disk holds after a power cut.
   * @param begun a copy of the directory as it was at the beginning @param into a directory to be made
   * @param steps done before the cut @param chance 0…1, from a seed
   */
  async cut(begun: string, into: string, steps: number, chance: () => number): Promise<void> {
    await cp(begun, into, { recursive: true });
    const done = this.steps.slice(0, steps);
    const syncedUpTo = new Map<number, number>();
    let namesUpTo = 0;
    for (const step of done) {
      if (step.kind === 'sync') {
        syncedUpTo.set(step.file, Math.max(step.upTo, syncedUpTo.get(step.file) ?? 0));
      }
      if (step.kind === 'sync names') namesUpTo = Math.max(namesUpTo, step.upTo);
    }
    namesUpTo += Math.floor(chance() * (steps - namesUpTo + 1));
    const path = new Map(this.#begun.map((each, file) => [file, each]));
    const fileOf = new Map(this.#begun.map((each, file) => [each, file]));
    const here = (file: number) => {
      const found = path.get(file);
      return found ? join(into, found) : null;
    };
    for (const [i, step] of done.entries()) {
      const names = i < namesUpTo;
      if (step.kind === 'make' && names) {
        path.set(step.file, step.path);
        fileOf.set(step.path, step.file);
        if (step.directory) mkdirSync(join(into, step.path), { recursive: true });
        else {
          mkdirSync(dirname(join(into, step.path)), { recursive: true });
          closeSync(openSync(join(into, step.path), 'w'));
        }
      } else if (step.kind === 'rename' && names) {
        const file = fileOf.get(step.from);
        renameSync(join(into, step.from), join(into, step.to));
        if (file !== undefined) {
          path.set(file, step.to);
          fileOf.set(step.to, file);
        }
        fileOf.delete(step.from);
      } else if (step.kind === 'remove' && names) {
        const file = fileOf.get(step.path);
        if (file !== undefined) path.set(file, '');
        fileOf.delete(step.path);
        rmSync(join(into, step.path), { recursive: true, force: true });
      } else if (step.kind === 'write' || step.kind === 'size') {
        const target = here(step.file);
        if (target === null) continue;
        const synced = i < (syncedUpTo.get(step.file) ?? 0);
        if (step.kind === 'size') {
          if (synced || chance() < 0.5) truncateSync(target, step.size);
        } else if (synced) {
          put(target, step.at, step.bytes);
        } else {
          const fate = chance();
          if (fate < 0.4) put(target, step.at, step.bytes);
          else if (fate < 0.6) {
            for (let from = 0; from < step.bytes.length; from += SECTOR) {
              if (chance() < 0.5) put(target, step.at + from, step.bytes.subarray(from, from + SECTOR));
            }
          }
        }
      }
    }
  }
}

function put(path: string, at: number, bytes: Uint8Array): void {
  const file = openSync(path, 'r+');
  try {
    writeSync(file, bytes, 0, bytes.length, at);
  } finally {
    closeSync(file);
  }
}
