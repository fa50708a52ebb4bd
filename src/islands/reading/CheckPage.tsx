import { useMemo, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { contradictionInWords, countSuspects, reviewGroups, shareRead } from '../../core/reading/review';
import { counted, many } from '../../core/words/numbers';
import type { ReadingView } from '../../server/reading/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { sendFile } from '../writing/api';
import { JobLine } from '../writing/JobLine';
import { useJob } from '../writing/useJob';
import { WithView } from '../writing/WithView';
import { ContactSheet } from './ContactSheet';
import { CountSuspects } from './CountSuspects';
import { DoubtfulSquares } from './DoubtfulSquares';
import { ReadingNav } from './ReadingNav';
import { UnclearPlaces } from './UnclearPlaces';
import { useAnswers } from './useAnswers';
import { useReadChart } from './useReadChart';
import { addressOfReading, useReading } from './useReading';
import { WhereFrom } from './WhereFrom';

/** What was read, checked by eye: squares in doubt, counts that are not the list's, all squares of a colour. */
export const CheckPage = withLegend(({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) => (
  <>
    <ReadingNav canvasId={entry.canvas.id} here="/check" />
    <WithView<ReadingView> url={addressOfReading(entry.canvas.id)}>
      {(first) => <Checked entry={entry} legend={legend} first={first} />}
    </WithView>
  </>
));

type Part = 'doubt' | 'count' | 'colour' | 'where';

function Checked({ entry, legend, first }: { entry: ShelfEntry; legend: LegendLine[]; first: ReadingView }) {
  const { canvas } = entry;
  const { view, show, writing, base } = useReading(canvas.id, first);
  const { answers, answer, undo, undoWords } = useAnswers(view, show, writing, base, canvas.width);
  const read = useReadChart(canvas, view, answers);
  const { chart, stitched } = read;
  const [part, setPart] = useState<Part>('doubt');
  const [line, setLine] = useState(legend[0]?.line ?? 1);
  const [keepPhotos, setKeepPhotos] = useState(false);
  const [done, setDone] = useState<string | null>(null);
  const jobs = useJob();
  const groups = useMemo(() => (chart ? reviewGroups(chart) : []), [chart]);
  const suspects = useMemo(() => (chart ? countSuspects(chart, legend) : []), [chart, legend]);
  const share = useMemo(() => chart && shareRead(chart), [chart]);
  const accept = () =>
    void jobs.run(async (job, signal) => {
      // It may take longer than other writes, and be ended.
      const body = new Blob([JSON.stringify({ id: crypto.randomUUID(), keepPhotos })]);
      const type = 'application/json';
      const answerOf = await sendFile<ReadingView & { done: string }>(
        'PUT',
        `${base}/chart?job=${job}`,
        body,
        type,
        signal,
      );
      show(answerOf);
      setDone(answerOf.done);
    });
  const lookAt = (which: number) => {
    setLine(which);
    setPart('colour');
  };
  if (read.photos.length === 0)
    return (
      <p className="mt-4 text-lg">
        No photo has been read yet.{' '}
        <a className="underline" href={`/canvas/${canvas.id}/chart/photos`}>
          Add photos and read them
        </a>{' '}
        first.
      </p>
    );
  const whole = share !== null && share.read === share.squares;
  return (
    <div className="mt-2 flex flex-col gap-4">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="big-number" data-testid="left-to-check">
            {share === null
              ? 'Putting the photos together…'
              : share.open === 0
                ? 'Every square is settled'
                : `${counted(share.open, 'square')} to look at`}
          </p>
          {share && (
            <p>
              {whole
                ? `All ${many(share.squares)} squares read`
                : `${many(share.read)} of ${many(share.squares)} squares read`}
              {suspects.length > 0 && whole
                ? `; ${counted(suspects.length, 'colour')} not as often as the colour list says.`
                : whole
                  ? '; every colour as often as the colour list says.'
                  : '.'}
            </p>
          )}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <button
            type="button"
            className="button"
            disabled={!undo}
            onClick={undo ?? undefined}
            title={undoWords}
          >
            Undo
          </button>
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-5 accent-accent"
              checked={keepPhotos}
              onChange={({ target }) => setKeepPhotos(target.checked)}
            />
            Keep the photos too
          </label>
          <button
            type="button"
            className={`button ${share?.open === 0 ? 'button-main' : ''}`}
            disabled={!chart || jobs.busy || writing.busy}
            onClick={accept}
          >
            {share && share.open > 0
              ? `Make the chart with ${counted(share.open, 'square')} in doubt`
              : 'Make the chart'}
          </button>
        </div>
      </div>
      <JobLine jobs={jobs} words="Making the chart" />
      {done && (
        <Notice kind="hint">
          {done}{' '}
          <a className="underline" href={`/canvas/${canvas.id}/chart`}>
            See the chart
          </a>
        </Notice>
      )}
      {(read.fault ?? writing.fault) && <Notice kind="fault">{read.fault ?? writing.fault}</Notice>}
      {stitched?.contradicted.map((each) => (
        <Notice key={each.photo} kind="fault">
          {contradictionInWords(each, read.numbers[each.photo]!)}
        </Notice>
      ))}
      {stitched && stitched.unclear.length > 0 && (
        <UnclearPlaces
          canvas={canvas}
          photos={read.photos}
          numbers={read.numbers}
          stitched={stitched}
          onPlace={(photo, at) => {
            void writing.write('PATCH', `${base}/photos/${photo.id}`, { at }, show);
          }}
        />
      )}
      <fieldset className="flex flex-wrap gap-2">
        <legend className="sr-only">What to check</legend>
        <ToggleButton on={part === 'doubt'} onChange={() => setPart('doubt')}>
          In doubt {share ? many(share.open) : ''}
        </ToggleButton>
        <ToggleButton on={part === 'count'} onChange={() => setPart('count')}>
          Counts {whole ? many(suspects.length) : ''}
        </ToggleButton>
        <ToggleButton on={part === 'colour'} onChange={() => setPart('colour')}>
          All of a colour
        </ToggleButton>
        <ToggleButton on={part === 'where'} onChange={() => setPart('where')}>
          Where a square is from
        </ToggleButton>
      </fieldset>
      {chart && part === 'doubt' && (
        <DoubtfulSquares
          canvas={canvas}
          legend={legend}
          samples={view.samples}
          groups={groups}
          read={read}
          onAnswer={answer}
          onUndo={undo}
        />
      )}
      {chart && part === 'count' && (
        <CountSuspects
          suspects={suspects}
          whole={whole}
          legend={legend}
          shape={canvas.shape}
          onLook={lookAt}
        />
      )}
      {chart && part === 'colour' && (
        <ContactSheet
          key={line}
          canvas={canvas}
          legend={legend}
          line={line}
          read={read}
          onLine={setLine}
          onAnswer={answer}
        />
      )}
      {chart && part === 'where' && <WhereFrom canvas={canvas} legend={legend} read={read} />}
      {jobs.fault && <Notice kind="fault">{jobs.fault}</Notice>}
    </div>
  );
}
