import Papa from 'papaparse';
import type { LegendLine } from '../canvas/legend';
import { FIELD_IN_WORDS, SHEET_FIELDS } from './sheetTable';

/** Writes a legend as CSV (RFC 4180) with the headers that `readSheetTable` recognises. */
export function sheetToCsv(legend: readonly LegendLine[]): string {
  return Papa.unparse({
    fields: SHEET_FIELDS.map((field) => FIELD_IN_WORDS[field]),
    data: legend.map((line) => SHEET_FIELDS.map((field) => line[field] ?? '')),
  });
}
