import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { makeChart } from '../../src/core/cells/chart';
import { popMarks, runsToBytes } from '../../src/data/bench';
import { rewriteRuns } from '../../src/data/corrections';
import type { Database, Queries } from '../../src/data/engine/database';
import { undoStateOf } from '../../src/data/history';
import { line } from '../core/samples';
import { memoryDatabase, shelve } from './memory';

/** A year of marks, of which the planner was told nothing: an embedded database gathers no statistics by itself. */
const ROWS = 6000;
const SCREEN = '00000000-0000-4000-8000-000000000001';

let database: Database;
let canvases: [Canvas, Canvas];
beforeAll(async () => {
  database = await memoryDatabase();
  const chart = makeChart(100, 100, new Uint16Array(10_000).fill(1));
  canvases = [await shelve(database, [line(1)], chart), await shelve(database, [line(1)], chart)];
  for (const { id } of canvases) {
    // One in a hundred is a lift that does not say what it was.
    await database.query(
      `insert into mark (id, canvas_id, screen_id, happened_at, kind, cells, drills)
       select gen_random_uuid(), $1, case when n % 2 = 0 then $2::uuid end,
              '2026-01-01T00:00:00Z'::timestamptz + n * interval '1 hour',
              case when n % 100 = 0 then 'lift' else 'lay' end, $3, 1
       from generate_series(1, $4::int) as n`,
      [id, SCREEN, runsToBytes([7, 1]), ROWS],
    );
  }
});
afterAll(() => database.close());

interface PlanNode {
  'Actual Rows': number;
  'Actual Loops': number;
  'Rows Removed by Filter'?: number;
  'Rows Removed by Join Filter'?: number;
  Plans?: PlanNode[];
}

const rowsIn = (node: PlanNode): number =>
  (node['Actual Rows'] + (node['Rows Removed by Filter'] ?? 0) + (node['Rows Removed by Join Filter'] ?? 0)) *
    node['Actual Loops'] +
  (node.Plans ?? []).reduce((sum, plan) => sum + rowsIn(plan), 0);

/** Rows that the queries of a reading went through, as the database itself counts them. */
async function rowsTouched(reading: (queries: Queries) => Promise<unknown>): Promise<number> {
  let rows = 0;
  await reading({
    query: async (sql, parameters) => {
      const [plan] = await database.query<{ 'QUERY PLAN': [{ Plan: PlanNode }] }>(
        `explain (analyze, format json) ${sql}`,
        parameters,
      );
      rows += rowsIn(plan!['QUERY PLAN'][0].Plan);
      return database.query(sql, parameters);
    },
    script: (sql) => database.script(sql),
  });
  return rows;
}

describe('a ledger of thousands of rows', () => {
  it.each([SCREEN, null, randomUUID()])(
    'tells what is undone next from its newest rows alone, at screen %s',
    async (screen) => {
      const [canvas] = canvases;
      expect(await rowsTouched((queries) => undoStateOf(queries, 'mark', canvas.id, screen))).toBeLessThan(
        100,
      );
      expect((await undoStateOf(database, 'mark', canvas.id, screen)).undo).not.toBeNull();
    },
  );

  it('tells what popped from the lifts and what was laid just before them', async () => {
    const lifts = ROWS / 100;
    const marks = await popMarks(database, canvases[0].id);
    expect(marks.filter(({ kind }) => kind === 'lift')).toHaveLength(lifts);
    expect(await rowsTouched((queries) => popMarks(queries, canvases[0].id))).toBeLessThan(lifts * 15);
  });

  it('is rewritten for another width in a few statements, and no other canvas is', async () => {
    let statements = 0;
    await database.transaction((queries) =>
      rewriteRuns(
        {
          query: (sql, parameters) => {
            statements++;
            return queries.query(sql, parameters);
          },
          script: queries.script,
        },
        canvases[0].id,
        ([start, length]) => [start! + 20, length!],
      ),
    );
    expect(statements).toBeLessThan(ROWS / 100);
    for (const [i, start] of [27, 7].entries()) {
      const rows = await database.query('select distinct cells from mark where canvas_id = $1', [
        canvases[i]!.id,
      ]);
      expect(rows).toEqual([{ cells: runsToBytes([start, 1]) }]);
    }
  });
});
