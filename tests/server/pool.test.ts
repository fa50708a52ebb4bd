import type { Piscina } from 'piscina';
import { expect, it, vi } from 'vitest';
import { currentRequest } from '../../src/server/jobs/currentRequest';
import { inWorker } from '../../src/server/jobs/pool';

const noise = { bytes: Uint8Array.from({ length: 64 }, (_, i) => i) };

it('work ends with the request that it is for', async () => {
  const left = new AbortController();
  const work = currentRequest.run({ signal: left.signal, counted: false, waitedMs: 0 }, () =>
    inWorker('photoToJpeg', noise),
  );
  left.abort();
  await expect(work).rejects.toThrow('This was cancelled. Nothing was changed.');
  // What nobody left goes on to its own end.
  const stays = new AbortController();
  await expect(
    currentRequest.run({ signal: stays.signal, counted: false, waitedMs: 0 }, () =>
      inWorker('photoToJpeg', noise),
    ),
  ).rejects.toThrow('no picture');
});

it('the program has one pool, however many copies of its code there are', async () => {
  await expect(inWorker('photoToJpeg', noise)).rejects.toThrow('no picture');
  const { oculentPool: pool } = globalThis as typeof globalThis & { oculentPool?: Piscina };
  const threads = pool!.threads.length;
  const done = pool!.completed;
  vi.resetModules();
  const copy = await import('../../src/server/jobs/pool');
  copy.startThread();
  await expect(copy.inWorker('photoToJpeg', noise)).rejects.toThrow('no picture');
  expect(pool!.threads.length).toBe(threads);
  expect(pool!.completed).toBe(done + 1);
});

it('what nobody waits for holds up no page', async () => {
  await expect(inWorker('photoToJpeg', noise)).rejects.toThrow('no picture');
  const { oculentPool: pool } = globalThis as typeof globalThis & { oculentPool?: Piscina };
  const done = pool!.completed;
  await expect(inWorker('photoToJpeg', noise, null, true)).rejects.toThrow('no picture');
  expect(pool!.completed).toBe(done);
});
