import { useEffect, useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { placeInWords, placesInWords } from '../../core/codes/places';
import { nextToPutAway } from '../../core/kitup/walk';
import { counted, many, readWhole } from '../../core/words/numbers';
import type { KitupView } from '../../server/kitup/contract';
import { Chip } from '../../ui/Chip';
import { NumberField } from '../../ui/NumberField';
import { TOO_SOON_MS, useTooSoon } from '../../ui/useTooSoon';
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
  const away = new Set(Object.keys(view.putAway).map(Number));
  const slots = view.cases.flatMap((each) => each.slots);
  const next = nextToPutAway(legend, slots, new Set(view.filled), away);
  const known = next ? (view.leftovers[next.line] ?? 0) : 0;
  // A number belongs to the colour that it was typed for: another screen may put that one away meanwhile.
  const [typed, setTyped] = useState<{ line: number; text: string } | null>(null);
  const tooSoon = useTooSoon(TOO_SOON_MS, next?.line ?? null);
  const done = legend.filter(({ line }) => away.has(line));
  const list = done.length > 0 && (
    <PutAwayList
      colours={done}
      drills={view.putAway}
      busy={busy}
      onCorrect={(line, drills) => void onNote({ line, kind: 'amount', drills })}
    />
  );
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
        {list}
      </div>
    );
  }
  const leftover = typed?.line === next.line ? typed.text : String(known);
  const put = async (drills: number) => {
    if (tooSoon()) return;
    if (await onNote({ line: next.line, kind: 'put away', drills })) setTyped(null);
  };
  return (
    <div className="slip flex flex-col gap-2.5">
      <form
        className="flex flex-col gap-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          void put(readWhole(leftover) ?? 0);
        }}
      >
        <p className="big-number !text-[3rem]">{placeInWords(placesInWords(view.places[next.line] ?? []))}</p>
        <div className="flex items-center gap-3">
          <Chip line={next} shape={shape} size={52} />
          <div>
            <p translate="no" className="number text-xl font-semibold">
              {next.code}
            </p>
            <p className="text-faded">{next.name}</p>
          </div>
        </div>
        <label className="block">
          <span className="mb-1 block font-semibold">Drills left over, counted, weighed or guessed</span>
          <input
            className="field number"
            inputMode="numeric"
            value={leftover}
            onChange={(event) => setTyped({ line: next.line, text: event.target.value })}
          />
        </label>
        <p className="text-faded">
          By the bags and the drills thrown out about {many(known)} should be left.
        </p>
        <button type="submit" className="button button-main" disabled={busy || readWhole(leftover) === null}>
          Into the stash, next pot
        </button>
        <button type="button" className="button" disabled={busy} onClick={() => void put(0)}>
          Nothing left
        </button>
      </form>
      {list}
      <LabelRemoval />
    </div>
  );
}

/** What was put away with how much left over; an amount can be corrected, and the stash with it. */
function PutAwayList({
  colours,
  drills,
  busy,
  onCorrect,
}: {
  colours: LegendLine[];
  drills: Record<number, number>;
  busy: boolean;
  onCorrect: (line: number, drills: number) => void;
}) {
  const [edited, setEdited] = useState<{ line: number; drills: number } | null>(null);
  return (
    <details>
      <summary className="min-h-11 py-2 underline">Put away so far, to look at and correct</summary>
      <ul className="flex flex-col divide-y divide-line">
        {colours.map(({ line, code }) => (
          <li key={line} className="flex flex-wrap items-end justify-between gap-2 py-1.5">
            <span translate="no" className="number py-2 font-semibold">
              {code}
            </span>
            {edited?.line === line ? (
              <form
                className="flex flex-wrap items-end gap-2"
                onSubmit={(event) => {
                  event.preventDefault();
                  onCorrect(line, edited.drills);
                  setEdited(null);
                }}
              >
                <NumberField
                  words="Drills left over"
                  className="[&_input]:!w-28"
                  value={edited.drills}
                  least={0}
                  most={1_000_000}
                  whole
                  onChange={(next) => setEdited({ line, drills: next })}
                />
                <button type="submit" className="button" disabled={busy}>
                  Save
                </button>
              </form>
            ) : (
              <>
                <span className="number py-2">{many(drills[line] ?? 0)}</span>
                <button
                  type="button"
                  className="button"
                  aria-label={`Edit what is left of ${code}`}
                  onClick={() => setEdited({ line, drills: drills[line] ?? 0 })}
                >
                  Edit
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
