import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import {
  ARCHIVE_VERSION,
  type ArchiveRow,
  CHART_TABLE,
  chartFromRows,
  fileOf,
  readTables,
} from '../../core/archive/dataPackage';
import { ARCHIVE_TABLES, POT_TABLES } from '../../core/archive/tables';
import type { Canvas } from '../../core/canvas/canvas';
import { countCells, faultInRuns } from '../../core/cells/cellRuns';
import { faultInPanels } from '../../core/chart/panels';
import { ALLOT_GOALS } from '../../core/kitup/allotment';
import { restoreRows } from '../../data/archive';
import { putBitmap, replayMarks } from '../../data/bench';
import { type CanvasRow, canvasOf, findCanvas, type LegendRow, legendLineOf } from '../../data/canvas';
import { putChart } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { storagesOf, takenSlots } from '../../data/storage';
import { newCanvasSchema, sheetSchema } from '../canvas/contract';
import { panelPlanSchema } from '../chart/contract';
import { unzipped } from '../files/zip';
import { conflict, Problem, unreadable } from '../http/problem';
import { array, mixed, number, object, string, ValidationError } from '../http/schema';
import { storageSchema } from '../storage/contract';
import { drawingSchema } from '../symbols/contract';
import { DESCRIPTOR, hashOf } from './archiveOut';
import type { ArchiveReport } from './contract';

/**
 * Puts an archived canvas on the shelf, whole or not at all.
 * @param copyId where given, the canvas becomes a second one with this id, and all its rows get new ids. A copy has no
 * pots, because the drills are in them once only.
 * @throws Problem when the archive is damaged or does not fit together, or its canvas is on the shelf already
 */
export async function restoreArchive(
  database: Database,
  bytes: Uint8Array,
  copyId: string | null,
): Promise<ArchiveReport> {
  const { tables, files } = await readArchive(bytes);
  const original = tables.get('canvas')![0]!;
  if (copyId !== null) {
    renumber(tables, original.id as string, copyId);
    original.title = `${String(original.title).slice(0, 73)} (copy)`;
  }
  const canvas: Canvas = await inTable(
    'canvas',
    newCanvasSchema.validate(canvasOf(original as unknown as CanvasRow)),
  );
  await checkRows(tables, canvas);
  const lines = tables.get('legend_line')!.length;
  const chartRows = tables.get(CHART_TABLE.name)!;
  // A chart that was just begun has no drill, but it is there.
  const hasChart = files.has(fileOf(CHART_TABLE));
  const chart = hasChart ? chartFromRows(chartRows, canvas, lines) : null;
  for (const row of tables.get('inspection_entry')!) {
    if (row.photo !== null) row.photo = await photoOf(files, row.photo as string);
  }
  try {
    return await database.transaction(async (queries) => {
      if (await findCanvas(queries, canvas.id)) {
        if (copyId !== null) return { id: canvas.id, title: canvas.title, notices: [] };
        throw conflict(
          `${canvas.title} is on the shelf already. Take it in as a copy, or remove the other first.`,
        );
      }
      const withPots = copyId === null && (await potsAreFree(queries, tables));
      for (const table of ARCHIVE_TABLES) {
        if (POT_TABLES.has(table.name) && !withPots) continue;
        await restoreRows(queries, table, canvas.id, tables.get(table.name)!);
      }
      if (chart) await putChart(queries, canvas.id, chart);
      await putBitmap(
        queries,
        canvas.id,
        await replayMarks(queries, canvas.id, canvas.width * canvas.height),
      );
      const hadPots = tables.get('kitup_plan')!.length > 0;
      const notices =
        hadPots && !withPots
          ? ['Its colours have no pots here, because each pot is filled only once. Plan them at Kit-up.']
          : [];
      return { id: canvas.id, title: canvas.title, notices };
    });
  } catch (error) {
    if (error instanceof Problem || !isDataError(error)) throw error;
    throw unreadable(
      'The tables of this archive do not fit together: a row points at one that is missing, stands twice, or holds a value that cannot be. Nothing was taken in.',
    );
  }
}

/** SQLSTATE classes 22 (data exception) and 23 (integrity constraint violation). */
function isDataError(error: unknown): boolean {
  const code = (error as { code?: unknown } | null)?.code;
  return typeof code === 'string' && /^2[23]/.test(code);
}

type Tables = Map<string, ArchiveRow[]>;

async function readArchive(
  bytes: Uint8Array,
): Promise<{ tables: Tables; files: ReadonlyMap<string, Uint8Array> }> {
  const known = new Set([DESCRIPTOR, ...[...ARCHIVE_TABLES, CHART_TABLE].map(fileOf)]);
  const files = await unzipped(bytes, (name) => known.has(name) || /^photos\/[\w-]+\.jpg$/.test(name));
  const textOf = (path: string): string | null => {
    const content = files.get(path);
    if (!content) return null;
    try {
      return new TextDecoder('utf-8', { fatal: true }).decode(content);
    } catch {
      throw unreadable(`${path} in this archive is not UTF-8 text.`);
    }
  };
  const descriptor = await descriptorOf(textOf(DESCRIPTOR));
  for (const { path, hash } of descriptor.resources) {
    const content = files.get(path);
    if (content && hash !== undefined && hash !== hashOf(content)) {
      throw unreadable(
        `${path} is not as ${DESCRIPTOR} describes it: the archive is damaged, or the file was changed. Nothing was taken in.`,
      );
    }
  }
  return { tables: readTables(textOf), files };
}

const descriptorSchema = object({
  oculent: object({ archive: number().required() }).required(),
  resources: array(object({ path: string().required(), hash: string() })).required(),
});

async function descriptorOf(text: string | null) {
  let value: unknown = null;
  try {
    value = JSON.parse(text ?? 'null');
  } catch {
    throw unreadable(`${DESCRIPTOR} in this archive is not JSON.`);
  }
  const descriptor = await descriptorSchema.validate(value).catch(() => null);
  if (!descriptor)
    throw unreadable(`This ZIP is no archive of a canvas: it has no ${DESCRIPTOR} of Oculent.`);
  if (descriptor.oculent.archive > ARCHIVE_VERSION) {
    throw unreadable('This archive was written by a newer Oculent. Bring this one up to date first.');
  }
  return descriptor;
}

/** Gives every row an identity of its own; what pointed at a row still does. */
function renumber(tables: Tables, canvasId: string, copyId: string): void {
  const ids = new Map<string, string>([[canvasId, copyId]]);
  for (const { name, columns } of ARCHIVE_TABLES) {
    const own = columns.filter(({ kind }) => kind === 'uuid').map((column) => column.name);
    for (const row of tables.get(name)!) {
      for (const column of own) {
        const before = row[column] as string | null;
        if (before === null) continue;
        if (!ids.has(before)) ids.set(before, randomUUID());
        row[column] = ids.get(before);
      }
    }
  }
}

const goalsSchema = array(string().oneOf(ALLOT_GOALS)).length(ALLOT_GOALS.length);
const resultsSchema = array(
  object({
    goal: string().oneOf(ALLOT_GOALS).required(),
    value: number().required(),
    atLeast: number().required(),
  }),
).required();
const editsSchema = array(
  object({ line: number().integer().min(0).required(), runs: mixed<number[]>().required() }),
).required();

/** A schema's fault, told with the table in which it was found. */
async function inTable<Result>(name: string, checked: Promise<Result>): Promise<Result> {
  try {
    return await checked;
  } catch (error) {
    throw error instanceof ValidationError ? unreadable(`${name}.csv: ${error.message}`) : error;
  }
}

/** What the tables' own kinds do not say. @throws Problem, or a schema's own error */
async function checkRows(tables: Tables, canvas: Canvas): Promise<void> {
  const rows = (name: string) => tables.get(name)!;
  const legend = rows('legend_line');
  if (legend.length > 0) {
    const lines = (legend as unknown as LegendRow[]).map(legendLineOf);
    await inTable('legend_line', sheetSchema.validate({ lines }));
  }
  const cells = canvas.width * canvas.height;
  for (const [i, { cells: runs, drills }] of rows('mark').entries()) {
    const fault = faultInRuns(runs as number[], cells);
    if (fault) throw unreadable(`Row ${i + 1} of mark.csv: ${fault}`);
    if (countCells(runs as number[]) !== drills) {
      throw unreadable(`Row ${i + 1} of mark.csv says ${drills} drills but names another number of cells.`);
    }
  }
  for (const { edits, before } of rows('chart_edit')) {
    for (const { runs } of [
      ...(await inTable('chart_edit', editsSchema.validate(edits))),
      ...(await inTable('chart_edit', editsSchema.validate(before))),
    ]) {
      const fault = Array.isArray(runs) ? faultInRuns(runs, cells) : 'Cells are missing.';
      if (fault) throw unreadable(`chart_edit.csv: ${fault}`);
    }
  }
  for (const row of rows('panel_plan')) {
    const plan = await inTable(
      'panel_plan',
      panelPlanSchema.validate({
        columnCuts: row.column_cuts,
        rowCuts: row.row_cuts,
        overlap: row.overlap,
        marginMm: row.margin_mm,
        reachWidthCm: row.reach_width_cm,
        reachHeightCm: row.reach_height_cm,
      }),
    );
    const fault = faultInPanels(plan, canvas);
    if (fault) throw unreadable(`panel_plan.csv: ${fault}`);
  }
  for (const { path } of rows('symbol_drawing'))
    await inTable('symbol_drawing', drawingSchema.validate({ path }));
  for (const { id, name, packing_share, trays } of rows('storage')) {
    await inTable('storage', storageSchema.validate({ id, name, packingShare: packing_share, trays }));
  }
  for (const { goals, results } of rows('kitup_plan')) {
    await inTable('kitup_plan', goalsSchema.validate(goals));
    await inTable('kitup_plan', resultsSchema.validate(results));
  }
}

async function photoOf(files: ReadonlyMap<string, Uint8Array>, path: string): Promise<Uint8Array> {
  const photo = files.get(path);
  const kind =
    photo &&
    (await sharp(photo)
      .metadata()
      .catch(() => null));
  if (!photo || kind?.format !== 'jpeg')
    throw unreadable(`${path} is missing from this archive, or is no JPEG.`);
  return photo;
}

/** Whether every slot that the plan names is drawn and free here. */
async function potsAreFree(queries: Queries, tables: Tables): Promise<boolean> {
  const here = new Map((await storagesOf(queries)).map((storage) => [storage.id, storage]));
  const taken = new Set((await takenSlots(queries)).map(({ storageId, slot }) => `${storageId} ${slot}`));
  return tables.get('allotment')!.every(({ storage_id, slot }) => {
    const storage = here.get(storage_id as string);
    const drawn = !storage || storage.trays.some((tray) => tray.slots.some(({ id }) => id === slot));
    return drawn && !taken.has(`${storage_id} ${slot}`);
  });
}
