import { unreadable } from '../http/problem';
import { type CellBounds, tooFar } from './workbook';
import { readXml } from './xml';

/**
 * The sheets of a spreadsheet in OpenDocument format, those that are hidden behind the others, with the place of each in
 * the file. @param content its content.xml
 */
export function openDocumentSheets(content: string): { name: string; at: number }[] {
  const all: { name: string; at: number; isHidden: boolean }[] = [];
  const hidden = new Set<string>();
  let style = '';
  let deep = 0;
  readXml(content, {
    // Styles stand before the sheets that have them.
    open: (name, attributes) => {
      if (name === 'style:style') style = attributes['style:name'] ?? '';
      else if (name === 'style:table-properties' && attributes['table:display'] === 'false')
        hidden.add(style);
      else if (name === 'table:table' && deep++ === 0) {
        const isHidden = hidden.has(attributes['table:style-name'] ?? '');
        all.push({ name: attributes['table:name'] ?? 'Sheet', at: all.length, isHidden });
      }
    },
    close: (name) => {
      if (name === 'table:table') deep--;
    },
  });
  if (all.length === 0) throw unreadable('This spreadsheet has no sheet that can be read.');
  return [...all.filter(({ isHidden }) => !isHidden), ...all.filter(({ isHidden }) => isHidden)];
}

/** A cell as it stands in the file. */
interface WrittenCell {
  /** How often it stands there; one that is alike is written once for all (OpenDocument 1.3 part 3, 19.675). */
  times: number;
  attributes: Readonly<Record<string, string>>;
  paragraphs: string[];
}

/**
 * The cells of a sheet by row and column, as they are shown; what is empty below and to the right is left out.
 * @param content content.xml of the spreadsheet @param sheet its place in the file, from 0
 */
export function openDocumentCells(content: string, sheet: number, most: CellBounds): string[][] {
  const rows: string[][] = [];
  let at = -1;
  let deep = 0;
  let emptyRows = 0;
  let row: string[] = [];
  let emptyCells = 0;
  let rowTimes = 1;
  let cell: WrittenCell | null = null;
  /** Notes of a cell hold paragraphs too. */
  let notes = 0;
  let isText = false;
  const say = (text: string) => {
    if (cell && isText && notes === 0) cell.paragraphs[cell.paragraphs.length - 1] += text;
  };
  const endRow = () => {
    if (row.length === 0) {
      emptyRows += rowTimes;
      return;
    }
    if (rows.length + emptyRows + rowTimes > most.rows) throw tooFar();
    for (; emptyRows > 0; emptyRows--) rows.push([]);
    for (let i = 0; i < rowTimes; i++) rows.push(row);
  };
  const endCell = ({ times, ...written }: WrittenCell) => {
    const text = shown(written);
    if (text === '') {
      emptyCells += times;
      return;
    }
    if (row.length + emptyCells + times > most.columns) throw tooFar();
    for (; emptyCells > 0; emptyCells--) row.push('');
    for (let i = 0; i < times; i++) row.push(text);
  };
  readXml(content, {
    open: (name, attributes) => {
      if (name === 'table:table' && ++deep === 1) at++;
      if (at !== sheet) return;
      if (deep > 1) throw unreadable('A cell of this spreadsheet holds a table of its own. Save it as CSV.');
      switch (name) {
        case 'table:table-row':
          row = [];
          emptyCells = 0;
          rowTimes = timesOf(attributes['table:number-rows-repeated']);
          break;
        case 'table:table-cell':
        case 'table:covered-table-cell':
          cell = {
            times: timesOf(attributes['table:number-columns-repeated']),
            attributes: name === 'table:table-cell' ? attributes : {},
            paragraphs: [],
          };
          break;
        case 'office:annotation':
          notes++;
          break;
        case 'text:p':
          isText = true;
          if (cell && notes === 0) cell.paragraphs.push('');
          break;
        case 'text:s':
          say(' '.repeat(Math.min(100, timesOf(attributes['text:c']))));
          break;
        case 'text:tab':
        case 'text:line-break':
          say(' ');
      }
    },
    close: (name) => {
      if (name === 'table:table') deep--;
      if (at !== sheet) return;
      if (name === 'text:p') isText = false;
      else if (name === 'office:annotation') notes--;
      else if (name === 'table:table-row') endRow();
      else if (cell && name.endsWith('table-cell')) {
        endCell(cell);
        cell = null;
      }
    },
    text: say,
  });
  return rows;
}

function timesOf(attribute: string | undefined): number {
  return Math.max(1, Number(attribute ?? 1) || 1);
}

/** What a person sees in a cell (19.385 value types); a day is written as one, whatever its format. */
function shown({ attributes, paragraphs }: Omit<WrittenCell, 'times'>): string {
  const day = attributes['office:date-value'];
  if (day !== undefined) return day.slice(0, 10);
  const text = paragraphs.join('\n').trim();
  // Of numbers the digits as shown, with their leading zeros; signs between and behind them are no part of a number.
  const value = Number(attributes['office:value'] ?? Number.NaN);
  if (Number.isFinite(value) && !/^\d+$/.test(text)) return String(Number(value.toPrecision(15)));
  const isFault = attributes['calcext:value-type'] === 'error' || /^(#[A-Z/0!?]+|Err:\d+)$/.test(text);
  return isFault && text !== '' ? `${text} (a fault in the spreadsheet)` : text;
}
