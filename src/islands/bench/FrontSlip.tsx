import type { ReactNode, RefObject } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import { placeParts } from '../../core/codes/places';
import { many } from '../../core/words/numbers';
import type { KitupView } from '../../server/kitup/contract';
import { Chip } from '../../ui/Chip';
import { Check, ChevronRight, Undo2 } from '../../ui/icons';
import { PotLeft, SmallCase } from './PotPlace';
import type { SectionCounts } from './useSectionCounts';
import type { WideAct } from './useWideActs';

/** The colour in front: symbol, code, pot, how many here, and the one action that finishes it. */
export function FrontSlip({
  counts: { colour, leftHere, allHere, leftInSection },
  shape,
  place,
  section,
  heading,
  kit,
  laidOfColour,
  done,
  canUndo,
  onFinish,
  onLiftAll,
  onNext,
  onUndo,
  children,
}: {
  counts: SectionCounts;
  shape: Shape;
  /** Where it lives: `pot 17`. */
  place: string;
  section: number;
  heading: RefObject<HTMLHeadingElement | null>;
  kit: KitupView | null;
  /** Drills of it laid on the whole canvas. */
  laidOfColour: number;
  /** What the last large act did. */
  done: WideAct | null;
  canUndo: boolean;
  onFinish: () => void;
  onLiftAll: () => void;
  onNext: () => void;
  onUndo: () => void;
  children: ReactNode;
}) {
  const home = placeParts(place);
  return (
    <div className="slip !py-3">
      {colour ? (
        <div className="flex items-center gap-3.5">
          <Chip line={colour} shape={shape} size={76} />
          <div className="min-w-0">
            <p className="text-faded">
              {home.word}{' '}
              <span className="number text-[1.9rem] leading-none font-semibold text-ink">{home.number}</span>
            </p>
            <h2
              ref={heading}
              tabIndex={-1}
              className="number text-[1.7rem] leading-tight font-semibold focus-visible:outline-offset-0"
            >
              <span className="sr-only">Section {section}, colour </span>
              <span translate="no">{colour.code}</span>
            </h2>
            <p className="truncate text-[0.95rem] text-faded">
              {colour.name}
              {colour.finish !== 'plain' && `, ${colour.finish}`}
            </p>
          </div>
          <SmallCase view={kit} line={colour.line} />
        </div>
      ) : (
        <>
          <h2 ref={heading} tabIndex={-1}>
            Section {section}
          </h2>
          <p>
            There is no chart, so nothing is known of single squares: say how much of the section is laid, and
            tick each colour when it is done here.
          </p>
        </>
      )}
      <p className="mt-2" aria-live="polite" data-testid="left-here">
        <span className="big-number">{many(leftHere)}</span> left here of {many(allHere)}
      </p>
      {colour && <PotLeft view={kit} line={colour.line} laid={laidOfColour} leftHere={leftHere} />}
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="button button-main grow"
          disabled={leftHere === 0}
          onClick={onFinish}
        >
          <Check size={20} aria-hidden /> {colour ? 'All of it laid' : 'Section laid'}
        </button>
        {colour && (
          <button type="button" className="button" disabled={leftInSection === 0} onClick={onNext}>
            Next colour <ChevronRight size={20} aria-hidden />
          </button>
        )}
        {!colour && leftHere < allHere && (
          <button type="button" className="button" onClick={onLiftAll}>
            Lift all of it
          </button>
        )}
      </div>
      {children}
      {done && (
        <p className="mt-2 flex flex-wrap items-center gap-2" role="status">
          <span className="grow">
            {many(done.drills)} {done.code && <>of {done.code} </>}
            {done.kind === 'lay' ? 'laid.' : 'lifted.'}
          </span>
          <button type="button" className="button" disabled={!canUndo} onClick={onUndo}>
            <Undo2 size={20} aria-hidden /> Undo
          </button>
        </p>
      )}
    </div>
  );
}
