import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAmount } from '../../../src/core/checkin/amount';
import { emptyMapping, guessColumns } from '../../../src/core/checkin/sheetColumns';
import { sheetToCsv } from '../../../src/core/checkin/sheetCsv';
import { readSheetLines } from '../../../src/core/checkin/sheetLines';
import { readSheetTable, unusedColumns } from '../../../src/core/checkin/sheetTable';
import { FINISHES } from '../../../src/core/colour/finish';
import { line } from '../samples';

function read(text: string) {
  const { rows, mapping } = readSheetTable(text);
  return readSheetLines(rows, mapping);
}

describe('table of a sheet', () => {
  it.each([',', ';', '\t'])('takes columns apart at “%s”', (delimiter) => {
    const text = ['Code,Drills,Packets', '412,300,2', '517,40,1'].join('\n').replaceAll(',', delimiter);
    const table = readSheetTable(text);
    expect(table.columns).toEqual(['Code', 'Drills', 'Packets']);
    expect(table.rows.map((row) => row.cells)).toEqual([
      ['412', '300', '2'],
      ['517', '40', '1'],
    ]);
  });

  // RFC 4180, section 2: quoted fields may hold commas, line breaks and doubled quotes; lines end in CRLF.
  it('reads the cases of RFC 4180, and counts lines of the file, not rows', () => {
    const table = readSheetTable(
      'code,name,drills\r\n1,"Pale, soft",5\r\n2,"Two\r\nlines",6\r\n3,"a ""quoted"" one",7\r\n',
    );
    expect(table.rows.map((row) => row.cells[1])).toEqual(['Pale, soft', 'Two\r\nlines', 'a "quoted" one']);
    expect(table.rows.map((row) => row.lineNumber)).toEqual([2, 3, 5]);
  });

  it('passes over a byte order mark and empty lines', () => {
    const table = readSheetTable('\uFEFFcode,drills\n\n412,3\n,\n517,4\n');
    expect(table.hasHeader).toBe(true);
    expect(table.rows.map((row) => row.lineNumber)).toEqual([3, 5]);
  });

  it.each([
    [
      ['Key No.', 'SYM', 'Colour code', 'Qty', 'Bags'],
      { keyNumber: 0, symbol: 1, code: 2, neededDrills: 3, packets: 4 },
    ],
    [
      ['#', 'Symbol', 'Color', 'Color name', 'RGB', 'Type', 'Pieces', 'Pkts'],
      { keyNumber: 0, symbol: 1, code: 2, name: 3, hex: 4, finish: 5, neededDrills: 6, packets: 7 },
    ],
    [['No', 'Code', 'Drills needed'], { keyNumber: 0, code: 1, neededDrills: 2 }],
  ])('recognises the headers %j', (header, expected) => {
    expect(guessColumns(header, []).mapping).toEqual({ ...emptyMapping(), ...expected });
  });

  it('guesses columns without headings by what stands in them, and says so', () => {
    const table = readSheetTable('412,300,2\n517,40,1');
    expect(table.hasHeader).toBe(false);
    expect(table.columns).toEqual(['Column 1', 'Column 2', 'Column 3']);
    expect(table.rows).toHaveLength(2);
    expect(table.mapping).toMatchObject({ code: 0, neededDrills: 1 });
    expect([...table.guessed].sort()).toEqual(['code', 'neededDrills']);
  });

  it('refuses what is no sheet', () => {
    expect(() => readSheetTable(' \n \n')).toThrow('The sheet is empty.');
    expect(() => readSheetTable('x'.repeat(1_000_001))).toThrow('longer than a million characters');
  });
});

describe('sheets as they are', () => {
  const codes = (text: string) => read(text).lines.map((each) => [each.code, each.neededDrills]);

  it('have headings with additions, and two of the same words', () => {
    const text =
      'No.,Colour,Color No,Qty (pcs),Bags/kit\n1,Moss,412,190,1\n2,Dusk,98,96,1\n3,Straw,1204,90,2';
    const { mapping } = readSheetTable(text);
    expect(mapping).toMatchObject({ keyNumber: 0, name: 1, code: 2, neededDrills: 3, packets: 4 });
    expect(codes(text)).toEqual([
      ['412', 190],
      ['98', 96],
      ['1204', 90],
    ]);
  });

  it('have titles above and a sum below, in whatever words', () => {
    const text =
      'Harbour kit\nPacked in spring;;\n\nCode;Name;Drills\n412;Moss;190\n98;Dusk;96\nAlles zusammen;;286';
    const table = readSheetTable(text);
    expect(table.headerLine).toBe(4);
    expect(table.notices.map(({ lineNumber }) => lineNumber)).toEqual([1, 2]);
    const { lines, faults, notices } = read(text);
    expect(lines).toHaveLength(2);
    expect(faults).toEqual([]);
    expect(notices[0]).toMatchObject({ lineNumber: 7, reason: expect.stringContaining('add up to it') });
  });

  it('keep a colour whose code is a word, also where its drills are what those above add up to', () => {
    expect(codes('Code,Drills\nAA,100\nAB,50\nAC,150')).toHaveLength(3);
  });

  it('have blocks side by side', () => {
    const text = 'Key,Code,Drills,,Key,Code,Drills\n1,412,190,,3,1204,90\n2,98,96,,,,';
    expect(codes(text)).toEqual([
      ['412', 190],
      ['98', 96],
      ['1204', 90],
    ]);
    expect(readSheetTable(text).notices[0]!.reason).toContain('2 blocks side by side');
  });

  it('lose no line to a quotation mark that is never closed', () => {
    const text = 'Code,Name,Drills\n412,3" moss,190\n98,"Dusk,96\n1204,Straw,90';
    expect(codes(text)).toEqual([
      ['412', 190],
      ['98', 96],
      ['1204', 90],
    ]);
    expect(readSheetTable(text).notices[0]).toMatchObject({
      lineNumber: 2,
      reason: expect.stringContaining('never closed'),
    });
  });

  it('name what is not used', () => {
    const table = readSheetTable('Code,Drills,Where it lies\n412,190,left shelf\n98,96,drawer');
    expect(unusedColumns(table, table.mapping)).toEqual(['Where it lies']);
  });

  it('are read as the reader says: delimiter and line of the headings', () => {
    expect(readSheetTable('a;b|c\n1;2|3', { delimiter: '|' }).rows[0]!.cells).toEqual(['a;b', 'c']);
    const forced = readSheetTable('Code,Drills\nCode,Drills\n412,190', { headerLine: 2 });
    expect(forced.rows).toHaveLength(1);
    expect(readSheetTable('Code,Drills\n412,190', { headerLine: 0 }).rows).toHaveLength(2);
  });
});

describe('lines of a sheet', () => {
  const header = 'Key,Symbol,Code,Name,Hex,Finish,Drills,Packets';

  it('reads every field', () => {
    const { lines, faults } = read(`${header}\n7,★,SH412,Milk pear,#E0E8A0,AB,"1,240",7`);
    expect(faults).toEqual([]);
    expect(lines).toEqual([
      {
        line: 1,
        keyNumber: '7',
        symbol: '★',
        code: 'SH412',
        name: 'Milk pear',
        hex: '#e0e8a0',
        finish: 'iridescent',
        neededDrills: 1240,
        packets: 7,
      },
    ]);
  });

  it.each([
    ['1,A,,x,,,5,1', 'It has no colour code.'],
    ['1,A,412,x,teal,,5,1', '“teal” is no colour.'],
    ['1,A,412,x,,sparkly,5,1', '“sparkly” is no finish we know.'],
    ['1,A,412,x,,,-5,1', 'The number of drills needed is “-5”'],
    ['1,A,412,x,,,five,1', 'it must be a whole number'],
    ['1,A,412,x,,,99999999,1', 'more than 1,000,000 cannot be right'],
    ['1,A,412,x,,,5,1.5', 'The number of packets is “1.5”'],
    ['1,ABCDE,412,x,,,5,1', 'Its symbol is longer than 4 characters'],
    [`1,A,${'4'.repeat(30)},x,,,5,1`, 'Its colour code is longer than 24 characters'],
    [`1,A,412,${'x'.repeat(10_000)},,,5,1`, 'It is longer than 2,000 characters'],
  ])('names the fault in “%.40s”', (row, reason) => {
    const { lines, faults } = read(`${header}\n${row}\n2,B,517,y,,,6,1`);
    expect(faults).toHaveLength(1);
    expect(faults[0]!.lineNumber).toBe(2);
    expect(faults[0]!.reason).toContain(reason);
    expect(lines.map((each) => each.code)).toEqual(['517']);
    expect(lines[0]!.line).toBe(1);
  });

  it('names the line on which a repeated code stood first', () => {
    const { faults } = read(`${header}\n1,A,412,,,,5,1\n2,B,517,,,,5,1\n3,C,4 12,,,,5,1`);
    expect(faults).toEqual([{ lineNumber: 4, reason: expect.stringContaining('is already in row 2') }]);
  });

  it('lets one code stand twice with two finishes', () => {
    expect(read(`${header}\n1,A,412,,,,5,1\n2,B,412,,,metallic,5,1`).lines).toHaveLength(2);
  });

  it('keeps lines with the same symbol, but says so', () => {
    const { lines, notices } = read(`${header}\n1,A,412,,,,5,1\n2,A,517,,,,5,1`);
    expect(lines).toHaveLength(2);
    expect(notices[0]!.reason).toContain('Symbol A is already in row 2');
  });

  it('takes the sheet’s own total for what it is, right or wrong', () => {
    expect(read(`${header}\n1,A,412,,,,5,1\nTotal,,,,,,5,1`).notices[0]!.reason).toContain(
      'the rows above add up to it',
    );
    const wrong = read(`${header}\n1,A,412,,,,5,1\nTotal,,,,,,6,1`);
    expect(wrong.lines).toHaveLength(1);
    expect(wrong.notices[0]!.reason).toContain('states a total of 6, but the rows above add up to 5');
  });

  // The usual words of these languages, from memory.
  it.each([
    ...[
      'Total',
      'TOTALS:',
      'Grand total',
      'Subtotal',
      'Sum',
      'Summe',
      'Gesamt',
      'Insgesamt',
      'Totale',
      'Suma',
    ],
    ...[
      'Razem',
      'Totaal',
      'Somme',
      'Totalt',
      'Yhteensä',
      'Celkem',
      'Итого',
      'ВСЕГО:',
      'Toplam',
      '合计',
      '总计',
      '合計',
      '計',
    ],
  ])('“%s” is no colour, also where it states another sum than the rows have', (word) => {
    const { lines, notices } = read(`Code,Drills\n412,5\n98,6\n${word},12`);
    expect(lines.map((each) => each.code)).toEqual(['412', '98']);
    expect(notices[0]!.reason).toContain('states a total of 12, but the rows above add up to 11');
  });

  it.each(['Sumac', 'Totally', 'Итогова', 'Total2'])('“%s” is a colour', (word) => {
    expect(read(`Code,Drills\n412,5\n98,6\n${word},12`).lines).toHaveLength(3);
  });

  it('a colour may be called like a total, where it has a code of its own', () => {
    const rows = (last: string) => read(`Name,Code,Drills\nMoss,412,5\nDusk,98,6\n${last}`).lines.length;
    // It may be a sum all the same, so it is said.
    expect(read('Name,Code,Drills\nMoss,412,5\nTotal eclipse,77,12').notices).toEqual([
      { lineNumber: 3, reason: '“Total eclipse” is taken for a colour. If it is a sum, leave this row out.' },
    ]);
    expect([rows('Total eclipse,77,12'), rows('Sum of petals,77,12')]).toEqual([3, 3]);
    expect([
      rows('Total,77,12'),
      rows('Grand total:,2,12'),
      rows('Total drills,2,11'),
      rows('Total drills,,12'),
    ]).toEqual([...[2, 2, 2, 2]]);
  });

  // Common practice, no source: codes such as 3-4 become days when a spreadsheet opens the list.
  it.each(['2026-04-03', '3/4/2026', '03.04.26', '3-Apr', '03. April', 'Apr-03'])(
    'says that “%s” is a day',
    (code) => {
      const { lines, notices } = read(`Code,Drills\n412,5\n${code},6`);
      expect(lines.map((each) => each.code)).toEqual(['412', code]);
      expect(notices).toEqual([
        {
          lineNumber: 3,
          reason: `Its code is ${code}, a day: spreadsheets turn codes like 3-4 into days. Look at the print.`,
        },
      ]);
    },
  );

  it.each(['3-4', '2026', 'A-03', '12.5', '3/4/20267', 'April', 'Mar-412', '1-sepia', '3-decor', '3-4-26'])(
    'takes “%s” for a code',
    (code) => {
      expect(read(`Code,Drills\n412,5\n${code},6`).notices).toEqual([]);
    },
  );

  it('takes what is just within its limits', () => {
    const long = (sign: string, times: number) => sign.repeat(times);
    const row = (key: string, symbol: string, code: string, drills: string, packets: string, rest = '') =>
      read(`${header}\n${key},${symbol},${code},${rest},,,${drills},${packets}`);
    const within = row(long('7', 8), '★★★★', long('4', 24), '1000000', '10000', 'y'.repeat(1940));
    expect(within.faults).toEqual([]);
    expect(within.lines[0]).toMatchObject({ name: 'y'.repeat(80), neededDrills: 1_000_000, packets: 10_000 });
    const reasons = [
      row(long('7', 9), 'A', '412', '5', '1'),
      row('1', '★★★★★★★★★', '412', '5', '1'),
      row('1', 'A', long('4', 25), '5', '1'),
      row('1', 'A', '412', '1000001', '1'),
      row('1', 'A', '412', '5', '10001'),
      row('1', 'A', '412', 'x'.repeat(40), '1'),
    ].map(({ faults }) => faults[0]!.reason);
    expect(reasons).toEqual([
      'Its key number is longer than 8 characters: 77777777…',
      'Its symbol is longer than 4 characters: ★★★★★★★★…',
      `Its colour code is longer than 24 characters: ${long('4', 24)}…`,
      'The number of drills needed is 1000001; more than 1,000,000 cannot be right.',
      'The number of packets is 10001; more than 10,000 cannot be right.',
      `The number of drills needed is “${'x'.repeat(30)}”; it must be a whole number, 0 or more.`,
    ]);
    expect(row('1', 'A', '412', '5', '1', 'y'.repeat(1993)).faults).toEqual([]);
    expect(row('1', 'A', '412', '5', '1', 'y'.repeat(1994)).faults[0]!.reason).toContain('longer than 2,000');
  });

  it('a row without a code is the sum only if it says what those above add up to', () => {
    const odd = read('Code,Name,Drills\n412,Moss,5\n98,Dusk,6\n,,12');
    expect(odd.faults[0]!.reason).toContain('no colour code');
    const one = read('Code,Name,Drills\n412,Moss,5\n,,5');
    expect(one.faults).toHaveLength(1);
    expect(read('Code,Name,Drills\n412,Moss,5\n98,Dusk,6\n,,11')).toMatchObject({ faults: [] });
  });

  it('uses the key number where there is no column of codes', () => {
    const { lines } = read('Key,Drills\n1,5\n2,6');
    expect(lines.map((each) => each.code)).toEqual(['1', '2']);
  });

  it('stops at more lines than any kit has', () => {
    const rows = Array.from({ length: 400 }, (_, i) => `${1000 + i},5`).join('\n');
    const { lines, faults } = read(`code,drills\n${rows}`);
    expect(lines).toHaveLength(250);
    expect(faults).toEqual([{ lineNumber: 252, reason: expect.stringContaining('at most 250 colours') }]);
  });

  it.each([
    ['1240', 1240],
    ['1,240', 1240],
    ['1.240', 1240],
    ['1 240', 1240],
    ['12,345,678', 12_345_678],
    ['', 0],
    ['1,24', null],
    ['1.5', null],
    ['-1', null],
    ['1,240.5', null],
    ['12 apples', null],
    ['1.240 Stk.', 1240],
    ['200颗', 200],
    ['x 200', 200],
    ['2 x 200', null],
    ['pcs', null],
  ])('reads the amount “%s”', (text, amount) => expect(readAmount(text)).toBe(amount));

  it('comes back the same over CSV', () => {
    const word = fc.stringMatching(/^[A-Za-z0-9 ,;"']{0,12}$/).map((text) => text.trim());
    const anyLine = fc.record({
      symbol: fc.constantFrom(null, '★', 'Ω', ',', '"', 'a'),
      name: word,
      hex: fc.constantFrom(null, '#0a0b0c', '#ffffff'),
      finish: fc.constantFrom(...FINISHES),
      neededDrills: fc.integer({ min: 0, max: 100_000 }),
      packets: fc.integer({ min: 0, max: 500 }),
    });
    fc.assert(
      fc.property(fc.array(anyLine, { minLength: 1, maxLength: 12 }), (parts) => {
        const legend = parts.map((part, i) => line(i + 1, { code: String(1000 + i), ...part }));
        const back = read(sheetToCsv(legend));
        expect(back.faults).toEqual([]);
        expect(back.lines).toEqual(legend);
      }),
    );
  });
});
