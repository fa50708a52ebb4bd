import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { DirectoryInUse, takeDataLock } from '../../src/data/engine/dataLock';

let directory: string;
let other: ChildProcess | null = null;
beforeEach(async () => {
  directory = await mkdtemp(join(tmpdir(), 'oculent-lock-'));
});
afterEach(async () => {
  other?.kill('SIGKILL');
  await rm(directory, { recursive: true, force: true });
});

/** A second process that takes the lock and keeps it. */
async function holdElsewhere(path: string): Promise<ChildProcess> {
  const source = `import { takeDataLock } from './src/data/engine/dataLock.ts';
    takeDataLock(${JSON.stringify(path)}).then(() => { console.log('held'); setInterval(() => {}, 1000); });`;
  const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', source], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve) => child.stdout!.once('data', () => resolve()));
  return child;
}

it('keeps a second process out, and lets it in once the first is killed', async () => {
  other = await holdElsewhere(directory);
  await expect(takeDataLock(directory)).rejects.toThrow(DirectoryInUse);
  await expect(takeDataLock(directory)).rejects.toThrow('Another Oculent is already using the data');
  const gone = new Promise((resolve) => other!.once('exit', resolve));
  other.kill('SIGKILL');
  await gone;
  const release = await takeDataLock(directory);
  await release();
});

it('knows a directory under another name of its path', async () => {
  const release = await takeDataLock(directory);
  await expect(takeDataLock(join(directory, '..', directory.split('/').at(-1)!))).rejects.toThrow(
    DirectoryInUse,
  );
  await release();
  await (await takeDataLock(directory))();
});

it('makes the directory for its owner alone', async () => {
  const fresh = join(directory, 'new');
  await (await takeDataLock(fresh))();
  expect((await stat(fresh)).mode & 0o077).toBe(0);
});
