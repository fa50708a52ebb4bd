import type { LegendLine } from '../../core/canvas/legend';
import { type CellPlace, isInside } from '../../core/cells/rect';
import type { Section } from '../../core/sections/section';
import { counted } from '../../core/words/numbers';
import { Notice } from '../../ui/Notice';
import { useOutbox } from '../writing/useWrite';

/** A colour by its code; where another one has the same code, by its finish too. */
function nameOf(line: LegendLine, other: LegendLine | null): string {
  return other?.code === line.code ? `${line.code} ${line.finish}` : line.code;
}

/** Where a square is that was touched and not marked, and the way there. */
export function Elsewhere({
  place,
  sections,
  here,
  line,
  front,
  onSection,
  onColour,
}: {
  place: CellPlace;
  sections: readonly Section[];
  here: number;
  line: LegendLine | undefined;
  front: LegendLine | null;
  onSection: (number: number) => void;
  onColour: (line: number) => void;
}) {
  const section = sections.find((each) => isInside(each, place));
  if (section && section.number !== here) {
    return (
      <Notice kind="hint">
        That square is in section <span className="number">{section.number}</span>.{' '}
        <button type="button" className="min-h-11 underline" onClick={() => onSection(section.number)}>
          Go to section {section.number}
        </button>
      </Notice>
    );
  }
  if (!line) return <Notice kind="hint">No drill goes on that square.</Notice>;
  return (
    <Notice kind="hint">
      That square is <span className="number">{nameOf(line, front)}</span>; {front && nameOf(front, line)} is
      in front.{' '}
      <button type="button" className="min-h-11 underline" onClick={() => onColour(line.line)}>
        Bring {nameOf(line, front)} forward
      </button>
    </Notice>
  );
}

/** Whether all marks have arrived, and what undo would take back. */
export function SavedLine({ waiting, last }: { waiting: number; last: string | null }) {
  // Counted as on every other page: all that waits, and a mark from the moment it is made.
  const shown = Math.max(waiting, useOutbox().waiting);
  return (
    <p className="text-[0.95rem] text-faded" data-testid="saved" aria-live="polite">
      {shown === 0 ? 'Every mark is saved.' : `Saving ${counted(shown, 'change')}…`}
      {last && ` Last: ${last}.`}
    </p>
  );
}
