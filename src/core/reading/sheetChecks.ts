import type { ColumnMapping } from '../checkin/sheetColumns';
import type { SheetRow } from '../checkin/sheetRow';
import { counted, many } from '../words/numbers';

/** A cell of a printed sheet that somebody should look at. */
export interface DoubtfulEntry {
  /** Row and column of the table, from 0, the headings not counted. */
  row: number;
  column: number;
  /** Why, as a sentence. */
  why: string;
}

/** Below so much confidence (0…100) what was read is looked at. */
const LEAST_CONFIDENCE = 75;

/**
 * What of a sheet does not agree with itself: key numbers that do not count on, bags that are not drills by bag size, a sum
 * that is not the canvas's; and what was read with little confidence.
 * @param confidence of each cell as it was read, 0…100, row by row
 * @param canvas squares and the usual size of a bag
 */
export function doubtfulEntries(
  rows: readonly SheetRow[],
  confidence: readonly (readonly number[])[],
  { keyNumber, neededDrills, packets, code }: ColumnMapping,
  canvas: { squares: number; packetDrills: number },
): { entries: DoubtfulEntry[]; sum: string | null } {
  const entries = new Map<string, DoubtfulEntry>();
  const doubt = (row: number, column: number, why: string) => {
    const key = `${row} ${column}`;
    if (!entries.has(key)) entries.set(key, { row, column, why });
  };
  const number = (text: string | undefined) => (/^\d+$/.test(text ?? '') ? Number(text) : null);
  const keys = keyNumber === null ? [] : rows.map(({ cells }) => number(cells[keyNumber]));
  // Most lists are numbered from 1; whether this one is, its own numbers say.
  const numbered = keys.filter((key, i) => key === i + 1).length > keys.length * 0.6;
  rows.forEach(({ cells }, row) => {
    for (const column of [code, keyNumber, neededDrills, packets]) {
      if (column === null) continue;
      if ((cells[column] ?? '') === '') doubt(row, column, 'Nothing was read here.');
      else if ((confidence[row]?.[column] ?? 100) < LEAST_CONFIDENCE)
        doubt(row, column, 'It was hard to read.');
    }
    if (keyNumber !== null && numbered && keys[row] !== row + 1)
      doubt(row, keyNumber, `Row ${row + 1} would be number ${row + 1}.`);
    const drills = neededDrills === null ? null : number(cells[neededDrills]);
    const bags = packets === null ? null : number(cells[packets]);
    if (neededDrills !== null && drills === null) doubt(row, neededDrills, 'This is no number.');
    if (packets !== null && bags === null) doubt(row, packets, 'This is no number.');
    if (drills !== null && bags !== null && packets !== null && neededDrills !== null) {
      // Kits add some drills, so that a bag more than needed is usual (common practice, no source).
      const least = Math.ceil(drills / canvas.packetDrills);
      if (bags < least || bags > Math.ceil((drills * 1.35) / canvas.packetDrills) + 1) {
        const why = `${many(drills)} drills would be ${counted(least, 'bag')} of ${many(canvas.packetDrills)}, not ${many(bags)}.`;
        doubt(row, neededDrills, why);
        doubt(row, packets, why);
      }
    }
  });
  const all = neededDrills === null ? null : rows.map(({ cells }) => number(cells[neededDrills]));
  const total = all?.every((drills) => drills !== null)
    ? all.reduce<number>((sum, drills) => sum + drills!, 0)
    : null;
  return {
    entries: [...entries.values()],
    sum:
      total === null || total === canvas.squares
        ? null
        : `The drills add up to ${many(total)}; the canvas has ${many(canvas.squares)} squares. Some number may have been misread, or the sheet counts spare drills.`,
  };
}
