import { setImmediate } from 'node:timers/promises';
import { type ArchiveRow, rowsToCsv } from '../../core/archive/dataPackage';
import { ARCHIVE_TABLES } from '../../core/archive/tables';
import type { Canvas } from '../../core/canvas/canvas';
import { archivedRows, countMarks } from '../../data/archive';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database } from '../../data/engine/database';
import { inWorker, type Job } from '../jobs/pool';

const MARKS = ARCHIVE_TABLES.find(({ name }) => name === 'mark')!;
/** Marks that are read at once. */
const PAGE = 250;

/** A canvas with everything that belongs to it, as a ZIP that is a Data Package. */
export async function archiveOf(
  database: Database,
  canvas: Canvas,
  moment: Date,
  job: Job | null = null,
): Promise<Uint8Array> {
  // One reading of all tables, so that they fit together. The marks are many and only grow: they follow in parts.
  const archived = await database.snapshot(async (queries) => {
    const tables = new Map<string, ArchiveRow[]>();
    for (const table of ARCHIVE_TABLES) {
      if (table !== MARKS) tables.set(table.name, await archivedRows(queries, table, canvas.id));
    }
    const chart = await chartOf(queries, canvas);
    return {
      tables,
      marks: await countMarks(queries, canvas.id),
      laid: await bitmapOf(queries, canvas.id, canvas.width * canvas.height),
      parts: chart && { chart, legend: await legendOf(queries, canvas.id) },
    };
  });
  const { marks, ...rest } = archived;
  const parts: string[] = [];
  for (let from = 0; from < marks; from += PAGE) {
    const page = { from, rows: Math.min(PAGE, marks - from) };
    parts.push(rowsToCsv(MARKS, await archivedRows(database, MARKS, canvas.id, page)));
    await setImmediate();
  }
  return inWorker('packArchive', { canvas, moment, marks: parts, ...rest }, job);
}
