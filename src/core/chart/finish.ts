import type { LegendLine } from '../canvas/legend';
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

/** The legend with so many drills moved from one line to another. */
export function movedCounts(
  legend: readonly LegendLine[],
  from: number,
  to: number,
  drills: number,
): LegendLine[] {
  return legend.map((line) => ({
    ...line,
    neededDrills:
      line.line === from
        ? Math.max(0, line.neededDrills - drills)
        : line.line === to
          ? line.neededDrills + drills
          : line.neededDrills,
  }));
}

/**
 * The line for drills of another finish: one that the sheet has already, else a new one at its end.
 * @throws Refusal when the colour has that finish already
 */
export function specialLine(
  legend: readonly LegendLine[],
  of: LegendLine,
  code: string,
  finish: Finish,
): { special: LegendLine; all: readonly LegendLine[] } {
  const known = legend.find((each) => each.code === code && each.finish === finish);
  if (known?.line === of.line) throw new Refusal(`${of.code} already is ${finish}.`);
  if (known) return { special: known, all: legend };
  const line = legend.length + 1;
  const special = { ...of, line, keyNumber: String(line), code, finish, neededDrills: 0, packets: 0 };
  return { special, all: [...legend, special] };
}
