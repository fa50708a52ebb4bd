import { unreadable } from '../http/problem';
import { readXml, type XmlHandler } from './xml';

/** A worksheet as a workbook lists it. */
interface Worksheet {
  name: string;
  /** File of it in the package. */
  path: string;
}

/** A spreadsheet's parts (ECMA-376 part 1, 18), as far as its cells need them. */
export interface Workbook {
  /** Those that are hidden stand behind the others. */
  sheets: Worksheet[];
  strings: readonly string[];
  /** Format of each cell style, as written in the file or by its number. */
  formats: readonly string[];
}

/** A name without its prefix, which every program chooses for itself. */
function local(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}

/** Attributes by their names without prefixes. */
function localOnes(attributes: Readonly<Record<string, string>>): Record<string, string | undefined> {
  return Object.fromEntries(Object.entries(attributes).map(([name, value]) => [local(name), value]));
}

/** Goes through a part of the workbook; nothing where it has none. */
function readPart(text: string | null, { open, close, ...handler }: XmlHandler): void {
  if (text === null) return;
  readXml(text, {
    ...handler,
    ...(open && { open: (name, attributes) => open(local(name), attributes) }),
    ...(close && { close: (name) => close(local(name)) }),
  });
}

/** Number formats that are built in and show days, those of East Asian languages among them (ECMA-376 part 1, 18.8.30). */
const BUILT_IN_DAYS = [14, 15, 16, 17, 22, 27, 28, 29, 30, 31, 36, 50, 51, 52, 53, 54, 57, 58];
/** Those that show whole numbers or days; the others show a number as it is, or what no sheet of a kit holds. */
const BUILT_IN: Readonly<Record<string, string>> = {
  1: '0',
  ...Object.fromEntries(BUILT_IN_DAYS.map((id) => [id, 'd'])),
};

export function workbookOf(textOf: (path: string) => string | null): Workbook {
  const targets = new Map<string | undefined, string>();
  readPart(textOf('xl/_rels/workbook.xml.rels'), {
    open: (name, { Id, Target }) => {
      if (name === 'Relationship' && Target !== undefined) targets.set(Id, Target);
    },
  });
  const sheets: Worksheet[] = [];
  const hidden: Worksheet[] = [];
  readPart(textOf('xl/workbook.xml'), {
    open: (element, attributes) => {
      if (element !== 'sheet') return;
      const { name = 'Sheet', id, state = 'visible' } = localOnes(attributes);
      const target = targets.get(id);
      if (target === undefined) return;
      const path = target.startsWith('/') ? target.slice(1) : `xl/${target.replace(/^\.\//, '')}`;
      if (textOf(path) !== null) (state === 'visible' ? sheets : hidden).push({ name, path });
    },
  });
  sheets.push(...hidden);
  if (sheets.length === 0) throw unreadable('This spreadsheet has no sheet that can be read.');
  return {
    sheets,
    strings: sharedStrings(textOf('xl/sharedStrings.xml')),
    formats: cellFormats(textOf('xl/styles.xml')),
  };
}

/** The text that cells share: each in one piece, or in several that are written in different ways. */
function sharedStrings(part: string | null): string[] {
  const strings: string[] = [];
  let own = '';
  const item = textPieces((piece) => {
    own += piece;
  });
  readPart(part, {
    ...item,
    open: (name, attributes) => {
      if (name === 'si') own = '';
      item.open(name, attributes);
    },
    close: (name) => {
      item.close(name);
      if (name === 'si') strings.push(plain(own));
    },
  });
  return strings;
}

/** Listens for the text of a string item, which stands in `t`, but not for how it is spoken, which `rPh` holds (18.4.6). */
function textPieces(hear: (piece: string) => void): Required<XmlHandler> {
  let isText = false;
  let spoken = 0;
  return {
    open: (name) => {
      if (name === 'rPh') spoken++;
      isText = name === 't' && spoken === 0;
    },
    close: (name) => {
      if (name === 'rPh') spoken--;
      isText = false;
    },
    text: (text) => {
      if (isText) hear(text);
    },
  };
}

/** The number format of each cell style, as written in the file or by its number. */
function cellFormats(part: string | null): string[] {
  const own = new Map<string | undefined, string>();
  const ids: string[] = [];
  let within = '';
  readPart(part, {
    open: (name, { numFmtId, formatCode }) => {
      if (name === 'cellXfs' || name === 'cellStyleXfs') within = name;
      else if (name === 'numFmt' && formatCode !== undefined) own.set(numFmtId, formatCode);
      else if (name === 'xf' && within === 'cellXfs') ids.push(numFmtId ?? '0');
    },
  });
  return ids.map((id) => own.get(id) ?? BUILT_IN[id] ?? 'General');
}

/** Signs that XML cannot hold are written by their numbers (ECMA-376 part 1, 22.9.2.19); such as end a line are blanks. */
function plain(text: string): string {
  return text.replace(/_x([0-9a-f]{4})_/gi, (_, number: string) =>
    String.fromCharCode(Math.max(0x20, Number.parseInt(number, 16))),
  );
}

/** How far a cell may lie; one far off would make a flood of empty ones. */
export interface CellBounds {
  rows: number;
  columns: number;
}

/** A cell as it stands in the file: what its value or text is written as, and how it is to be read. */
interface WrittenCell {
  type: string | undefined;
  style: number;
  value: string | null;
  /** Text that stands in the cell itself. */
  own: string;
  hasFormula: boolean;
}

/** The cells of a worksheet by row and column, as they are shown. */
export function cellsOf(text: string, { strings, formats }: Workbook, most: CellBounds): string[][] {
  const rows: string[][] = [];
  let y = 0;
  let x = 0;
  let row: string[] = [];
  let cell: WrittenCell | null = null;
  let isValue = false;
  const inline = textPieces((piece) => {
    if (cell) cell.own += piece;
  });
  readPart(text, {
    open: (name, attributes) => {
      const { r, t, s } = attributes;
      switch (name) {
        case 'row':
          y = r === undefined ? y + 1 : Number(r);
          if (!(y >= 1 && y <= most.rows)) throw tooFar();
          while (rows.length < y - 1) rows.push([]);
          row = [];
          rows[y - 1] = row;
          x = 0;
          break;
        case 'c':
          x = r === undefined ? x + 1 : columnOf(r);
          if (!(x >= 1 && x <= most.columns)) throw tooFar();
          while (row.length < x - 1) row.push('');
          cell = { type: t, style: Number(s ?? 0), value: null, own: '', hasFormula: false };
          break;
        case 'v':
          isValue = true;
          if (cell) cell.value = '';
          break;
        case 'f':
          if (cell) cell.hasFormula = true;
          break;
        default:
          inline.open(name, attributes);
      }
    },
    close: (name) => {
      isValue = false;
      inline.close(name);
      if (name !== 'c' || !cell) return;
      row[x - 1] = shown(cell, strings, formats);
      cell = null;
    },
    text: (text) => {
      if (isValue && cell) cell.value += text;
      else inline.text(text);
    },
  });
  return rows;
}

export function tooFar(): Error {
  return unreadable('This sheet has something far beside its table. Save the table alone, as XLSX or CSV.');
}

function columnOf(place: string): number {
  let column = 0;
  for (const letter of /^[A-Z]+/.exec(place)?.[0] ?? '') column = column * 26 + letter.charCodeAt(0) - 64;
  return column;
}

/** What a person sees in a cell; a fault of the sheet is seen as one. */
function shown(
  { type, style, value, own, hasFormula }: WrittenCell,
  strings: readonly string[],
  formats: readonly string[],
): string {
  switch (type) {
    case 's':
      return value ? (strings[Number(value)] ?? '').trim() : '';
    case 'inlineStr':
      return plain(own).trim();
    case 'str':
      return plain(value ?? '').trim();
    case 'b':
      return value === '1' ? 'TRUE' : 'FALSE';
    case 'e':
      return `${value || '#VALUE!'} (a fault in the spreadsheet)`;
    default:
      if (!value) return hasFormula ? '(a formula without a value)' : '';
      return asShown(value, formats[style] ?? 'General');
  }
}

/** A number under its format: leading zeros are kept, and dates are days. */
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
