import type { LegendLine } from '../canvas/legend';
import { FIELD_IN_WORDS, SHEET_FIELDS } from './sheetColumns';
import { type LineSupply, verdictInWords } from './supply';

/** Header and rows of a table that leaves the app as CSV or spreadsheet. */
export interface OutTable {
  header: string[];
  rows: (string | number)[][];
}

/** The sheet with the headers that are recognised when it is read again. */
export function sheetTableOut(legend: readonly LegendLine[]): OutTable {
  return {
    header: SHEET_FIELDS.map((field) => FIELD_IN_WORDS[field]),
    rows: legend.map((line) => SHEET_FIELDS.map((field) => line[field] ?? '')),
  };
}

/** The sheet with the result of check-in behind it; read again, it is the same sheet. */
export function checkinTableOut(legend: readonly LegendLine[], supply: readonly LineSupply[]): OutTable {
  const sheet = sheetTableOut(legend);
  return {
    header: [
      ...sheet.header,
      'Bags here',
      'Drills here',
      'Give or take',
      'Verdict',
      'Chance of running out, %',
    ],
    rows: sheet.rows.map((row, i) => {
      const own = supply[i]!;
      return [
        ...row,
        own.bags,
        own.suppliedDrills,
        Math.round(2 * own.spread),
        verdictInWords(own.verdict),
        Math.round(own.chance * 1000) / 10,
      ];
    }),
  };
}
