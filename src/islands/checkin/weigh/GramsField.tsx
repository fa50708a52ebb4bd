import { useId, useState } from 'react';
import { readDisplay, type ScaleSetup } from '../../../core/checkin/weighing';
import { endsEntry } from '../../../ui/composing';

/** The grams that a display shows, typed in. */
export function GramsField({
  words,
  display,
  onGrams,
  onDone,
  onEnter,
}: {
  words: string;
  display: ScaleSetup;
  /** With every key; null while what stands there is no weight, so that no earlier one is taken for it. */
  onGrams: (grams: number | null) => void;
  /** The field is left. */
  onDone?: () => void;
  onEnter?: () => void;
}) {
  const [text, setText] = useState('');
  const aboutId = useId();
  const read = readDisplay(text, display);
  const fault = text.trim() !== '' && 'fault' in read ? read.fault : null;
  return (
    <label className="block">
      <span className="mb-0.5 block text-[0.95rem] leading-tight">{words}</span>
      <input
        className={`field number !w-36 ${fault === null ? '' : 'field-fault'}`}
        inputMode="decimal"
        value={text}
        aria-invalid={fault !== null}
        aria-describedby={fault === null ? undefined : aboutId}
        onChange={(event) => {
          setText(event.target.value);
          const now = readDisplay(event.target.value, display);
          onGrams('grams' in now ? now.grams : null);
        }}
        onBlur={onDone}
        onKeyDown={(event) => endsEntry(event) && onEnter?.()}
      />
      {fault !== null && (
        <span id={aboutId} role="alert" className="block max-w-60 text-[0.95rem] text-alarm leading-tight">
          {fault}
        </span>
      )}
    </label>
  );
}
