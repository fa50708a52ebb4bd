import { useState } from 'react';
import { KNOWN_TIPS, type OwnTip, TIP_SHAPES } from '../../core/placing/tips';
import { counted } from '../../core/words/numbers';
import { endsEntry } from '../../ui/composing';
import { Notice } from '../../ui/Notice';
import { TermWord } from '../../ui/TermWord';
import { useNewest } from '../writing/useNewest';
import { useWrite } from '../writing/useWrite';

const SHAPE_WORDS = { square: 'square drills', round: 'round drills', both: 'either' } as const;

/** The tips in the pen case; the single placer is always there. */
export function TipCase({
  own,
  shape,
  onChange,
}: {
  own: OwnTip[];
  /** What a tip that is added is made for. */
  shape: OwnTip['shape'];
  onChange: (own: OwnTip[]) => void;
}) {
  const { fault, write } = useWrite();
  const newest = useNewest();
  const [open, setOpen] = useState<number | null>(null);
  const save = (tips: OwnTip[]) => {
    onChange(tips);
    const shown = newest((answer: { tips: OwnTip[] }) => onChange(answer.tips));
    void write('PUT', '/api/tips', { tips, before: own }, shown, true);
  };
  const opened = own.filter(({ size }) => size === open);
  return (
    <section aria-labelledby="tip-case">
      <h2 id="tip-case" className="mb-1 text-base font-semibold">
        Your <TermWord term="bar tip">tips</TermWord>, by the drills they take
      </h2>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <div className="flex flex-wrap gap-1.5">
        {KNOWN_TIPS.map((size) => {
          const has = own.some((tip) => tip.size === size);
          return (
            <button
              key={size}
              type="button"
              className={`button number !px-0 w-[2.75rem] ${has ? 'button-on bg-wash' : ''}`}
              aria-pressed={has}
              aria-label={`Tip for ${counted(size, 'drill')}`}
              disabled={size === 1}
              onClick={() => {
                save(
                  has
                    ? own.filter((tip) => tip.size !== size)
                    : [...own, { size, shape, pen: '', worn: false }],
                );
                setOpen(has ? null : size);
              }}
            >
              {size}
            </button>
          );
        })}
      </div>
      <label className="mt-2 block">
        <span className="mb-0.5 block text-[0.98rem]">More about</span>
        <select
          className="field"
          value={open ?? ''}
          onChange={(event) => setOpen(event.target.value === '' ? null : Number(event.target.value))}
        >
          <option value="">choose a tip</option>
          {[...new Set(own.map(({ size }) => size))].map((size) => (
            <option key={size} value={size}>
              {size === 1 ? 'single placer' : `${size}-tip`}
            </option>
          ))}
        </select>
      </label>
      {opened.map((tip) => (
        <TipFields
          key={`${tip.size} ${tip.shape} ${tip.pen}`}
          tip={tip}
          onChange={(next) => save(own.map((each) => (each === tip ? next : each)))}
        />
      ))}
    </section>
  );
}

function TipFields({ tip, onChange }: { tip: OwnTip; onChange: (tip: OwnTip) => void }) {
  const [pen, setPen] = useState(tip.pen);
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <label className="block">
        <span className="mb-0.5 block text-[0.98rem]">Made for</span>
        <select
          className="field"
          value={tip.shape}
          onChange={(event) => onChange({ ...tip, shape: event.target.value as OwnTip['shape'] })}
        >
          {TIP_SHAPES.map((shape) => (
            <option key={shape} value={shape}>
              {SHAPE_WORDS[shape]}
            </option>
          ))}
        </select>
      </label>
      <label className="block">
        <span className="mb-0.5 block text-[0.98rem]">On which pen</span>
        <input
          className="field"
          value={pen}
          maxLength={40}
          onChange={(event) => setPen(event.target.value)}
          onBlur={() => pen !== tip.pen && onChange({ ...tip, pen: pen.trim() })}
          onKeyDown={(event) => endsEntry(event) && pen !== tip.pen && onChange({ ...tip, pen: pen.trim() })}
        />
      </label>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-accent"
          checked={tip.worn}
          onChange={() => onChange({ ...tip, worn: !tip.worn })}
        />
        Worn or loose
      </label>
    </div>
  );
}
