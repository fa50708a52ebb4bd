import { useState } from 'react';
import { faultInPhoto } from '../../core/inspection/photo';
import { KEPT_DAYS } from '../../core/shelf/deleted';
import { dayInWords } from '../../core/words/calendar';
import { counted } from '../../core/words/numbers';
import type { PhotoView } from '../../server/progress/contract';
import { DayField } from '../../ui/DayField';
import { FilePicker } from '../../ui/FilePicker';
import { Notice } from '../../ui/Notice';
import { sendFile } from '../writing/api';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';

/** Photos of the work by their day; each can be corrected, removed and brought back. */
export function Photos({
  canvasId,
  today,
  onChange = () => {},
}: {
  canvasId: string;
  today: string;
  /** Told when a photo came, went or was corrected. */
  onChange?: () => void;
}) {
  const url = `/api/canvases/${canvasId}/photos`;
  const { answer, fault: lost, reload: readAgain } = useAnswer<PhotoView[]>(url, ['other']);
  const { fault, setFault, busy, act, write } = useWrite(canvasId);
  const reload = () => {
    readAgain();
    onChange();
  };
  const [day, setDay] = useState(today);
  const [note, setNote] = useState('');
  const send = async (file: File) => {
    const unfit = faultInPhoto(file);
    if (unfit) return setFault(unfit);
    const query = new URLSearchParams({ id: crypto.randomUUID(), takenOn: day, note });
    const sent = await act(async () => {
      await sendFile('POST', `${url}?${query}`, file, file.type);
    });
    // What was typed meanwhile is for the next one.
    if (sent) setNote((now) => (now === note ? '' : now));
    reload();
  };
  const say = (photo: PhotoView, removed: boolean) =>
    void write(
      'PUT',
      `${url}/${photo.id}`,
      { takenOn: photo.takenOn, note: photo.note, removed },
      reload,
      true,
    );
  const kept = answer?.filter(({ removedAt }) => removedAt === null) ?? [];
  const removed = answer?.filter(({ removedAt }) => removedAt !== null) ?? [];
  return (
    <section aria-label="Photos">
      <h2>Photos</h2>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <DayField words="Taken on" value={day} most={today} onChange={(taken) => setDay(taken ?? today)} />
        <label className="grow basis-52">
          <span className="block">Note</span>
          <input
            className="field"
            maxLength={500}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        <FilePicker
          words="Add a photo"
          accept="image/jpeg,image/png,image/webp"
          disabled={busy}
          onChoose={(file) => void send(file)}
        />
      </div>
      {(fault ?? lost) && <Notice kind="fault">{fault ?? lost}</Notice>}
      <ul className="mt-3 grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))]">
        {kept.map((photo) => (
          <li key={photo.id} className="slip !p-3">
            <a href={`${url}/${photo.id}/photo.jpg`}>
              <img
                src={`${url}/${photo.id}/photo.jpg`}
                alt={photo.note || `The canvas on ${dayInWords(photo.takenOn)}`}
                className="w-full border border-edge"
                loading="lazy"
              />
            </a>
            <p className="mt-1 font-semibold">{dayInWords(photo.takenOn)}</p>
            {photo.note && <p className="text-[0.95rem]">{photo.note}</p>}
            <button type="button" className="button mt-1" onClick={() => say(photo, true)}>
              Remove<span className="sr-only"> the photo of {dayInWords(photo.takenOn)}</span>
            </button>
          </li>
        ))}
      </ul>
      {removed.length > 0 && (
        <details>
          <summary className="min-h-11 py-2 underline">
            {counted(removed.length, 'removed photo')}, kept for {KEPT_DAYS} days
          </summary>
          <ul>
            {removed.map((photo) => (
              <li key={photo.id} className="flex flex-wrap items-center gap-3 py-1">
                <span className="grow">
                  {dayInWords(photo.takenOn)} {photo.note}
                </span>
                <button type="button" className="button" onClick={() => say(photo, false)}>
                  Bring back
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
