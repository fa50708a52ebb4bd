import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { chartFromGrid, chartToGrid } from '../../../src/core/chart/files/fromGrid';
import { sheetToCsv, tableToCsv } from '../../../src/core/checkin/sheetCsv';
import { readSheetTable } from '../../../src/core/checkin/sheetTable';
import { chartOfRows, line } from '../samples';

/** What a spreadsheet takes for a formula (OWASP, "CSV Injection"). */
const isFormula = (cell: string) => /^[=+\-@\t\r]/.test(cell);
const cellsOf = (csv: string) => Papa.parse<string[]>(csv).data.flat();
const HOSTILE = ['=1+1', '+412', '-412', '@x', '\t=1', "=HYPERLINK('a')", "'=1", '412'];

it('no cell of a sheet or table that we write is a formula to others, and ours come back as they were', () => {
  const legend = HOSTILE.map((code, i) =>
    line(i + 1, { code, name: code, symbol: i < 4 ? '=+-@'[i]! : null }),
  );
  const csv = sheetToCsv(legend);
  expect(cellsOf(csv).filter(isFormula)).toEqual([]);
  const rows = readSheetTable(csv).rows.map(({ cells }) => cells);
  const header = readSheetTable(csv).columns;
  expect(rows.map((cells) => cells[header.findIndex((name) => /code/i.test(name))])).toEqual(
    HOSTILE.map((code) => code.trim()),
  );
  expect(cellsOf(tableToCsv({ header: ['=a'], rows: [['=b', '-5']] })).filter(isFormula)).toEqual([]);
});

it('a chart of symbols that begin formulas comes back as it was', () => {
  const legend = [
    line(1, { symbol: '+', code: '+' }),
    line(2, { symbol: '-', code: '-' }),
    line(3, { symbol: '=', code: '=' }),
  ];
  const chart = chartOfRows('123', '321');
  const csv = chartToGrid(chart, legend);
  expect(cellsOf(csv).filter(isFormula)).toEqual([]);
  expect(chartFromGrid(csv, { width: 3, height: 2 }, legend).chart.cells).toEqual(chart.cells);
});
