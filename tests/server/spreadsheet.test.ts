import { zipSync } from 'fflate';
import readXlsxFile from 'read-excel-file/node';
import { describe, expect, it } from 'vitest';
import { checkinTableOut, sheetTableOut } from '../../src/core/checkin/checkinTable';
import { readSheetLines } from '../../src/core/checkin/sheetLines';
import { tableOfCells } from '../../src/core/checkin/sheetTable';
import { supplyOf } from '../../src/core/checkin/supply';
import { readSpreadsheet, writeSpreadsheet } from '../../src/server/files/spreadsheet';
import { line } from '../core/samples';

const legend = [
  line(1, { code: '0412', name: 'Milk pear, soft', symbol: '=' }),
  line(2, { code: 'SH77', symbol: null, hex: null, finish: 'iridescent', neededDrills: 12_345, packets: 62 }),
  line(3, { code: '007', symbol: '7', keyNumber: '03' }),
];

async function readBack(bytes: Uint8Array) {
  const table = tableOfCells(await readSpreadsheet(bytes));
  return readSheetLines(table.rows, table.mapping);
}

describe('spreadsheet files', () => {
  it('bring a sheet back without loss, leading zeros and all', async () => {
    const { header, rows } = sheetTableOut(legend);
    const { lines, faults } = await readBack(await writeSpreadsheet('Sheet', header, rows));
    expect(faults).toEqual([]);
    expect(lines).toEqual(legend);
  });

  it('bring the sheet back from the result of check-in', async () => {
    const { header, rows } = checkinTableOut(legend, supplyOf(legend, [], 200));
    expect((await readBack(await writeSpreadsheet('Result', header, rows))).lines).toEqual(legend);
  });

  it('are opened by a second reader', async () => {
    const { header, rows } = sheetTableOut(legend);
    const bytes = await writeSpreadsheet('A/B: [test]', header, rows);
    const read = await readXlsxFile(Buffer.from(bytes));
    const cells = (
      Array.isArray(read[0]) ? read : (read as unknown as { data: unknown[][] }[])[0]!.data
    ) as unknown[][];
    expect(cells[0]).toEqual(header);
    expect(cells[1]).toEqual(['1', '=', '0412', 'Milk pear, soft', '#2f6f8f', 'plain', 100, 1]);
    expect(cells[2]!.slice(6)).toEqual([12_345, 62]);
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
    const bomb = zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(60_000_000) });
    expect(bomb.length).toBeLessThan(200_000);
    await expect(readSpreadsheet(bomb)).rejects.toThrow('unpacks to far more');
  });
});
