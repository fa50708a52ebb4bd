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

  it('of another program are read: shared and inline text, numbers, dates and gaps', async () => {
    const zip = new JSZip();
    const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    zip.file(
      'xl/workbook.xml',
      `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="S" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    );
    zip.file(
      'xl/_rels/workbook.xml.rels',
      `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${office}/sharedStrings" Target="sharedStrings.xml"/></Relationships>`,
    );
    zip.file(
      'xl/sharedStrings.xml',
      `<sst xmlns="${main}"><si><t>code</t></si><si><r><t>04</t></r><r><t>12</t></r></si></sst>`,
    );
    zip.file(
      'xl/worksheets/sheet1.xml',
      `<worksheet xmlns="${main}"><sheetData><row r="1"><c r="A1" t="s"><v>0</v></c><c r="C1" t="inlineStr"><is><t>drills</t></is></c></row><row r="2"><c r="A2" t="s"><v>1</v></c><c r="C2"><v>190</v></c></row></sheetData></worksheet>`,
    );
    expect(await readSpreadsheet(await zip.generateAsync({ type: 'uint8array' }))).toEqual({
      sheets: ['S'],
      cells: [
        ['code', '', 'drills'],
        ['0412', '', '190'],
      ],
    });
  });

  it('show cells as people see them: leading zeros, faults, formulas without a value, days, and the sheet that is chosen', async () => {
    const zip = new JSZip();
    const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    zip.file(
      'xl/workbook.xml',
      `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Notes" sheetId="1" r:id="a"/><sheet name="Kit &amp; more" sheetId="2" r:id="b"/></sheets></workbook>`,
    );
    zip.file(
      'xl/_rels/workbook.xml.rels',
      '<Relationships><Relationship Id="a" Target="worksheets/sheet1.xml"/><Relationship Id="b" Target="/xl/worksheets/sheet2.xml"/></Relationships>',
    );
    // ECMA-376 part 1: 18.8.30 number formats, 18.8.10 cell formats, 18.18.11 cell types.
    zip.file(
      'xl/styles.xml',
      `<styleSheet xmlns="${main}"><numFmts><numFmt numFmtId="164" formatCode="00000"/><numFmt numFmtId="165" formatCode="yyyy-mm-dd"/></numFmts><cellXfs><xf numFmtId="0"/><xf numFmtId="164"/><xf numFmtId="165"/></cellXfs></styleSheet>`,
    );
    zip.file('xl/worksheets/sheet1.xml', `<worksheet xmlns="${main}"><sheetData/></worksheet>`);
    zip.file(
      'xl/worksheets/sheet2.xml',
      `<worksheet xmlns="${main}"><sheetData><row r="2"><c r="A2" s="1"><v>101</v></c><c r="B2" t="e"><v>#DIV/0!</v></c><c r="C2"><f>A1+1</f></c><c r="D2"><f>1+1</f><v>2</v></c><c r="E2" s="2"><v>46000</v></c><c r="F2"><v>0.30000000000000004</v></c></row></sheetData></worksheet>`,
    );
    const bytes = await zip.generateAsync({ type: 'uint8array' });
    const { sheets, cells } = await readSpreadsheet(bytes, 1);
    expect(sheets).toEqual(['Notes', 'Kit & more']);
    expect(cells[1]).toEqual([
      '00101',
      '#DIV/0! (a fault in the spreadsheet)',
      '(a formula without a value)',
      '2',
      // Serial day 46000 is 9 December 2025 (Excel's 1900 system: 45,658 is 1 January 2025).
      '2025-12-09',
      '0.3',
    ]);
    await expect(readSpreadsheet(bytes, 2)).rejects.toThrow('has 2 sheets, and no number 3');
  });

  it('that are none are refused in words', async () => {
    await expect(readSpreadsheet(new TextEncoder().encode('code,drills'))).rejects.toThrow(
      'not a spreadsheet',
    );
    await expect(readSpreadsheet(zipSync({ 'a.txt': new Uint8Array(10) }))).rejects.toThrow(
      /not a spreadsheet|no sheet/,
    );
  });

  it('that unpack to a flood are refused before anything is unpacked', async () => {
    const bomb = packed({ 'xl/worksheets/sheet1.xml': new Uint8Array(60_000_000) });
    expect(bomb.length).toBeLessThan(400_000);
    await expect(readSpreadsheet(bomb)).rejects.toThrow('unpacks to far more');
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
