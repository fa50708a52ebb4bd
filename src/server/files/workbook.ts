import { XMLParser } from 'fast-xml-parser';
import { unreadable } from '../http/problem';

/** A worksheet as a workbook lists it. */
interface Worksheet {
  name: string;
  /** File of it in the package. */
  path: string;
}

/** A spreadsheet's parts (ECMA-376 part 1, 18), as far as its cells need them. */
export interface Workbook {
  sheets: Worksheet[];
  strings: readonly string[];
  /** Format of each cell style, as written in the file or by its number. */
  formats: readonly string[];
}

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: false,
  removeNSPrefix: true,
  processEntities: true,
});

type Node = Record<string, unknown>;
const listOf = (value: unknown): Node[] =>
  value === undefined || value === '' ? [] : Array.isArray(value) ? (value as Node[]) : [value as Node];

/** Number formats that are built in and show days, those of East Asian languages among them (ECMA-376 part 1, 18.8.30). */
const BUILT_IN_DAYS = [14, 15, 16, 17, 22, 27, 28, 29, 30, 31, 36, 50, 51, 52, 53, 54, 57, 58];
/** Those that show whole numbers or days; the others show a number as it is, or what no sheet of a kit holds. */
const BUILT_IN: Readonly<Record<string, string>> = {
  1: '0',
  ...Object.fromEntries(BUILT_IN_DAYS.map((id) => [id, 'd'])),
};

export function workbookOf(textOf: (path: string) => string | null): Workbook {
  const book = parsed(textOf('xl/workbook.xml')).workbook as Node | undefined;
  const relations = parsed(textOf('xl/_rels/workbook.xml.rels')).Relationships as Node | undefined;
  const targets = new Map(
    listOf(relations?.Relationship).map((each) => [each['@Id'], String(each['@Target'])] as const),
  );
  const sheets = listOf((book?.sheets as Node | undefined)?.sheet).flatMap((sheet): Worksheet[] => {
    const target = targets.get(sheet['@id']);
    if (target === undefined) return [];
    const path = target.startsWith('/') ? target.slice(1) : `xl/${target.replace(/^\.\//, '')}`;
    return textOf(path) === null ? [] : [{ name: String(sheet['@name'] ?? 'Sheet'), path }];
  });
  if (sheets.length === 0) throw unreadable('This spreadsheet has no sheet that can be read.');
  const shared = parsed(textOf('xl/sharedStrings.xml')).sst as Node | undefined;
  const styles = parsed(textOf('xl/styles.xml')).styleSheet as Node | undefined;
  const own = new Map(
    listOf((styles?.numFmts as Node | undefined)?.numFmt).map((each) => [
      String(each['@numFmtId']),
      String(each['@formatCode']),
    ]),
  );
  return {
    sheets,
    strings: listOf(shared?.si).map(textIn),
    formats: listOf((styles?.cellXfs as Node | undefined)?.xf).map((each) => {
      const id = String(each['@numFmtId'] ?? '0');
      return own.get(id) ?? BUILT_IN[id] ?? 'General';
    }),
  };
}

function parsed(text: string | null): Node {
  if (text === null) return {};
  // A spreadsheet has no document type; what is declared in one could unfold without end.
  if (text.includes('<!DOCTYPE'))
    throw unreadable(
      'This spreadsheet holds declarations that it should not have. Save it again as XLSX or CSV.',
    );
  return parser.parse(text) as Node;
}

/** Text of a string item: one piece, or several that are written in different ways. */
function textIn(item: unknown): string {
  if (typeof item === 'string') return plain(item);
  const { t, r } = (item ?? {}) as Node;
  const own = listOf(t).map((each) =>
    plain(typeof each === 'string' ? each : String((each as Node)['#text'] ?? '')),
  );
  return own.join('') + listOf(r).map(textIn).join('');
}

/** Signs that XML cannot hold are written by their numbers (ECMA-376 part 1, 22.9.2.19); such as end a line are blanks. */
function plain(text: string): string {
  return text.replace(/_x([0-9a-f]{4})_/gi, (_, number: string) =>
    String.fromCharCode(Math.max(0x20, Number.parseInt(number, 16))),
  );
}

/** The cells of a worksheet by row and column, as they are shown. */
export function cellsOf(text: string, { strings, formats }: Workbook): string[][] {
  const sheet = parsed(text).worksheet as Node | undefined;
  const rows: string[][] = [];
  let y = 0;
  for (const row of listOf((sheet?.sheetData as Node | undefined)?.row)) {
    y = row['@r'] === undefined ? y + 1 : Number(row['@r']);
    if (!(y >= 1 && y <= MOST_ROWS)) throw tooFar();
    while (rows.length < y - 1) rows.push([]);
    const cells: string[] = [];
    let x = 0;
    for (const cell of listOf(row.c)) {
      x = cell['@r'] === undefined ? x + 1 : columnOf(String(cell['@r']));
      if (!(x >= 1 && x <= MOST_COLUMNS)) throw tooFar();
      while (cells.length < x - 1) cells.push('');
      cells.push(shown(cell, strings, formats));
    }
    rows.push(cells);
  }
  return rows;
}

/** A cell far off would make a flood of empty ones. */
const MOST_ROWS = 20_000;
const MOST_COLUMNS = 300;

function tooFar(): Error {
  return unreadable(
    'This sheet has cells far beyond what an inventory sheet needs. Copy its rows and paste them.',
  );
}

function columnOf(place: string): number {
  let column = 0;
  for (const letter of /^[A-Z]+/.exec(place)?.[0] ?? '') column = column * 26 + letter.charCodeAt(0) - 64;
  return column;
}

/** What a person sees in a cell; a fault of the sheet is seen as one. */
function shown(cell: Node, strings: readonly string[], formats: readonly string[]): string {
  const raw = cell.v === undefined ? null : textIn(typeof cell.v === 'string' ? cell.v : { t: cell.v });
  switch (cell['@t']) {
    case 's':
      return (strings[Number(raw)] ?? '').trim();
    case 'inlineStr':
      return textIn(cell.is).trim();
    case 'str':
      return (raw ?? '').trim();
    case 'b':
      return raw === '1' ? 'TRUE' : 'FALSE';
    case 'e':
      return `${raw ?? '#VALUE!'} (a fault in the spreadsheet)`;
    default:
      if (raw === null || raw === '') return cell.f === undefined ? '' : '(a formula without a value)';
      return asShown(raw, formats[Number(cell['@s'] ?? 0)] ?? 'General');
  }
}

/** A number under its format: leading zeros are kept, dates are days, digits behind the point as many as are shown. */
function asShown(raw: string, format: string): string {
  const value = Number(raw);
  if (!Number.isFinite(value)) return raw.trim();
  const first = format.split(';')[0]!.replace(/\[[^\]]*\]|"[^"]*"|\\./g, '');
  // Beyond the year 9999 a spreadsheet itself shows no day.
  if (/[yd]/i.test(first) && !/[#0]/.test(first) && value >= 0 && value < 2_958_466) {
    return new Date(Math.round((value - 25_569) * 86_400_000)).toISOString().slice(0, 10);
  }
  const zeros = /^0+$/.exec(first.trim());
  if (zeros) return String(Math.round(value)).padStart(zeros[0].length, '0');
  // A binary fraction such as 0.1 + 0.2 is no number of drills.
  return String(Number(value.toPrecision(15)));
}
