import { appendFile, mkdtemp, readFile, rename, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { whenReplaced } from '../../src/server/http/replaced';

const OFTEN = 5;
let directory: string;
let program: string;
let stop: () => void = () => {};
const told = vi.fn();
beforeEach(async () => {
  directory = await mkdtemp(join(tmpdir(), 'oculent-replaced-'));
  program = join(directory, 'start.mjs');
  await writeFile(program, 'first');
  told.mockClear();
  stop = whenReplaced(program, told, OFTEN);
  await looks(3);
});
afterEach(async () => {
  stop();
  await rm(directory, { recursive: true, force: true });
});

/** Time for so many looks. */
const looks = (times: number) => new Promise((resolve) => setTimeout(resolve, times * 4 * OFTEN));

describe('a running program', () => {
  it('stays while its file does, whoever reads it', async () => {
    await readFile(program);
    await writeFile(join(directory, 'other.mjs'), 'another file');
    await looks(4);
    expect(told).not.toHaveBeenCalled();
  });

  it.each([
    ['written again', () => appendFile(program, ', and more')],
    ['touched', () => utimes(program, new Date(), new Date(0))],
    ['removed', () => rm(program)],
    [
      'another one at its place',
      async () => {
        await writeFile(`${program}.new`, 'first');
        await rename(`${program}.new`, program);
      },
    ],
  ])('is told once when its file is %s', async (_what, change) => {
    await change();
    await vi.waitFor(() => expect(told).toHaveBeenCalled());
    await looks(4);
    expect(told).toHaveBeenCalledOnce();
  });

  it('that does not watch any more is told nothing', async () => {
    stop();
    await rm(program);
    await looks(4);
    expect(told).not.toHaveBeenCalled();
  });
});
