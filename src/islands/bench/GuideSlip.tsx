import { Check, ChevronLeft, ChevronRight, Pause, Play, Volume2 } from '../../ui/icons';
import type { Guide } from './useGuide';

/** As high whatever is in it, so that the colours below do not move from under a finger. */
const SLIP = 'mt-2.5 min-h-[9.3rem] border-t border-line pt-2';

/** What is laid next with one key: where it lies, and on to the one after it. */
export function GuideSlip({
  guide,
  left,
  voice,
  onLay,
  onVoice,
}: {
  guide: Guide;
  /** Squares of the colour in front; null where none is, or nothing is left of any. */
  left: number | null;
  voice: { on: boolean; paused: boolean; toggle: () => void; again: () => void };
  onLay: () => void;
  onVoice: (on: boolean) => void;
}) {
  if (guide.words === null) {
    // Squares that no bar takes yet, as after an undo, are planned at this moment.
    if (left === null && !guide.planning) return null;
    return (
      <p className={`${SLIP} text-faded`}>
        {left === 0 ? 'Nothing of it is left here.' : 'Planning the bars…'}
      </p>
    );
  }
  return (
    <div className={SLIP} data-testid="guide">
      <div aria-live={voice.on ? 'off' : 'polite'}>
        <p className="text-[0.95rem] text-faded">{guide.turn}</p>
        <p className="min-h-[4.2em] leading-snug">{guide.words}</p>
      </div>
      <div className="mt-1.5 flex gap-2">
        <button
          type="button"
          className="button button-main grow"
          // The second click of a double click is none: the next one is in hand by then.
          onClick={({ detail }) => detail <= 1 && onLay()}
        >
          <Check size={20} aria-hidden /> Lay it
        </button>
        <button
          type="button"
          className="button !px-2.5"
          aria-label="The one before"
          title="The one before"
          onClick={() => guide.step(-1)}
        >
          <ChevronLeft size={20} aria-hidden />
        </button>
        <button
          type="button"
          className="button !px-2.5"
          aria-label="The one after"
          title="The one after"
          onClick={() => guide.step(1)}
        >
          <ChevronRight size={20} aria-hidden />
        </button>
        {voice.on ? (
          <button
            type="button"
            className="button !px-2.5"
            aria-label={voice.paused ? 'The voice goes on' : 'Pause the voice'}
            title={voice.paused ? 'The voice goes on' : 'Pause the voice'}
            onClick={voice.toggle}
          >
            {voice.paused ? <Play size={20} aria-hidden /> : <Pause size={20} aria-hidden />}
          </button>
        ) : (
          <button
            type="button"
            className="button !px-2.5"
            aria-label="Say what is next"
            title="Say what is next"
            onClick={() => onVoice(true)}
          >
            <Volume2 size={20} aria-hidden />
          </button>
        )}
      </div>
    </div>
  );
}
