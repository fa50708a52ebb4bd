import { type ReactNode, useId, useState } from 'react';
import { GLOSSARY, type Term } from '../core/words/glossary';

/** A word of the trade that explains itself in one sentence, on hover, on focus and on a tap. */
export function TermWord({ term, children }: { term: Term; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  const sentence = useId();
  return (
    <span className="relative inline-block">
      <button
        type="button"
        className="on-paper cursor-help font-[inherit] underline decoration-dotted decoration-2 underline-offset-4"
        aria-describedby={sentence}
        onClick={() => setOpen(!open)}
        onFocus={({ target }) => setOpen(target.matches(':focus-visible'))}
        onBlur={() => setOpen(false)}
        onPointerEnter={({ pointerType }) => pointerType === 'mouse' && setOpen(true)}
        onPointerLeave={({ pointerType }) => pointerType === 'mouse' && setOpen(false)}
        onKeyDown={({ key }) => key === 'Escape' && setOpen(false)}
      >
        {children}
      </button>
      <span
        id={sentence}
        role="tooltip"
        hidden={!open}
        className="slip absolute top-full left-0 z-20 mt-1 w-64 max-w-[80vw] !p-3 font-sans text-base font-normal tracking-normal text-ink"
      >
        {GLOSSARY[term]}
      </span>
    </span>
  );
}
