import { REACH_WORDS, type Reach, reachesFor } from '../../core/bench/reach';
import { ArrowDownToLine, ArrowUpFromLine, CircleDashed, Eye, Hash } from '../../ui/icons';
import { ToggleButton } from '../../ui/ToggleButton';
import type { TouchMode } from './useStroke';

const MODES = [
  ['lay', 'Lay', ArrowDownToLine],
  ['lift', 'Lift', ArrowUpFromLine],
  ['popped', 'Popped', CircleDashed],
] as const;

/** What a touch does and how far it reaches, and what helps the eyes. */
export function BenchTools({
  hasChart,
  mode,
  reach,
  counting,
  onMode,
  onReach,
  onCounting,
  onComfort,
}: {
  hasChart: boolean;
  mode: TouchMode;
  reach: Reach;
  counting: boolean;
  onMode: (mode: TouchMode) => void;
  onReach: (reach: Reach) => void;
  onCounting: (on: boolean) => void;
  onComfort: () => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <fieldset className="flex flex-wrap" aria-label="What a touch does">
        {MODES.map(([key, words, Mark]) => (
          <ToggleButton key={key} on={mode === key} onChange={() => onMode(key)}>
            <Mark size={20} aria-hidden /> {words}
          </ToggleButton>
        ))}
      </fieldset>
      <select
        className="field !w-auto"
        aria-label="How far a touch reaches"
        title={REACH_WORDS[reach].what}
        value={reach}
        onChange={(event) => onReach(event.target.value as Reach)}
      >
        {reachesFor(hasChart).map((each) => (
          <option key={each} value={each}>
            {REACH_WORDS[each].name}
          </option>
        ))}
      </select>
      {hasChart && (
        <ToggleButton on={counting} onChange={onCounting}>
          <Hash size={20} aria-hidden /> <span className="max-sm:sr-only">Count</span>
        </ToggleButton>
      )}
      <button
        type="button"
        className="button"
        title="Eyes and hands"
        aria-haspopup="dialog"
        onClick={onComfort}
      >
        <Eye size={20} aria-hidden /> <span className="max-xl:sr-only">Eyes and hands</span>
      </button>
    </div>
  );
}
