import type { Shape } from '../../core/canvas/canvas';
import { SCHOOL_REASONS, type School } from '../../core/placing/schools';
import { many } from '../../core/words/numbers';
import { ColourList } from '../../ui/ColourList';
import type { SectionCounts } from './useSectionCounts';

/** The colours of the section in the order in which they are laid, with what is left of each. */
export function ColoursInLine({
  school,
  counts: { colours, colour, left, leftInSection },
  section,
  shape,
  onChoose,
}: {
  school: School;
  counts: SectionCounts;
  /** Its number. */
  section: number;
  shape: Shape;
  onChoose: (line: number) => void;
}) {
  const { name, reason } = SCHOOL_REASONS[school];
  return (
    <div className="flex shrink-0 flex-col md:max-lg:col-start-2 md:max-lg:row-span-12 md:max-lg:row-start-1">
      <p className="mb-1 text-[0.95rem] text-faded" title={reason}>
        {many(leftInSection)} left in section {section}, {name.toLowerCase()}: {reason}
      </p>
      <ColourList
        label="Colours of this section, in the order in which they are laid"
        atLeastSix
        lines={colours}
        shape={shape}
        chosen={colour?.line ?? null}
        onChoose={(line) => onChoose(line.line)}
        beside={(line) => (left[line.line] === 0 ? 'done ✓' : `${left[line.line]} left`)}
      />
    </div>
  );
}
