import { useMemo, useState } from 'react';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import type { Corners } from '../../core/reading/homography';
import { counted } from '../../core/words/numbers';
import type { ReadingPhoto, ReadingView } from '../../server/reading/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip, Colour } from '../../ui/Chip';
import { FilePicker } from '../../ui/FilePicker';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { type BoardSpot, Lens, PointBoard } from '../../ui/PointBoard';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import type { SentSample } from '../../workers/reading';
import { CORNER_NAMES } from '../chart/CornerPicker';
import { sendFile } from '../writing/api';
import { WithView } from '../writing/WithView';
import { ColourChoice } from './ColourChoice';
import { ExampleSquares } from './ExampleSquares';
import { ReadingNav } from './ReadingNav';
import { SampleGlyph } from './SampleGlyph';
import { SimulatedList } from './SimulatedList';
import { withoutSample } from './steps';
import { addressOfReading, pictureOf, useReading, useThreads } from './useReading';
import { useWork } from './useWork';

/** How each colour looks in print: from a photo of the printed list, or from squares that are pointed at. */
export const ColoursPage = withLegend(({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) => (
  <>
    <ReadingNav canvasId={entry.canvas.id} here="/colours" />
    <WithView<ReadingView> url={addressOfReading(entry.canvas.id)}>
      {(first) => <Colours entry={entry} legend={legend} first={first} />}
    </WithView>
  </>
));

function Colours({ entry, legend, first }: { entry: ShelfEntry; legend: LegendLine[]; first: ReadingView }) {
  const { canvas } = entry;
  const reading = useReading(canvas.id, first);
  const { view, show, writing, base } = reading;
  const [byList, setByList] = useState(true);
  const missing = withoutSample(legend, view);
  const lists = view.photos.filter(({ kind, removed, kept }) => kind === 'list' && !removed && kept);
  const list = lists.at(-1);
  const send = (file: File) =>
    void writing.act(async () => {
      const query = new URLSearchParams({
        id: crypto.randomUUID(),
        kind: 'list',
        name: file.name.slice(0, 200),
      });
      show(await sendFile<ReadingView>('POST', `${base}/photos?${query}`, file, file.type));
    });
  const keep = (samples: readonly SentSample[], origin: 'list' | 'example') =>
    writing.write<ReadingView>(
      'PUT',
      `${base}/samples`,
      { id: crypto.randomUUID(), samples: samples.map((sample) => ({ ...sample, origin })) },
      show,
    );
  return (
    <div className="mt-2 flex flex-col gap-4">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="big-number" data-testid="samples-known">
            {legend.length - missing.length} of {counted(legend.length, 'colour')} known
          </p>
          <p>
            {missing.length === 0
              ? 'Every colour’s symbol and tint is known as it is printed.'
              : 'Squares are compared with how each colour is printed: its symbol and its tint.'}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <ToggleButton on={byList} onChange={() => setByList(true)}>
            From a photo of the printed list
          </ToggleButton>
          <ToggleButton on={!byList} onChange={() => setByList(false)}>
            From squares of a photo
          </ToggleButton>
          {missing.length === 0 && (
            <a className="button button-main" href={`/canvas/${canvas.id}/chart/photos`}>
              Back to the photos
            </a>
          )}
        </div>
      </div>
      {writing.fault && <Notice kind="fault">{writing.fault}</Notice>}
      {byList ? (
        <>
          <div className="flex flex-wrap items-center gap-3">
            <FilePicker
              words={list ? 'Another photo of the list' : 'Add a photo of the printed list'}
              accept="image/jpeg,image/png,image/webp"
              className={list ? '' : 'button-main'}
              disabled={writing.busy}
              onChoose={send}
            />
            <SimulatedList canvasId={canvas.id} onTaken={show} onFault={(words) => writing.setFault(words)} />
            {!list && (
              <p>Lay it flat, in even light, without a shadow or shine; white paper around each swatch.</p>
            )}
          </div>
          {list && (
            <SwatchColumns
              key={list.id}
              canvasId={canvas.id}
              list={list}
              legend={legend}
              first={missing[0]?.line ?? legend[0]!.line}
              shape={canvas.shape}
              onKeep={(samples) => keep(samples, 'list')}
            />
          )}
        </>
      ) : (
        <ExampleSquares
          canvas={canvas}
          legend={legend}
          view={view}
          onKeep={(samples) => keep(samples, 'example')}
        />
      )}
      {view.samples.length > 0 && (
        <section aria-label="Known colours">
          <h2 className="text-xl">As they are printed</h2>
          <ul className="mt-2 grid gap-2 [grid-template-columns:repeat(auto-fill,minmax(14rem,1fr))]">
            {legend.map((line) => {
              const sample = view.samples.find((each) => each.line === line.line);
              return (
                <li key={line.line} className="flex items-center gap-3 bg-paper px-2 py-1">
                  {sample ? (
                    <SampleGlyph sample={sample} />
                  ) : (
                    <span className="flex size-10 items-center justify-center border border-dashed border-edge">
                      ?
                    </span>
                  )}
                  <Colour line={line} shape={canvas.shape} />
                </li>
              );
            })}
          </ul>
        </section>
      )}
    </div>
  );
}

/** Share of the photo at which the corners of a column stand at first. */
const AT_FIRST = { left: 0.1, right: 0.18, top: 0.08, bottom: 0.92 };

/** A photo of the list: column after column of swatches is marked, cut apart and given to the colours in their order. */
function SwatchColumns({
  canvasId,
  list,
  legend,
  first,
  shape,
  onKeep,
}: {
  canvasId: string;
  list: ReadingPhoto;
  legend: LegendLine[];
  /** The colour of the first swatch. */
  first: number;
  shape: ShelfEntry['canvas']['shape'];
  onKeep: (samples: readonly SentSample[]) => Promise<boolean>;
}) {
  const threads = useThreads();
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  const [corners, setCorners] = useState<Corners>(() => {
    const [left, right] = [list.width * AT_FIRST.left, list.width * AT_FIRST.right];
    const [top, bottom] = [list.height * AT_FIRST.top, list.height * AT_FIRST.bottom];
    return (
      list.corners ?? [
        [left, top],
        [right, top],
        [right, bottom],
        [left, bottom],
      ]
    );
  });
  const [chosen, setChosen] = useState(0);
  /** As it was typed; null to have them counted. */
  const [count, setCount] = useState<number | null>(null);
  const [start, setStart] = useState(first);
  const [cut, setCut] = useState<{ swatches: Corners[]; lines: (number | null)[] } | null>(null);
  const { busy, fault, work } = useWork();
  const url = pictureOf(canvasId, list);
  const cutApart = () =>
    work('Cutting…', async () => {
      const { swatches } = await threads.ask<'swatches'>({
        what: 'swatches',
        photo: url,
        corners,
        count,
        most: legend.length,
      });
      const at = legend.findIndex(({ line }) => line === start);
      setCut({ swatches, lines: swatches.map((_, i) => legend[at + i]?.line ?? null) });
    });
  const keep = () =>
    work('Looking at the swatches…', async () => {
      const swatches = cut!.swatches.flatMap((each, i) => {
        const line = cut!.lines[i];
        return line == null ? [] : [{ line, corners: each }];
      });
      const { samples } = await threads.ask<'samples'>({ what: 'samples', photo: url, swatches });
      const kept = await onKeep(samples);
      if (!kept) return;
      const last = legend.findIndex(({ line }) => line === cut!.lines.findLast((each) => each !== null));
      const next = legend[last + 1];
      setCut(null);
      setCount(null);
      if (!next) return;
      setStart(next.line);
      // The next column lies to the right, often as far again as this one is wide.
      const [[left], [right]] = corners;
      const aside = Math.min(2 * (right - left), list.width - Math.max(corners[1][0], corners[2][0]));
      setCorners(corners.map(([x, y]) => [x + aside, y]) as unknown as Corners);
    });
  const twice = cut?.lines.find((line, i) => line !== null && cut.lines.indexOf(line) !== i);
  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_24rem]">
      <PointBoard
        url={url}
        alt="The printed list, with the corners of a column of swatches"
        spots={corners.map(([x, y], i) => ({ x, y, name: CORNER_NAMES[i]! }))}
        outlined
        chosen={chosen}
        onChoose={setChosen}
        onMove={(which, { x, y }: BoardSpot) => {
          setChosen(which);
          setCut(null);
          setCorners(corners.map((spot, i) => (i === which ? [x, y] : spot)) as unknown as Corners);
        }}
        onLoad={setImage}
      >
        {cut?.swatches.map((swatch) => (
          <polygon
            key={swatch.join()}
            points={swatch.map(([x, y]) => `${x},${y}`).join(' ')}
            fill="none"
            stroke="#b3005e"
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </PointBoard>
      <section className="flex flex-col gap-3" aria-label="A column of swatches">
        <h2 className="text-xl">One column of swatches at a time</h2>
        <p>
          Set the rings around a column: from the upper edge of its first swatch to the lower edge of its
          last, as wide as the swatches.
        </p>
        {image && <Lens image={image} spot={{ x: corners[chosen]![0], y: corners[chosen]![1] }} zoom={2} />}
        <div className="flex flex-wrap items-end gap-3">
          <NumberField
            words="Swatches in it (0: count them)"
            value={count ?? cut?.swatches.length ?? 0}
            least={0}
            most={legend.length}
            whole
            className="w-44"
            onChange={(next) => {
              setCount(next === 0 ? null : next);
              setCut(null);
            }}
          />
          <div>
            <span aria-hidden className="mb-0.5 block text-[0.95rem]">
              The first is
            </span>
            <ColourChoice
              legend={legend}
              label="The first is"
              value={start}
              onChoose={(line) => {
                setStart(line!);
                setCut(null);
              }}
            />
          </div>
        </div>
        {busy && <p aria-live="polite">{busy}</p>}
        {fault && <Notice kind="fault">{fault}</Notice>}
        {!cut && (
          <button
            type="button"
            className="button button-main self-start"
            disabled={busy !== null}
            onClick={() => void cutApart()}
          >
            Cut the swatches apart
          </button>
        )}
        {cut && image && (
          <>
            <ol className="flex max-h-96 flex-col gap-1 overflow-y-auto">
              {cut.swatches.map((swatch, i) => {
                const line = ofLine(legend, cut.lines[i] ?? null);
                return (
                  <li key={swatch.join()} className="flex items-center gap-3 bg-paper px-2 py-1">
                    <Cutout image={image} corners={swatch} />
                    {line && <Chip line={line} shape={shape} />}
                    <ColourChoice
                      legend={legend}
                      label={`Swatch ${i + 1} is`}
                      value={cut.lines[i] ?? ''}
                      before={[{ value: '', words: 'no colour of the list' }]}
                      onChoose={(chosen) => {
                        const lines = [...cut.lines];
                        lines[i] = chosen;
                        setCut({ ...cut, lines });
                      }}
                    />
                  </li>
                );
              })}
            </ol>
            {twice !== undefined && twice !== null && (
              <Notice kind="fault">
                {ofLine(legend, twice)?.code} stands beside two swatches; change one.
              </Notice>
            )}
            <button
              type="button"
              className="button button-main self-start"
              disabled={busy !== null || (twice !== undefined && twice !== null)}
              onClick={() => void keep()}
            >
              Yes, these belong together
            </button>
          </>
        )}
      </section>
    </div>
  );
}

const CUTOUT_PX = 44;

/** A piece of a picture, upright. */
function Cutout({ image, corners }: { image: HTMLImageElement; corners: Corners }) {
  const draw = useMemo(
    () => (canvas: HTMLCanvasElement | null) => {
      const context = canvas?.getContext('2d');
      if (!context) return;
      const [[x, y], , [right, bottom]] = corners;
      context.drawImage(image, x, y, right - x, bottom - y, 0, 0, CUTOUT_PX, CUTOUT_PX);
    },
    [image, corners],
  );
  return (
    <canvas ref={draw} width={CUTOUT_PX} height={CUTOUT_PX} className="border border-edge" aria-hidden />
  );
}
