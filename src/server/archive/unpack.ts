import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { ArchiveRow } from '../../core/archive/dataPackage';
import {
  ARCHIVE_VERSION,
  CHART_TABLE,
  chartFromRows,
  fileOf,
  readTables,
} from '../../core/archive/dataPackage';
import { DESCRIPTOR } from '../../core/archive/descriptor';
import { ARCHIVE_TABLES } from '../../core/archive/tables';
import type { MarkKind } from '../../core/bench/marking';
import { applyMark } from '../../core/bench/marking';
import type { CanvasFacts } from '../../core/canvas/canvas';
import type { Bitmap } from '../../core/cells/bitmap';
import { emptyBitmap } from '../../core/cells/bitmap';
import type { CellRuns } from '../../core/cells/cellRuns';
import { countCells, faultInRuns } from '../../core/cells/cellRuns';
import type { Chart } from '../../core/cells/chart';
import { type BagRow, standingBags } from '../../core/checkin/bagLedger';
import { ALLOT_GOALS } from '../../core/kitup/allotTask';
import { piecesFromText } from '../../core/sections/plan';
import { isDay } from '../../core/words/calendar';
import { many } from '../../core/words/numbers';
import type { CanvasRow, LegendRow } from '../../data/canvas';
import { canvasOf, legendLineOf } from '../../data/canvas';
import { type FinishRow, finishOfRow } from '../../data/finish';
import { type PlacingWishRow, placingWishOfRow } from '../../data/placing';
import { type WishRow, wishOfRow } from '../../data/sections';
import { newCanvasSchema, sheetSchema } from '../canvas/contract';
import { panelPlanSchema } from '../chart/contract';
import { unzipped } from '../files/zip';
import { finishSchema } from '../finish/contract';
import { unreadable } from '../http/problem';
import { array, mixed, number, object, string, ValidationError } from '../http/schema';
import type { TellProgress } from '../jobs/progress';
import { placingWishSchema } from '../placing/contract';
import { rectsSchema, sectionWishSchema } from '../sections/contract';
import { storageSchema } from '../storage/contract';
import { drawingSchema } from '../symbols/contract';
import { hashOf } from './hash';

/** More than any canvas with its photos has. */
const LIMITS = {
  bytes: 300_000_000,
  files: 5000,
  flood: 'This ZIP would unpack to more than 300 MB, which no canvas is. Nothing was unpacked.',
};
/** So many are put into the database at once, and others get their turn. */
const MARKS_A_PART = 250;

/** An archive that was read and found sound by itself. */
export interface ReadArchive {
  canvas: CanvasFacts;
  /** Rows by table; a photo as its bytes. Those of the marks are in `marks`. */
  tables: Tables;
  /** Rows of the mark ledger as JSON, in parts. */
  marks: string[];
  /** Null without a chart. */
  chart: Chart | null;
  /** What the marks leave laid. */
  laid: Bitmap;
}

/**
 * Reads an archive.
 * @param copyId where given, the canvas becomes another one with this id, and all its rows get new ids
 * @throws Problem or Refusal when it is damaged, too large, or its tables do not hold what they must
 */
export async function readArchive(
  { bytes, copyId }: { bytes: Uint8Array; copyId: string | null },
  report: TellProgress,
): Promise<ReadArchive> {
  report(0, 3);
  const { tables, files } = await tablesOf(bytes);
  report(1, 3);
  const original = tables.get('canvas')![0]!;
  if (copyId !== null) {
    renumber(tables, original.id as string, copyId);
    original.title = `${String(original.title).slice(0, 73)} (copy)`;
  }
  const canvas: CanvasFacts = await inTable(
    'canvas',
    newCanvasSchema.validate(canvasOf(original as unknown as CanvasRow)),
  );
  await checkRows(tables, canvas);
  report(2, 3);
  const lines = new Set(tables.get('legend_line')!.map(({ line }) => line as number));
  const chartRows = tables.get(CHART_TABLE.name)!;
  // A chart that was just begun has no drill, but it is there.
  const chart = files.has(fileOf(CHART_TABLE)) ? chartFromRows(chartRows, canvas, lines) : null;
  for (const { name, columns } of ARCHIVE_TABLES) {
    if (!columns.some(({ kind }) => kind === 'photo')) continue;
    for (const row of tables.get(name)!)
      if (row.photo !== null) row.photo = await photoOf(files, row.photo as string);
  }
  const rows = tables.get('mark')!;
  const marks: string[] = [];
  for (let from = 0; from < rows.length; from += MARKS_A_PART) {
    marks.push(JSON.stringify(rows.slice(from, from + MARKS_A_PART)));
  }
  tables.delete(CHART_TABLE.name);
  tables.delete('mark');
  return { canvas, tables, marks, chart, laid: laidBy(rows, canvas.width * canvas.height) };
}

/** The bitmap as the ledger tells it, mark by mark. */
function laidBy(marks: readonly ArchiveRow[], cells: number): Bitmap {
  const laid = emptyBitmap(cells);
  for (const { kind, cells: runs } of marks) applyMark(laid, kind as MarkKind, runs as CellRuns);
  return laid;
}

export type Tables = Map<string, ArchiveRow[]>;

async function tablesOf(
  bytes: Uint8Array,
): Promise<{ tables: Tables; files: ReadonlyMap<string, Uint8Array> }> {
  const known = new Set([DESCRIPTOR, ...[...ARCHIVE_TABLES, CHART_TABLE].map(fileOf)]);
  const pictures = new Set(['laid.png', 'chart.png']);
  const wanted = (name: string) =>
    known.has(name) || pictures.has(name) || /^photos\/[\w-]+\.jpg$/.test(name);
  const files = await unzipped(bytes, wanted, LIMITS);
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
    if (!content) {
      throw unreadable(
        `${path} is missing from this archive, though ${DESCRIPTOR} lists it. Nothing was brought in.`,
      );
    }
    if (hash !== undefined && hash !== hashOf(content)) {
      throw unreadable(
        `${path} is not as ${DESCRIPTOR} describes it: the archive is damaged, or the file was changed. Nothing was brought in.`,
      );
    }
  }
  return { tables: readTables(textOf, descriptor.oculent.archive), files };
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
const sharedErrorsSchema = array(
  object({ source: string().uuid().required(), spread: number().min(0).required() }),
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
async function checkRows(tables: Tables, canvas: CanvasFacts): Promise<void> {
  const rows = (name: string) => tables.get(name)!;
  const legend = rows('legend_line');
  if (legend.length > 0) {
    const lines = (legend as unknown as LegendRow[]).map(legendLineOf);
    await inTable('legend_line', sheetSchema.validate({ lines }));
  }
  for (const { shared_errors } of rows('bag_entry')) {
    await inTable('bag_entry', sharedErrorsSchema.validate(shared_errors));
  }
  const known = new Set(legend.map(({ line }) => line));
  const bags = rows('bag_entry') as unknown as BagRow[];
  const lost = standingBags(bags).bags.find(({ line }) => line !== null && !known.has(line));
  if (lost) {
    throw unreadable(`bag_entry.csv has a bag of colour ${lost.line}, which the list does not have.`);
  }
  const cells = canvas.width * canvas.height;
  for (const [i, { cells: runs, drills }] of rows('mark').entries()) {
    const fault = faultInRuns(runs as number[], cells);
    if (fault) throw unreadable(`Row ${i + 1} of mark.csv: ${fault}`);
    if (countCells(runs as number[]) !== drills) {
      throw unreadable(
        `Row ${i + 1} of mark.csv says ${many(Number(drills))} drills but names another number of squares.`,
      );
    }
  }
  for (const { edits, before } of rows('chart_edit')) {
    for (const { runs } of [
      ...(await inTable('chart_edit', editsSchema.validate(edits))),
      ...(await inTable('chart_edit', editsSchema.validate(before))),
    ]) {
      const fault = Array.isArray(runs) ? faultInRuns(runs, cells) : 'Squares are missing.';
      if (fault) throw unreadable(`chart_edit.csv: ${fault}`);
    }
  }
  for (const row of rows('panel_plan')) {
    // One that does not fit the canvas as it is rests; that it can be read is enough.
    await inTable(
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
  }
  for (const [i, { pieces, block_columns, block_rows, sections }] of rows('section_cut').entries()) {
    const row = `Row ${i + 1} of section_cut.csv`;
    if ((pieces === null) !== (block_columns !== null && block_rows !== null)) {
      throw unreadable(`${row} must have either a grid or pieces.`);
    }
    if (Number(block_columns ?? 1) < 1 || Number(block_rows ?? 1) < 1 || Number(sections) < 1) {
      throw unreadable(`${row} has a size below 1.`);
    }
    // Pieces of another size may stand in the ledger; that they can be read is enough.
    if (pieces !== null) piecesFromText(String(pieces));
  }
  for (const row of rows('section_wish')) {
    await inTable('section_wish', sectionWishSchema.validate(wishOfRow(row as unknown as WishRow)));
  }
  for (const row of rows('placing_wish')) {
    await inTable(
      'placing_wish',
      placingWishSchema.validate(placingWishOfRow(row as unknown as PlacingWishRow)),
    );
  }
  for (const { finish_by: day } of rows('progress_wish')) {
    if (!isDay(String(day))) throw unreadable(`progress_wish.csv: ${String(day)} is no day.`);
  }
  for (const { taken_on: day } of rows('canvas_photo')) {
    if (!isDay(String(day))) throw unreadable(`canvas_photo.csv: ${String(day)} is no day.`);
  }
  for (const row of rows('finish_entry')) {
    await inTable('finish_entry', finishSchema.validate(finishOfRow(row as unknown as FinishRow)));
  }
  for (const { rects } of rows('area_tick')) {
    if (rects !== null) await inTable('area_tick', rectsSchema.validate(rects));
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
