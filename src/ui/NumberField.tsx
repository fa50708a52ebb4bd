import { useState } from 'react';
import { many, readNumber } from '../core/words/numbers';

/**
 * A number under its name, with a decimal comma or point. What does not fit is told beside it and not taken; it counts
 * once it fits, or, with `late`, once the field is left or Enter is pressed.
 */
export function NumberField({
  words,
  hidden = false,
  value,
  least,
  most,
  whole = false,
  late = false,
  className = '',
  onChange,
}: {
  words: string;
  /** The name is heard, not seen. */
  hidden?: boolean;
  value: number;
  least: number;
  most: number;
  whole?: boolean;
  late?: boolean;
  className?: string;
  onChange: (value: number) => void;
}) {
  // What is typed, as long as the value is the one that it led to; a value that changes from outside is shown.
  const [typed, setTyped] = useState<{ text: string; value: number } | null>(null);
  const shown = typed && typed.value === value ? typed.text : String(value);
  const fitting = (text: string): number | null => {
    const number = readNumber(text);
    const fits = number !== null && number >= least && number <= most && (!whole || Number.isInteger(number));
    return fits ? number : null;
  };
  const fits = fitting(shown) !== null;
  const take = (text: string) => {
    const number = fitting(text);
    if (number !== null && number !== value) onChange(number);
  };
  return (
    <label className={`block ${className}`}>
      <span className={hidden ? 'sr-only' : 'mb-0.5 block text-[0.95rem] leading-tight'}>{words}</span>
      <input
        className={`field number ${fits ? '' : 'field-fault'}`}
        inputMode={whole ? 'numeric' : 'decimal'}
        value={shown}
        aria-invalid={!fits}
        onChange={(event) => {
          const { value: text } = event.target;
          setTyped({ text, value: late ? value : (fitting(text) ?? value) });
          if (!late) take(text);
        }}
        onBlur={() => {
          if (late) take(shown);
          if (fits) setTyped(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && late && take(shown)}
      />
      {!fits && (
        <span role="alert" className="block text-[0.95rem] text-alarm">
          {many(least)} to {many(most)}
        </span>
      )}
    </label>
  );
}
