import type { JudgedSection } from '../../core/sections/judge';
import type { Section, SectionTally } from '../../core/sections/section';

/** Numbers of sections in which something is left and hand, light pad, arm or frame are in the way. */
export function inTheWay(sections: readonly JudgedSection[]): Set<number> {
  return new Set(
    sections
      .filter(
        ({ conflict, misfits, drills, laid }) => laid < drills && (conflict !== null || misfits.length > 0),
      )
      .map(({ section }) => section.number),
  );
}

/** Numbers of sections in which all is laid. */
export function allLaid(sections: readonly SectionTally[]): Set<number> {
  return new Set(
    sections.filter(({ drills, laid }) => drills > 0 && laid === drills).map(({ section }) => section.number),
  );
}

/** Sections in which something is left. */
export function leftToLay(sections: readonly SectionTally[]): Section[] {
  return sections.filter(({ drills, laid }) => laid < drills).map(({ section }) => section);
}
