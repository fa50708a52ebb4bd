import type { RefObject } from 'react';
import { type Comfort, VOICE_PACES } from '../../core/bench/comfort';
import { Dialog } from '../../ui/Dialog';

const PACE_WORDS = { slow: 'slow', usual: 'usual', quick: 'quick' } as const;

/** How the bench suits a pair of eyes and hands; kept by each device for itself. */
export function ComfortDialog({
  handle,
  comfort,
  hasChart,
  onChange,
}: {
  handle: RefObject<HTMLDialogElement | null>;
  comfort: Comfort;
  hasChart: boolean;
  onChange: (part: Partial<Comfort>) => void;
}) {
  return (
    <Dialog title="Eyes and hands" width={46} handle={handle}>
      <p className="mb-3 text-faded">Each device keeps this for itself.</p>
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-semibold">Eyes</legend>
          <Check
            words="Larger symbols"
            on={comfort.symbols === 'large'}
            onChange={(on) => onChange({ symbols: on ? 'large' : 'usual' })}
          />
          <Check
            words="Thicker lines between the squares"
            on={comfort.lines === 'thick'}
            onChange={(on) => onChange({ lines: on ? 'thick' : 'usual' })}
          />
          <Check
            words="More contrast"
            on={comfort.contrast === 'high'}
            onChange={(on) => onChange({ contrast: on ? 'high' : 'usual' })}
          />
          <Check
            words="The view moves along with what is next"
            on={comfort.follow}
            onChange={(follow) => onChange({ follow })}
          />
          <Check
            words="Cross-hair through the marked square, with its distances"
            on={comfort.crossHair}
            onChange={(crossHair) => onChange({ crossHair })}
          />
          <label className="mt-1 flex flex-wrap items-center gap-x-3">
            <span>The screen stays on</span>
            <select
              className="field !w-auto"
              value={comfort.awake}
              onChange={(event) => onChange({ awake: event.target.value as Comfort['awake'] })}
            >
              <option value="sitting">during a sitting</option>
              <option value="always">always at the bench</option>
              <option value="never">as usual</option>
            </select>
          </label>
        </fieldset>
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-semibold">Hands</legend>
          <Check
            words="Hands that tremble: a longer press, no drags, and a touch finds the nearest square"
            on={comfort.tremor}
            onChange={(tremor) => onChange({ tremor })}
          />
          <Check
            words="The slip stands on the left, for a left hand"
            on={comfort.slip === 'left'}
            onChange={(on) => onChange({ slip: on ? 'left' : 'right' })}
          />
          {hasChart && (
            <label className="mt-1 flex flex-wrap items-center gap-x-3">
              <span>One key lays</span>
              <select
                className="field !w-auto"
                value={comfort.guide}
                onChange={(event) => onChange({ guide: event.target.value as Comfort['guide'] })}
              >
                <option value="placements">the next bar of the plan</option>
                <option value="rows">the next row of the colour</option>
              </select>
            </label>
          )}
          <p className="text-[0.95rem] text-faded">
            The key is Enter, or Page Down, which most foot pedals send; Page Up goes one back.
          </p>
        </fieldset>
        {hasChart && (
          <fieldset className="flex flex-col gap-1">
            <legend className="mb-1 font-semibold">Voice</legend>
            <Check words="Say what is next" on={comfort.voice} onChange={(voice) => onChange({ voice })} />
            <label className="flex flex-wrap items-center gap-x-3">
              <span>How quick</span>
              <select
                className="field !w-auto"
                value={comfort.pace}
                onChange={(event) => onChange({ pace: event.target.value as Comfort['pace'] })}
              >
                {VOICE_PACES.map((pace) => (
                  <option key={pace} value={pace}>
                    {PACE_WORDS[pace]}
                  </option>
                ))}
              </select>
            </label>
            <p className="text-[0.95rem] text-faded">
              While it speaks, the space bar pauses and goes on; held down it changes the speed. A headset’s
              keys do the same, and its forward key lays what was said.
            </p>
          </fieldset>
        )}
      </div>
    </Dialog>
  );
}

function Check({ words, on, onChange }: { words: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-accent"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>{words}</span>
    </label>
  );
}
