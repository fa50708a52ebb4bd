import type { ReactNode } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import type { TrashTally } from '../../core/checkin/chance';
import type { Filling } from '../../core/checkin/filling';
import { arithmeticOf, type LineSupply, reasonInWords, verdictInWords } from '../../core/checkin/supply';
import { placeInWords } from '../../core/codes/places';
import { many } from '../../core/words/numbers';
import { Chip } from '../../ui/Chip';

/** The bag that was counted last: its line, or null for one that belongs to none. */
export interface LastCounted {
  label: string;
  drills: number;
  line: LegendLine | null;
}

/** What the colour of the last bag still lacks, big, with the reason and the arithmetic behind it. */
export function LastBag({
  last,
  supply,
  place,
  shape,
  usualDrills,
  trash,
  filling,
  children,
}: {
  last: LastCounted;
  supply: LineSupply | undefined;
  place: string;
  shape: Shape;
  usualDrills: number;
  trash: TrashTally & { share: number };
  filling: Filling;
  /** The list of its bags. */
  children?: ReactNode;
}) {
  if (!last.line || !supply) {
    return (
      <div className="slip">
        <p className="big-number">Not in the list</p>
        <p>
          The colour list has no <span className="number">{last.label}</span>. The bag is kept below; undo it
          if it was mistyped.
        </p>
      </div>
    );
  }
  return (
    <div className="slip !py-3">
      <div className="mb-2 flex items-center gap-3">
        <Chip line={last.line} shape={shape} size={52} />
        <div>
          <p translate="no" className="number text-xl font-semibold">
            {last.line.code}
          </p>
          <p className="text-faded">
            {placeInWords(place)}, key {last.line.keyNumber}
          </p>
        </div>
      </div>
      <p className="big-number">{verdictInWords(supply.verdict)}</p>
      <p>
        {many(supply.suppliedDrills)} here of {many(supply.neededDrills)} needed; bag {supply.bags} of{' '}
        {supply.expectedBags}
        {last.drills !== usualDrills && `, this one with ${many(last.drills)}`}
      </p>
      <p>{reasonInWords(supply)}</p>
      <details>
        <summary className="min-h-11 py-2 underline">The arithmetic</summary>
        <ol className="list-decimal pl-6 text-[0.95rem]">
          {arithmeticOf(supply, trash, filling).map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      </details>
      <details>
        <summary className="min-h-11 py-2 underline">Its bags, to look at and correct</summary>
        {children}
      </details>
    </div>
  );
}
