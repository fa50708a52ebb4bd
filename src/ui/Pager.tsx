import type { ReactNode } from 'react';
import { ChevronLeft, ChevronRight } from './icons';

/** Numbered things one at a time, with the one before and the one after. */
export function Pager({
  what,
  number,
  count,
  onChange,
  children,
}: {
  /** What is numbered, such as “Section”. */
  what: string;
  number: number;
  count: number;
  onChange: (number: number) => void;
  /** What stands between the two buttons. */
  children: ReactNode;
}) {
  return (
    <div className="flex items-center gap-2">
      <button
        type="button"
        className="button !px-2.5"
        aria-label={`${what} before`}
        disabled={number <= 1}
        onClick={() => onChange(number - 1)}
      >
        <ChevronLeft size={20} aria-hidden />
      </button>
      {children}
      <button
        type="button"
        className="button !px-2.5"
        aria-label={`${what} after`}
        disabled={number >= count}
        onClick={() => onChange(number + 1)}
      >
        <ChevronRight size={20} aria-hidden />
      </button>
    </div>
  );
}
