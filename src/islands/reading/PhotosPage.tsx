import { useMemo, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { faultInPhoto } from '../../core/inspection/photo';
import { causeOfDoubt, faultInDoubt } from '../../core/reading/doubt';
import { bytesToText } from '../../core/reading/keptReading';
import { ENOUGH_CELL_PX } from '../../core/reading/readPhoto';
import { shotPlan, stateOfShot } from '../../core/reading/shotPlan';
import type { Stitched } from '../../core/reading/stitch';
import { counted, many } from '../../core/words/numbers';
import type { ReadingPhoto, ReadingView } from '../../server/reading/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { FilePicker } from '../../ui/FilePicker';
import { Camera, Check, CircleDashed, Trash2 } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { withLegend } from '../../ui/withLegend';
import { inWords, sendFile } from '../writing/api';
import { WithView } from '../writing/WithView';
import { ReadingNav } from './ReadingNav';
import { ShotPlanDrawing } from './ShotPlanDrawing';
import { SimulatedCamera } from './SimulatedCamera';
import { doubtfulIn, photosInUse, squaresOfPhoto, withoutSample } from './steps';
import { Stopped } from './threads';
import { useReadChart } from './useReadChart';
import { addressOfReading, pictureOf, useReading, useThreads } from './useReading';

/** Photos of the canvas: which to take, which are there, and how far each is. */
export const PhotosPage = withLegend(({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) => (
  <>
    <ReadingNav canvasId={entry.canvas.id} here="" />
    {legend.length === 0 ? (
      <div className="slip max-w-xl">
        <p className="mb-3 text-lg">
          Squares are read as colours of the colour list, so the list comes first.
        </p>
        <a className="button button-main" href={`/canvas/${entry.canvas.id}/checkin/sheet`}>
          Enter the colour list
        </a>
      </div>
    ) : (
      <WithView<ReadingView> url={addressOfReading(entry.canvas.id)}>
        {(first) => <Photos entry={entry} legend={legend} first={first} />}
      </WithView>
    )}
  </>
));

function Photos({ entry, legend, first }: { entry: ShelfEntry; legend: LegendLine[]; first: ReadingView }) {
  const { canvas } = entry;
  const { view, show, writing, base } = useReading(canvas.id, first);
  const [megapixels, setMegapixels] = useState(12);
  const [sending, setSending] = useState(0);
  /** Share that is read of each photo that is being read. */
  const [running, setRunning] = useState<ReadonlyMap<string, number> | null>(null);
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map());
  const threads = useThreads();
  const plan = useMemo(() => shotPlan(canvas, megapixels), [canvas, megapixels]);
  // While photos are read, each that is done would have all of them put together again.
  const { stitched } = useReadChart(canvas, running ? NOTHING : view, NO_ANSWERS);
  const photos = photosInUse(view);
  const removed = view.photos.filter((photo) => photo.removed && photo.kind === 'canvas');
  const missing = withoutSample(legend, view);
  const ready = photos.filter((photo) => squaresOfPhoto(photo) && !photo.reading);
  const read = photos.filter(({ reading }) => reading);
  const where = whereShown(photos, stitched);
  const shots = plan.shots.map((rect) => stateOfShot(rect, where));
  /** Photos of which only reading tells where they lie. */
  const unplaced = where.filter(({ shows, read }) => shows === null && !read).length;
  const here = `/canvas/${canvas.id}/chart/photos`;

  const send = async (file: File) => {
    const unfit = faultInPhoto(file, MOST_BYTES);
    if (unfit) return writing.setFault(unfit);
    setSending((n) => n + 1);
    const query = new URLSearchParams({ id: crypto.randomUUID(), name: file.name.slice(0, 200) });
    await writing.act(async () => {
      show(await sendFile<ReadingView>('POST', `${base}/photos?${query}`, file, file.type));
    });
    setSending((n) => n - 1);
  };
  const change = (photo: ReadingPhoto, gone: boolean) => {
    void writing.write('PATCH', `${base}/photos/${photo.id}`, { removed: gone }, show, true);
  };
  const readAll = async (some: readonly ReadingPhoto[]) => {
    setRunning(new Map(some.map(({ id }) => [id, 0])));
    setFaults(new Map());
    await Promise.all(some.map((photo) => readOne(photo)));
    setRunning(null);
  };
  const readOne = async (photo: ReadingPhoto) => {
    const squares = squaresOfPhoto(photo)!;
    try {
      const { reading, picture, flagged } = await threads.ask<'read'>(
        { what: 'read', photo: pictureOf(canvas.id, photo), squares, samples: view.samples },
        (share) => setRunning((before) => before && new Map(before).set(photo.id, share)),
      );
      const unread = faultInDoubt(flagged, reading.columns * reading.rows);
      if (unread !== null) throw new Error(unread);
      const body = {
        id: crypto.randomUUID(),
        corners: photo.corners,
        ...reading,
        picture: bytesToText(new Uint8Array(await picture.arrayBuffer())),
      };
      await writing.write<ReadingView>('PUT', `${base}/photos/${photo.id}/result`, body, show);
    } catch (error) {
      if (error instanceof Stopped) return;
      setFaults((before) => new Map(before).set(photo.id, inWords(error)));
    } finally {
      setRunning((before) => {
        const left = new Map(before);
        left.delete(photo.id);
        return before && left;
      });
    }
  };
  const squares = photos.reduce(
    (sum, { reading }) => sum + (reading ? reading.columns * reading.rows : 0),
    0,
  );
  const doubtful = useMemo(() => photosInUse(view).map(doubtfulIn), [view]);
  const doubted = photos.flatMap(({ reading }, i) => {
    const cause = reading && causeOfDoubt(doubtful[i]!, reading.columns * reading.rows);
    return cause ? [{ number: i + 1, cause }] : [];
  });
  const unmarked = photos.find((photo) => !squaresOfPhoto(photo));

  return (
    <div className="mt-2 grid gap-5 lg:grid-cols-[22rem_1fr]">
      <section className="flex flex-col gap-3">
        <h2 className="text-xl">
          {counted(plan.shots.length, 'photo')} of about {plan.shots[0]!.width} × {plan.shots[0]!.height}{' '}
          squares
        </h2>
        <ShotPlanDrawing canvas={canvas} plan={plan} states={shots} />
        <NumberField
          words="Megapixels of your camera"
          value={megapixels}
          least={2}
          most={200}
          onChange={setMegapixels}
          className="max-w-52"
        />
        <ul className="list-disc pl-5">
          <li>Lay the canvas flat, no drills on it yet. Through its clear cover is fine.</li>
          <li>
            Hold the camera {plan.upright ? 'upright' : 'across'}, straight above; leave a little of the next
            squares around, so that photos overlap.
          </li>
          <li>
            A square is to be {many(Math.round(plan.cellPx))} pixels wide; under {ENOUGH_CELL_PX} it is hard
            to read.
          </li>
          <li>Then all once more with the lamp moved: what shines in one round is clear in the other.</li>
        </ul>
      </section>
      <section className="flex min-w-0 flex-col gap-4 max-lg:order-first" aria-label="Photos">
        <div className="flex flex-wrap items-end justify-between gap-4">
          <div>
            <p className="big-number" data-testid="photos-read">
              {read.length === 0
                ? counted(photos.length, 'photo')
                : `${read.length} of ${counted(photos.length, 'photo')} read`}
            </p>
            <p>
              {squares > 0
                ? `${many(squares)} squares, those in two photos counted twice.`
                : `${shots.filter((state) => state !== 'missing').length} of ${shots.length} parts of the canvas are there.`}
              {unplaced > 0 &&
                ` Where ${counted(unplaced, 'photo')} ${unplaced === 1 ? 'lies is found by reading it' : 'lie is found by reading them'}.`}
            </p>
          </div>
          <div className="flex flex-wrap gap-2">
            <FilePicker
              words={
                <>
                  <Camera size={20} aria-hidden /> Add photos
                </>
              }
              accept="image/jpeg,image/png,image/webp"
              several
              className={photos.length === 0 ? 'button-main' : ''}
              onChoose={(file) => void send(file)}
            />
            <SimulatedCamera
              canvasId={canvas.id}
              plan={plan}
              onTaken={show}
              onFault={(words) => writing.setFault(words)}
            />
            {unmarked ? (
              <a className="button button-main" href={`${here}/${unmarked.id}`}>
                Mark the corners of the next photo
              </a>
            ) : missing.length > 0 && photos.length > 0 ? (
              <a className="button button-main" href={`${here}/colours`}>
                Show the colours in print
              </a>
            ) : ready.length > 0 && !running ? (
              <button type="button" className="button button-main" onClick={() => void readAll(ready)}>
                Read {counted(ready.length, 'photo')}
              </button>
            ) : (
              read.length > 0 &&
              !running && (
                <a className="button button-main" href={`${here}/check`}>
                  Check what was read
                </a>
              )
            )}
          </div>
        </div>
        {sending > 0 && <p aria-live="polite">Taking {counted(sending, 'photo')} in…</p>}
        {running && (
          <div className="flex flex-wrap items-center gap-3" aria-live="polite">
            <p>Reading {counted(running.size, 'photo')}…</p>
            <button type="button" className="button" onClick={() => threads.stop()}>
              Cancel
            </button>
          </div>
        )}
        {writing.fault && <Notice kind="fault">{writing.fault}</Notice>}
        {doubted[0] && (
          <p className="max-w-prose">
            {doubted.length === 1
              ? `In photo ${doubted[0].number}`
              : `In ${counted(doubted.length, 'photo')}`}{' '}
            much is in doubt. {doubted[0].cause}
          </p>
        )}
        {photos.length === 0 && (
          <p className="text-lg">
            Take the photos with a phone and add them here; a phone that has joined this shelf can open this
            very page and use its camera.
          </p>
        )}
        <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
          {photos.map((photo, i) => (
            <PhotoSlip
              key={photo.id}
              photo={photo}
              number={i + 1}
              doubtful={doubtful[i]!}
              canvasId={canvas.id}
              share={running?.get(photo.id) ?? null}
              fault={faults.get(photo.id) ?? null}
              onAgain={missing.length === 0 && !running ? () => void readAll([photo]) : null}
              onRemove={() => change(photo, true)}
            />
          ))}
        </ul>
        {removed.length > 0 && (
          <details>
            <summary className="min-h-11 py-2">{counted(removed.length, 'photo')} removed</summary>
            <ul className="flex flex-wrap gap-3">
              {removed.map((photo) => (
                <li key={photo.id} className="flex items-center gap-2">
                  {photo.name}
                  <button type="button" className="button" onClick={() => change(photo, false)}>
                    Bring back
                  </button>
                </li>
              ))}
            </ul>
          </details>
        )}
      </section>
    </div>
  );
}

const NO_ANSWERS: ReadonlyMap<number, number> = new Map();
const NOTHING: ReadingView = { photos: [], samples: [], answers: [], undo: null, accepted: null };

/** Where each photo lies, as it is told or as what it shows has told; and whether it is read. */
function whereShown(photos: readonly ReadingPhoto[], stitched: Stitched | null) {
  const read = photos.filter(({ reading }) => reading);
  return photos.map((photo) => {
    const at = photo.at ?? stitched?.places[read.indexOf(photo)] ?? null;
    const { columns, rows } = photo;
    const known = at && columns !== null && rows !== null;
    return {
      shows: known ? { x: at.column, y: at.row, width: columns, height: rows } : null,
      read: photo.reading !== null,
    };
  });
}

/** Largest photo that is sent. */
const MOST_BYTES = 32_000_000;

function PhotoSlip({
  photo,
  number,
  doubtful,
  canvasId,
  share,
  fault,
  onAgain,
  onRemove,
}: {
  photo: ReadingPhoto;
  number: number;
  /** Squares that somebody has to look at. */
  doubtful: number;
  canvasId: string;
  share: number | null;
  fault: string | null;
  onAgain: (() => void) | null;
  onRemove: () => void;
}) {
  const squared = squaresOfPhoto(photo) !== null;
  return (
    <li className="slip flex flex-col gap-2" aria-label={`Photo ${number}`}>
      <img
        src={pictureOf(canvasId, photo)}
        alt={`Number ${number}, ${photo.name}`}
        loading="lazy"
        className="h-36 w-full object-cover"
      />
      <p className="flex items-center gap-2 font-semibold">
        {photo.reading ? <Check size={20} aria-hidden /> : <CircleDashed size={20} aria-hidden />}
        Photo {number}
        <span className="truncate font-normal text-faded">{photo.name}</span>
      </p>
      <p>
        {share !== null
          ? `Reading, ${Math.round(share * 100)} %`
          : photo.reading
            ? doubtful === 0
              ? `Read: ${many(photo.reading.columns * photo.reading.rows)} squares, none in doubt.`
              : `Read: ${many(doubtful)} of ${many(photo.reading.columns * photo.reading.rows)} squares in doubt.`
            : squared
              ? `${photo.columns} × ${photo.rows} squares, not read yet.`
              : 'Its corners are not marked yet.'}
      </p>
      {photo.reading && photo.reading.cellPx < ENOUGH_CELL_PX && (
        <p className="text-alarm">
          Squares are only {Math.round(photo.reading.cellPx)} pixels wide; a nearer photo is read better.
        </p>
      )}
      {fault && <Notice kind="fault">{fault}</Notice>}
      <div className="mt-auto flex flex-wrap gap-2">
        {photo.kept && (
          <a className="button" href={`/canvas/${canvasId}/chart/photos/${photo.id}`}>
            {squared ? 'Corners' : 'Mark its corners'}
          </a>
        )}
        {squared && onAgain && (
          <button type="button" className="button" onClick={onAgain}>
            {photo.reading ? 'Read again' : 'Read'}
          </button>
        )}
        <button type="button" className="button" aria-label={`Remove photo ${number}`} onClick={onRemove}>
          <Trash2 size={20} aria-hidden />
        </button>
      </div>
    </li>
  );
}
