import {
  type FileHandle,
  mkdir,
  mkdtemp,
  open,
  readdir,
  readFile,
  rm,
  stat,
  writeFile,
} from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { dumpOf, unpackDump } from '../../src/data/engine/dump';

let all: string;
let from: string;
let into: string;
let made = 0;
beforeAll(async () => {
  all = await mkdtemp(join(tmpdir(), 'oculent-dump-'));
});
// What was refused is still being written for a moment.
afterAll(() => rm(all, { recursive: true, force: true, maxRetries: 10 }));
beforeEach(async () => {
  [from, into] = [join(all, `${++made}-from`), join(all, `${made}-into`)];
  await mkdir(join(from, 'base/5'), { recursive: true });
  await mkdir(join(from, 'pg_notify'));
  await writeFile(join(from, 'PG_VERSION'), '18\n');
  for (let file = 0; file < 40; file++)
    await writeFile(join(from, `base/5/${file}`), `page ${file} `.repeat(200));
});

/** Every path below a directory, with its rights and what is in it. */
async function everything(directory: string): Promise<Record<string, [rights: number, content: string]>> {
  const entries = await readdir(directory, { recursive: true, withFileTypes: true });
  const told = entries.map(async (entry) => {
    const path = join(entry.parentPath, entry.name);
    const content = entry.isDirectory() ? 'directory' : await readFile(path, 'utf8');
    return [path.slice(directory.length), [(await stat(path)).mode & 0o777, content]];
  });
  return Object.fromEntries(await Promise.all(told));
}

describe('a dump of a data directory', () => {
  it('comes back file by file, empty directories too, for its owner alone', async () => {
    await unpackDump(await dumpOf(from), into);
    const back = await everything(into);
    expect(Object.keys(back).sort()).toEqual(Object.keys(await everything(from)).sort());
    for (const [path, [rights, content]] of Object.entries(back)) {
      expect(rights, path).toBe(content === 'directory' ? 0o700 : 0o600);
      expect(content, path).toBe((await everything(from))[path]![1]);
    }
    expect((await stat(into)).mode & 0o777).toBe(0o700);
  });

  it('is on the disk, every file and every directory of it, when it is said to be', async () => {
    const dump = await dumpOf(from);
    const probe = await open(from, 'r');
    const handles = Object.getPrototypeOf(probe) as FileHandle;
    await probe.close();
    const synced: number[] = [];
    const sync = vi.spyOn(handles, 'sync').mockImplementation(async function (this: FileHandle) {
      synced.push((await this.stat()).ino);
    });
    try {
      await unpackDump(dump, into);
    } finally {
      sync.mockRestore();
    }
    const entries = await readdir(into, { recursive: true, withFileTypes: true });
    const paths = [into, ...entries.map((entry) => join(entry.parentPath, entry.name))];
    const wanted = await Promise.all(paths.map(async (path) => (await stat(path)).ino));
    expect(wanted).toHaveLength(45);
    expect(synced.sort()).toEqual(wanted.sort());
  });

  it('that is none, or is torn, is refused', async () => {
    await expect(unpackDump(new TextEncoder().encode('no tar'.repeat(200)), into)).rejects.toThrow(
      'is damaged',
    );
    const dump = await dumpOf(from);
    await expect(unpackDump(dump.slice(0, dump.length / 2), `${into}-torn`)).rejects.toThrow('is damaged');
  });
});
