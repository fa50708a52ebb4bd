import Papa from 'papaparse';
import { MAX_LINE } from '../canvas/legend';
import { faultInRuns } from '../cells/cellRuns';
import { type Chart, makeChart } from '../cells/chart';
import { wholeRect } from '../cells/rect';
import { forEachRowRun } from '../cells/runs';
import { Refusal } from '../refusal';
import { tooMuchJson } from '../words/nesting';
import { many } from '../words/numbers';
import { ARCHIVE_TABLES, type ArchiveColumn, type ArchiveTable } from './tables';

/** A row by column name: text, numbers and booleans as they are, `runs` as a list of numbers, null where optional. */
export type ArchiveRow = Record<string, unknown>;

/** Every mark of years of work, and every run of a chart of a million cells. */
const MAX_ROWS = 1_100_000;
/** Nothing that a table holds is nested deeper. */
const MAX_NESTING = 12;

/** The version of the archive that this program writes and reads. */
export const ARCHIVE_VERSION = 9;

/** The chart as a table of runs within rows. */
export const CHART_TABLE: ArchiveTable = {
  name: 'chart',
  about:
    'The chart: drills of one colour side by side, a row a run. Squares that no row covers want no drill.',
  key: ['row', 'column'],
  columns: [
    { name: 'row', kind: 'integer', about: 'Row of the canvas, from 1' },
    { name: 'column', kind: 'integer', about: 'First column, from 1' },
    { name: 'drills', kind: 'integer', about: 'Drills side by side' },
    { name: 'line', kind: 'integer', about: 'Number of the colour', refers: ['legend_line', 'line'] },
  ],
};

export function fileOf(table: ArchiveTable): string {
  return `${table.name}.csv`;
}

/** A table as CSV (RFC 4180) with a header row. */
export function tableToCsv(table: ArchiveTable, rows: readonly ArchiveRow[]): string {
  return `${Papa.unparse([table.columns.map(({ name }) => name)])}\r\n${rowsToCsv(table, rows)}`;
}

/** Rows of such a table without its header. */
export function rowsToCsv(table: ArchiveTable, rows: readonly ArchiveRow[]): string {
  if (rows.length === 0) return '';
  const data = rows.map((row) => table.columns.map((column) => written(column, row[column.name])));
  return `${Papa.unparse(data, { newline: '\r\n' })}\r\n`;
}

function written({ kind }: ArchiveColumn, value: unknown): string {
  if (value === null || value === undefined) return '';
  if (kind === 'json') return JSON.stringify(value);
  if (kind === 'runs') return (value as number[]).join(' ');
  return String(value);
}

/**
 * The rows of CSV whose header has names alone. So its first line tells how values are parted and lines end, and what the
 * values hold has no say in it.
 * @param most rows to read
 */
export function csvRows(text: string, most: number): string[][] {
  const plain = text.replace(/^\uFEFF/, '');
  const [header, ending] = /^[^\r\n]*(\r\n|\r|\n)?/.exec(plain)!;
  const delimiter = [';', '\t'].find((sign) => header.includes(sign)) ?? ',';
  const newline = (ending ?? '\n') as '\r\n' | '\r' | '\n';
  return Papa.parse<string[]>(plain, { delimiter, newline, skipEmptyLines: true, preview: most }).data;
}

/**
 * Reads such a table.
 * @throws Refusal naming the file, the line and the column
 */
function tableFromCsv(table: ArchiveTable, text: string): ArchiveRow[] {
  const file = fileOf(table);
  const [header = [], ...lines] = csvRows(text, MAX_ROWS + 2);
  if (lines.length > MAX_ROWS) throw new Refusal(`${file} has more than ${many(MAX_ROWS)} rows.`);
  const places = table.columns.map(({ name }) => header.indexOf(name));
  // An older archive may not know a column that may be empty.
  const missing = table.columns.find(
    ({ optional, absent }, i) => places[i]! < 0 && !optional && absent === undefined,
  );
  if (missing) throw new Refusal(`${file} has no column ${missing.name}.`);
  return lines.map((cells, i) => {
    const row: ArchiveRow = {};
    table.columns.forEach((column, c) => {
      const said = places[c]! < 0 ? absentValue(column, i + 1) : (cells[places[c]!] ?? '');
      const value = readValue(column, said);
      if (value === undefined) {
        throw new Refusal(`Row ${i + 1} of ${file}: ${column.name} cannot be “${said.slice(0, 40)}”.`);
      }
      row[column.name] = value;
    });
    return row;
  });
}

function absentValue({ absent = '' }: ArchiveColumn, row: number): string {
  return String(typeof absent === 'object' ? row : absent);
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** @returns undefined where the text is no such value */
function readValue(column: ArchiveColumn, text: string): unknown {
  const { kind, optional, oneOf } = column;
  if (text === '' && optional) return null;
  if (oneOf && !oneOf.includes(text)) return undefined;
  switch (kind) {
    case 'uuid':
    case 'shared':
      return UUID.test(text) ? text.toLowerCase() : undefined;
    case 'text':
      return text;
    case 'photo':
      return /^photos\/[\w-]+\.jpg$/.test(text) ? text : undefined;
    case 'integer':
      return /^-?\d{1,9}$/.test(text) ? Number(text) : undefined;
    case 'line':
      return /^\d{1,5}$/.test(text) && Number(text) >= 1 && Number(text) <= MAX_LINE
        ? Number(text)
        : undefined;
    case 'number':
      return text !== '' && Number.isFinite(Number(text)) ? Number(text) : undefined;
    case 'boolean':
      return text === 'true' ? true : text === 'false' ? false : undefined;
    case 'moment':
      return Number.isNaN(Date.parse(text)) ? undefined : new Date(text).toISOString();
    case 'json':
      return jsonArray(text);
    case 'runs': {
      const runs = text === '' ? [] : text.split(' ').map(Number);
      return faultInRuns(runs, Number.MAX_SAFE_INTEGER) === null ? runs : undefined;
    }
  }
}

function jsonArray(text: string): unknown[] | undefined {
  if (tooMuchJson(text, MAX_NESTING)) return undefined;
  try {
    const value: unknown = JSON.parse(text);
    return Array.isArray(value) ? value : undefined;
  } catch {
    return undefined;
  }
}

export function chartToRows(chart: Chart): ArchiveRow[] {
  const rows: ArchiveRow[] = [];
  forEachRowRun(chart, wholeRect(chart), (x, y, drills, line) => {
    if (line > 0) rows.push({ row: y + 1, column: x + 1, drills, line });
  });
  return rows;
}

/** @throws Refusal when a run lies outside the canvas or names a line that the sheet does not have */
export function chartFromRows(
  rows: readonly ArchiveRow[],
  size: { width: number; height: number },
  lines: ReadonlySet<number>,
): Chart {
  const cells = new Uint16Array(size.width * size.height);
  rows.forEach((each, i) => {
    const { row, column, drills, line } = each as Record<'row' | 'column' | 'drills' | 'line', number>;
    const inside =
      row >= 1 && row <= size.height && column >= 1 && drills >= 1 && column - 1 + drills <= size.width;
    if (!inside) throw new Refusal(`Row ${i + 1} of chart.csv lies outside the canvas.`);
    if (!lines.has(line))
      throw new Refusal(`Row ${i + 1} of chart.csv names colour ${line}, which the list does not have.`);
    const start = (row - 1) * size.width + column - 1;
    cells.fill(line, start, start + drills);
  });
  return makeChart(size.width, size.height, cells);
}

/** A file of the archive as its package describes it. */
export interface PackagedFile {
  path: string;
  bytes: number;
  /** `sha256:` and the digest in hexadecimal digits. */
  hash: string;
  /** The table that it holds; null for pictures. */
  table: ArchiveTable | null;
}

/**
 * The descriptor of the archive: a Data Package (Frictionless Data, specification version 1) whose tables carry a
 * Table Schema.
 */
export function dataPackage(
  canvas: { id: string; title: string },
  createdAt: string,
  files: readonly PackagedFile[],
): Record<string, unknown> {
  return {
    profile: 'data-package',
    name: `oculent-canvas-${canvas.id}`,
    id: canvas.id,
    title: canvas.title,
    description:
      'A canvas of diamond painting with its sheet, chart and ledgers, written by Oculent. docs/formats.md tells what the columns mean.',
    created: createdAt,
    oculent: { archive: ARCHIVE_VERSION },
    resources: files.map(resource),
  };
}

function resource({ path, bytes, hash, table }: PackagedFile): Record<string, unknown> {
  const name = path
    .replace(/\.\w+$/, '')
    .replace(/[^a-z0-9._-]/gi, '-')
    .toLowerCase();
  const foreignKeys = (table?.columns ?? []).flatMap(({ name: fields, refers }) =>
    refers
      ? [{ fields, reference: { resource: refers[0] === table?.name ? '' : refers[0], fields: refers[1] } }]
      : [],
  );
  if (!table) {
    const format = path.split('.').at(-1)!;
    return {
      profile: 'data-resource',
      name: `${name}-${format}`,
      path,
      format,
      mediatype: format === 'png' ? 'image/png' : 'image/jpeg',
      bytes,
      hash,
    };
  }
  return {
    profile: 'tabular-data-resource',
    name,
    path,
    description: table.about,
    format: 'csv',
    mediatype: 'text/csv',
    encoding: 'utf-8',
    bytes,
    hash,
    schema: {
      fields: table.columns.map(field),
      missingValues: [''],
      primaryKey: [...table.key],
      ...(foreignKeys.length > 0 ? { foreignKeys } : {}),
    },
  };
}

function field({ name, kind, about, optional, oneOf }: ArchiveColumn): Record<string, unknown> {
  const type = {
    uuid: { type: 'string', format: 'uuid' },
    shared: { type: 'string', format: 'uuid' },
    text: { type: 'string' },
    photo: { type: 'string' },
    integer: { type: 'integer' },
    line: { type: 'integer' },
    number: { type: 'number' },
    boolean: { type: 'boolean' },
    moment: { type: 'datetime', format: 'any' },
    json: { type: 'array' },
    runs: { type: 'string' },
  }[kind];
  // An empty note is a note; an empty set of cells is one too.
  const required = !optional && kind !== 'text' && kind !== 'runs';
  const constraints = {
    ...(required || (oneOf && !optional) ? { required: true } : {}),
    ...(oneOf ? { enum: [...oneOf] } : {}),
    ...(kind === 'runs' ? { pattern: '(\\d+ \\d+)?( \\d+ \\d+)*' } : {}),
  };
  return {
    name,
    ...type,
    description: about,
    ...(Object.keys(constraints).length > 0 ? { constraints } : {}),
  };
}

/**
 * Reads every table of an archive. Only one that an older archive does not know may be missing: without its ledger a
 * canvas would come back as if nothing had been done. A canvas without a chart has no table of it.
 * @param textOf gives the content of a file, null where the archive has none
 * @param version of the archive
 * @throws Refusal as {@link tableFromCsv}, or when a table is missing, or the archive holds no canvas
 */
export function readTables(
  textOf: (path: string) => string | null,
  version: number,
): Map<string, ArchiveRow[]> {
  const tables = new Map<string, ArchiveRow[]>();
  for (const table of [...ARCHIVE_TABLES, CHART_TABLE]) {
    const text = textOf(fileOf(table));
    if (text === null && table !== CHART_TABLE && (table.since ?? 1) <= version) {
      throw new Refusal(`${fileOf(table)} is missing from this archive. Nothing was brought in.`);
    }
    tables.set(table.name, text === null ? [] : tableFromCsv(table, text));
  }
  if (tables.get('canvas')!.length !== 1) throw new Refusal('The archive must hold exactly one canvas.');
  return tables;
}
