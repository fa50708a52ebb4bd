import { useEffect, useState } from 'react';
import { sittingMinutes } from '../../core/bench/sitting';
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

/** The sittings with their times; each can be corrected, removed and brought back. */
export function Sittings({ canvasId, first }: { canvasId: string; first: SittingRecord[] }) {
  const [sittings, setSittings] = useState(first);
  const [edited, setEdited] = useState<string | null>(null);
  const { fault, busy, write } = useWrite(canvasId);
  useEffect(() => setSittings(first), [first]);
  if (sittings.length === 0) return null;
  const kept = sittings.filter(({ removed }) => !removed);
  const removed = sittings.filter((sitting) => sitting.removed);
  const own = kept.find(({ id }) => id === edited);
  const say = (sitting: SittingRecord) => {
    const { id, startedAt, endedAt, note, removed: gone } = sitting;
    const body = { id: crypto.randomUUID(), startedAt, endedAt, note, removed: gone };
    void write<SittingRecord[]>('PUT', `/api/canvases/${canvasId}/sittings/${id}`, body, (next) => {
      setSittings(next);
      setEdited(null);
    });
  };
  return (
    <section className="mt-5">
      <h2>
        <TermWord term="sitting">Sittings</TermWord>
      </h2>
      {fault && <Notice kind="fault">{fault}</Notice>}
      {own && (
        <SittingForm
          key={own.id}
          sitting={own}
          busy={busy}
          onSave={say}
          onRemove={() => say({ ...own, removed: true })}
          onCancel={() => setEdited(null)}
        />
      )}
      <ScrollRegion label="Sittings" className="max-h-80">
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
                <button
                  type="button"
                  className="button"
                  aria-label={`Edit the sitting of ${began(row.startedAt)}`}
                  onClick={() => setEdited(row.id)}
                >
                  Edit
                </button>
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

function SittingForm({
  sitting,
  busy,
  onSave,
  onRemove,
  onCancel,
}: {
  sitting: SittingRecord;
  busy: boolean;
  onSave: (sitting: SittingRecord) => void;
  onRemove: () => void;
  onCancel: () => void;
}) {
  const [start, setStart] = useState(local(sitting.startedAt));
  const [end, setEnd] = useState(sitting.endedAt === null ? '' : local(sitting.endedAt));
  const [note, setNote] = useState(sitting.note);
  /** What was not touched keeps its seconds. */
  const moment = (text: string, before: string | null) =>
    before !== null && text === local(before) ? before : text === '' ? null : new Date(text).toISOString();
  return (
    <form
      className="slip mb-3 flex flex-wrap items-end gap-3"
      aria-label="Correct a sitting"
      onSubmit={(event) => {
        event.preventDefault();
        const startedAt = moment(start, sitting.startedAt);
        if (startedAt !== null)
          onSave({ ...sitting, startedAt, endedAt: moment(end, sitting.endedAt), note });
      }}
    >
      <label>
        <span className="block">Began</span>
        <input
          type="datetime-local"
          required
          className="field"
          value={start}
          onChange={(event) => setStart(event.target.value)}
        />
      </label>
      <label>
        <span className="block">Ended</span>
        <input
          type="datetime-local"
          required={sitting.endedAt !== null}
          className="field"
          value={end}
          onChange={(event) => setEnd(event.target.value)}
        />
      </label>
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
        <button type="button" className="button" disabled={busy} onClick={onRemove}>
          Remove
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}
