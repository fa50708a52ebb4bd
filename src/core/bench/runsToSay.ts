import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { type CellPart, isInside } from '../cells/rect';
import { counted } from '../words/numbers';

/** Neighbours of one colour in a row that are still to lay. Column and row from 0. */
interface RowRun {
  x: number;
  length: number;
}

/** A row of the section with what is left of a colour in it. */
export interface RowToLay {
  y: number;
  runs: RowRun[];
  drills: number;
}

/** The rows of a section in which a colour is left to lay, from the top; runs from the left. Laid squares are gaps. */
export function rowsToLay(chart: Chart, laid: Bitmap, section: CellPart, line: number): RowToLay[] {
  const rows: RowToLay[] = [];
  for (let y = section.y; y < section.y + section.height; y++) {
    const runs: RowRun[] = [];
    for (let x = section.x; x < section.x + section.width; x++) {
      const cell = y * chart.width + x;
      if (chart.cells[cell] !== line || isLaid(laid, cell) || !isInside(section, { x, y })) continue;
      const last = runs.at(-1);
      if (last && last.x + last.length === x) last.length++;
      else runs.push({ x, length: 1 });
    }
    if (runs.length > 0) rows.push({ y, runs, drills: runs.reduce((sum, { length }) => sum + length, 0) });
  }
  return rows;
}

/**
 * A row as it is called out: its number, where it begins, then what to lay and what to pass over.
 * @param hand a left hand counts from the right
 * @example rowInWords({ y: 11, runs: [{ x: 3, length: 7 }, { x: 12, length: 3 }], drills: 10 }, 'right')
 *   // 'Row 12, from column 4: 7, gap 2, 3.'
 */
export function rowInWords({ y, runs }: RowToLay, hand: 'right' | 'left'): string {
  const inTurn = hand === 'right' ? runs : [...runs].reverse();
  const first = inTurn[0]!;
  const words = inTurn.map(({ x, length }, i) => {
    const before = inTurn[i - 1];
    if (!before) return String(length);
    const gap = hand === 'right' ? x - before.x - before.length : before.x - x - length;
    return `gap ${gap}, ${length}`;
  });
  const from = hand === 'right' ? first.x + 1 : first.x + first.length;
  return `Row ${y + 1}, from column ${from}: ${words.join(', ')}.`;
}

/** What is said when a colour comes to the front. @example 'Pot 11, 7 5 5, Field moss: 195 drills.' */
export function colourInWords(place: string, code: string, name: string, drills: number): string {
  // A code is a name, not a number: it is said figure by figure.
  const spelled = code.split('').join(' ');
  return `${place}, ${spelled}${name === '' ? '' : `, ${name}`}: ${counted(drills, 'drill')}.`;
}

/** The row after (or before) one, round neither end; the first where none is in hand. @returns null at the end */
export function rowBeside(rows: readonly RowToLay[], from: number | null, step: 1 | -1): RowToLay | null {
  if (from === null) return rows[0] ?? null;
  return step === 1 ? (rows.find(({ y }) => y > from) ?? null) : (rows.findLast(({ y }) => y < from) ?? null);
}
