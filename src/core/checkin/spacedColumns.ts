import { largest } from '../words/numbers';

/** Columns stand apart by at least so many signs that are blank in every row. */
const GAP = 2;

/**
 * A table whose columns stand under each other, parted by nothing but spaces, as copied from a printed page. What is
 * missing in the middle of a row leaves its place empty, so cells are told by where they stand.
 * @param text tabs are no spaces: they part columns already
 * @returns cells row by row, empty rows too; null where the rows are no such table
 * @example spacedColumns('Key  Code\n1    310\n2    321') // [['Key', 'Code'], ['1', '310'], ['2', '321']]
 */
export function spacedColumns(text: string): string[][] | null {
  const lines = text.split(/\r\n|\r|\n/);
  // A title above the table goes across its columns.
  const inColumns = lines.filter((line) => / {2,}\S/.test(line.trim()));
  const isInColumns = new Set(inColumns);
  if (inColumns.length < 2 || inColumns.length < 0.5 * lines.filter((line) => line.trim() !== '').length)
    return null;
  const starts = columnStarts(inColumns);
  if (starts.length < 2) return null;
  return lines.map((line) =>
    isInColumns.has(line)
      ? starts.map((start, i) => line.slice(i === 0 ? 0 : start, starts[i + 1]).trim())
      : [line.trim()],
  );
}

/** Where columns begin: after a gap that goes through all rows. */
function columnStarts(lines: readonly string[]): number[] {
  const width = largest(lines.map(({ length }) => length));
  const filled = new Uint8Array(width);
  for (const line of lines) for (let i = 0; i < line.length; i++) if (line[i] !== ' ') filled[i] = 1;
  const starts: number[] = [];
  let blank = GAP;
  for (let i = 0; i < width; i++) {
    if (filled[i] && blank >= GAP) starts.push(i);
    blank = filled[i] ? 0 : blank + 1;
  }
  return starts;
}
