import type { LegendLine } from '../canvas/legend';
import { ofLine } from '../canvas/legend';
import { placeOfCell } from '../cells/rect';
import { type Section, sectionAt } from '../sections/section';
import { many } from '../words/numbers';
import type { MarkKind } from './marking';

/** What a mark did and where: `30 of 1313 laid in section 4`. @param width columns of the canvas */
export function markInWords(
  mark: { kind: MarkKind; drills: number; line: number | null; cell: number },
  legend: readonly LegendLine[],
  sections: readonly Section[],
  width: number,
): string {
  const code = mark.line === null ? undefined : ofLine(legend, mark.line)?.code;
  const what =
    code === undefined
      ? `${many(mark.drills)} ${mark.drills === 1 ? 'drill' : 'drills'}`
      : `${many(mark.drills)} of ${code}`;
  const { x, y } = placeOfCell(mark.cell, width);
  const section = sectionAt(sections, x, y);
  return `${what} ${mark.kind === 'lay' ? 'laid' : 'lifted'}${section ? ` in section ${many(section.number)}` : ''}`;
}
