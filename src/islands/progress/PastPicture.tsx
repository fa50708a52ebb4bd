import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { countLaid } from '../../core/cells/bitmap';
import { type DayChange, laidAt } from '../../core/progress/laidByDay';
import { percentLaid } from '../../core/progress/progress';
import { dayInWords } from '../../core/words/calendar';
import { many } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Film, Pause, Play } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import type { ClothData } from '../cloth/useClothData';
import { useAnswer } from '../writing/useAnswer';
import { drawPicture, offer, outSize, pictureColours } from './pastPicture';

/** A film shows so many pictures a second, and lasts about so long, s. */
const FRAMES_A_SECOND = 10;
const FILM_SECONDS = 12;

/** The canvas as it lay at the end of any day, with a slider, and the whole way as a film. */
export function PastPicture({
  entry,
  legend,
  data,
  zone,
  drills,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  data: ClothData;
  zone: string;
  drills: number;
}) {
  const { canvas, hasChart } = entry;
  const { answer, fault } = useAnswer<{ days: DayChange[] }>(
    `/api/canvases/${canvas.id}/laid-by-day?zone=${encodeURIComponent(zone)}`,
    ['marks'],
  );
  const { chart } = data;
  const colours = useMemo(() => pictureColours(legend, hasChart), [legend, hasChart]);
  const days = useMemo(() => answer?.days ?? [], [answer]);
  const [at, setAt] = useState<number | null>(null);
  const [playing, setPlaying] = useState(false);
  const [filming, setFilming] = useState<number | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const picture = useRef<HTMLCanvasElement>(null);
  const shown = Math.min(at ?? days.length - 1, days.length - 1);
  const day = days[shown]?.day ?? null;
  const laid = useMemo(() => laidAt(days, day, chart.cells.length), [days, day, chart]);
  useEffect(() => {
    if (picture.current) drawPicture(picture.current, chart, colours, laid);
  }, [chart, colours, laid]);
  useEffect(() => {
    if (!playing) return;
    const timer = setInterval(() => {
      setAt((before) => {
        const next = (before ?? 0) + Math.max(1, Math.round(days.length / (FILM_SECONDS * FRAMES_A_SECOND)));
        if (next < days.length - 1) return next;
        setPlaying(false);
        return days.length - 1;
      });
    }, 1000 / FRAMES_A_SECOND);
    return () => clearInterval(timer);
  }, [playing, days.length]);
  const film = useCallback(async () => {
    setFailed(null);
    setFilming(0);
    try {
      await takeFilm(canvas.title, chart, colours, days, setFilming);
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'The film could not be made.');
    } finally {
      setFilming(null);
    }
  }, [canvas.title, chart, colours, days]);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!answer) return <p aria-live="polite">Loading…</p>;
  if (days.length === 0)
    return <p className="slip max-w-xl">Nothing is laid yet, so there is no past to look at.</p>;
  const count = countLaid(laid);
  return (
    <section aria-label="The canvas at a past day" className="min-w-0">
      <p aria-live="polite" data-testid="past">
        <span className="text-[1.2rem] font-semibold">{day && dayInWords(day, { weekday: true })}</span>:{' '}
        {many(count)} laid, {percentLaid(count, drills).toFixed(2)} %
      </p>
      <canvas
        ref={picture}
        role="img"
        aria-label={`${canvas.title} at the end of that day`}
        className="my-2 block h-[26rem] max-w-full object-contain [image-rendering:pixelated]"
        style={{ aspectRatio: `${chart.width} / ${chart.height}` }}
      />
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="button !px-3"
          aria-label={playing ? 'Pause' : 'Play all days'}
          title={playing ? 'Pause' : 'Play all days'}
          onClick={() => {
            if (!playing && shown === days.length - 1) setAt(0);
            setPlaying(!playing);
          }}
        >
          {playing ? <Pause size={20} aria-hidden /> : <Play size={20} aria-hidden />}
        </button>
        <label className="grow">
          <span className="sr-only">Day</span>
          <input
            type="range"
            className="h-11 w-full accent-accent"
            min={0}
            max={days.length - 1}
            value={shown}
            aria-valuetext={day ? dayInWords(day) : ''}
            onChange={(event) => {
              setPlaying(false);
              setAt(Number(event.target.value));
            }}
          />
        </label>
        <button type="button" className="button" disabled={filming !== null} onClick={() => void film()}>
          <Film size={20} aria-hidden />{' '}
          {filming === null ? 'Make a film' : `${Math.round(filming * 100)} %…`}
        </button>
      </div>
      {failed && <Notice kind="fault">{failed}</Notice>}
    </section>
  );
}

/** The days as a WebM film; where the browser makes none, as numbered pictures in a ZIP. */
async function takeFilm(
  title: string,
  chart: ClothData['chart'],
  colours: ReturnType<typeof pictureColours>,
  days: readonly DayChange[],
  report: (share: number) => void,
): Promise<void> {
  const small = document.createElement('canvas');
  const frame = document.createElement('canvas');
  const size = outSize(chart);
  frame.width = size.width;
  frame.height = size.height;
  const context = frame.getContext('2d')!;
  context.imageSmoothingEnabled = size.width < chart.width;
  const every = Math.max(1, Math.ceil(days.length / (FILM_SECONDS * FRAMES_A_SECOND)));
  const chosen = days.filter((_, i) => i % every === 0 || i === days.length - 1);
  const draw = (day: string) => {
    drawPicture(small, chart, colours, laidAt(days, day, chart.cells.length));
    context.drawImage(small, 0, 0, size.width, size.height);
  };
  if ('MediaRecorder' in window && MediaRecorder.isTypeSupported('video/webm')) {
    draw(chosen[0]!.day);
    const recorder = new MediaRecorder(frame.captureStream(FRAMES_A_SECOND), { mimeType: 'video/webm' });
    const pieces: Blob[] = [];
    recorder.ondataavailable = ({ data }) => pieces.push(data);
    const ended = new Promise<void>((resolve, reject) => {
      recorder.onstop = () => resolve();
      recorder.onerror = () => reject(new Error('The browser could not make the film.'));
    });
    recorder.start();
    for (const [i, { day }] of chosen.entries()) {
      draw(day);
      report(i / chosen.length);
      await new Promise((resolve) => setTimeout(resolve, 1000 / FRAMES_A_SECOND));
    }
    // The last picture stays for a moment.
    await new Promise((resolve) => setTimeout(resolve, 1000));
    recorder.stop();
    await ended;
    offer(new Blob(pieces, { type: 'video/webm' }), `${title}.webm`);
    return;
  }
  const { zipSync } = await import('fflate');
  const files: Record<string, Uint8Array> = {};
  for (const [i, { day }] of chosen.entries()) {
    draw(day);
    const blob = await new Promise<Blob | null>((resolve) => frame.toBlob(resolve, 'image/png'));
    if (blob)
      files[`${String(i + 1).padStart(4, '0')} ${day}.png`] = new Uint8Array(await blob.arrayBuffer());
    report(i / chosen.length);
  }
  offer(
    new Blob([zipSync(files, { level: 0 }) as Uint8Array<ArrayBuffer>], { type: 'application/zip' }),
    `${title} pictures.zip`,
  );
}
