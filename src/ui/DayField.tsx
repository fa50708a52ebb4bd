import { useEffect, useRef, useState } from 'react';
import { isLikelyDay, LAST_DAY } from '../core/words/calendar';
import { endsEntry } from './composing';

/** What is typed counts this long (ms) after the last key, or once the field is left. */
const SETTLES_MS = 900;

/** A day under its name. A year that is still being typed is no day yet; an empty field is none. */
export function DayField({
  words,
  value,
  most,
  onChange,
}: {
  words: string;
  /** `YYYY-MM-DD`; null for none. */
  value: string | null;
  /** The last day that may be chosen. */
  most?: string;
  onChange: (day: string | null) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const settle = (text: string) => {
    clearTimeout(timer.current);
    // While a year is typed its first figures are years too.
    if (text !== '' && !isLikelyDay(text)) return;
    setTyped(null);
    const day = text === '' ? null : text;
    if (day !== value) onChange(day);
  };
  /** What was typed is complete; a day that is half there, or of a year that cannot be, leaves the one that was. */
  const leave = ({ validity }: HTMLInputElement) => {
    if (typed === null) return;
    if (validity.badInput || (typed !== '' && !isLikelyDay(typed))) {
      clearTimeout(timer.current);
      setTyped(null);
    } else settle(typed);
  };
  return (
    <label className="block">
      <span className="block">{words}</span>
      <input
        type="date"
        className="field !w-56"
        max={most ?? LAST_DAY}
        value={typed ?? value ?? ''}
        onChange={(event) => {
          const text = event.target.value;
          setTyped(text);
          clearTimeout(timer.current);
          // A field whose day is only half typed is empty as well: that waits until it is left.
          if (text !== '') timer.current = setTimeout(() => settle(text), SETTLES_MS);
        }}
        onBlur={(event) => leave(event.currentTarget)}
        onKeyDown={(event) => endsEntry(event) && leave(event.currentTarget)}
      />
    </label>
  );
}
