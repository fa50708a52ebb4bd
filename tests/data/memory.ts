import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { asCanvas, type Canvas, type CanvasFacts } from '../../src/core/canvas/canvas';
import type { LegendLine } from '../../src/core/canvas/legend';
import type { Chart } from '../../src/core/cells/chart';
import { USUAL_ORDER } from '../../src/core/sections/order';
import { addCanvas, replaceLegend } from '../../src/data/canvas';
import { putChart } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { migrate } from '../../src/data/engine/migrate';
import { openInMemory } from '../../src/data/engine/pglite';
import { openServer } from '../../src/data/engine/postgres';
import { addCut } from '../../src/data/sections';
import { noteHeap } from '../../src/server/checkin/heap';

/** A data directory of PGlite in which nothing is yet. */
export async function emptyDump(): Promise<Uint8Array> {
  return new Uint8Array(await readFile(process.env.OCULENT_TEST_DATABASE!));
}

/** A data directory of PGlite with the schema of today. */
export async function migratedDump(): Promise<Uint8Array> {
  return new Uint8Array(await readFile(process.env.OCULENT_TEMPLATE!));
}

/** Databases in memory that test files before this one have closed, with nothing in them but what the migrations write. */
const idle: Ready[] = [];

interface Ready {
  database: Database;
  /** The tips that a new shelf has, as JSON: the only rows that migrations write. */
  tips: string;
}

/** A migrated database. Making one in memory takes seconds: the next one who asks gets what this one closes, emptied. */
export async function memoryDatabase(): Promise<Database> {
  const server = process.env.OCULENT_TEST_SERVER_URL;
  // There one costs little, and what the server learns of its tables by itself would stay.
  if (server) return openServer(`${server}&schema=t_${randomUUID().replaceAll('-', '')}`);
  const ready = idle.pop() ?? (await makeReady());
  return {
    ...ready.database,
    close: async () => {
      await empty(ready);
      idle.push(ready);
    },
  };
}

async function makeReady(): Promise<Ready> {
  const database = await openInMemory(await migratedDump());
  await migrate(database);
  const [found] = await database.query<{ tips: string }>('select json_agg(t)::text as tips from pen_tip t');
  return { database, tips: found!.tips };
}

/** Statistics go too: by those of rows that are gone, queries of the next ones would be planned wrong. */
async function empty({ database, tips }: Ready): Promise<void> {
  const tables = await database.query<{ name: string }>(
    `select format('%I', tablename) as name from pg_tables
     where schemaname = current_schema() and tablename <> 'migration'`,
  );
  await database.script(`truncate ${tables.map(({ name }) => name).join(', ')} restart identity`);
  await database.script(`delete from pg_statistic where starelid in
    (select oid from pg_class where relnamespace = current_schema()::regnamespace)`);
  await database.query('insert into pen_tip select * from json_populate_recordset(null::pen_tip, $1)', [
    tips,
  ]);
}

/** Puts a canvas of its own on the shelf of a shared database. */
export async function shelve(
  database: Database,
  legend: LegendLine[],
  chart: Chart | null,
  more: Partial<CanvasFacts> = {},
): Promise<Canvas> {
  const canvas: Canvas = asCanvas({
    id: randomUUID(),
    title: 'Test cloth',
    shape: 'square',
    pitchMm: 2.5,
    bagsCarry: null,
    width: chart?.width ?? 10,
    height: chart?.height ?? 10,
    panels: 1,
    symbolsPrinted: true,
    packetDrills: 200,
    ...more,
  });
  await addCanvas(database, canvas, new Date().toISOString());
  await database.transaction(async (queries) => {
    await replaceLegend(queries, canvas.id, legend);
    if (chart) await putChart(queries, canvas.id, chart);
    await noteHeap(queries, canvas);
  });
  return canvas;
}

/** Cuts a canvas into blocks. */
export async function keepGrid(
  database: Database,
  canvas: Canvas,
  columns: number,
  rows: number,
): Promise<void> {
  const plan = { block: { columns, rows }, pieces: null, order: USUAL_ORDER };
  const cut = { id: randomUUID(), plan, sections: 1, undoes: null, redoes: null };
  await addCut(database, canvas, null, cut, new Date().toISOString());
}
