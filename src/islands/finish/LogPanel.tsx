import type { LegendLine } from '../../core/canvas/legend';
import { LOG_PHOTOS, logRows } from '../../core/finish/logPage';
import type { FinishChange } from '../../core/finish/record';
import { many } from '../../core/words/numbers';
import type { FinishView } from '../../server/finish/contract';
import type { PhotoView } from '../../server/progress/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { DayField } from '../../ui/DayField';
import { ImageDown, Printer } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { Photos } from '../progress/Photos';
import { offer, pictureColours, pictureWithWords } from '../progress/pastPicture';
import { OtherText } from '../writing/OtherText';
import { useAnswer } from '../writing/useAnswer';
import type { TypedText } from '../writing/useTypedText';
import { useOutbox, useWrite } from '../writing/useWrite';

/** Photos on the screen's page of the log. */
const SHOWN = 6;

/** The page of the canvas in the log, and what is told for it. */
export function LogPanel({
  entry,
  legend,
  view,
  query,
  today,
  busy,
  onChange,
  notes,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  view: FinishView;
  query: string;
  /** `YYYY-MM-DD` where the user is. */
  today: string;
  busy: boolean;
  onChange: (part: FinishChange) => void;
  notes: TypedText;
}) {
  const { canvas, hasChart } = entry;
  const { record, facts } = view;
  const base = `/api/canvases/${canvas.id}`;
  const { answer: photos, reload: photosAgain } = useAnswer<PhotoView[]>(`${base}/photos`, ['other']);
  const { fault, act } = useWrite(canvas.id);
  const { waiting } = useOutbox();
  const kept = (photos ?? []).filter(({ removedAt }) => removedAt === null);
  const savePicture = async (data: ClothData) => {
    const lines = [
      ...logRows(facts).map(({ name, value }) => `${name}: ${value}`),
      ...facts.notes.split('\n').filter(Boolean),
    ];
    const urls = kept.map(({ id }) => `${base}/photos/${id}/photo.jpg`);
    offer(
      await pictureWithWords(facts.title, lines, data, pictureColours(legend, hasChart), urls),
      `${facts.title} log.png`,
    );
  };
  return (
    <div className="grid gap-6 lg:grid-cols-[1fr_24rem]">
      <article className="slip min-w-0" aria-label="Log page" data-testid="log-page">
        <h2 className="text-[1.5rem]" dir="auto">
          {facts.title}
        </h2>
        <div className="mt-3 grid gap-5 md:grid-cols-[auto_1fr]">
          {hasChart && (
            <img
              src={`${base}/picture.png?show=progress&width=480`}
              alt={`${facts.title} as it lies`}
              className="w-80 max-w-full border border-edge [image-rendering:pixelated]"
            />
          )}
          <dl className="grid grid-cols-[auto_1fr] content-start gap-x-4 gap-y-1">
            {logRows(facts).map(({ name, value }) => (
              <div key={name} className="contents">
                <dt className="text-faded">{name}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
        </div>
        {facts.notes && <p className="mt-3 whitespace-pre-line">{facts.notes}</p>}
        {kept.length > 0 && (
          <ul className="mt-3 flex flex-wrap gap-3">
            {kept.slice(0, SHOWN).map((photo) => (
              <li key={photo.id}>
                <img
                  src={`${base}/photos/${photo.id}/photo.jpg`}
                  alt={photo.note || 'Photo of the canvas'}
                  className="h-36 border border-edge"
                  loading="lazy"
                />
              </li>
            ))}
          </ul>
        )}
        {kept.length > LOG_PHOTOS && (
          <p className="mt-2 text-[0.95rem] text-faded">
            {kept.length > SHOWN && `The other ${many(kept.length - SHOWN)} are under Progress. `}
            The page on paper has the newest {LOG_PHOTOS}.
          </p>
        )}
      </article>
      <section className="flex flex-col gap-3">
        <div className="flex flex-wrap gap-3">
          <DayField
            words="Begun on"
            value={record.startedOn ?? facts.startedOn}
            onChange={(startedOn) => onChange({ startedOn })}
          />
          <DayField
            words="Finished on"
            value={record.finishedOn ?? facts.finishedOn}
            onChange={(finishedOn) => onChange({ finishedOn })}
          />
        </div>
        <div>
          <NumberField
            words="Minutes at the bench"
            className="[&_input]:!w-40"
            value={record.minutes ?? facts.minutes}
            least={0}
            most={6_000_000}
            whole
            late
            onChange={(minutes) => onChange({ minutes })}
          />
          {record.minutes !== null && (
            <button type="button" className="min-h-11 underline" onClick={() => onChange({ minutes: null })}>
              As the sittings say
            </button>
          )}
        </div>
        <label className="block">
          <span className="block">Notes</span>
          <textarea
            className="field h-36"
            maxLength={5000}
            value={notes.text}
            onChange={(event) => notes.type(event.target.value)}
            onBlur={notes.leave}
          />
        </label>
        {notes.theirs !== null && <OtherText theirs={notes.theirs} choose={notes.choose} />}
        <p className="text-[0.95rem] text-faded" aria-live="polite">
          {busy || waiting > 0 ? 'Saving…' : notes.isOpen ? 'The notes are not saved yet.' : 'All saved.'}
        </p>
        <details>
          <summary className="min-h-11 py-2 underline">Add photos, or take some away</summary>
          <Photos canvasId={canvas.id} today={today} onChange={photosAgain} />
        </details>
        <a className="button" href={`${base}/log.pdf${query}`}>
          <Printer size={20} aria-hidden /> Print the page
        </a>
        <WithCloth entry={entry}>
          {(data) => (
            <button type="button" className="button" onClick={() => void act(() => savePicture(data))}>
              <ImageDown size={20} aria-hidden /> The page as a picture
            </button>
          )}
        </WithCloth>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <a className="button" href="/log">
          The log of all canvases
        </a>
      </section>
    </div>
  );
}
