import { type LegendLine, MAX_LEGEND_LINES } from '../canvas/legend';
import { looseCode } from '../codes/codes';
import { FINISHES, readFinish } from '../colour/finish';
import { readHex } from '../colour/rgb';
import { readAmount } from './amount';
import type { ColumnMapping, SheetField } from './sheetColumns';
import type { SheetRow } from './sheetRow';

/** A line of the sheet that cannot be taken, with the reason and the remedy. */
interface SheetFault {
  lineNumber: number;
  reason: string;
}

export interface SheetReading {
  lines: LegendLine[];
  faults: SheetFault[];
  /** Lines that are well but for something the reader should know. */
  notices: SheetFault[];
}

const MAX_LINE_CHARACTERS = 2000;
const MAX_NAME = 80;
const MAX_DRILLS = 1_000_000;
const MAX_PACKETS = 10_000;
const MONTH =
  '(jan(uary)?|feb(ruary)?|mar(ch)?|apr(il)?|may|june?|july?|aug(ust)?|sept?(ember)?|oct(ober)?|nov(ember)?|dec(ember)?)';
/** What spreadsheets make of a code that could be a day: 2026-04-03, 3/4/2026, 3-Apr, Apr-03. */
const DAY = new RegExp(
  String.raw`^(\d{4}-\d\d-\d\d|(\d{1,2}([./])){2}(\d{4}|\d\d)|\d{1,2}[-. ]+${MONTH}|${MONTH}-\d\d)$`,
  'i',
);

/**
 * Reads the rows of a sheet under a column mapping. A faulty row is named and left out; the others are numbered
 * 1…n in the order of the sheet.
 * @param totals whether a row may state a total; a typed list has none
 */
export function readSheetLines(
  rows: readonly SheetRow[],
  mapping: ColumnMapping,
  { totals = true }: { totals?: boolean } = {},
): SheetReading {
  const reading: SheetReading = { lines: [], faults: [], notices: [] };
  const wholeCodes = withoutDecimals(rows, mapping);
  const firstWith = { code: new Map<string, number>(), symbol: new Map<string, number>() };
  for (const row of rows) {
    const total = totals ? readTotal(row, mapping, reading.lines) : null;
    if (total !== null) {
      reading.notices.push({ lineNumber: row.lineNumber, reason: totalInWords(total, reading.lines) });
      continue;
    }
    const read = readRow(wholeCodes?.(row) ?? row, mapping, reading.lines.length + 1);
    if ('reason' in read) {
      reading.faults.push({ lineNumber: row.lineNumber, reason: read.reason });
      continue;
    }
    const codeKey = `${looseCode(read.code)} ${read.finish}`;
    const earlier = firstWith.code.get(codeKey);
    if (earlier !== undefined) {
      reading.faults.push({
        lineNumber: row.lineNumber,
        reason: `Code ${read.code} is already in row ${earlier}. Give the two different codes or finishes, or leave one out.`,
      });
      continue;
    }
    if (reading.lines.length === MAX_LEGEND_LINES) {
      reading.faults.push({
        lineNumber: row.lineNumber,
        reason: `A canvas can have at most ${MAX_LEGEND_LINES} colours; this row and later ones are left out.`,
      });
      break;
    }
    firstWith.code.set(codeKey, row.lineNumber);
    if (read.symbol !== null) {
      const twin = firstWith.symbol.get(read.symbol);
      if (twin === undefined) firstWith.symbol.set(read.symbol, row.lineNumber);
      else {
        reading.notices.push({
          lineNumber: row.lineNumber,
          reason: `Symbol ${read.symbol} is already in row ${twin}; on the canvas the two can only be told apart by their tint.`,
        });
      }
    }
    if (totals && TOTAL.test(firstOf(row))) {
      reading.notices.push({
        lineNumber: row.lineNumber,
        reason: `“${firstOf(row).slice(0, 30)}” is taken for a colour. If it is a sum, leave this row out.`,
      });
    }
    const name = (mapping.name === null ? '' : row.cells[mapping.name]) ?? '';
    if (name !== read.name) {
      reading.notices.push({
        lineNumber: row.lineNumber,
        reason: `Its name is longer than ${MAX_NAME} characters, so its end is left out: “${read.name}”`,
      });
    }
    if (DAY.test(read.code)) {
      reading.notices.push({
        lineNumber: row.lineNumber,
        reason: `Its code is ${read.code}, a day: spreadsheets turn codes like 3-4 into days. Look at the print.`,
      });
    }
    reading.lines.push(read);
  }
  return reading;
}

/** A name as long as one may be; no letter is cut in two. */
function shortName(name: string): string {
  return name.slice(0, MAX_NAME).replace(/[\uD800-\uDBFF]$/, '');
}

/**
 * Programs write numbers as 310.0, codes among them. Where all codes end so, none means it.
 * @returns a row with its code as it is printed; null where nothing is to be changed
 */
function withoutDecimals(
  rows: readonly SheetRow[],
  { code }: ColumnMapping,
): ((row: SheetRow) => SheetRow) | null {
  const codes = code === null ? [] : rows.flatMap(({ cells }) => cells[code] || []);
  if (code === null || codes.length < 2 || !codes.every((each) => /^\d+\.0$/.test(each))) return null;
  return (row) => ({ ...row, cells: row.cells.with(code, row.cells[code]!.replace(/\.0$/, '')) });
}

function readRow(row: SheetRow, mapping: ColumnMapping, line: number): LegendLine | { reason: string } {
  const cell = (field: SheetField) => {
    const column = mapping[field];
    return column === null ? '' : (row.cells[column] ?? '');
  };
  if (row.cells.join('').length > MAX_LINE_CHARACTERS) {
    return {
      reason: `It is longer than ${MAX_LINE_CHARACTERS.toLocaleString('en')} characters. Check the quotes around it.`,
    };
  }
  const keyNumber = cell('keyNumber') || String(line);
  const code = cell('code') || (mapping.code === null ? keyNumber : '');
  if (code === '') return { reason: 'It has no colour code.' };
  if (code.length > 24)
    return { reason: `Its colour code is longer than 24 characters: ${code.slice(0, 24)}…` };
  if (keyNumber.length > 8)
    return { reason: `Its key number is longer than 8 characters: ${keyNumber.slice(0, 8)}…` };
  const symbol = cell('symbol') || null;
  if (symbol !== null && [...symbol].length > 4) {
    return { reason: `Its symbol is longer than 4 characters: ${[...symbol].slice(0, 8).join('')}…` };
  }
  const hexText = cell('hex');
  const hex = hexText === '' ? null : readHex(hexText);
  if (hexText !== '' && hex === null) {
    return {
      reason: `“${hexText.slice(0, 30)}” is no colour. Write six digits like #2f6f8f, or leave it empty.`,
    };
  }
  const finish = readFinish(cell('finish'));
  if (finish === null) {
    return { reason: `“${cell('finish').slice(0, 30)}” is no finish we know. Use ${FINISHES.join(', ')}.` };
  }
  const neededDrills = readAmount(cell('neededDrills'));
  if (neededDrills === null || neededDrills > MAX_DRILLS) {
    return { reason: faultInAmount('drills needed', cell('neededDrills'), MAX_DRILLS) };
  }
  const packets = readAmount(cell('packets'));
  if (packets === null || packets > MAX_PACKETS) {
    return { reason: faultInAmount('packets', cell('packets'), MAX_PACKETS) };
  }
  return {
    line,
    keyNumber,
    symbol,
    code,
    name: shortName(cell('name')),
    hex,
    finish,
    neededDrills,
    packets,
  };
}

function faultInAmount(what: string, text: string, most: number): string {
  return readAmount(text) === null
    ? `The number of ${what} is “${text.slice(0, 30)}”; it must be a whole number, 0 or more.`
    : `The number of ${what} is ${text.slice(0, 30)}; more than ${most.toLocaleString('en')} cannot be right.`;
}

/** Words by which closing rows are known, in a number of languages. */
const TOTAL =
  /^((grand |sub)?(total|totals|sum|summe|gesamt|insgesamt|totale|suma|razem|totaal|somme|totalt|yhteensä|celkem|итого|всего|toplam|計)(?![\p{L}\d])|合计|总计|合計)/iu;

/** What a row begins with. */
function firstOf({ cells }: SheetRow): string {
  return cells.find((cell) => cell !== '') ?? '';
}

/** The sum that a closing row states, in whatever words; null when the row is none. */
function readTotal(row: SheetRow, mapping: ColumnMapping, lines: readonly LegendLine[]): number | null {
  if (mapping.neededDrills === null) return null;
  const stated = readAmount(row.cells[mapping.neededDrills] ?? '');
  const first = firstOf(row);
  const code = mapping.code === null ? '' : (row.cells[mapping.code] ?? '');
  const sum = lines.reduce((drills, line) => drills + line.neededDrills, 0);
  // “Total eclipse” with a code of its own is a colour; “Total”, and “Total drills” with their sum, is none.
  const more = first.replace(TOTAL, '').replace(/[^\p{L}]/gu, '');
  const isNamed = more !== '' && code !== '' && code !== first;
  if (TOTAL.test(first) && (!isNamed || stated === sum)) return stated ?? 0;
  // Nobody needs to know the word: a row without a code that states what the rows above add up to is their sum.
  // Codes that are words would be lost so: there, only a row without any code is one.
  const isNoCode = code === '' || (!/\d/.test(code) && lines.every((line) => /\d/.test(line.code)));
  return lines.length > 1 && stated === sum && isNoCode ? sum : null;
}

function totalInWords(total: number, lines: readonly LegendLine[]): string {
  const sum = lines.reduce((drills, line) => drills + line.neededDrills, 0);
  return total === sum
    ? `This row is the sheet's own total, ${total.toLocaleString('en')}; the rows above add up to it.`
    : `This row states a total of ${total.toLocaleString('en')}, but the rows above add up to ${sum.toLocaleString('en')}.`;
}
