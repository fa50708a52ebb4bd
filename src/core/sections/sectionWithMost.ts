import type { Chart } from '../cells/chart';
import { countInPart } from '../cells/rect';
import { largest } from '../words/numbers';
import type { Section } from './section';

/**
 * Where each colour shows most: the section with the most drills of it, the first of equal ones.
 * @param lines highest legend line
 * @returns a function of the line; null for a colour that is nowhere
 */
export function sectionWithMost(
  chart: Chart,
  sections: readonly Section[],
  lines: number,
): (line: number) => { section: number; drills: number } | null {
  const perSection = sections.map((section) => countInPart(chart, section, lines, null));
  return (line) => {
    const drills = perSection.map((counts) => counts[line]!);
    const most = largest(drills);
    return most > 0 ? { section: sections[drills.indexOf(most)]!.number, drills: most } : null;
  };
}
