import { useEffect, useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { placeInWords } from '../../core/codes/places';
import { nextToPutAway } from '../../core/kitup/walk';
import { counted, many } from '../../core/words/numbers';
import type { KitupView } from '../../server/kitup/contract';
import { Chip } from '../../ui/Chip';
import { LabelRemoval } from '../labels/LabelRemoval';
import type { Kitup } from './useKitup';

/** When the canvas is done: pot after pot into labelled bags, in code order, and into the stash list. */
export function PutAway({
  view,
  legend,
  shape,
  busy,
  onNote,
  onLight,
}: {
  view: KitupView;
  legend: LegendLine[];
  shape: Shape;
  busy: boolean;
  onNote: Kitup['note'];
  onLight: (line: number | null) => void;
}) {
  const away = new Set(view.putAway);
  const slots = view.cases.flatMap((each) => each.slots);
  const next = nextToPutAway(legend, slots, new Set(view.filled), away);
  const known = next ? (view.leftovers[next.line] ?? 0) : 0;
  const [typed, setTyped] = useState<string | null>(null);
  const nextLine = next?.line ?? null;
  useEffect(() => onLight(nextLine), [onLight, nextLine]);
  if (!next) {
    return (
      <div className="slip">
        <p className="big-number">All put away</p>
        <p>
          {away.size === 0
            ? 'No pot of this kit is in use.'
            : `${counted(away.size, 'colour')} put away; their pots are free.`}
        </p>
      </div>
    );
  }
  const leftover = typed ?? String(known);
  const put = async (drills: number) => {
    if (await onNote({ line: next.line, kind: 'put away', drills })) setTyped(null);
  };
  return (
    <form
      className="slip flex flex-col gap-2.5"
      onSubmit={(event) => {
        event.preventDefault();
        void put(Number(leftover));
      }}
    >
      <p className="big-number !text-[3rem]">{placeInWords(view.places[next.line] ?? '')}</p>
      <div className="flex items-center gap-3">
        <Chip line={next} shape={shape} size={52} />
        <div>
          <p className="number text-xl font-semibold">{next.code}</p>
          <p className="text-faded">{next.name}</p>
        </div>
      </div>
      <label className="block">
        <span className="mb-1 block font-semibold">Drills left over, counted, weighed or guessed</span>
        <input
          className="field number"
          inputMode="numeric"
          value={leftover}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <p className="text-faded">By the bags and the drills thrown out about {many(known)} should be left.</p>
      <button type="submit" className="button button-main" disabled={busy || !/^\d+$/.test(leftover.trim())}>
        Into the stash, next pot
      </button>
      <button type="button" className="button" disabled={busy} onClick={() => void put(0)}>
        Nothing left
      </button>
      <LabelRemoval />
    </form>
  );
}
