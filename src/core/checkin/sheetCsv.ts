import Papa from 'papaparse';
import type { LegendLine } from '../canvas/legend';
import { type OutTable, sheetTableOut } from './checkinTable';

/** Writes a table as CSV (RFC 4180). */
export function tableToCsv({ header, rows }: OutTable): string {
  return Papa.unparse({ fields: header, data: rows });
}

/** Writes a legend as CSV with the headers that `readSheetTable` recognises. */
export function sheetToCsv(legend: readonly LegendLine[]): string {
  return tableToCsv(sheetTableOut(legend));
}
