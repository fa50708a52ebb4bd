import { type LegendLine, ofLine } from '../../core/canvas/legend';
import type { Chart } from '../../core/cells/chart';
import { type CellPlace, cellIndex, isInside } from '../../core/cells/rect';
import type { Section } from '../../core/sections/section';
import { counted, many } from '../../core/words/numbers';
import { Notice } from '../../ui/Notice';
import { useOutbox } from '../writing/useWrite';
import type { Touched } from './useStroke';
import type { WideAct } from './useWideActs';

/** What the last touch or the last large act came to, until the next one. */
export type Told = Exclude<Touched, { what: 'marked' }> | ({ what: 'done' } & WideAct);

interface TouchedWorld {
  chart: Chart;
  legend: readonly LegendLine[];
  sections: readonly Section[];
  /** Section and colour in front. */
  here: number;
  front: LegendLine | null;
  onSection: (number: number) => void;
  onColour: (line: number) => void;
}

/** Why a touch marked nothing, and what helps. */
export function UnmarkedNotice({
  told,
  planning,
  ...world
}: TouchedWorld & {
  told: Told | null;
  /** Whether the bars are still being planned. */
  planning: boolean;
}) {
  switch (told?.what) {
    case 'elsewhere':
      return <Elsewhere place={told.place} {...world} />;
    case 'stays':
      return (
        <Notice kind="hint">
          This square is laid already. To lift its drill, hold it, or choose Lift above the canvas (key L).
        </Notice>
      );
    case 'unplanned':
      return (
        <Notice kind="hint">
          {planning
            ? 'The bars are still being planned, so nothing was marked.'
            : 'Now the bars are planned: touch it again.'}
        </Notice>
      );
    default:
      return null;
  }
}

/** A colour by its code; where another one has the same code, by its finish too. */
function nameOf(line: LegendLine, other: LegendLine | null): string {
  return other?.code === line.code ? `${line.code} ${line.finish}` : line.code;
}

/** Where a square is that was touched and not marked, and the way there. */
function Elsewhere({
  place,
  chart,
  legend,
  sections,
  here,
  front,
  onSection,
  onColour,
}: TouchedWorld & { place: CellPlace }) {
  const line = ofLine(legend, chart.cells[cellIndex(place, chart.width)]!);
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

/** The last drill is laid: what comes now. */
export function AllLaid({ canvasId, drills }: { canvasId: string; drills: number }) {
  return (
    <div className="slip border-l-4 border-well" role="status">
      <h2>{drills === 1 ? 'The one drill is laid' : `All ${many(drills)} drills are laid`}</h2>
      <p className="mt-1 flex flex-wrap gap-2">
        <a className="button button-main" href={`/canvas/${canvasId}/finish`}>
          Finish it
        </a>
        <a className="button" href={`/canvas/${canvasId}/progress`}>
          See how it went
        </a>
      </p>
    </div>
  );
}

/** Drills that came off and are to be laid again. */
export function PoppedLine({ canvasId, drills }: { canvasId: string; drills: number }) {
  return (
    <p className="flex flex-wrap items-center gap-2" data-testid="popped">
      <span className="grow">{counted(drills, 'popped drill')} to lay again, ringed on the canvas</span>
      <a className="button" href={`/canvas/${canvasId}/finish`}>
        See where
      </a>
    </p>
  );
}
