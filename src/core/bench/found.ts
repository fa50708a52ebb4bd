import type { Chart } from '../cells/chart';
import { type CellPlace, countInPart } from '../cells/rect';
import type { Find } from '../chart/find';
import { noSuchSection } from '../sections/next';
import { type Section, sectionAt } from '../sections/section';
import { sectionWithMost } from '../sections/sectionWithMost';

/** Where the bench goes when something was found. */
export type BenchPlace =
  | {
      kind: 'there';
      section: number;
      /** The square that was looked for; null where it was a section or a colour. */
      cell: CellPlace | null;
      /** The colour that comes to the front; null leaves it to the usual order. */
      line: number | null;
    }
  | { kind: 'nowhere'; words: string };

/**
 * Where something that was found is on the bench: a square in its section with its colour in front, a section, or a
 * colour here, else in the section where most of it goes.
 * @param here number of the section on the bench @param lines highest line of the list
 */
export function benchPlace(
  find: Exclude<Find, { kind: 'fault' } | { kind: 'unit' }>,
  chart: Chart,
  sections: readonly Section[],
  here: number,
  lines: number,
): BenchPlace {
  if (find.kind === 'section') {
    return sections[find.number - 1]
      ? { kind: 'there', section: find.number, cell: null, line: null }
      : nowhere(noSuchSection(find.number, sections.length));
  }
  if (find.kind === 'cell') {
    const section = sectionAt(sections, find.x, find.y);
    if (!section) return nowhere('This square lies in no section.');
    const line = chart.cells[find.y * chart.width + find.x] || null;
    return { kind: 'there', section: section.number, cell: { x: find.x, y: find.y }, line };
  }
  const counts = countInPart(chart, sections[here - 1]!, lines, null);
  const inHere = find.lines.find(({ line }) => counts[line]! > 0);
  if (inHere) return { kind: 'there', section: here, cell: null, line: inHere.line };
  const most = sectionWithMost(chart, sections, lines);
  for (const { line } of find.lines) {
    const elsewhere = most(line);
    if (elsewhere) return { kind: 'there', section: elsewhere.section, cell: null, line };
  }
  return nowhere(`No drill of ${find.lines[0]!.code} is on this canvas.`);
}

function nowhere(words: string): BenchPlace {
  return { kind: 'nowhere', words };
}
