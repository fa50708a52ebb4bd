import { applyMark, type MarkKind } from '../bench/marking';
import { type Bitmap, emptyBitmap, isLaid } from '../cells/bitmap';
import { type CellRuns, runsFromCells } from '../cells/cellRuns';

/** What a day changed: squares that lie differently at its end than at its beginning. */
export interface DayChange {
  day: string;
  laid: number[];
  lifted: number[];
}

/**
 * Day by day what changed on the canvas, so that its picture at the end of any day can be made from the days up to it.
 * @param marks in the order of the ledger, each with the day on which it was made
 * @param cells of the canvas
 */
export function changesByDay(
  marks: Iterable<{ day: string; kind: MarkKind; runs: CellRuns }>,
  cells: number,
): DayChange[] {
  const now = emptyBitmap(cells);
  let before = emptyBitmap(cells);
  const days = new Map<string, DayChange>();
  let at: string | null = null;
  const close = () => {
    if (at === null) return;
    const [laid, lifted]: [number[], number[]] = [[], []];
    for (let byte = 0; byte < now.length; byte++) {
      if (now[byte] === before[byte]) continue;
      for (let cell = byte * 8; cell < Math.min(cells, byte * 8 + 8); cell++) {
        if (isLaid(now, cell) === isLaid(before, cell)) continue;
        (isLaid(now, cell) ? laid : lifted).push(cell);
      }
    }
    if (laid.length > 0 || lifted.length > 0)
      days.set(at, { day: at, laid: runsFromCells(laid), lifted: runsFromCells(lifted) });
    before = now.slice();
  };
  // A clock that was set back may bring a day twice: what it did then counts for the day in hand.
  for (const { day, kind, runs } of marks) {
    if (at === null || day > at) {
      close();
      at = day;
    }
    applyMark(now, kind, runs);
  }
  close();
  return [...days.values()];
}

/** The canvas at the end of a day. @param days of {@link changesByDay} @param until `YYYY-MM-DD`, included; null for before the first */
export function laidAt(days: readonly DayChange[], until: string | null, cells: number): Bitmap {
  const laid = emptyBitmap(cells);
  for (const change of days) {
    if (until === null || change.day > until) break;
    applyMark(laid, 'lay', change.laid);
    applyMark(laid, 'lift', change.lifted);
  }
  return laid;
}
