import { useEffect, useRef, useState } from 'react';
import {
  type ClockWish,
  clockFace,
  clockWishOf,
  dueReminders,
  forgottenSince,
  type Reminder,
} from '../../core/bench/clock';
import { momentInWords } from '../../core/words/moments';
import { counted } from '../../core/words/numbers';
import type { SittingView } from '../../server/bench/contract';
import { chime } from '../../ui/chime';
import { Bell, Play, Square } from '../../ui/icons';
import { keptHere } from '../../ui/kept';
import { NumberField } from '../../ui/NumberField';
import { theMachineClock } from '../writing/machineClock';

const KEY = 'oculent-sitting';
const TEN_MORE = 10;

/** Counts the time of a sitting, tells what was wished to be told, and takes a note when it ends. */
export function SittingTimer({
  running,
  lastMarkAt,
  note,
  onNote,
  onStart,
  onStop,
}: {
  running: SittingView | null;
  /** When something was marked last in the sitting that runs; ISO, null for nothing yet. */
  lastMarkAt: string | null;
  /** What is typed of the sitting that runs. */
  note: string;
  onNote: (note: string) => void;
  onStart: () => void;
  /** @param endedAt where it did not end just now; ISO */
  onStop: (endedAt?: string) => void;
}) {
  const [now, setNow] = useState(theMachineClock().now);
  const [wish, setWish] = useState(() => clockWishOf(keptHere.get(KEY)));
  useEffect(() => {
    keptHere.set(KEY, JSON.stringify(wish));
  }, [wish]);
  const id = running?.id ?? null;
  useEffect(() => {
    if (id === null) return;
    const tick = () => setNow(theMachineClock().now());
    tick();
    const timer = setInterval(tick, 1000);
    return () => clearInterval(timer);
  }, [id]);
  return (
    <section aria-label="Sitting" className="flex flex-col gap-2">
      {running ? (
        <Running
          key={running.id}
          running={running}
          now={now}
          wish={wish}
          note={note}
          lastMarkAt={lastMarkAt}
          onNote={onNote}
          onStop={onStop}
        />
      ) : (
        <button type="button" className="button" onClick={onStart}>
          <Play size={20} aria-hidden /> Start a sitting
        </button>
      )}
      <ClockWishes wish={wish} onChange={setWish} />
    </section>
  );
}

function Running({
  running,
  now,
  wish,
  note,
  lastMarkAt,
  onNote,
  onStop,
}: {
  running: SittingView;
  now: Date;
  wish: ClockWish;
  note: string;
  lastMarkAt: string | null;
  onNote: (note: string) => void;
  onStop: (endedAt?: string) => void;
}) {
  const startedAt = new Date(running.startedAt);
  const [more, setMore] = useState(0);
  const [told, setTold] = useState<ReadonlySet<string>>(new Set());
  const [goesOn, setGoesOn] = useState(false);
  const due = dueReminders(startedAt, now, wish, more, told, (timeOfDay) => {
    const [hours, minutes] = timeOfDay.split(':').map(Number);
    const at = new Date(startedAt);
    at.setHours(hours!, minutes!, 0, 0);
    return at;
  });
  const key = due.map((each) => each.key).join();
  const rung = useRef('');
  useEffect(() => {
    if (key !== '' && key !== rung.current) chime();
    rung.current = key;
  }, [key]);
  const done = (reminder: Reminder) => setTold((before) => new Set([...before, reminder.key]));
  const forgotten = goesOn ? null : forgottenSince(running, lastMarkAt, now);
  const seconds = Math.max(0, Math.floor((now.getTime() - startedAt.getTime()) / 1000));
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onStop();
      }}
    >
      {forgotten && (
        <div className="slip border-l-4 border-edge !py-3" role="status">
          <p>
            The timer runs since {momentInWords(startedAt, now)}
            {lastMarkAt
              ? `, and nothing was marked since ${momentInWords(new Date(lastMarkAt), now)}`
              : ', and nothing was marked yet'}
            .
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="button button-main"
              onClick={() => onStop(forgotten.toISOString())}
            >
              It ended {momentInWords(forgotten, now)}
            </button>
            <button type="button" className="button" onClick={() => setGoesOn(true)}>
              It goes on
            </button>
          </div>
        </div>
      )}
      {due.map((reminder) => (
        <div key={reminder.key} className="slip border-l-4 border-accent !py-3" role="status">
          <p className="flex items-start gap-2">
            <Bell size={20} aria-hidden className="mt-0.5 shrink-0" /> {reminder.words}
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            {reminder.ends && (
              <>
                <button type="submit" className="button">
                  Stop now
                </button>
                <button type="button" className="button" onClick={() => setMore(more + TEN_MORE)}>
                  {counted(TEN_MORE, 'more minute', 'more minutes')}
                </button>
              </>
            )}
            <button type="button" className="button" onClick={() => done(reminder)}>
              {reminder.ends ? 'Go on' : 'Done'}
            </button>
          </div>
        </div>
      ))}
      <div className="flex items-center justify-between gap-3">
        <span>
          <span className="number text-xl font-semibold" role="timer">
            {clockFace(seconds)}
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
        onChange={(event) => onNote(event.target.value)}
      />
    </form>
  );
}

function ClockWishes({ wish, onChange }: { wish: ClockWish; onChange: (wish: ClockWish) => void }) {
  const said = [
    wish.minutes !== null && counted(wish.minutes, 'minute'),
    wish.stopAt !== null && `until ${wish.stopAt}`,
    wish.rest !== null && `a rest every ${wish.rest}`,
  ].filter(Boolean);
  return (
    <details className="slip !py-2">
      <summary className="min-h-11 py-2 font-semibold">
        Chime and rests{said.length > 0 && <span className="font-normal">: {said.join(', ')}</span>}
      </summary>
      <div className="flex flex-col gap-2 pb-2">
        <Optional
          words="Chime after"
          unit="minutes"
          value={wish.minutes}
          usual={45}
          onChange={(minutes) => onChange({ ...wish, minutes })}
        />
        <label className="flex min-h-11 flex-wrap items-center gap-x-3">
          <span className="grow">Stop at</span>
          <input
            type="time"
            className="field !w-36"
            value={wish.stopAt ?? ''}
            onChange={(event) =>
              onChange({ ...wish, stopAt: event.target.value === '' ? null : event.target.value })
            }
          />
        </label>
        <Optional
          words="Rest wrists, neck and eyes every"
          unit="minutes"
          value={wish.rest}
          usual={20}
          onChange={(rest) => onChange({ ...wish, rest })}
        />
      </div>
    </details>
  );
}

/** A number of minutes that may be left out. */
function Optional({
  words,
  unit,
  value,
  usual,
  onChange,
}: {
  words: string;
  unit: string;
  value: number | null;
  usual: number;
  onChange: (value: number | null) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-3">
      <label className="flex min-h-11 grow items-center gap-3">
        <input
          type="checkbox"
          className="size-6 shrink-0 accent-accent"
          checked={value !== null}
          onChange={(event) => onChange(event.target.checked ? usual : null)}
        />
        <span>{words}</span>
      </label>
      {value !== null && (
        <NumberField
          words={unit}
          className="[&_input]:!w-24"
          value={value}
          least={1}
          most={600}
          whole
          onChange={onChange}
        />
      )}
    </div>
  );
}
