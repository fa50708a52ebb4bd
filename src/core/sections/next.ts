import { many } from '../words/numbers';
import { type Section, type SectionTally, sectionAt } from './blockGrid';

/** Number of the first section with something left to lay; the first where nothing is left. */
export function nextToDo(sections: readonly Pick<SectionTally, 'section' | 'drills' | 'laid'>[]): number {
  return sections.find(({ laid, drills }) => laid < drills)?.section.number ?? 1;
}

/** The next section in order with something left to lay, round the end; null where nothing is left in any other. */
export function nextInOrder(
  sections: readonly Pick<SectionTally, 'section' | 'drills' | 'laid'>[],
  from: number,
): number | null {
  const round = [...sections.slice(from), ...sections.slice(0, from - 1)];
  return round.find(({ laid, drills }) => laid < drills)?.section.number ?? null;
}

/** The section that was asked for, where there is one, else the next to do. */
export function sectionAsked(
  sections: readonly Pick<SectionTally, 'section' | 'drills' | 'laid'>[],
  asked: number | null,
): number {
  return sections[(asked ?? 0) - 1]?.section.number ?? nextToDo(sections);
}

/** Said where a section was asked for that the canvas does not have. */
export function noSuchSection(asked: number, last: number): string {
  return `There is no section ${many(asked)}; the last is ${many(last)}.`;
}

/** The section that an arrow key leads to; null for other keys. */
export function sectionByKey(sections: readonly Section[], from: number, key: string): number | null {
  const here = sections[from - 1];
  if (!here || !key.startsWith('Arrow')) return null;
  const x = key === 'ArrowLeft' ? here.x - 1 : key === 'ArrowRight' ? here.x + here.width : here.x;
  const y = key === 'ArrowUp' ? here.y - 1 : key === 'ArrowDown' ? here.y + here.height : here.y;
  return sectionAt(sections, x, y)?.number ?? from;
}
