import { readSheetTable } from '../checkin/sheetTable';
import { readFinish } from '../colour/finish';
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
/**
 * Words for stitches that fill a cell, in a number of languages. A drill goes where such a stitch goes; whatever else a
 * thread is used for (back stitch, knots, half stitches), in whatever language, is not laid.
 */
const WHOLE = new Set(
  `x cross crosses full whole tent kreuz kreuzstich ganz ganzer voll voller croix entier cruz entero completo croce
  intero kruis kruissteek heel hele krzyżyk krzyżyki pełny celý kříž křížek kors korsstygn korssting risti крест
  крестик полный хрест σταυρός çarpı tam 十字 十字绣 全针 クロス クロスステッチ フル`.split(/\s+/),
);
/** Words that only say that it is a stitch. */
const STITCH = new Set(
  'stitch stitches stich stiche point points punto ponto steek sting styng steh de di da'.split(' '),
);
/** Shares of a cell, however the words around them are called. */
const SHARE = /[½¼¾⅓⅔]|\b[1-3]\s*\/\s*[2-4]\b/u;

function isWhole(word: string): boolean {
  const parts = word
    .trim()
    .toLocaleLowerCase()
    .split(/[\s-]+/);
  return (
    !SHARE.test(word) &&
    parts.some((part) => WHOLE.has(part)) &&
    parts.every((part) => WHOLE.has(part) || STITCH.has(part))
  );
}

/** Such a column may also say how the thread looks. */
function isFinish(word: string): boolean {
  return readFinish(word) !== null;
}

/**
 * Reads the thread list of a stitch chart (CSV): symbol, code, name and colour, recognised as on an inventory sheet.
 * @throws Refusal naming the line that is no whole stitch, or what is missing
 */
export function readThreads(text: string): Thread[] {
  const { rows, mapping, columns } = table(text, 'thread list');
  if (mapping.code === null && mapping.symbol === null) {
    throw new Refusal('The thread list needs a header row with a column “code” or “symbol”.');
  }
  // A column tells of stitches by its heading, or because whole ones are named in it.
  const kinds = columns.flatMap((name, i) =>
    i === mapping.finish ||
    /^(stitch|stitches|stitch type|stitch kind|use)$/i.test(name.trim()) ||
    (!Object.values(mapping).includes(i) && rows.some(({ cells }) => isWhole(cells[i] ?? '')))
      ? [i]
      : [],
  );
  const threads: Thread[] = [];
  for (const { cells, lineNumber } of rows) {
    const at = (index: number | null) => (index === null ? '' : (cells[index] ?? ''));
    const code = at(mapping.code) || at(mapping.symbol);
    if (code === '') continue;
    const partial = kinds
      .map((i) => at(i).trim())
      .find((word) => word !== '' && !isWhole(word) && !isFinish(word));
    if (partial) {
      throw new Refusal(
        `Line ${lineNumber} of the thread list, ${code}, is “${partial}”. A drill fills one whole square, so only whole stitches can be laid. Leave this thread out; if it is a whole stitch, write “cross” there.`,
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
