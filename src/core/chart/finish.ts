import { type LegendLine, MAX_LEGEND_LINES, ofLine } from '../canvas/legend';
import type { Chart } from '../cells/chart';
import type { Finish } from '../colour/finish';
import { Refusal } from '../refusal';
import { type SprinkleRule, sprinkled } from './edit';

/**
 * Cells of a colour that are to get another finish: those that a rule picks, or those of the cells picked by hand that
 * have the colour.
 * @param rule null takes the cells picked by hand
 */
export function finishCells(
  chart: Chart,
  line: number,
  rule: SprinkleRule | null,
  picked: Iterable<number>,
): number[] {
  return rule ? sprinkled(chart, line, rule) : [...picked].filter((cell) => chart.cells[cell] === line);
}

/** What a finish does to the counts: `taken` comes off one colour, `given` is added to another. */
export interface CountMove {
  from: number;
  taken: number;
  to: number;
  given: number;
}

/**
 * Drills that a finish takes off a colour's count: as many as its squares, but no more than the sheet counts, so that
 * undo gives the sheet its own number back.
 */
export function takenOff(legend: readonly LegendLine[], from: number, squares: number): number {
  return Math.min(ofLine(legend, from)?.neededDrills ?? 0, squares);
}

/** The list with these counts moved. */
export function movedCounts(
  legend: readonly LegendLine[],
  { from, taken, to, given }: CountMove,
): LegendLine[] {
  const change = new Map([[from, -taken]]);
  change.set(to, (change.get(to) ?? 0) + given);
  return legend.map((line) => ({
    ...line,
    neededDrills: Math.max(0, line.neededDrills + (change.get(line.line) ?? 0)),
  }));
}

/**
 * The colour for drills of another finish: one that the list has already, else a new one at its end, of the user's own
 * choice.
 * @param next number for a new colour; it was never used
 * @throws Refusal when the colour has that finish already, or the list is full
 */
export function specialLine(
  legend: readonly LegendLine[],
  of: LegendLine,
  code: string,
  finish: Finish,
  next: number,
): { special: LegendLine; all: readonly LegendLine[] } {
  const known = legend.find((each) => each.code === code && each.finish === finish);
  if (known?.line === of.line) throw new Refusal(`${of.code} already is ${finish}.`);
  if (known) return { special: known, all: legend };
  if (legend.length >= MAX_LEGEND_LINES)
    throw new Refusal(`A canvas can have at most ${MAX_LEGEND_LINES} colours, and this one has them all.`);
  // Beside the key number that it is a variant of; none of the sheet's own looks like that.
  let keyNumber = `${of.keyNumber}+`;
  while (legend.some((each) => each.keyNumber === keyNumber)) keyNumber += '+';
  const { drawing: _, ...plain } = of;
  const own = { origin: 'own' as const, neededDrills: 0, packets: 0 };
  const special: LegendLine = { ...plain, line: next, keyNumber: keyNumber.slice(-8), code, finish, ...own };
  return { special, all: [...legend, special] };
}
