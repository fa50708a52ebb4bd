import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { placementInWords } from '../../core/placing/inWords';
import type { Placement } from '../../core/placing/placement';
import { many } from '../../core/words/numbers';
import { Chip } from '../../ui/Chip';
import { Check, ChevronLeft, ChevronRight } from '../../ui/icons';

/** The placement in hand: where it lies, which end is planted, and on to the next; as high while it is planned. */
export function StepSlip({
  placement,
  number,
  of,
  colour,
  shape,
  hand,
  isFirst,
  isLast,
  onStep,
  onLay,
}: {
  /** Null while the plan is made. */
  placement: Placement | null;
  /** Its turn among those of its colour, from 1. */
  number: number;
  of: number;
  colour: LegendLine | null;
  shape: Shape;
  hand: 'right' | 'left';
  isFirst: boolean;
  isLast: boolean;
  onStep: (by: 1 | -1) => void;
  onLay: () => void;
}) {
  return (
    <div className="slip flex flex-wrap items-center gap-x-4 gap-y-2 !py-2.5" data-testid="step">
      {colour ? <Chip line={colour} shape={shape} size={44} /> : <span className="size-11" />}
      <div className="min-h-[6.2rem] min-w-0 lg:min-h-[5.2rem] grow basis-72" aria-live="polite">
        {placement && colour ? (
          <>
            <p>
              <span translate="no" className="number text-[1.25rem] font-semibold">
                {colour.code}
              </span>
              , placement {many(number)} of {many(of)}
            </p>
            <p>{placementInWords(placement, hand)}</p>
          </>
        ) : (
          <p className="text-faded">Planning the bars…</p>
        )}
      </div>
      <div className="flex flex-wrap gap-2 whitespace-nowrap">
        <button type="button" className="button" disabled={isFirst} onClick={() => onStep(-1)}>
          <ChevronLeft size={20} aria-hidden /> Back
        </button>
        <button type="button" className="button" disabled={isLast} onClick={() => onStep(1)}>
          Next <ChevronRight size={20} aria-hidden />
        </button>
        <button
          type="button"
          className="button button-main"
          disabled={placement === null}
          // The second click of a double click is none: the next placement is in hand by then.
          onClick={({ detail }) => detail <= 1 && onLay()}
        >
          <Check size={20} aria-hidden /> Lay it
        </button>
      </div>
    </div>
  );
}
