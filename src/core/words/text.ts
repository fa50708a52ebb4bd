import { Refusal } from '../refusal';

/** First bytes of files that people take for text because of their name: ZIP (XLSX, ODS), PDF, PNG, JPEG, old XLS. */
const NO_TEXT: readonly (readonly [starts: readonly number[], what: string])[] = [
  [[0x50, 0x4b, 0x03, 0x04], 'a spreadsheet or ZIP file'],
  [[0x25, 0x50, 0x44, 0x46], 'a PDF'],
  [[0x89, 0x50, 0x4e, 0x47], 'a PNG picture'],
  [[0xff, 0xd8, 0xff], 'a JPEG picture'],
  [[0xd0, 0xcf, 0x11, 0xe0], 'an old spreadsheet or text document'],
];

/**
 * Bytes as text. A byte order mark goes before what is said of the encoding; without either, the text must be UTF-8.
 * @param charset as a media type says it, such as `iso-8859-1`; null where nothing is said
 * @throws Refusal when the bytes are no text, or text in another encoding
 */
export function readText(bytes: Uint8Array, charset: string | null = null): string {
  const kind = NO_TEXT.find(([starts]) => starts.every((byte, i) => bytes[i] === byte));
  if (kind) throw new Refusal(`This is ${kind[1]}, not text. Save it as CSV and try again.`);
  const text = decoded(bytes, markedEncoding(bytes) ?? charset ?? 'utf-8');
  if (text.includes('\u0000')) {
    throw new Refusal('This is not a text file. Save it as CSV, or copy its rows and paste them.');
  }
  return text;
}

function markedEncoding(bytes: Uint8Array): string | null {
  const starts = (...mark: number[]) => mark.every((byte, i) => bytes[i] === byte);
  if (starts(0xef, 0xbb, 0xbf)) return 'utf-8';
  if (starts(0xff, 0xfe)) return 'utf-16le';
  return starts(0xfe, 0xff) ? 'utf-16be' : null;
}

function decoded(bytes: Uint8Array, encoding: string): string {
  let decoder: TextDecoder;
  try {
    decoder = new TextDecoder(encoding, { fatal: true });
  } catch {
    throw new Refusal(`The encoding “${encoding.slice(0, 40)}” is not known here. Save the file as UTF-8.`);
  }
  try {
    return decoder.decode(bytes);
  } catch {
    throw new Refusal(
      encoding === 'utf-8'
        ? 'This file is not UTF-8 text. Save it as “CSV UTF-8”, or copy its rows and paste them.'
        : `This file is not text in ${encoding}. Save it as UTF-8.`,
    );
  }
}
