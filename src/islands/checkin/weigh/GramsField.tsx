import { useState } from 'react';
import { many, readNumber } from '../../../core/words/numbers';
import { endsEntry } from '../../../ui/composing';

/** No bag of drills weighs more. */
const MOST_GRAMS = 5000;

/** The grams that a display shows, typed in, with a decimal comma or point. */
export function GramsField({
  words,
  onGrams,
  onEnter,
}: {
  words: string;
  onGrams: (grams: number) => void;
  onEnter?: () => void;
}) {
  const [text, setText] = useState('');
  const grams = readNumber(text);
  const fits = text === '' || (grams !== null && grams >= 0 && grams <= MOST_GRAMS);
  return (
    <label className="block">
      <span className="mb-0.5 block text-[0.95rem] leading-tight">{words}</span>
      <input
        className={`field number !w-36 ${fits ? '' : 'field-fault'}`}
        inputMode="decimal"
        value={text}
        aria-invalid={!fits}
        onChange={(event) => {
          setText(event.target.value);
          const next = readNumber(event.target.value);
          if (next !== null && next >= 0 && next <= MOST_GRAMS) onGrams(next);
        }}
        onKeyDown={(event) => endsEntry(event) && onEnter?.()}
      />
      {!fits && (
        <span role="alert" className="block text-[0.95rem] text-alarm">
          0 to {many(MOST_GRAMS)} g
        </span>
      )}
    </label>
  );
}
