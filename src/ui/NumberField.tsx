import { useState } from 'react';
import { inUnit, type LengthUnit, many, readLength } from '../core/words/numbers';
import { endsEntry } from './composing';
import { typedNumber } from './typedNumber';

/**
 * A number under its name, with a decimal comma or point, thousands parted or not, and a length in any unit. What does not fit is told beside it and not taken; it counts
 * once it fits, or, with `late`, once the field is left or Enter is pressed.
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
  const [typed, setTyped] = useState<{ text: string; value: number } | null>(null);
  const shown = typed && typed.value === value ? typed.text : String(value);
  const fitting = (text: string): number | null => {
    const number = typedNumber(text, whole ? 'whole' : (unit ?? 'any'));
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
        onKeyDown={(event) => endsEntry(event) && late && take(shown)}
      />
      {!fits && (
        <span role="alert" className="block text-[0.95rem] text-alarm">
          {limits(shown, least, most, unit)}
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
