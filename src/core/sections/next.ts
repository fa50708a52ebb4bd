import { boxAround, isInside } from '../cells/rect';
import { many } from '../words/numbers';
import { roomiestRect } from './outline';
import { type Section, type SectionTally, sectionAt } from './section';

/** Sections in the order of the work. */
function inWorkingOrder<Tally extends Pick<SectionTally, 'section'>>(sections: readonly Tally[]): Tally[] {
  return [...sections].sort((a, b) => a.section.order - b.section.order);
}

/** Number of the first section in the order of the work with something left to lay; of the very first where nothing is left. */
export function nextToDo(sections: readonly Pick<SectionTally, 'section' | 'drills' | 'laid'>[]): number {
  const inOrder = inWorkingOrder(sections);
  return (inOrder.find(({ laid, drills }) => laid < drills) ?? inOrder[0])?.section.number ?? 1;
}

/** The next section in order with something left to lay, round the end; null where nothing is left in any other. */
export function nextInOrder(
  sections: readonly Pick<SectionTally, 'section' | 'drills' | 'laid'>[],
  from: number,
): number | null {
  const inOrder = inWorkingOrder(sections);
  const at = inOrder.findIndex(({ section }) => section.number === from);
  const round = [...inOrder.slice(at + 1), ...inOrder.slice(0, Math.max(0, at))];
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

/**
 * The section that an arrow key leads to: the next one straight on from where the section has most room, else from any
 * other of its rectangles; the same one at the edge; null for other keys.
 */
export function sectionByKey(sections: readonly Section[], from: number, key: string): number | null {
  const here = sections[from - 1];
  const step = STEPS[key];
  if (!here || !step) return null;
  const end = boxAround(sections);
  for (const { x, y, width, height } of [roomiestRect(here), ...here.rects]) {
    let place = { x: x + (width >> 1), y: y + (height >> 1) };
    while (isInside(end, place)) {
      const there = sectionAt(sections, place.x, place.y);
      if (there && there.number !== from) return there.number;
      place = { x: place.x + step[0], y: place.y + step[1] };
    }
  }
  return from;
}

const STEPS: Record<string, readonly [x: number, y: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
