import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { sittingMinutes } from '../../src/core/bench/sitting';
import type { Canvas } from '../../src/core/canvas/canvas';
import { addDays, dayIn } from '../../src/core/words/calendar';
import type { Database } from '../../src/data/engine/database';
import { laidPerDay } from '../../src/data/progress';
import { enterMark, startSitting, stopSitting } from '../../src/server/bench/writes';
import { waitedMs } from '../../src/server/http/moment';
import { currentRequest } from '../../src/server/jobs/currentRequest';
import { everySitting } from '../../src/server/progress/view';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

const DAY = 86_400_000;
const MINUTE = 60_000;

let database: Database;
let canvases: [Canvas, Canvas];
beforeAll(async () => {
  database = await memoryDatabase();
  const one = () => shelve(database, [line(1)], chartOfRows('1111', '1111'));
  canvases = [await one(), await one()];
});
afterAll(() => database.close());

/** What a request does that waited on its device. */
function after<Answer>(waited: number, work: () => Promise<Answer>): Promise<Answer> {
  const { signal } = new AbortController();
  return currentRequest.run({ signal, counted: false, waitedMs: waited }, work);
}
const lay = (canvas: Canvas, cell: number, more: { sittingId?: string; screen?: string } = {}) => {
  const { sittingId = null, screen = null } = more;
  const wish = { id: randomUUID(), kind: 'lay' as const, runs: [cell, 1], undoes: null, redoes: null };
  return enterMark(database, canvas, { ...wish, sittingId }, screen);
};

it('what was laid while the machine was off counts for its own day, on its own canvas', async () => {
  const [first, second] = canvases;
  await after(DAY, () => lay(first, 0));
  await after(0, () => lay(first, 1));
  await lay(second, 0);
  const today = dayIn('UTC', Date.now());
  expect(await laidPerDay(database, first.id, 'UTC')).toEqual([
    { day: addDays(today, -1), drills: 1 },
    { day: today, drills: 1 },
  ]);
  expect(await laidPerDay(database, second.id, 'UTC')).toEqual([{ day: today, drills: 1 }]);
});

it('a sitting lasts as long as it lasted, and its marks are as far apart as they were', async () => {
  const [canvas, other] = canvases;
  const [sittingId, screen] = [randomUUID(), randomUUID()];
  const startedAt = Date.now() - 90 * MINUTE;
  await after(90 * MINUTE, () => startSitting(database, canvas, sittingId));
  await after(80 * MINUTE, () => lay(canvas, 2, { sittingId, screen }));
  await after(50 * MINUTE, () => lay(canvas, 3, { sittingId, screen }));
  // Made after the one before, whatever its own way took.
  await after(51 * MINUTE, () => lay(canvas, 4, { sittingId, screen }));
  await after(30 * MINUTE, () => stopSitting(database, canvas, sittingId, ''));
  const [sitting] = await everySitting(database, canvas);
  expect(Math.abs(Date.parse(sitting!.startedAt) - startedAt)).toBeLessThan(MINUTE);
  expect(sittingMinutes(sitting!)).toBe(60);
  const rows = await database.query<{ at: string }>(
    'select happened_at as at from mark where sitting_id = $1 order by position',
    [sittingId],
  );
  const [a, b, c] = rows.map(({ at }) => Date.parse(at)) as [number, number, number];
  expect(Math.round((b - a) / MINUTE)).toBe(30);
  expect(c).toBe(b);
  expect(await everySitting(database, other)).toEqual([]);
});

it.each([
  ['3600000', 3_600_000],
  [null, 0],
  ['an hour', Number.NaN],
])('a request says %s', (said, read) => {
  const headers: Record<string, string> = said === null ? {} : { 'x-oculent-waited': said };
  expect(waitedMs(new Request('http://127.0.0.1/', { headers }))).toBe(read);
});
