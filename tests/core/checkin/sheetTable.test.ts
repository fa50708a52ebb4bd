import { describe, expect, it } from 'vitest';
import { readSheetTable, tableOfCells, unusedColumns } from '../../../src/core/checkin/sheetTable';

const cells = (text: string, options = {}) => readSheetTable(text, options).rows.map((row) => row.cells);

describe('the sign between the columns', () => {
  it.each(['\t', ';', ',', '|'])(
    '“%s” is found by the rows that it parts, not by what titles hold',
    (sign) => {
      const others = [',', ';', '|'].filter((each) => each !== sign).join(' x');
      const text = [
        `Harbour${others} packed`,
        ...['Code,Name,Drills', '412,Moss,190', '98,Dusk,96'].map((row) => row.replaceAll(',', sign)),
      ].join('\n');
      expect(cells(text)).toEqual([
        ['412', 'Moss', '190'],
        ['98', 'Dusk', '96'],
      ]);
    },
  );

  it('is the one that parts more rows alike, also where another parts some into more', () => {
    const text = 'Code;Name;Drills\n412;Moss, pale, soft, dry, old;190\n98;Dusk;96\n77;Straw;90';
    expect(cells(text)[0]).toEqual(['412', 'Moss, pale, soft, dry, old', '190']);
  });

  it('is, of two that part all rows, the one that parts them into more', () => {
    const text = 'Code;Name, long;Drills\n412;Moss, pale;190\n98;Dusk, dark;96';
    expect(cells(text)).toEqual([
      ['412', 'Moss, pale', '190'],
      ['98', 'Dusk, dark', '96'],
    ]);
    expect(cells('Code,Name; long,Drills\n412,Moss; pale,190')).toEqual([['412', 'Moss; pale', '190']]);
  });

  it('is a comma where nothing is parted', () => {
    expect(readSheetTable('412').columns).toEqual(['Column 1']);
    expect(cells('Code\n412\n98')).toEqual([['412'], ['98']]);
  });
});

describe('what stands above the headings', () => {
  const title = 'A kit for long evenings by the harbour, packed in spring, in a box';

  it('is told, shortened where it is long, empty cells left out', () => {
    const { notices, headerLine } = tableOfCells([
      ['Harbour', '', 'spring'],
      [title],
      ['x'.repeat(60)],
      ['Code', 'Drills'],
      ['412', '190'],
    ]);
    expect(headerLine).toBe(4);
    expect(notices).toEqual([
      { lineNumber: 1, reason: 'Not read, because it stands above the headings: Harbour spring' },
      { lineNumber: 2, reason: `Not read, because it stands above the headings: ${title.slice(0, 60)}…` },
      { lineNumber: 3, reason: `Not read, because it stands above the headings: ${'x'.repeat(60)}` },
    ]);
  });

  it('may be thirty rows, and no more', () => {
    const above = (rows: number) => [
      ...Array.from({ length: rows }, () => ['address']),
      ['Code', 'Drills'],
      ['412', '190'],
    ];
    expect(tableOfCells(above(29)).headerLine).toBe(30);
    expect(tableOfCells(above(30)).headerLine).toBeNull();
  });

  it('is nothing where one heading stands alone above numbers; beside numbers it is no heading', () => {
    expect(tableOfCells([['Code'], ['412']])).toMatchObject({ headerLine: 1, columns: ['Code'] });
    expect(tableOfCells([['Code'], ['412']]).rows).toHaveLength(1);
    expect(
      tableOfCells([
        ['Code', '7'],
        ['412', '8'],
      ]),
    ).toMatchObject({ headerLine: null });
    // Nothing below it: a sheet of one row is no heading.
    expect(tableOfCells([['Code']])).toMatchObject({ headerLine: null });
    expect(
      tableOfCells([
        ['Where', 'Remarks'],
        ['412', '8'],
      ]),
    ).toMatchObject({ headerLine: null });
  });
});

describe('the table of a sheet', () => {
  it('loses only the byte order mark at its beginning', () => {
    expect(cells('\uFEFFCode,Name,Drills\n412,Mo\uFEFFss,190')).toEqual([['412', 'Mo\uFEFFss', '190']]);
    expect(readSheetTable('\uFEFFCode,Drills\n412,190').columns).toEqual(['Code', 'Drills']);
  });

  it('may have a million characters, and not one more', () => {
    const text = (length: number) => `Code,Drills\n412,${'1'.repeat(length - 16)}`;
    expect(readSheetTable(text(1_000_000)).rows).toHaveLength(1);
    expect(() => readSheetTable(text(1_000_001))).toThrow('longer than a million characters');
  });

  it('has a name for each column, made up where there is none', () => {
    expect(
      tableOfCells([
        ['Code', '', 'Drills'],
        ['412', 'x', '190', 'y'],
      ]).columns,
    ).toEqual([...['Code', 'Column 2', 'Drills', 'Column 4']]);
  });

  it('names columns that hold something here and there and serve nothing; empty ones are not named', () => {
    const table = tableOfCells([
      ['Code', 'Drills', 'Remark', 'Empty', 'Late'],
      ['412', '190', '', ''],
      ['98', '96', 'left', ''],
    ]);
    expect(unusedColumns(table, table.mapping)).toEqual(['Remark']);
  });
});

describe('blocks side by side', () => {
  const heads = (...names: string[]) => tableOfCells([names, names.map((_, i) => String(100 + i))]);

  it('are put one below the other, however their headings are written, with a gap before or between', () => {
    const table = tableOfCells([
      ['', 'Code', 'Drills', '', 'CODE', 'drills', '', 'code', 'DRILLS'],
      ['', '412', '190', '', '98', '96', '', '77', '90'],
      ['', '413', '191', '', '', '', '', '78', '91'],
    ]);
    expect(table.rows.map((row) => row.cells.slice(0, 2))).toEqual([
      ['412', '190'],
      ['413', '191'],
      ['98', '96'],
      ['77', '90'],
      ['78', '91'],
    ]);
    expect(table.rows.map((row) => row.lineNumber)).toEqual([2, 3, 2, 2, 3]);
    expect(table.columns.slice(0, 2)).toEqual(['Code', 'Drills']);
    expect(table.mapping).toMatchObject({ code: 0, neededDrills: 1 });
    expect(table.notices).toEqual([
      {
        lineNumber: 1,
        reason: 'The sheet has 3 blocks side by side; they were read one after the other.',
      },
    ]);
  });

  it('are none where headings differ, or only one of them comes again', () => {
    for (const table of [
      heads('Code', 'Drills', 'Code', 'Bags'),
      heads('Code', 'Code', 'Drills'),
      heads('Code', 'Drills', 'Bags'),
    ]) {
      expect(table.notices).toEqual([]);
      expect(table.rows).toHaveLength(1);
    }
    expect(heads('Code', 'Drills', 'Code', 'Bags').columns).toEqual(['Code', 'Drills', 'Code', 'Bags']);
  });
});
