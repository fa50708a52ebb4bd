import { describe, expect, it } from 'vitest';
import { readAmount } from '../../../src/core/checkin/amount';
import { listedPairs } from '../../../src/core/checkin/listedPairs';
import { readSheetLines } from '../../../src/core/checkin/sheetLines';
import { readSheetTable, tableOfCells, unusedColumns } from '../../../src/core/checkin/sheetTable';
import { spacedColumns } from '../../../src/core/checkin/spacedColumns';

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

  it('may have 5,000 rows and 100 columns, whatever is empty around them, and no more', () => {
    const rows = (count: number) => `Code;Drills\n${'412;190\n'.repeat(count - 1)}`;
    expect(readSheetTable(`${rows(5000)}${'\n'.repeat(40_000)}`).rows).toHaveLength(4999);
    expect(() => readSheetTable(rows(5001))).toThrow('This has 5,001 rows');
    expect(() => readSheetTable('\n'.repeat(50_000))).toThrow('has 50,001 lines');
    const wide = (count: number) => readSheetTable(`Code;Drills${';1'.repeat(count - 2)};;;\n412;190`);
    expect(wide(100).columns).toHaveLength(103);
    expect(() => wide(101)).toThrow('This has 101 columns');
    // A page in one line, or a heading as long as one, is none of the hand-written lists and names no column.
    for (const long of ['a  ', ' x ', ': ', '- '])
      expect(readSheetTable(`Code;Drills;${long.repeat(100_000)}\n412;190;x`).mapping.code).toBe(0);
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

describe('blocks without headings', () => {
  const keys = (text: string) => readSheetTable(text).rows.map(({ cells }) => cells.slice(0, 3).join(' '));

  it('are known by their numbers, which go on where the block before ends', () => {
    const text = '1;310;200;4;743;400\n2;321;150;5;666;120\n3;437;90;;;';
    const expected = ['1 310 200', '2 321 150', '3 437 90', '4 743 400', '5 666 120'];
    expect(keys(text)).toEqual(expected);
    expect(readSheetTable(text).notices).toEqual([
      {
        lineNumber: null,
        reason: 'The sheet has 2 blocks side by side; they were read one after the other.',
      },
    ]);
    const three = '1;a;5;3;c;7;5;e;9\n2;b;6;4;d;8;6;f;1';
    expect(keys(three)).toEqual(['1 a 5', '2 b 6', '3 c 7', '4 d 8', '5 e 9', '6 f 1']);
  });

  it('are none where numbers do not go on, or do so in columns that are not alike', () => {
    for (const text of ['1;310;7;743\n2;321;8;666', '1;3\n2;4', '1;310;3;5;743\n2;321;4;6;666', '1;310;200'])
      expect(readSheetTable(text).rows[0]!.cells).toEqual(text.split('\n')[0]!.split(';'));
  });
});

describe('columns that stand under each other', () => {
  it('are told by where they stand, so that what is missing leaves its place empty', () => {
    const text = [
      'Garden path, 30 × 40 cm',
      '',
      'Key  Code   Name        Drills',
      '  1   310   Dark red     1,200',
      '  2         Blue            90',
      '  3  1204   Sea, sky',
    ].join('\n');
    const { rows, mapping, headerLine } = readSheetTable(text);
    expect(headerLine).toBe(3);
    expect(mapping).toMatchObject({ keyNumber: 0, code: 1, name: 2, neededDrills: 3 });
    expect(rows.map(({ lineNumber, cells }) => [lineNumber, ...cells])).toEqual([
      [4, '1', '310', 'Dark red', '1,200'],
      [5, '2', '', 'Blue', '90'],
      [6, '3', '1204', 'Sea, sky', ''],
    ]);
  });

  it('are none in prose, in one row, or where another sign parts them', () => {
    expect(spacedColumns('A line  with a slip.\nAnother line.\nAnd one more.')).toBeNull();
    expect(spacedColumns('310  200')).toBeNull();
    // One cell by itself may be a title, wherever it stands.
    expect(spacedColumns('a   b\n    cd\nef  gh')).toEqual([['a', 'b'], ['cd'], ['ef', 'gh']]);
    expect(readSheetTable('310,  200\n321,  150').rows[0]!.cells).toEqual(['310', '200']);
    expect(readSheetTable('310  200\n321  150', { delimiter: ',' }).rows[0]!.cells).toEqual(['310  200']);
    // Nothing is blank in all rows.
    expect(spacedColumns('ab  cd\nabc  d\na  bcd')).toBeNull();
    expect(readSheetTable('a  b\tc\nd  e\tf').rows[0]!.cells).toEqual(['a  b', 'c']);
  });
});

describe('rows and cells that programs add', () => {
  it('headings that come again and lines that are drawn are no colours', () => {
    const { rows, notices } = readSheetTable(
      '| Key | Code | Drills |\n|---|---|---|\n| 1 | 310 | 200 |\n| Key | Code | Drills |\n| 2 | 321 | 150 |\n| Key | Code | Drills |',
    );
    expect(rows.map(({ cells }) => cells.join(' ').trim())).toEqual(['1 310 200', '2 321 150']);
    expect(notices).toEqual([
      {
        lineNumber: 4,
        reason: 'The headings come again 2 times, as on a new page; these rows are no colours.',
      },
    ]);
  });

  it('numbers that are kept as texts, and whole numbers with a decimal, are what is printed', () => {
    const read = (text: string) => {
      const table = readSheetTable(text);
      return readSheetLines(table.rows, table.mapping).lines.map(({ code, neededDrills }) => [
        code,
        neededDrills,
      ]);
    };
    expect(read('Code,Drills\n="0310",200\n="0321",150')).toEqual([
      ['0310', 200],
      ['0321', 150],
    ]);
    expect(read('Code,Drills\n310.0,200.0\n321.0,"150,00"')).toEqual([
      ['310', 200],
      ['321', 150],
    ]);
    // One code with a point of its own: all of them are printed so. And thousands stay thousands.
    expect(read('Code;Drills\n310.0;1.200\n321.5;150')).toEqual([
      ['310.0', 1200],
      ['321.5', 150],
    ]);
    expect(readAmount('12.5')).toBeNull();
  });
});

describe('a list that was written by hand', () => {
  const read = (text: string) => {
    const table = readSheetTable(text);
    return readSheetLines(table.rows, table.mapping).lines.map(
      ({ code, neededDrills }) => `${code} ${neededDrills}`,
    );
  };

  it.each([
    ['310: 200\n321:150\n\n437 : 1,200', '310 200, 321 150, 437 1200'],
    ['310 - 200 drills\n321 – 150 pcs.\nB-12 — 90', '310 200, 321 150, B-12 90'],
    ['310 x 200\n321 × 150', '310 200, 321 150'],
    ['My garden\n310 = 200\n321 = 150\n437 = 90\n98 = 40', '310 200, 321 150, 437 90, 98 40'],
    ['Code: drills\n310: 200\n321: 150\n437: 90\n98: 40', '310 200, 321 150, 437 90, 98 40'],
  ])('%j is read as it is meant', (text, expected) => {
    expect(read(text).join(', ')).toBe(expected);
  });

  it('is none where few lines are pairs, or other signs part them', () => {
    expect(listedPairs('310: 200')).toBeNull();
    expect(listedPairs('310: 200\n321: 150\nThe rest comes\nwith the next letter')).toBeNull();
    expect(listedPairs('310,Red - 200\n321,Blue - 150')).toBeNull();
    expect(listedPairs('B-12\nB-13\nB-14')).toBeNull();
    // Its first line may be a title.
    expect(listedPairs('My garden\n310: 200\n321: 150')).toEqual([
      ['My garden'],
      ['310', '200'],
      ['321', '150'],
    ]);
    expect(listedPairs('310: 200\nMy garden\n321: 150')).toBeNull();
    expect(readSheetTable('310: 200\n321: 150', { delimiter: ';' }).rows[0]!.cells).toEqual(['310: 200']);
  });
});

it.each([
  ['1. 310 - 200\n2. 321 - 150\n3. B-12 - 7', ['1', '2', '3']],
  ['(1) 310: 200\n(2) 321: 150\n(3) B-12: 7', ['1', '2', '3']],
  ['Code: Drills\n8.) 310: 200\n9.) 321: 150\n10.) B-12: 7', ['8', '9', '10']],
  ['- 310: 200\n- 321: 150\n– B-12: 7', [null, null, null]],
  ['• 310 = 200\n• 321 = 150\n• B-12 = 7', [null, null, null]],
])('what a hand-written list puts before its lines is no part of their codes: %j', (text, keyNumbers) => {
  const { rows, mapping } = readSheetTable(text);
  const { lines, faults } = readSheetLines(rows, mapping);
  expect(faults).toEqual([]);
  expect(lines.map(({ code, neededDrills }) => [code, neededDrills])).toEqual([
    ['310', 200],
    ['321', 150],
    ['B-12', 7],
  ]);
  expect(lines.map(({ keyNumber }, i) => (keyNumbers[i] === null ? null : keyNumber))).toEqual(keyNumbers);
});

it('numbers before the lines of a list are taken off where they run on, and where each line has one', () => {
  expect(listedPairs('3.10: 200\n3.11: 150')).toEqual([
    ['3.10', '200'],
    ['3.11', '150'],
  ]);
  // A line was struck out; numbers that are too far apart for that are codes.
  expect(listedPairs('1. 310: 200\n2. 321: 150\n4. 98: 7')).toEqual([
    ['1', '310', '200'],
    ['2', '321', '150'],
    ['4', '98', '7'],
  ]);
  expect(listedPairs('1. Sea: 200\n5. Sand: 150')![0]).toEqual(['1. Sea', '200']);
  expect(listedPairs('310. Sea: 200\n312. Sand: 150')![0]).toEqual(['310. Sea', '200']);
  expect(listedPairs('1. Sea: 200\n1. Sand: 150')![0]).toEqual(['1. Sea', '200']);
  expect(listedPairs('2. 310: 200\n1. 321: 150')![0]).toEqual(['2. 310', '200']);
  expect(listedPairs('1. 310: 200\n321: 150')![0]).toEqual(['1. 310', '200']);
  expect(listedPairs('Mine\n1. 310: 200\n2. no code\n3. 98: 7\n4. 12: 1\n5. 9: 8')).toEqual([
    ['', 'Mine'],
    ['1', '310', '200'],
    ['2', 'no code'],
    ['3', '98', '7'],
    ['4', '12', '1'],
    ['5', '9', '8'],
  ]);
});

it('titles above a table without headings are told and not read; a code without its drills is none', () => {
  const of = (text: string) => {
    const { rows, notices } = readSheetTable(text);
    return [rows.map(({ cells }) => cells[0]), notices.map(({ reason }) => reason)];
  };
  const above = 'Not read, because it stands above the rows: ';
  expect(of('My garden\n30 by 40\n310;200\n321;150\n98;40')).toEqual([
    ['310', '321', '98'],
    [`${above}My garden`, `${above}30 by 40`],
  ]);
  expect(of('B-12\n310;200\n321;150')).toEqual([['B-12', '310', '321'], []]);
  // Names alone are no titles where most rows have no more.
  expect(of('Moss\nDusk\nStraw;90')[0]).toEqual(['Moss', 'Dusk', 'Straw']);
});

it('a name that is too long is cut between two letters, and that is said', () => {
  const long = `${'Moss '.repeat(15)}deep𝔸𝔸𝔸`;
  const { rows, mapping } = readSheetTable(`Code;Name;Drills\n412;${long};190\n98;Dusk;96`);
  const { lines, notices } = readSheetLines(rows, mapping);
  expect(lines.map(({ name }) => name)).toEqual([`${'Moss '.repeat(15)}deep`, 'Dusk']);
  expect(notices).toEqual([
    { lineNumber: 2, reason: expect.stringContaining('Its name is longer than 80 characters') },
  ]);
});

it('a column of finishes holds one at least, whatever it is called', () => {
  const finishes = (text: string) => readSheetTable(text).mapping.finish;
  expect(finishes('Code,Type,Drills\n412,square,190\n98,square,96')).toBeNull();
  expect(finishes('Code,Type,Drills\n412,,190\n98,,96')).toBe(1);
  expect(finishes('Code,Type,Drills\n412,sparkly,190\n98,normal,96\n7,odd,5')).toBe(1);
});

describe('headings in words that nobody knows here', () => {
  const found = (text: string) => {
    const { columns, mapping, guessed, headerLine } = readSheetTable(text);
    const named = (field: 'code' | 'neededDrills') => mapping[field] !== null && columns[mapping[field]!];
    return { headerLine, code: named('code'), drills: named('neededDrills'), guessed };
  };

  it('are told by the numbers below them, and what the columns hold is a guess that is said', () => {
    expect(found('კოდი,რაოდენობა,სახელი\n412,190,ხავსი\n98,96,ბინდი')).toEqual({
      headerLine: 1,
      code: 'კოდი',
      drills: 'რაოდენობა',
      guessed: ['code', 'neededDrills'],
    });
    // A title above, a word among the numbers, and empty places.
    const rows = Array.from({ length: 20 }, (_, i) => `${i + 1},A${i},${i === 7 ? '?' : 100 + i}`);
    expect(found(`Harbour\nUno,Due,Tre\n${rows.join('\n')}\n21,A21,`)).toMatchObject({
      headerLine: 2,
      code: 'Due',
      drills: 'Tre',
    });
  });

  it('are said to be taken so', () => {
    expect(readSheetTable('Harbour\nUno,Due\n412,190\n98,96').notices).toEqual([
      { lineNumber: 1, reason: 'Not read, because it stands above the headings: Harbour' },
      { lineNumber: 2, reason: 'Taken for headings, because its words stand above numbers: Uno Due' },
    ]);
    expect(readSheetTable('Code,Due\n412,190\n98,96').notices).toEqual([]);
  });

  it('are none where a row may be a colour', () => {
    for (const text of [
      'Moss,Dark\nDusk,Light',
      'Moss,AB12,\nDusk,CD34,96\nStraw,EF56,20',
      'Moss,\nDusk,96\nStraw,20',
      'Moss,soft\nDusk,96',
      'Moss ١,soft\nDusk,96\nStraw,20',
      // A caption among the rows.
      '412,Moss,190\nSpecial,ones,\n98,Dusk,96\n77,Straw,5',
    ])
      expect(found(text).headerLine).toBeNull();
  });

  // Words of the languages' dictionaries, from memory.
  it.each([
    ['Koodi,Määrä', 'Kód,Darab', 'Cod,Cantitate', 'Κωδικός,Ποσότητα', 'Колір,Кількість', '代码,颗数'],
    ['Mã,Số lượng', 'Kode,Jumlah', 'รหัสสี,จำนวน', 'رقم اللون,الكمية', 'קוד,כמות', 'Farbnr.,Menge'],
  ])('are few: %s and its like are known', (...headings) => {
    for (const heading of headings)
      expect(found(`${heading}\n412,190\n98,96`)).toMatchObject({ headerLine: 1, guessed: [] });
  });
});

it('text that only another program shows as a table is refused, with the remedy', () => {
  for (const [text, words] of [
    ['\ufeff<html><table><tr><td>412', 'This is a web page, not a table.'],
    ['\n<!DOCTYPE html>\n<p>', 'a web page'],
    ['<table border="1">\n<tr>', 'a web page'],
    ['<?xml version="1.0"?><Workbook>', 'an XML file'],
    ['{\\rtf1\\ansi Code\\par 412}', 'a text document'],
  ])
    expect(() => readSheetTable(text!)).toThrow(words);
  expect(readSheetTable('<,412,190\n<html,98,96').rows).toHaveLength(2);
});
