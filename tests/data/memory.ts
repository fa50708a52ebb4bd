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

/** A migrated database in memory, unpacked from a template. Making one takes seconds, so a test file shares one. */
export async function memoryDatabase(): Promise<Database> {
  const server = process.env.OCULENT_TEST_SERVER_URL;
  if (server) return openServer(`${server}&schema=t_${randomUUID().replaceAll('-', '')}`);
  const database = await openInMemory(new Uint8Array(await readFile(process.env.OCULENT_TEMPLATE!)));
  await migrate(database);
  return database;
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
