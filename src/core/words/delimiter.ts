import Papa from 'papaparse';

/** Rows that are looked at to find the sign between columns. */
const LOOKED_AT = 60;

/** No text has this sign: where it stands for the quotation mark, nothing is quoted. */
export const NO_QUOTE = '\u0001';

/**
 * The sign that parts most rows into the same number of columns: tab, semicolon, comma or upright stroke; null where none
 * does. Titles above a table have none, so the mean of all rows says little.
 * @example delimiterOf('A\t;\tB') // '\t'
 */
export function delimiterOf(text: string, quoteChar = '"'): string | null {
  let best = { delimiter: null as string | null, rows: 0, fields: 0 };
  for (const delimiter of ['\t', ';', ',', '|']) {
    const { data } = Papa.parse<string[]>(text, {
      ...{ delimiter, quoteChar },
      preview: LOOKED_AT,
      skipEmptyLines: true,
    });
    const rowsOf = new Map<number, number>();
    for (const { length } of data) if (length > 1) rowsOf.set(length, (rowsOf.get(length) ?? 0) + 1);
    for (const [fields, rows] of rowsOf) {
      if (rows > best.rows || (rows === best.rows && fields > best.fields))
        best = { delimiter, rows, fields };
    }
  }
  return best.delimiter;
}
