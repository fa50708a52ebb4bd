import Papa from 'papaparse';
import type { LegendLine } from '../canvas/legend';
import { GUARDED } from '../words/csvGuard';
import { type OutTable, sheetTableOut } from './checkinTable';

/** Writes a table as CSV (RFC 4180), safe to open in a spreadsheet. */
export function tableToCsv({ header, rows }: OutTable): string {
  return Papa.unparse({ fields: header, data: rows }, GUARDED);
}

/** Writes a legend as CSV with the headers that `readSheetTable` recognises. */
export function sheetToCsv(legend: readonly LegendLine[]): string {
  return tableToCsv(sheetTableOut(legend));
}
