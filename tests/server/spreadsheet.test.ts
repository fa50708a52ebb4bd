import { zipSync } from 'fflate';
import JSZip from 'jszip';
import { describe, expect, it } from 'vitest';
import { checkinTableOut, sheetTableOut } from '../../src/core/checkin/checkinTable';
import { readSheetLines } from '../../src/core/checkin/sheetLines';
import { tableOfCells } from '../../src/core/checkin/sheetTable';
import { supplyOf } from '../../src/core/checkin/supply';
import { readSpreadsheet, writeSpreadsheet } from '../../src/server/files/spreadsheet';
import { line } from '../core/samples';
import { packed } from '../packed';

const legend = [
  line(1, { code: '0412', name: 'Milk pear, soft', symbol: '=' }),
  line(2, { code: 'SH77', symbol: null, hex: null, finish: 'iridescent', neededDrills: 12_345, packets: 62 }),
  line(3, { code: '007', symbol: '7', keyNumber: '03' }),
];

async function readBack(bytes: Uint8Array) {
  const table = tableOfCells((await readSpreadsheet(bytes)).cells);
  return readSheetLines(table.rows, table.mapping);
}

/** A workbook as another program writes it. @param parts rows of worksheets, by their file */
function book({
  sheets,
  strings = '',
  styles = '',
  ...parts
}: {
  sheets: Record<string, string>;
  strings?: string;
  styles?: string;
  [path: `xl/${string}`]: string;
}): Promise<Uint8Array> {
  const main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
  const office = 'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
  const names = Object.entries(sheets);
  const listed = names.map(([name], i) => `<sheet name="${name}" sheetId="${i + 1}" r:id="rId${i}"/>`);
  const related = names.map(([, path], i) => `<Relationship Id="rId${i}" Target="${path}"/>`);
  const zip = new JSZip();
  zip.file('xl/workbook.xml', `<workbook ${main} ${office}><sheets>${listed.join('')}</sheets></workbook>`);
  zip.file('xl/_rels/workbook.xml.rels', `<Relationships>${related.join('')}</Relationships>`);
  zip.file('xl/sharedStrings.xml', `<sst ${main}>${strings}</sst>`);
  zip.file('xl/styles.xml', `<styleSheet ${main}>${styles}</styleSheet>`);
  for (const [path, rows] of Object.entries(parts))
    zip.file(path, `<worksheet ${main}><sheetData>${rows}</sheetData></worksheet>`);
  return zip.generateAsync({ type: 'uint8array' });
}

/** The same in OpenDocument format. @param tables its sheets */
function openBook(tables: string): Promise<Uint8Array> {
  const spaces = ['office', 'table', 'text'].map(
    (each) => `xmlns:${each}="urn:oasis:names:tc:opendocument:xmlns:${each}:1.0"`,
  );
  const zip = new JSZip();
  zip.file('mimetype', 'application/vnd.oasis.opendocument.spreadsheet');
  zip.file(
    'content.xml',
    `<?xml version="1.0"?>\n<office:document-content ${spaces.join(' ')} xmlns:calcext="urn:org:documentfoundation:names:experimental:calc:xmlns:calcext:1.0"><office:body><office:spreadsheet>${tables}</office:spreadsheet></office:body></office:document-content>`,
  );
  return zip.generateAsync({ type: 'uint8array' });
}

describe('spreadsheet files', () => {
  it('bring a sheet back without loss, leading zeros and all', async () => {
    const { header, rows } = sheetTableOut(legend);
    const { lines, faults } = await readBack(await writeSpreadsheet({ name: 'Sheet', header, rows }));
    expect(faults).toEqual([]);
    expect(lines).toEqual(legend);
  });

  it('bring the sheet back from the result of check-in', async () => {
    const { header, rows } = checkinTableOut(legend, supplyOf(legend, [], 200));
    expect((await readBack(await writeSpreadsheet({ name: 'Result', header, rows }))).lines).toEqual(legend);
  });

  it('hold codes as text and counts as numbers, as ECMA-376 part 1 (18.3.1.4, 18.18.11) writes them', async () => {
    const { header, rows } = sheetTableOut(legend);
    const zip = await JSZip.loadAsync(await writeSpreadsheet({ name: 'A/B: [test]', header, rows }));
    const sheet = await zip.file('xl/worksheets/sheet1.xml')!.async('string');
    const strings = (await zip.file('xl/sharedStrings.xml')?.async('string')) ?? '';
    const shared = [...strings.matchAll(/<si>.*?<t[^>]*>([^<]*)<\/t>.*?<\/si>/gs)].map(([, text]) => text!);
    const cell = (name: string) => {
      const found = new RegExp(`<c r="${name}"([^>]*)>(.*?)</c>`, 's').exec(sheet)!;
      const [, about, inside] = found;
      const value = /<(?:v|t)[^>]*>([^<]*)</.exec(inside!)![1]!;
      if (/t="s"/.test(about!)) return shared[Number(value)];
      return /t="(inlineStr|str)"/.test(about!) ? value : Number(value);
    };
    expect(['A1', 'C1'].map(cell)).toEqual([header[0], header[2]]);
    expect(['A2', 'C2', 'D2', 'G2', 'H2'].map(cell)).toEqual(['1', '0412', 'Milk pear, soft', 100, 1]);
    expect(cell('G3')).toBe(12_345);
    expect(await zip.file('xl/workbook.xml')!.async('string')).toContain('name="A B   test "');
  });

  it('of another program are read: shared and inline text, numbers and gaps', async () => {
    const bytes = await book({
      sheets: { S: 'worksheets/sheet1.xml' },
      strings: '<si><t>code</t></si><si><r><t>04</t></r><r><t xml:space="preserve">12 </t></r></si>',
      'xl/worksheets/sheet1.xml':
        '<row r="1"><c r="A1" t="s"><v>0</v></c><c r="B1" t="s"/><c r="C1" t="inlineStr"><is><t> drills</t></is></c></row><row><c t="s"><v>1</v></c><c r="C2"><v>190</v></c></row><row/><row r="6"><c r="AA6"><v>1</v></c></row>',
    });
    const { sheets, cells } = await readSpreadsheet(bytes);
    expect(sheets).toEqual(['S']);
    expect(cells.map((row) => row.slice(0, 3))).toEqual([
      ['code', '', 'drills'],
      ['0412', '', '190'],
      ...Array(4).fill(['', '', '']),
    ]);
    expect([cells[5]!.length, cells[5]![26]]).toEqual([27, '1']);
  });

  // ECMA-376 part 1: 18.8.30 number formats, 18.8.10 cell formats, 18.18.11 cell types, 22.9.2.19 escaped signs.
  // Serial day 46000 is 9 December 2025 (45,658 is 1 January 2025).
  it.each([
    ['<c s="1"><v>101</v></c>', '00101'],
    ['<c s="3"><v>189.6</v></c>', '190'],
    ['<c t="e"><v>#DIV/0!</v></c>', '#DIV/0! (a fault in the spreadsheet)'],
    ['<c><f>A1+1</f></c>', '(a formula without a value)'],
    ['<c><f>A1+1</f><v></v></c>', '(a formula without a value)'],
    ['<c><f>1+1</f><v>2</v></c>', '2'],
    ['<c s="9"/>', ''],
    ['<c s="2"><v>46000.5</v></c>', '2025-12-09'],
    ['<c s="4"><v>46000</v></c>', '2025-12-09'],
    ['<c s="6"><v>46000</v></c>', '2025-12-09'],
    ['<c s="4"><v>9999999</v></c>', '9999999'],
    ['<c s="5"><v>7</v></c>', '7'],
    ['<c><v>0.30000000000000004</v></c>', '0.3'],
    ['<c><v> n/a </v></c>', 'n/a'],
    ['<c t="str"><f>"a"</f><v xml:space="preserve"> SH77 </v></c>', 'SH77'],
    ['<c t="str"><f>""</f></c>', ''],
    ['<c t="b"><v>1</v></c>', 'TRUE'],
    ['<c t="b"><v>0</v></c>', 'FALSE'],
    ['<c t="s"><v>9</v></c>', ''],
    ['<c t="inlineStr"><is><t>pale_x000D__x000a_pear_x005F_2</t></is></c>', 'pale  pear_2'],
  ])('show %s as people see it', async (cell, seen) => {
    const bytes = await book({
      sheets: { Notes: 'worksheets/sheet1.xml', 'Kit &amp; more': '/xl/worksheets/sheet2.xml' },
      styles:
        '<numFmts><numFmt numFmtId="164" formatCode="00000;@"/><numFmt numFmtId="165" formatCode="[$-809]yyyy-mm-dd"/><numFmt numFmtId="166" formatCode="0\\ &quot;days&quot;"/></numFmts><cellXfs><xf/><xf numFmtId="164"/><xf numFmtId="165"/><xf numFmtId="1"/><xf numFmtId="14"/><xf numFmtId="166"/><xf numFmtId="57"/></cellXfs>',
      'xl/worksheets/sheet1.xml': '',
      'xl/worksheets/sheet2.xml': `<row r="2">${cell}</row>`,
    });
    const { sheets, cells } = await readSpreadsheet(bytes, 1);
    expect(sheets).toEqual(['Notes', 'Kit & more']);
    expect(cells).toEqual([[''], [seen]]);
    await expect(readSpreadsheet(bytes, 2)).rejects.toThrow('has 2 sheets, and no number 3');
  });

  it.each([
    ['<row r="20001"/>', 'far beside'],
    ['<row r="0"/>', 'far beside'],
    ['<row r="1"><c r="KO1"/></row>', 'far beside'],
    ['<row r="1"><c r="1"/></row>', 'far beside'],
    ['<row r="20000"/>', 'This sheet has 20,000 rows and 0 columns; at most 5,000 and 100.'],
    ['<row r="1"><c r="CW1"/></row>', 'This sheet has 1 row and 101 columns; at most 5,000 and 100.'],
  ])('with %s are larger than any sheet', async (rows, words) => {
    const sheets = { S: './worksheets/sheet1.xml' };
    await expect(readSpreadsheet(await book({ sheets, 'xl/worksheets/sheet1.xml': rows }))).rejects.toThrow(
      words,
    );
  });

  it('may be as wide as a canvas, where one is wanted', async () => {
    const wide = {
      sheets: { S: 'worksheets/sheet1.xml' },
      'xl/worksheets/sheet1.xml': '<row><c r="KO1"><v>7</v></c></row>',
    };
    const { cells } = await readSpreadsheet(await book(wide), 0, { rows: 50, columns: 400 });
    expect([cells[0]!.length, cells[0]![300]]).toEqual([301, '7']);
  });

  it('declare nothing, and name the sheets that they hold', async () => {
    const sheets = { S: 'worksheets/sheet1.xml', Lost: 'worksheets/sheet9.xml' };
    const one = { sheets, 'xl/worksheets/sheet1.xml': '<row r="5000"><c r="CV5000"><v>1</v></c></row>' };
    expect((await readSpreadsheet(await book(one))).sheets).toEqual(['S']);
    await expect(readSpreadsheet(await book({ ...one, strings: '<!DOCTYPE a>' }))).rejects.toThrow(
      'holds declarations that it should not have',
    );
    await expect(readSpreadsheet(await book({ sheets }))).rejects.toThrow('no sheet that can be read');
    // What is hidden (18.18.68) is looked at last.
    const hidden = { 'Lists" state="veryHidden': 'worksheets/sheet1.xml', Kit: 'worksheets/sheet2.xml' };
    const two = { sheets: hidden, 'xl/worksheets/sheet1.xml': '', 'xl/worksheets/sheet2.xml': '' };
    expect((await readSpreadsheet(await book(two))).sheets).toEqual(['Kit', 'Lists']);
  });

  // OpenDocument 1.3 part 3: 9.1.4 cells, 19.385 values, 19.675 and 19.676 what is written once, 6.1 text.
  it('in OpenDocument format are read as people see them', async () => {
    const cell = (words: string, about = '') =>
      `<table:table-cell ${about}><text:p>${words}</text:p></table:table-cell>`;
    const number = (value: number, words: string) =>
      cell(words, `office:value-type="float" office:value="${value}"`);
    const gap = (columns: number) => `<table:table-cell table:number-columns-repeated="${columns}"/>`;
    const row = (cells: string, about = '') =>
      `<table:table-row ${about}>\n${cells}\n${gap(16_000)}</table:table-row>\n`;
    const day = 'office:value-type="date" office:date-value="2025-12-09T10:00:00"';
    const noted =
      '<office:annotation><text:p>note</text:p></office:annotation><text:p>7</text:p><text:p>8</text:p>';
    const filled = [
      [
        number(412, '00412'),
        cell('Moss,<text:s text:c="2"/>soft<text:line-break/>x'),
        number(1204, '1,204'),
        number(0.30000000000000004, '30 %'),
      ],
      [
        cell('#DIV/0!', 'calcext:value-type="error"'),
        cell('9 Dec', day),
        '<table:covered-table-cell/>',
        number(189.6, '190'),
      ],
    ].map((cells) => row(cells.join('')));
    filled.push(
      row(
        `<table:table-cell table:number-columns-repeated="2">${noted}</table:table-cell>`,
        'table:number-rows-repeated="2"',
      ),
    );
    const bytes = await openBook(
      `<table:table table:name="Notes">${row('')}</table:table>
      <table:table table:name="Kit &amp; more"><table:table-column/>
        <table:table-header-rows>${row(cell('Code') + gap(2) + cell('Dr<text:span>il</text:span>ls'))}</table:table-header-rows>
        ${row('', 'table:number-rows-repeated="2"')}
        ${filled.join('')}
        ${row('', 'table:number-rows-repeated="1048000"')}
      </table:table>`,
    );
    expect(await readSpreadsheet(bytes, 1)).toEqual({
      sheets: ['Notes', 'Kit & more'],
      cells: [
        ['Code', '', '', 'Drills'],
        ['', '', '', ''],
        ['', '', '', ''],
        ['00412', 'Moss,  soft x', '1204', '0.3'],
        ['#DIV/0! (a fault in the spreadsheet)', '2025-12-09', '', '190'],
        ['7\n8', '7\n8', '', ''],
        ['7\n8', '7\n8', '', ''],
      ],
    });
    expect((await readSpreadsheet(bytes)).cells).toEqual([]);
    await expect(readSpreadsheet(bytes, 2)).rejects.toThrow('has 2 sheets, and no number 3');
    // A style of its table (table:display) hides a sheet: it is looked at last.
    const style = (name: string, display: string) =>
      `<style:style xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" style:name="${name}" style:family="table"><style:table-properties ${display}/></style:style>`;
    const sheet = (name: string, cells: string) =>
      `<table:table table:name="${name}" table:style-name="${name}">${row(cells)}</table:table>`;
    const hidden = await openBook(
      `${style('Lists', 'table:display="false"')}${style('Kit', 'table:display="true"')}${sheet('Lists', cell('1'))}${sheet('Kit', cell('2'))}`,
    );
    expect(await readSpreadsheet(hidden)).toEqual({ sheets: ['Kit', 'Lists'], cells: [['2']] });
    expect((await readSpreadsheet(hidden, 1)).cells).toEqual([['1']]);
    const nested = sheet('Kit', `<table:table-cell>${sheet('Inner', cell('3'))}</table:table-cell>`);
    const two = await readSpreadsheet(await openBook(sheet('First', cell('1')) + nested));
    expect(two).toEqual({ sheets: ['First', 'Kit'], cells: [['1']] });
    await expect(openBook(nested).then((file) => readSpreadsheet(file))).rejects.toThrow('table of its own');
    const faulty = (content: string) =>
      expect(openBook(content).then((file) => readSpreadsheet(file))).rejects;
    await faulty('').toThrow('no sheet that can be read');
    await faulty('<!DOCTYPE a>').toThrow('declarations');
    for (const far of [
      row(gap(300) + cell('7')),
      row(cell('7', 'table:number-columns-repeated="301"')),
      row('', 'table:number-rows-repeated="20000"') + row(cell('7')),
      row(cell('7'), 'table:number-rows-repeated="1048576"'),
    ])
      await faulty(`<table:table table:name="S">${far}</table:table>`).toThrow('far beside its table');
  });

  it('that are none are refused in words', async () => {
    await expect(readSpreadsheet(new TextEncoder().encode('code,drills'))).rejects.toThrow(
      'not a spreadsheet',
    );
    await expect(readSpreadsheet(zipSync({ 'a.txt': new Uint8Array(10) }))).rejects.toThrow(
      /not a spreadsheet|no sheet/,
    );
  });

  it.each([
    ['elements within elements', `${'<a>'.repeat(101)}${'</a>'.repeat(101)}`],
    ['attributes', `<a ${Array.from({ length: 501 }, (_, i) => `a${i}=""`).join(' ')}/>`],
    ['what is no XML', '<row'],
    ['entities of its own', '&more;'],
  ])('with %s are refused', async (_, rows) => {
    const sheets = { S: 'worksheets/sheet1.xml' };
    await expect(readSpreadsheet(await book({ sheets, 'xl/worksheets/sheet1.xml': rows }))).rejects.toThrow(
      'not a spreadsheet that we can read',
    );
  });

  it('that unpack to a flood are refused before anything is unpacked', async () => {
    const bomb = packed({ 'xl/worksheets/sheet1.xml': new Uint8Array(60_000_000) });
    expect(bomb.length).toBeLessThan(400_000);
    await expect(readSpreadsheet(bomb)).rejects.toThrow('unpacks to far more than we take');
  });

  it('that say they are small and are not are refused while they are unpacked', async () => {
    const lying = packed({ 'xl/worksheets/sheet1.xml': new Uint8Array(30_000_000) });
    const view = new DataView(lying.buffer);
    // Central directory header (APPNOTE 4.3.12): the uncompressed size stands 24 bytes behind its signature.
    for (let at = 0; at + 28 <= lying.length; at++) {
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 1000, true);
    }
    const before = process.memoryUsage().rss;
    await expect(readSpreadsheet(lying)).rejects.toThrow('not a spreadsheet');
    expect(process.memoryUsage().rss - before).toBeLessThan(200_000_000);
  });
});
