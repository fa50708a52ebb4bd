import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { seededRandom } from '../../src/core/chance/random';
import type { Database } from '../../src/data/engine/database';
import { laidPerDay } from '../../src/data/progress';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

interface Mark {
  at: Date;
  kind: 'lay' | 'lift';
  drills: number;
}

/** Marks of a year, some of them within a minute of midnight somewhere. */
async function canvasWithMarks(seed: number): Promise<{ canvas: Canvas; marks: Mark[] }> {
  const canvas = await shelve(database, [line(1)], chartOfRows('1'));
  const random = seededRandom(seed);
  const marks = Array.from({ length: 400 }, (_, i): Mark => {
    const minutes = Math.floor(random.uniform() * 366 * 96) * 15;
    const off = i % 2 === 0 ? random.uniform() * 900_000 : i % 4 === 1 ? -1 : 0;
    return {
      at: new Date(Date.UTC(2026, 0, 1) + minutes * 60_000 + off),
      kind: random.uniform() < 0.8 ? 'lay' : 'lift',
      drills: 1 + Math.floor(random.uniform() * 15),
    };
  });
  await database.query(
    `insert into mark (id, canvas_id, happened_at, kind, cells, drills)
     select id, $1, at, kind, '\\x'::bytea, drills
     from unnest($2::uuid[], $3::timestamptz[], $4::text[], $5::int[]) as m (id, at, kind, drills)`,
    [
      canvas.id,
      marks.map(() => randomUUID()),
      marks.map(({ at }) => at.toISOString()),
      marks.map(({ kind }) => kind),
      marks.map(({ drills }) => drills),
    ],
  );
  return { canvas, marks };
}

describe('drills laid by day', () => {
  // The day of a moment as the runtime's own calendar (ECMA-402, from the time zone database) has it.
  it.each([
    'UTC',
    'Europe/Lisbon',
    // +5:45, +10:30 or +11, +12:45 or +13:45.
    'Asia/Kathmandu',
    'Australia/Lord_Howe',
    'Pacific/Chatham',
    'America/St_Johns',
  ])('are of the day that it was in %s, over changes of the clock, each canvas by itself', async (zone) => {
    const days = new Intl.DateTimeFormat('sv-SE', { timeZone: zone });
    for (const seed of [1, 2]) {
      const { canvas, marks } = await canvasWithMarks(seed);
      const wanted = new Map<string, number>();
      for (const { at, kind, drills } of marks) {
        const day = days.format(at);
        wanted.set(day, (wanted.get(day) ?? 0) + (kind === 'lay' ? drills : -drills));
      }
      const found = await laidPerDay(database, canvas.id, zone);
      expect(found).toEqual(
        [...wanted].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, drills]) => ({ day, drills })),
      );
    }
  });
});
