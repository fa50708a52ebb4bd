/*
 * How values stand in the tables of a backup. CSV has one kind of nothing, a database two: no value is written `\N`, and
 * text that begins with a backslash has one more, so that both come back as they were.
 */
const NOTHING = '\\N';

/** @param text null for no value */
export function writeStored(text: string | null): string {
  if (text === null) return NOTHING;
  return text.startsWith('\\') ? `\\${text}` : text;
}

/** @returns null for no value */
export function readStored(cell: string): string | null {
  if (cell === NOTHING) return null;
  return cell.startsWith('\\') ? cell.slice(1) : cell;
}

/** What stands for no value, as a Table Schema names it. */
export const MISSING_VALUES = [NOTHING];
