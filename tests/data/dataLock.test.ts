import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdtemp, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
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
    takeDataLock(${JSON.stringify(path)}); console.log('held'); setInterval(() => {}, 1000);`;
  const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', source], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve) => child.stdout!.once('data', () => resolve()));
  return child;
}

/** Whether a process of its own is let in, run as `unshare -n` or the like. */
function isLetIn(path: string, through: string[] = []): 'let in' | 'kept out' | 'cannot run' {
  const source = `import { DirectoryInUse, takeDataLock } from './src/data/engine/dataLock.ts';
    try { takeDataLock(${JSON.stringify(path)}); console.log('let in'); }
    catch (error) { console.log(error instanceof DirectoryInUse ? 'kept out' : String(error)); }`;
  const [program = process.execPath, ...args] = [...through, process.execPath];
  const run = spawnSync(program, [...args, '--import', 'tsx', '--input-type=module', '-e', source], {
    encoding: 'utf8',
  });
  const said = run.stdout?.trim();
  return said === 'let in' || said === 'kept out' ? said : 'cannot run';
}

it('keeps a second process out, and lets it in once the first is killed', async () => {
  other = await holdElsewhere(directory);
  expect(() => takeDataLock(directory)).toThrow(DirectoryInUse);
  expect(() => takeDataLock(directory)).toThrow('Another Oculent is already using the data');
  const gone = new Promise((resolve) => other!.once('exit', resolve));
  other.kill('SIGKILL');
  await gone;
  takeDataLock(directory).release();
});

it('knows a directory under another name of its path', () => {
  const held = takeDataLock(directory);
  const sameElsewhere = join(directory, '..', directory.split('/').at(-1)!);
  expect(() => takeDataLock(sameElsewhere)).toThrow(DirectoryInUse);
  held.release();
  takeDataLock(directory).release();
});

it('knows it after it was renamed, and leads to it still', async () => {
  const held = takeDataLock(directory);
  const moved = `${directory}-moved`;
  await rename(directory, moved);
  try {
    expect(isLetIn(moved)).toBe('kept out');
    // Whoever takes the old name has another directory.
    expect(isLetIn(directory)).toBe('let in');
    await writeFile(join(held.path, 'kept'), 'here');
    expect(await readFile(join(moved, 'kept'), 'utf8')).toBe('here');
    expect(await stat(join(directory, 'kept')).catch(() => null)).toBeNull();
  } finally {
    held.release();
    await rm(moved, { recursive: true });
  }
});

it('keeps out who comes by another mount or from another network namespace', async (context) => {
  const mount = await mkdtemp(join(tmpdir(), 'oculent-mount-'));
  const mounted = spawnSync('mount', ['--bind', directory, mount]).status === 0;
  const held = takeDataLock(directory);
  try {
    const elsewhere = isLetIn(directory, ['unshare', '-n']);
    if (!mounted || elsewhere === 'cannot run') {
      context.skip('This machine lets nobody mount directories or leave the network namespace.');
    }
    expect(elsewhere).toBe('kept out');
    expect(isLetIn(mount)).toBe('kept out');
    held.release();
    expect(isLetIn(mount, ['unshare', '-n'])).toBe('let in');
  } finally {
    if (mounted) spawnSync('umount', [mount]);
    await rm(mount, { recursive: true });
  }
});

it('neither a stopped holder nor a clock that is wrong lets a second one in', async () => {
  other = await holdElsewhere(directory);
  other.kill('SIGSTOP');
  // Longer ago, and further ahead, than any sleep.
  for (const time of [0, Date.now() / 1000 + 400 * 86_400]) {
    await utimes(directory, time, time);
    expect(isLetIn(directory)).toBe('kept out');
  }
  other.kill('SIGCONT');
  expect(isLetIn(directory)).toBe('kept out');
});

it('lets in exactly one of many that come at once to what a killed one left', async () => {
  other = await holdElsewhere(directory);
  const gone = new Promise((resolve) => other!.once('exit', resolve));
  other.kill('SIGKILL');
  await gone;
  const source = `import { takeDataLock } from './src/data/engine/dataLock.ts';
    try { takeDataLock(${JSON.stringify(directory)}); console.log('in'); } catch { console.log('out'); }
    setTimeout(() => {}, 60_000);`;
  const comers = Array.from({ length: 4 }, () =>
    spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', source], {
      stdio: ['ignore', 'pipe', 'inherit'],
    }),
  );
  const said = await Promise.all(
    comers.map(
      (child) =>
        new Promise<string>((resolve) => child.stdout.once('data', (text) => resolve(`${text}`.trim()))),
    ),
  );
  for (const child of comers) child.kill('SIGKILL');
  expect(said.sort()).toEqual(['in', 'out', 'out', 'out']);
});

it('makes the directory for its owner alone', async () => {
  const fresh = join(directory, 'new');
  takeDataLock(fresh).release();
  expect((await stat(fresh)).mode & 0o077).toBe(0);
});
