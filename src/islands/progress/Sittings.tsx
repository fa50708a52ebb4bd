import { useEffect, useState } from 'react';
import { overlappingSittings, sittingMinutes } from '../../core/bench/sitting';
import { FIRST_DAY, LAST_DAY } from '../../core/words/calendar';
import { counted, many } from '../../core/words/numbers';
import type { SittingRecord } from '../../server/progress/contract';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { TermWord } from '../../ui/TermWord';
import { useWrite } from '../writing/useWrite';

const began = (startedAt: string) =>
  new Date(startedAt).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

/** The sittings with their times; each can be entered by hand, corrected, parted, removed and brought back. */
export function Sittings({
  canvasId,
  first,
  onChanged,
}: {
  canvasId: string;
  first: SittingRecord[];
  onChanged: () => void;
}) {
  const [sittings, setSittings] = useState(first);
  const [edited, setEdited] = useState<string | null>(null);
  /** What is done with the sitting that was chosen. */
  const [doing, setDoing] = useState<'edit' | 'split' | 'enter' | null>(null);
  const { fault, busy, write } = useWrite(canvasId);
  useEffect(() => setSittings(first), [first]);
  const kept = sittings.filter(({ removed }) => !removed);
  const removed = sittings.filter((sitting) => sitting.removed);
  const own = kept.find(({ id }) => id === edited);
  const say = (sitting: SittingRecord) => {
    const { id, startedAt, endedAt, note, removed: gone } = sitting;
    const body = { id: crypto.randomUUID(), startedAt, endedAt, note, removed: gone };
    void write<SittingRecord[]>('PUT', `/api/canvases/${canvasId}/sittings/${id}`, body, (next) => {
      setSittings(next);
      close();
      onChanged();
    });
  };
  const close = () => {
    setEdited(null);
    setDoing(null);
  };
  const enter = (times: { startedAt: string; endedAt: string | null; note: string }) => {
    const body = { id: crypto.randomUUID(), ...times };
    void write('POST', `/api/canvases/${canvasId}/sittings`, body, () => {
      close();
      onChanged();
    });
  };
  const part = (sitting: SittingRecord, pauseFrom: string, pauseTo: string) => {
    const body = { id: crypto.randomUUID(), pauseFrom, pauseTo };
    void write<SittingRecord[]>(
      'POST',
      `/api/canvases/${canvasId}/sittings/${sitting.id}/split`,
      body,
      (next) => {
        setSittings(next);
        close();
        onChanged();
      },
    );
  };
  const overlaps = overlappingSittings(kept);
  return (
    <section>
      <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
        <h2>
          <TermWord term="sitting">Sittings</TermWord>
        </h2>
        <button
          type="button"
          className="button"
          onClick={() => {
            setEdited(null);
            setDoing('enter');
          }}
        >
          Enter one by hand
        </button>
      </div>
      {fault && <Notice kind="fault">{fault}</Notice>}
      {overlaps.length > 0 && (
        <Notice kind="hint">
          {overlaps.length === 1 ? 'Two sittings lie' : `${many(overlaps.length)} pairs of sittings lie`} over
          one another: that of {began(overlaps[0]![0].startedAt)} and that of{' '}
          {began(overlaps[0]![1].startedAt)}
          {overlaps.length > 1 && ', among others'}. Right where two people worked; else correct one of them.
        </Notice>
      )}
      {doing === 'enter' && <SittingForm sitting={null} busy={busy} onSave={enter} onCancel={close} />}
      {own && doing === 'split' && own.endedAt !== null && (
        <SplitForm
          key={own.id}
          sitting={own}
          busy={busy}
          onSplit={(from, to) => part(own, from, to)}
          onCancel={close}
        />
      )}
      {own && doing === 'edit' && (
        <SittingForm
          key={own.id}
          sitting={own}
          busy={busy}
          onSave={(times) => say({ ...own, ...times })}
          onRemove={() => say({ ...own, removed: true })}
          onCancel={close}
        />
      )}
      {kept.length === 0 && <p>No sitting yet: start the timer at the bench, or enter one by hand.</p>}
      <ScrollRegion label="Sittings" className="max-h-[32rem]">
        <DataTable
          caption="Sittings, the newest first"
          rows={kept}
          rowKey={(row) => row.id}
          columns={[
            {
              key: 'when',
              header: 'Began',
              value: (row) => row.startedAt,
              show: (row) => began(row.startedAt),
            },
            {
              key: 'minutes',
              header: 'Minutes',
              numeric: true,
              value: sittingMinutes,
              show: (row) => (row.endedAt ? sittingMinutes(row) : 'goes on'),
            },
            {
              key: 'drills',
              header: 'Drills',
              numeric: true,
              value: (row) => row.drills,
              show: (row) => many(row.drills),
            },
            ...(kept.some(({ device }) => device !== undefined)
              ? [{ key: 'device', header: 'At', value: (row: SittingRecord) => row.device ?? '' }]
              : []),
            { key: 'note', header: 'Note', value: (row) => row.note },
            {
              key: 'change',
              header: 'Change',
              value: () => '',
              show: (row) => (
                <span className="flex gap-2">
                  <button
                    type="button"
                    className="button"
                    aria-label={`Edit the sitting of ${began(row.startedAt)}`}
                    onClick={() => {
                      setEdited(row.id);
                      setDoing('edit');
                    }}
                  >
                    Edit
                  </button>
                  {row.endedAt !== null && (
                    <button
                      type="button"
                      className="button"
                      aria-label={`Split the sitting of ${began(row.startedAt)}`}
                      onClick={() => {
                        setEdited(row.id);
                        setDoing('split');
                      }}
                    >
                      Split
                    </button>
                  )}
                </span>
              ),
            },
          ]}
        />
      </ScrollRegion>
      {removed.length > 0 && (
        <details>
          <summary className="min-h-11 py-2 underline">{counted(removed.length, 'removed sitting')}</summary>
          <ul className="flex flex-col divide-y divide-line">
            {removed.map((sitting) => (
              <li key={sitting.id} className="flex flex-wrap items-center gap-3 py-1.5">
                <span className="grow">
                  {began(sitting.startedAt)}, {counted(sittingMinutes(sitting), 'minute')}
                </span>
                <button
                  type="button"
                  className="button"
                  disabled={busy}
                  onClick={() => say({ ...sitting, removed: false })}
                >
                  Bring back<span className="sr-only"> {began(sitting.startedAt)}</span>
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

/** A moment as a field for day and time takes it, in the time of this place. */
function local(moment: string): string {
  const date = new Date(moment);
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

const asField = (moment: string | null) => (moment === null ? '' : local(moment));

/**
 * The moment that a field says. What was not touched stays as it is by now, seconds included: another screen may have
 * ended the sitting meanwhile. @param opened what the field began with
 */
function momentOf(text: string, opened: string | null, now: string | null): string | null {
  if (text === asField(opened)) return now;
  return text === '' ? null : new Date(text).toISOString();
}

const UNTOLD = { startedAt: null, endedAt: null, note: '' };

/** @param sitting null for one that is entered by hand */
function SittingForm({
  sitting,
  busy,
  onSave,
  onRemove,
  onCancel,
}: {
  sitting: SittingRecord | null;
  busy: boolean;
  onSave: (times: { startedAt: string; endedAt: string | null; note: string }) => void;
  onRemove?: () => void;
  onCancel: () => void;
}) {
  const [opened] = useState(sitting ?? UNTOLD);
  const now = sitting ?? UNTOLD;
  const [start, setStart] = useState(asField(opened.startedAt));
  const [end, setEnd] = useState(asField(opened.endedAt));
  const [note, setNote] = useState(opened.note);
  return (
    <form
      className="slip mb-3 flex flex-wrap items-end gap-3"
      aria-label={sitting ? 'Correct a sitting' : 'Enter a sitting'}
      onSubmit={(event) => {
        event.preventDefault();
        const startedAt = momentOf(start, opened.startedAt, now.startedAt);
        const endedAt = momentOf(end, opened.endedAt, now.endedAt);
        if (startedAt !== null) onSave({ startedAt, endedAt, note: note === opened.note ? now.note : note });
      }}
    >
      <Moment words="Began" value={start} required onChange={setStart} />
      <Moment
        words="Ended"
        value={end}
        required={sitting === null || opened.endedAt !== null}
        onChange={setEnd}
      />
      <label className="grow">
        <span className="block">Note</span>
        <input
          className="field"
          maxLength={500}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      <div className="flex gap-2">
        <button type="submit" className="button button-main" disabled={busy}>
          Save
        </button>
        {onRemove && (
          <button type="button" className="button" disabled={busy} onClick={onRemove}>
            Remove
          </button>
        )}
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
      {sitting === null && (
        <p className="basis-full text-[0.95rem] text-faded">
          What was marked in that time without a timer counts for it.
        </p>
      )}
    </form>
  );
}

function SplitForm({
  sitting,
  busy,
  onSplit,
  onCancel,
}: {
  sitting: SittingRecord;
  busy: boolean;
  onSplit: (pauseFrom: string, pauseTo: string) => void;
  onCancel: () => void;
}) {
  const middle = new Date((Date.parse(sitting.startedAt) + Date.parse(sitting.endedAt!)) / 2).toISOString();
  const [from, setFrom] = useState(local(middle));
  const [to, setTo] = useState(local(middle));
  return (
    <form
      className="slip mb-3 flex flex-wrap items-end gap-3"
      aria-label="Split a sitting"
      onSubmit={(event) => {
        event.preventDefault();
        const [start, end] = [momentOf(from, null, null), momentOf(to, null, null)];
        if (start !== null && end !== null) onSplit(start, end);
      }}
    >
      <Moment words="The pause began" value={from} required onChange={setFrom} />
      <Moment words="The pause ended" value={to} required onChange={setTo} />
      <div className="flex gap-2">
        <button type="submit" className="button button-main" disabled={busy}>
          Split
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}

function Moment({
  words,
  value,
  required,
  onChange,
}: {
  words: string;
  value: string;
  required: boolean;
  onChange: (value: string) => void;
}) {
  return (
    <label>
      <span className="block">{words}</span>
      <input
        type="datetime-local"
        required={required}
        // A year of six figures is no moment that a program can reckon with.
        min={`${FIRST_DAY}T00:00`}
        max={`${LAST_DAY}T23:59`}
        className="field"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
