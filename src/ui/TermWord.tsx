import { type ReactNode, useId, useLayoutEffect, useRef, useState } from 'react';
import { GLOSSARY, type Term } from '../core/words/glossary';

/** So far (px) the sentence keeps from the edge of the screen. */
const EDGE = 8;

/** A word of the trade that explains itself in one sentence, on hover, on focus and on a tap. */
export function TermWord({ term, children }: { term: Term; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  const sentence = useId();
  const slip = useRef<HTMLSpanElement>(null);
  const [shift, setShift] = useState(0);
  // Beside a word at the edge of a small screen it would widen the page.
  useLayoutEffect(() => {
    if (!open) {
      setShift(0);
      return;
    }
    const { left, right } = slip.current!.getBoundingClientRect();
    const room = document.documentElement.clientWidth - EDGE - right;
    setShift(Math.max(EDGE - left, Math.min(0, room)));
    // A screen that is turned has its edge elsewhere.
    const close = () => setOpen(false);
    window.addEventListener('resize', close);
    return () => window.removeEventListener('resize', close);
  }, [open]);
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
        ref={slip}
        role="tooltip"
        hidden={!open}
        style={{ left: shift }}
        className="slip absolute top-full z-20 mt-1 w-64 max-w-[80vw] !p-3 font-sans text-base font-normal tracking-normal text-ink"
      >
        {GLOSSARY[term]}
      </span>
    </span>
  );
}
