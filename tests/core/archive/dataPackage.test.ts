import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import {
  ARCHIVE_VERSION,
  type ArchiveRow,
  CHART_TABLE,
  chartFromRows,
  chartToRows,
  csvRows,
  dataPackage,
  fileOf,
  readTables,
  tableToCsv,
} from '../../../src/core/archive/dataPackage';
import { ARCHIVE_TABLES, type ArchiveColumn, type ArchiveTable } from '../../../src/core/archive/tables';
import { MAX_LINE } from '../../../src/core/canvas/legend';
import { makeChart } from '../../../src/core/cells/chart';

/** Any value that a column may hold. */
function anyValue({ kind, optional, oneOf }: ArchiveColumn): fc.Arbitrary<unknown> {
  // What separates, quotes and breaks lines in CSV (RFC 4180), and letters beyond ASCII.
  const words = fc.string({
    unit: fc.constantFrom('a', ' ', ',', '"', '\n', ';', '★', '=', "'"),
    maxLength: 8,
  });
  const some: fc.Arbitrary<unknown> = oneOf
    ? fc.constantFrom(...oneOf)
    : {
        uuid: fc.uuid(),
        shared: fc.uuid(),
        text: words,
        photo: fc.uuid().map((id) => `photos/${id}.jpg`),
        integer: fc.integer({ min: 0, max: 900_000 }),
        line: fc.integer({ min: 1, max: 250 }),
        number: fc.double({ noNaN: true, noDefaultInfinity: true }).map((value) => value + 0),
        boolean: fc.boolean(),
        moment: fc
          .integer({ min: 0, max: 4_000_000_000 })
          .map((seconds) => new Date(seconds * 1000 + 789).toISOString()),
        json: fc.array(fc.record({ a: fc.integer(), b: words })),
        runs: fc
          .array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })))
          .map((pairs) => {
            let at = 0;
            return pairs.flatMap(([gap, length]) => {
              const start = at + gap;
              at = start + length;
              return [start, length];
            });
          }),
      }[kind];
  if (!optional) return some;
  // An empty optional text is nothing, so only what is not empty comes back as it was.
  return fc.option(kind === 'text' ? some.filter((text) => text !== '') : some);
}

const rowOf = (table: ArchiveTable): fc.Arbitrary<ArchiveRow> =>
  fc.record(Object.fromEntries(table.columns.map((column) => [column.name, anyValue(column)])));
const CANVAS = ARCHIVE_TABLES[0]!;
/** Every table without a row: a header alone is valid CSV. */
const empty = ARCHIVE_TABLES.map((table) => [fileOf(table), tableToCsv(table, [])] as const);
const oneCanvas = tableToCsv(CANVAS, fc.sample(rowOf(CANVAS), { numRuns: 1, seed: 5 }));

describe('the tables of an archive', () => {
  for (const table of ARCHIVE_TABLES) {
    it(`bring every value of ${table.name} back`, () => {
      fc.assert(
        fc.property(fc.array(rowOf(table), { minLength: 1, maxLength: table === CANVAS ? 1 : 4 }), (rows) => {
          const files = new Map([
            ...empty,
            [fileOf(CANVAS), oneCanvas],
            [fileOf(table), tableToCsv(table, rows)],
          ]);
          expect(readTables((path) => files.get(path) ?? null, ARCHIVE_VERSION).get(table.name)).toEqual(
            rows,
          );
        }),
        { numRuns: 30 },
      );
    });
  }

  it('name the row and column of a value that cannot be', () => {
    const sitting = ARCHIVE_TABLES.find(({ name }) => name === 'sitting')!;
    const read = (text: string) => () =>
      readTables(
        (path) =>
          path === fileOf(sitting)
            ? text
            : path === fileOf(CANVAS)
              ? oneCanvas
              : (new Map(empty).get(path) ?? null),
        ARCHIVE_VERSION,
      );
    const id = '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01';
    expect(read(`id,started_at\n${id},2026-05-01T10:00:00Z\n`)).not.toThrow();
    // Columns may stand in any order, and others are passed over.
    expect(read(`mood,started_at,id\nfine,2026-05-01T10:00:00Z,${id}\n`)).not.toThrow();
    expect(read(`id,started_at\n${id},yesterday\n`)).toThrow(
      'Row 1 of sitting.csv: started_at cannot be “yesterday”.',
    );
    expect(read('id,started_at\nnobody,2026-05-01\n')).toThrow(
      'Row 1 of sitting.csv: id cannot be “nobody”.',
    );
    expect(read(`id\n${id}\n`)).toThrow('sitting.csv has no column started_at.');
    expect(() => readTables((path) => new Map(empty).get(path) ?? null, ARCHIVE_VERSION)).toThrow(
      'exactly one canvas',
    );
  });

  it('are all there: what an archive of its version must have is never taken as empty', () => {
    for (const missing of ARCHIVE_TABLES) {
      const files = new Map([...empty, [fileOf(CANVAS), oneCanvas]] as const);
      files.delete(fileOf(missing));
      const read = (version: number) => () => readTables((path) => files.get(path) ?? null, version);
      expect(read(ARCHIVE_VERSION)).toThrow(`${fileOf(missing)} is missing from this archive`);
      // An archive of the first version does not know what came later.
      if (missing.since === 2) expect(read(1)).not.toThrow();
    }
  });

  it('keep what they hold where semicolons follow quotation marks in it', () => {
    for (const table of ARCHIVE_TABLES.filter(({ columns }) => columns.some(({ kind }) => kind === 'json'))) {
      const rows = fc.sample(rowOf(table), { numRuns: 1, seed: 7 });
      const text = tableToCsv(table, rows);
      // As it was written, and as an editor of another country writes it.
      const parted = Papa.unparse(Papa.parse<string[]>(text, { delimiter: ',', skipEmptyLines: true }).data, {
        delimiter: ';',
        newline: '\n',
      });
      for (const said of [text, `\uFEFF${parted}\n`]) {
        const files = new Map([...empty, [fileOf(CANVAS), oneCanvas], [fileOf(table), said]] as const);
        const read = readTables((path) => files.get(path) ?? null, ARCHIVE_VERSION).get(table.name);
        expect(read, table.name).toEqual(rows);
      }
    }
  });

  it('of an older archive have what was true before a column came', () => {
    const files = new Map<string, string>([
      ...empty,
      [fileOf(CANVAS), oneCanvas],
      [
        'legend_line.csv',
        'line,key_number,symbol,code,name,hex,finish,needed_drills,packets\n1,1,A,412,,,plain,10,1\n2,2,B,98,,,plain,5,1\n',
      ],
    ]);
    expect(readTables((path) => files.get(path) ?? null, 1).get('legend_line')).toMatchObject([
      { position: 1, origin: 'sheet' },
      { position: 2, origin: 'sheet' },
    ]);
  });
});

/** Texts that no column of a kind holds. */
const WRONG: Record<ArchiveColumn['kind'], string[]> = {
  uuid: ['nobody', '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f0', 'x6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01'],
  shared: ['nobody', '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01x'],
  text: [],
  photo: ['a.jpg', 'photos/../a.jpg', 'xphotos/a.jpg', 'photos/a.jpgx', 'photos/a.png'],
  integer: ['1.5', 'x1', '1x', '12345678901', '--1'],
  line: ['0', '-1', 'x1', '1x', '1.5', '123456', String(MAX_LINE + 1)],
  number: ['x', 'Infinity', 'NaN'],
  boolean: ['yes', '1', 'TRUE'],
  moment: ['yesterday'],
  json: ['{}', '1', '[', 'null', `${'['.repeat(40)}${']'.repeat(40)}`],
  runs: ['1', '1 2 3', '1 0', 'x 1', '5 2 1 1'],
};

/** A table of one row in which one column says something else. */
function saying(table: ArchiveTable, column: ArchiveColumn, text: string): string {
  const [row] = fc.sample(rowOf(table), { numRuns: 1, seed: 7 });
  const names = table.columns.map(({ name }) => name);
  const [, cells] = Papa.parse<string[]>(tableToCsv(table, [row!]), { delimiter: ',' }).data;
  return Papa.unparse([names, names.map((name, i) => (name === column.name ? text : cells![i]))]);
}

function readSaying(table: ArchiveTable, column: ArchiveColumn, text: string) {
  const files = new Map([
    ...empty,
    [fileOf(CANVAS), oneCanvas],
    [fileOf(table), saying(table, column, text)],
  ] as const);
  return readTables((path) => files.get(path) ?? null, ARCHIVE_VERSION).get(table.name)![0]!;
}

/** Whether a text is a value of a field, as Table Schema (Frictionless Data, version 1) has types, formats and constraints. */
function isValue(field: Record<string, unknown>, text: string): boolean {
  const { required, enum: some, pattern } = (field.constraints ?? {}) as Record<string, unknown>;
  if (text === '') return required !== true;
  if (some && !(some as string[]).includes(text)) return false;
  if (pattern && !new RegExp(`^(?:${pattern})$`).test(text)) return false;
  switch (field.type) {
    case 'string':
      return field.format !== 'uuid' || /^[0-9a-f]{8}-([0-9a-f]{4}-){3}[0-9a-f]{12}$/i.test(text);
    case 'integer':
      return /^-?\d+$/.test(text);
    case 'number':
      return Number.isFinite(Number(text));
    case 'boolean':
      return ['true', 'True', 'TRUE', '1', 'false', 'False', 'FALSE', '0'].includes(text);
    case 'datetime':
      return field.format === 'any' && !Number.isNaN(Date.parse(text));
    case 'array':
      return Array.isArray(JSON.parse(text));
    default:
      throw new Error(`Table Schema has no type ${field.type}.`);
  }
}

const fieldsOf = (table: ArchiveTable) => {
  const { resources } = dataPackage({ id: 'x', title: '' }, '', [
    { path: fileOf(table), bytes: 1, hash: '', table },
  ]) as { resources: { schema: { fields: Record<string, unknown>[] } }[] };
  return resources[0]!.schema.fields;
};

describe.each(ARCHIVE_TABLES.map((table) => [table.name, table] as const))(
  'the columns of %s',
  (_, table) => {
    it('refuse what they cannot hold, by row and name', () => {
      for (const column of table.columns) {
        const wrong = column.oneOf ? [...WRONG[column.kind], 'something else'] : WRONG[column.kind];
        for (const text of wrong) {
          expect(() => readSaying(table, column, text), `${column.name} ${text}`).toThrow(
            `Row 1 of ${fileOf(table)}: ${column.name} cannot be “${text.slice(0, 40)}”.`,
          );
        }
      }
      const line = table.columns.find(({ kind }) => kind === 'line');
      if (line) expect(readSaying(table, line, String(MAX_LINE))[line.name]).toBe(MAX_LINE);
    });

    it('are described by the package as they are written and read', () => {
      const fields = fieldsOf(table);
      expect(fields.map(({ name }) => name)).toEqual(table.columns.map(({ name }) => name));
      const rows = fc.sample(rowOf(table), { numRuns: 20, seed: 3 });
      const [, ...written] = Papa.parse<string[]>(tableToCsv(table, rows), {
        delimiter: ',',
        skipEmptyLines: true,
      }).data;
      expect(written).toHaveLength(rows.length);
      table.columns.forEach((column, i) => {
        const field = fields[i]!;
        expect(field.description).toBe(column.about);
        for (const cells of written)
          expect(isValue(field, cells[i]!), `${column.name} ${cells[i]}`).toBe(true);
        // An empty cell may stand exactly where one is read.
        let isRead = true;
        try {
          readSaying(table, column, '');
        } catch {
          isRead = false;
        }
        expect(isValue(field, ''), column.name).toBe(isRead);
        if (column.oneOf) expect(isValue(field, 'something else')).toBe(false);
        if (column.kind === 'runs') expect(isValue(field, '1 2 3')).toBe(false);
        if (!column.oneOf && column.kind === 'text') expect(field.constraints).toBeUndefined();
      });
    });
  },
);

it('a header alone tells how values are parted and lines end, whatever the values hold', () => {
  for (const ending of ['\r\n', '\n', '\r']) {
    const lines = (...each: string[]) => csvRows(each.map((line) => `${line}${ending}`).join(''), 9);
    expect(lines('note', 'a;b;c', 'd;e;f')).toEqual([['note'], ['a;b;c'], ['d;e;f']]);
    expect(lines('note;when', '"a,b,c,d";1', '"e,f,g,h";2')).toEqual([
      ['note', 'when'],
      ['a,b,c,d', '1'],
      ['e,f,g,h', '2'],
    ]);
  }
  expect(csvRows('note\twhen', 9)).toEqual([['note', 'when']]);
});

describe('the chart as a table', () => {
  it('comes back cell by cell', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 5 }),
        fc.infiniteStream(fc.integer({ min: 0, max: 3 })),
        (width, height, lines) => {
          const cells = Uint16Array.from({ length: width * height }, () => lines.next().value as number);
          const chart = makeChart(width, height, cells);
          expect(chartFromRows(chartToRows(chart), chart, new Set([1, 2, 3]))).toEqual(chart);
        },
      ),
    );
  });

  it('stays inside the canvas and on the sheet', () => {
    const size = { width: 4, height: 3 };
    const read = (row: number, column: number, drills: number, line: number) => () =>
      chartFromRows([{ row, column, drills, line }], size, new Set([1, 2]));
    expect(read(3, 1, 4, 2)).not.toThrow();
    const second = () =>
      chartFromRows(
        [...[{ row: 1, column: 1, drills: 1, line: 1 }], { row: 9, column: 1, drills: 1, line: 1 }],
        size,
        new Set([1]),
      );
    expect(second).toThrow('Row 2 of chart.csv lies outside the canvas.');
    for (const outside of [
      read(0, 1, 1, 1),
      read(4, 1, 1, 1),
      read(1, 0, 1, 1),
      read(1, 2, 4, 1),
      read(1, 1, 0, 1),
    ]) {
      expect(outside).toThrow('lies outside the canvas');
    }
    expect(read(1, 1, 1, 3)).toThrow('names colour 3, which the list does not have');
    expect(read(1, 1, 1, 0)).toThrow('names colour 0, which the list does not have');
  });
});

describe('the descriptor', () => {
  it('lists each file with its size and digest, and points references at their tables', () => {
    const mark = ARCHIVE_TABLES.find(({ name }) => name === 'mark')!;
    const { resources, ...about } = dataPackage({ id: 'x', title: 'Owls' }, '2026-05-02T09:30:00.000Z', [
      { path: 'mark.csv', bytes: 12, hash: 'sha256:ab', table: mark },
      { path: 'photos/a-b.jpg', bytes: 7, hash: 'sha256:cd', table: null },
    ]) as { resources: Record<string, unknown>[] } & Record<string, unknown>;
    expect(about).toMatchObject({
      profile: 'data-package',
      name: 'oculent-canvas-x',
      id: 'x',
      title: 'Owls',
      created: '2026-05-02T09:30:00.000Z',
      oculent: { archive: ARCHIVE_VERSION },
    });
    expect(about.description).toContain('docs/formats.md');
    expect(resources[0]).toMatchObject({
      profile: 'tabular-data-resource',
      path: 'mark.csv',
      format: 'csv',
      mediatype: 'text/csv',
      encoding: 'utf-8',
      schema: { missingValues: [''], primaryKey: [...mark.key] },
    });
    expect(resources[1]).toEqual({
      profile: 'data-resource',
      name: 'photos-a-b-jpg',
      path: 'photos/a-b.jpg',
      format: 'jpg',
      mediatype: 'image/jpeg',
      bytes: 7,
      hash: 'sha256:cd',
    });
    expect(resources.map(({ name, bytes, hash }) => [name, bytes, hash])).toEqual([
      ['mark', 12, 'sha256:ab'],
      ['photos-a-b-jpg', 7, 'sha256:cd'],
    ]);
    const { foreignKeys } = resources[0]!.schema as { foreignKeys: unknown[] };
    expect(foreignKeys).toContainEqual({
      fields: 'sitting_id',
      reference: { resource: 'sitting', fields: 'id' },
    });
    // A table that points at itself says so with an empty name (Table Schema, "foreign keys").
    expect(foreignKeys).toContainEqual({ fields: 'undoes', reference: { resource: '', fields: 'id' } });
    expect(CHART_TABLE.columns.map(({ name }) => name)).toEqual(['row', 'column', 'drills', 'line']);
    const [canvas, picture] = (
      dataPackage({ id: 'x', title: '' }, '', [
        { path: 'canvas.csv', bytes: 1, hash: '', table: CANVAS },
        { path: 'chart.v2.png', bytes: 1, hash: '', table: null },
      ]) as { resources: Record<string, unknown>[] }
    ).resources;
    // Where nothing is referred to, no list of it stands.
    if (!CANVAS.columns.some(({ refers }) => refers))
      expect(canvas!.schema).not.toHaveProperty('foreignKeys');
    expect(picture).toMatchObject({ name: 'chart.v2-png', format: 'png', mediatype: 'image/png' });
  });
});
