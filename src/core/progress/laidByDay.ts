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
 * Day by day what changed on the canvas, so that its picture at the end of any day can be made from the days up to it. What
 * waited on a device stands later in the ledger than its day: it goes to that day, and the last day ends as the ledger does.
 * @param marks in the order of the ledger, each with the day on which it was made
 * @param cells of the canvas
 */
export function changesByDay(
  marks: Iterable<{ day: string; kind: MarkKind; runs: CellRuns }>,
  cells: number,
): DayChange[] {
  let now = emptyBitmap(cells);
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
  const ledger = [...marks];
  const waited = ledger.some(({ day }, i) => i > 0 && day < ledger[i - 1]!.day);
  const byDay = waited ? ledger.toSorted((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0)) : ledger;
  for (const { day, kind, runs } of byDay) {
    if (day !== at) {
      close();
      at = day;
    }
    applyMark(now, kind, runs);
  }
  if (waited) {
    now = emptyBitmap(cells);
    for (const { kind, runs } of ledger) applyMark(now, kind, runs);
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
