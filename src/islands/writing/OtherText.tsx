import { Notice } from '../../ui/Notice';

/** Another screen wrote something else meanwhile: both are there until the user chooses. */
export function OtherText({
  theirs,
  choose,
}: {
  theirs: string;
  choose: (which: 'mine' | 'theirs' | 'both') => void;
}) {
  return (
    <Notice kind="fault">
      <p>This was changed on another screen while you typed. There it says:</p>
      <blockquote className="my-2 max-h-40 overflow-auto border-l-4 border-edge pl-3 whitespace-pre-line">
        {theirs.trim() === '' ? <em>Nothing any more.</em> : theirs}
      </blockquote>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => choose('both')}>
          Keep both
        </button>
        <button type="button" className="button" onClick={() => choose('mine')}>
          Keep mine
        </button>
        <button type="button" className="button" onClick={() => choose('theirs')}>
          Keep theirs
        </button>
      </div>
    </Notice>
  );
}
