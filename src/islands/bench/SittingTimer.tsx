import { Play, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { SittingView } from '../../server/bench/contract';

/** `1:05:09`, or `5:09` within the first hour. @param seconds 0 or more */
function clock(seconds: number): string {
  const two = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor((seconds % 3600) / 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}

/** Counts the time of a sitting and takes a note when it ends. */
export function SittingTimer({
  running,
  onStart,
  onStop,
}: {
  running: SittingView | null;
  onStart: () => void;
  onStop: (note: string) => void;
}) {
  const [now, setNow] = useState(() => Date.now());
  const [note, setNote] = useState('');
  useEffect(() => {
    if (!running) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [running]);
  if (!running) {
    return (
      <button type="button" className="button" onClick={onStart}>
        <Play size={20} aria-hidden /> Start a sitting
      </button>
    );
  }
  const seconds = Math.max(0, Math.floor((now - Date.parse(running.startedAt)) / 1000));
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onStop(note);
        setNote('');
      }}
    >
      <div className="flex items-center justify-between gap-3">
        <span>
          <span className="number text-xl font-semibold" role="timer">
            {clock(seconds)}
          </span>{' '}
          in this sitting
        </span>
        <button type="submit" className="button">
          <Square size={18} aria-hidden /> Stop
        </button>
      </div>
      <input
        className="field"
        aria-label="Note for this sitting"
        placeholder="A note, if you like"
        maxLength={500}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
    </form>
  );
}
