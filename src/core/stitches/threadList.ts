import { readSheetTable } from '../checkin/sheetTable';
import { readHex } from '../colour/rgb';
import { Refusal } from '../refusal';

/** A colour of a stitch chart. */
export interface Thread {
  symbol: string | null;
  code: string;
  name: string;
  hex: string | null;
}

/** A drill that can be had. */
export interface RangeDrill {
  code: string;
  name: string;
  hex: string;
}

/** More threads than any chart has. */
const MAX_THREADS = 250;
const MAX_RANGE = 3000;
/** Words for stitches that do not fill a cell. */
const PARTIAL =
  /\b(back|half|quarter|three[- ]quarters?|fraction(al)?|knots?|long|straight|outline|couching)\b|[½¼¾]|\b[1-3]\/[24]\b/i;

/**
 * Reads the thread list of a stitch chart (CSV): symbol, code, name and colour, recognised as on an inventory sheet.
 * @throws Refusal naming the line that is no whole stitch, or what is missing
 */
export function readThreads(text: string): Thread[] {
  const { rows, mapping, columns } = table(text, 'thread list');
  if (mapping.code === null && mapping.symbol === null) {
    throw new Refusal('The thread list needs a header row with a column “code” or “symbol”.');
  }
  const kinds = columns.flatMap((name, i) =>
    i === mapping.finish || /^(stitch|stitches|stitch type|stitch kind|use)$/i.test(name.trim()) ? [i] : [],
  );
  const threads: Thread[] = [];
  for (const { cells, lineNumber } of rows) {
    const at = (index: number | null) => (index === null ? '' : (cells[index] ?? ''));
    const code = at(mapping.code) || at(mapping.symbol);
    if (code === '') continue;
    const partial = kinds.map((i) => at(i)).find((word) => PARTIAL.test(word));
    if (partial) {
      throw new Refusal(
        `Line ${lineNumber} of the thread list, ${code}, is “${partial}”. A drill fills one whole cell, so fractional and back stitches cannot be laid: leave them out, or make them whole stitches in the program that drew the chart.`,
      );
    }
    threads.push({
      symbol: at(mapping.symbol) || null,
      code,
      name: at(mapping.name),
      hex: readHex(at(mapping.hex)),
    });
  }
  if (threads.length === 0) throw new Refusal('The thread list names no thread.');
  if (threads.length > MAX_THREADS) {
    throw new Refusal(
      `The thread list has ${threads.length} threads; a canvas can have at most ${MAX_THREADS} colours.`,
    );
  }
  return threads;
}

/**
 * Reads the drills that can be had (CSV): code, name and hex.
 * @throws Refusal naming the line without a colour, or what is missing
 */
export function readRange(text: string): RangeDrill[] {
  const { rows, mapping } = table(text, 'range of drills');
  if (mapping.code === null || mapping.hex === null) {
    throw new Refusal('The range of drills needs a header row with the columns “code” and “hex”.');
  }
  const range = rows.flatMap(({ cells, lineNumber }) => {
    const code = cells[mapping.code!] ?? '';
    const hex = readHex(cells[mapping.hex!] ?? '');
    if (code === '') return [];
    if (hex === null) {
      throw new Refusal(`Line ${lineNumber} of the range, ${code}, has no colour. Write it like #2f6f8f.`);
    }
    return [{ code, name: mapping.name === null ? '' : (cells[mapping.name] ?? ''), hex }];
  });
  if (range.length === 0) throw new Refusal('The range of drills is empty.');
  if (range.length > MAX_RANGE) throw new Refusal(`A range can have at most ${MAX_RANGE} drills.`);
  return range;
}

function table(text: string, what: string): ReturnType<typeof readSheetTable> {
  if (text.trim() === '') throw new Refusal(`The ${what} is empty.`);
  const table = readSheetTable(text);
  // These lists have headings of their own; what stands in a column names none.
  for (const field of table.guessed) table.mapping[field] = null;
  return table;
}
