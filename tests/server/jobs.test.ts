import { randomUUID } from 'node:crypto';
import { expect, it } from 'vitest';
import { inTurns } from '../../src/server/jobs/inTurns';
import { asJob, endJob, jobProgress } from '../../src/server/jobs/jobs';
import type { Job } from '../../src/server/jobs/pool';

const asked = (query: string, signal?: AbortSignal) =>
  new Request(`http://127.0.0.1/api/heavy${query}`, { ...(signal && { signal }) });

it('work without a name is done, and ends with its request', async () => {
  const page = new AbortController();
  const seen: Job[] = [];
  expect(await asJob(asked('', page.signal), async (job) => seen.push(job))).toBe(1);
  expect(seen[0]!.signal.aborted).toBe(false);
  page.abort();
  expect(seen[0]!.signal.aborted).toBe(true);
});

it('work with a name tells how far it is, one of two is ended by itself, and both are gone when they are over', async () => {
  const [one, two] = [randomUUID(), randomUUID()];
  const jobs = new Map<string, Job>();
  const ends = new Map<string, () => void>();
  const begun = [one, two].map((id) =>
    asJob(asked(`?job=${id}`), async (job) => {
      jobs.set(id, job);
      await new Promise<void>((resolve) => ends.set(id, resolve));
      return id;
    }),
  );
  expect(jobProgress(one)).toEqual({ done: 0, of: 0 });
  jobs.get(one)!.progress.report(2, 5);
  expect([jobProgress(one), jobProgress(two)]).toEqual([
    { done: 2, of: 5 },
    { done: 0, of: 0 },
  ]);
  await expect(asJob(asked(`?job=${one}`), async () => 1)).rejects.toThrow('A job of this id is under way.');
  endJob(one);
  expect([jobs.get(one)!.signal.aborted, jobs.get(two)!.signal.aborted]).toEqual([true, false]);
  for (const id of [one, two]) ends.get(id)!();
  expect(await Promise.all(begun)).toEqual([one, two]);
  for (const id of [one, two, undefined]) {
    expect(() => jobProgress(id)).toThrow('job under way');
    expect(() => endJob(id)).toThrow('job under way');
  }
});

it('a name is a UUID, and free again where the work fails', async () => {
  await expect(asJob(asked('?job=7'), async () => 1)).rejects.toThrow('The id of a job must be a UUID.');
  const id = randomUUID();
  await expect(asJob(asked(`?job=${id}`), () => Promise.reject(new Error('out of paper')))).rejects.toThrow(
    'paper',
  );
  expect(await asJob(asked(`?job=${id}`), async () => 'done')).toBe('done');
});

it('what is made of many items comes in their order, and others have the thread in between', async () => {
  let turns = 0;
  const other = setInterval(() => turns++, 0);
  const busy = (n: number) => {
    for (const until = performance.now() + 5; performance.now() < until; );
    return n * 2;
  };
  expect(await inTurns([...Array(20).keys()], busy)).toEqual([...Array(20).keys()].map((n) => n * 2));
  clearInterval(other);
  expect(turns).toBeGreaterThan(2);
});
