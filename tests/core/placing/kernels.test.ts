import { readFile } from 'node:fs/promises';
import { expect, it } from 'vitest';
import { KERNELS, madeFrom } from '../../../bin/kernels';

it.each(Object.entries(KERNELS))('%s is what the core carries', async (source, into) => {
  expect(await readFile(into, 'utf8')).toContain(await madeFrom(source));
});
