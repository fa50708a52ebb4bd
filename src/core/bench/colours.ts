import type { LegendLine } from '../canvas/legend';
import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { type CellPlace, cellIndex, isInside } from '../cells/rect';

/** The colour in front: the one asked for, else the first with something left, else the first. @param left by line */
export function colourInFront(
  colours: readonly LegendLine[],
  left: ArrayLike<number>,
  asked: number | null,
): LegendLine | null {
  return (
    colours.find(({ line }) => line === asked) ??
    colours.find(({ line }) => left[line]! > 0) ??
    colours[0] ??
    null
  );
}

/**
 * The next colour with something left, round the end.
 * @param step 1 forwards, -1 backwards
 * @returns null where nothing is left
 */
export function nextColour(
  colours: readonly LegendLine[],
  left: ArrayLike<number>,
  from: LegendLine | null,
  step: 1 | -1,
): LegendLine | null {
  const at = from ? colours.indexOf(from) : step === 1 ? -1 : 0;
  for (let i = 1; i <= colours.length; i++) {
    const next = colours[(at + step * i + colours.length * i) % colours.length]!;
    if (left[next.line]! > 0) return next;
  }
  return null;
}

/**
 * Whether a place may be marked: inside the section, wanting a drill, of the colour in front. A drill on a square that
 * wants none, laid by area before the chart was typed, can be lifted.
 * @param line null for any
 */
export function isMarkable(
  { chart, laid }: { chart: Chart; laid: Bitmap },
  section: CellRect,
  line: number | null,
  place: CellPlace,
  lifts: boolean,
): boolean {
  if (!isInside(section, place)) return false;
  const cell = cellIndex(place, chart.width);
  const here = chart.cells[cell]!;
  return here === 0 ? lifts && isLaid(laid, cell) : line === null || here === line;
}
