import { useEffect, useState, useSyncExternalStore } from 'react';
import { overlapInWords } from '../../core/bench/overlap';
import { counted } from '../../core/words/numbers';
import { theOutbox } from './outbox';
import { Overlaps } from './overlaps';
import { theProgram } from './program';
import { typedIn } from './typedIn';
import { useOutbox } from './useWrite';

/** How long an ordinary answer takes at most; what is under way shorter than this is not worth a word. */
const PATIENCE_MS = 1500;

/** On every page: what waits to be sent, and what the server would not take, with the choice to try again or drop it. */
export function OutboxSlip() {
  const { waiting, away, out, aside, unkept } = useOutbox();
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    setSlow(false);
    if (waiting === 0) return;
    const timer = setTimeout(() => setSlow(true), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [waiting]);
  const shown = waiting > 0 && (away || slow);
  const [overlaps] = useState(() => new Overlaps(theOutbox()));
  const same = useSyncExternalStore(overlaps.subscribe, overlaps.current);
  const isOld = useSyncExternalStore(theProgram().subscribe, theProgram().current);
  const [later, setLater] = useState(false);
  return (
    <div aria-live="polite" data-testid="outbox" className="empty:hidden print:hidden">
      {/* Over the header, not above the page: it must not move a square from under a hand. */}
      {shown && out && (
        <p className="fixed top-0 left-1/2 z-40 w-max max-w-[min(44rem,94vw)] -translate-x-1/2 border-l-4 border-alarm bg-paper px-3 py-1.5 shadow-lg">
          This device was signed out. {counted(waiting, 'change')} {waiting === 1 ? 'waits' : 'wait'} here
          until it has{' '}
          <a className="underline" href={`/join?to=${encodeURIComponent(window.location.pathname)}`}>
            joined again
          </a>
          .
        </p>
      )}
      {shown && !out && (
        <p className="fixed top-0 left-1/2 z-40 w-max max-w-[min(44rem,94vw)] -translate-x-1/2 border-l-4 border-alarm bg-paper px-3 py-1.5 shadow-lg">
          {away ? 'Oculent does not answer. ' : ''}
          {counted(waiting, 'change')} {waiting === 1 ? 'waits' : 'wait'} here and{' '}
          {waiting === 1 ? 'is' : 'are'} sent as soon as it answers
          {unkept
            ? '. This browser could not store them: keep this page open until then.'
            : '; this page may be closed meanwhile.'}
        </p>
      )}
      {isOld && !later && !shown && (
        <div className="fixed top-0 left-1/2 z-40 flex w-max max-w-[min(44rem,94vw)] -translate-x-1/2 flex-wrap items-center gap-x-4 gap-y-1 border-l-4 border-edge bg-paper px-3 py-1.5 shadow-lg">
          <p>Oculent was brought up to date. This page is the old one.</p>
          <p className="flex gap-2">
            <button type="button" className="button" onClick={() => window.location.reload()}>
              Show the new one
            </button>
            <button type="button" className="button" onClick={() => setLater(true)}>
              Later
            </button>
          </p>
        </div>
      )}
      {same > 0 && waiting === 0 && (
        <div className="flex flex-wrap items-center gap-3 border-l-4 border-edge bg-paper px-3 py-2">
          <p className="min-w-0 grow basis-72">{overlapInWords(same)}</p>
          <button type="button" className="button" onClick={() => overlaps.forget()}>
            Understood
          </button>
        </div>
      )}
      {aside.map((write) => (
        <div
          key={write.key}
          className="flex flex-wrap items-center gap-3 border-l-4 border-alarm bg-paper px-3 py-2"
        >
          <div className="min-w-0 grow basis-72">
            <p>
              A change could not be saved: {write.aside}{' '}
              {write.canvasId !== null && !window.location.pathname.includes(write.canvasId) && (
                <a className="underline" href={`/canvas/${write.canvasId}`}>
                  Go to its canvas
                </a>
              )}
            </p>
            {typedIn(write.body) !== null && (
              <blockquote className="mt-1 max-h-40 overflow-auto border-l-4 border-edge pl-3 whitespace-pre-line">
                {typedIn(write.body)}
              </blockquote>
            )}
          </div>
          <button type="button" className="button" onClick={() => void theOutbox().retry(write)}>
            Try again
          </button>
          <button type="button" className="button" onClick={() => void theOutbox().drop(write)}>
            Delete it
          </button>
        </div>
      ))}
    </div>
  );
}
