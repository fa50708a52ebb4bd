import { useEffect, useRef, useState } from 'react';
import { inUnit, type LengthUnit, many, readLength } from '../core/words/numbers';
import { endsEntry } from './composing';
import { typedNumber } from './typedNumber';

/**
 * A number under its name, with a decimal comma or point, thousands parted or not, and a length in any unit. What does
 * not fit is told beside it and not taken, nor are the first digits of it: the value is then what it was before. A form
 * around it is not sent meanwhile. It counts once it fits, or, with `late`, once the field is left or Enter is pressed.
 */
export function NumberField({
  words,
  hidden = false,
  value,
  least,
  most,
  whole = false,
  unit,
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
  /** The unit of a length; another one may be typed behind the number. */
  unit?: LengthUnit;
  late?: boolean;
  className?: string;
  onChange: (value: number) => void;
}) {
  // What is typed, as long as the value is the one that it led to; a value that changes from outside is shown.
  const [typed, setTyped] = useState<{ text: string; value: number; before: number } | null>(null);
  const own = typed && typed.value === value ? typed : null;
  const shown = own ? own.text : String(value);
  const fitting = (text: string): number | null => {
    const number = typedNumber(text, whole ? 'whole' : (unit ?? 'any'));
    const fits = number !== null && number >= least && number <= most && (!whole || Number.isInteger(number));
    return fits ? number : null;
  };
  const fits = fitting(shown) !== null;
  const fault = fits ? '' : limits(shown, least, most, unit);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.setCustomValidity(fault), [fault]);
  const take = (number: number | null) => {
    if (number !== null && number !== value) onChange(number);
  };
  return (
    <label className={`block ${className}`}>
      <span className={hidden ? 'sr-only' : 'mb-0.5 block text-[0.95rem] leading-tight'}>{words}</span>
      <input
        ref={input}
        className={`field number ${fits ? '' : 'field-fault'}`}
        inputMode={whole ? 'numeric' : 'decimal'}
        value={shown}
        aria-invalid={!fits}
        onChange={(event) => {
          const { value: text } = event.target;
          const before = own?.before ?? value;
          const next = late ? value : (fitting(text) ?? before);
          setTyped({ text, value: next, before });
          take(next);
        }}
        onBlur={() => {
          if (late) take(fitting(shown));
          if (fits) setTyped(null);
        }}
        onKeyDown={(event) => {
          if (!endsEntry(event)) return;
          if (late) take(fitting(shown));
          // What was entered is what the next one begins from.
          else if (fits) setTyped(null);
        }}
      />
      {!fits && (
        <span role="alert" className="block text-[0.95rem] text-alarm">
          {fault}
        </span>
      )}
    </label>
  );
}

/** What would fit, in the unit in which it was typed. */
function limits(text: string, least: number, most: number, unit: LengthUnit | undefined): string {
  const typedIn = unit && readLength(text, unit)?.typedIn;
  const said = (value: number) =>
    typedIn && unit ? many(Math.round(inUnit(value, unit, typedIn) * 100) / 100) : many(value);
  return `${said(least)} to ${said(most)}${typedIn ? ` ${typedIn}` : ''}`;
}
