import type { LegendLine } from '../canvas/legend';
import { rectsOf } from '../cells/rect';
import type { Section } from '../sections/section';
import type { TickedColour } from '../sections/ticks';

/** What is probably laid on a canvas without a chart: drills, with a band in which the truth lies four times in five. */
export interface TickedLaid {
  expected: number;
  low: number;
  high: number;
}

/** Four times in five within so many standard deviations. */
const BAND = 1.2816;
/**
 * Colours lie in patches: the drills of a colour in a piece of canvas stray as if only one in so many were placed by
 * itself (common practice, no source; a chart that is known has between 5 and 60).
 */
const PATCH = 20;

/**
 * Drills that are laid by what was ticked: a section that is wholly laid counts its squares; of any other section each
 * ticked colour counts for its share of the sheet's drills. Nobody knows how much of a colour lies where, so that the band
 * is wide as long as few sections are ticked.
 * @param sharesLaid how much of each section is said to be laid, 0…1, in the order of the sections
 * @param squares of the canvas
 */
export function tickedLaid(
  ticked: readonly TickedColour[],
  sections: readonly Section[],
  sharesLaid: readonly number[],
  legend: readonly LegendLine[],
  squares: number,
): TickedLaid {
  const listed = legend.reduce((sum, { neededDrills }) => sum + neededDrills, 0);
  const done = new Map<number, Set<number>>();
  for (const { line, section } of ticked) done.set(section, (done.get(section) ?? new Set()).add(line));
  let [expected, variance] = [0, 0];
  sections.forEach((section, i) => {
    const own = rectsOf(section).reduce((sum, { width, height }) => sum + width * height, 0);
    const share = own / squares;
    const byArea = sharesLaid[i]! * own;
    let [byTicks, spread] = [0, 0];
    for (const { line, neededDrills } of legend) {
      if (listed === 0 || !done.get(section.number)?.has(line)) continue;
      // The sheet lists all drills of the canvas, or what it lists stands for them.
      const drills = (neededDrills / listed) * squares;
      byTicks += drills * share;
      spread += drills * share * (1 - share) * PATCH;
    }
    if (byTicks > byArea) {
      expected += Math.min(own, byTicks);
      variance += spread;
    } else expected += byArea;
  });
  const band = BAND * Math.sqrt(variance);
  return {
    expected: Math.round(expected),
    low: Math.max(0, Math.round(expected - band)),
    high: Math.min(squares, Math.round(expected + band)),
  };
}
