import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { meshFromText } from '../../core/reading/keptReading';
import { cellNear, type Mesh, placeInCell } from '../../core/reading/mesh';
import type { Example } from '../../core/reading/samples';
import { counted } from '../../core/words/numbers';
import type { ReadingView } from '../../server/reading/contract';
import { Chip } from '../../ui/Chip';
import { Notice } from '../../ui/Notice';
import { type BoardSpot, PointBoard } from '../../ui/PointBoard';
import type { SentSample } from '../../workers/reading';
import { ColourChoice } from './ColourChoice';
import { MeshLines } from './MeshLines';
import { photosInUse, squaresOfPhoto } from './steps';
import { pictureOf, useThreads } from './useReading';
import { useWork } from './useWork';

/** Examples of a colour that are enough. */
const ENOUGH = 3;

/** Squares of a photo are pointed at, one to three for each colour, where no list is at hand. */
export function ExampleSquares({
  canvas,
  legend,
  view,
  onKeep,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  view: ReadingView;
  onKeep: (samples: readonly SentSample[]) => Promise<boolean>;
}) {
  const threads = useThreads();
  const photos = photosInUse(view).filter((photo) => photo.kept && squaresOfPhoto(photo));
  const [id, setId] = useState(photos[0]?.id ?? '');
  const [mesh, setMesh] = useState<Mesh | null>(null);
  const [line, setLine] = useState(legend[0]!.line);
  const [examples, setExamples] = useState<readonly Example[]>([]);
  const { busy, fault, work } = useWork();
  const photo = photos.find((each) => each.id === id);
  if (!photo)
    return (
      <p className="text-lg">
        Add a photo and mark its corners first; then point at one to three squares of each colour here.
      </p>
    );
  const squares = squaresOfPhoto(photo)!;
  const url = pictureOf(canvas.id, photo);
  const follow = () =>
    work('Following the lines…', async () => {
      const { mesh: text } = await threads.ask<'mesh'>({ what: 'mesh', photo: url, squares });
      setMesh(meshFromText(text, squares.columns, squares.rows));
    });
  const tap = ({ x, y }: BoardSpot) => {
    const best = cellNear(mesh!, [x, y]);
    if (!best) return;
    const others = examples.filter(({ column, row }) => column !== best.column || row !== best.row);
    const next =
      others.length < examples.length ? others : [...others, { line, column: best.column, row: best.row }];
    setExamples(next);
    if (next.filter((each) => each.line === line).length < ENOUGH) return;
    const at = legend.findIndex((each) => each.line === line);
    const free = legend.slice(at + 1).find((each) => !next.some((one) => one.line === each.line));
    if (free) setLine(free.line);
  };
  const shown = ofLine(legend, line)!;
  const lines = new Set(examples.map((each) => each.line));
  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_22rem]">
      <PointBoard
        url={url}
        alt="A photo of which squares are pointed at"
        spots={[]}
        chosen={0}
        zoom={2}
        onChoose={() => {}}
        onMove={() => {}}
        onLoad={() => {}}
        {...(mesh ? { onTap: tap } : {})}
      >
        {mesh && <MeshLines mesh={mesh} pins={[]} />}
        {mesh &&
          examples.map(({ column, row }) => {
            const [x, y] = placeInCell(mesh, column, row, 0.5, 0.5);
            const [edge] = placeInCell(mesh, column, row, 0, 0.5);
            return (
              <circle
                key={`${column} ${row}`}
                cx={x}
                cy={y}
                r={(x - edge) * 0.9}
                fill="none"
                stroke="#ffdf8a"
                strokeWidth={4}
                vectorEffect="non-scaling-stroke"
              />
            );
          })}
      </PointBoard>
      <section className="flex flex-col gap-3" aria-label="Point at squares">
        <h2 className="text-xl">Point at squares of each colour</h2>
        <label>
          <span className="mb-1 block font-semibold">Photo</span>
          <select
            className="field"
            value={id}
            onChange={({ target }) => {
              setId(target.value);
              setMesh(null);
              setExamples([]);
            }}
          >
            {photos.map((each, i) => (
              <option key={each.id} value={each.id}>
                {i + 1} {each.name}
              </option>
            ))}
          </select>
        </label>
        {mesh ? (
          <>
            <div className="flex items-center gap-3">
              <Chip line={shown} shape={canvas.shape} size={44} />
              <ColourChoice
                legend={legend}
                label="Colour that is pointed at"
                value={line}
                after={(of) => ` (${examples.filter((each) => each.line === of).length})`}
                onChoose={(chosen) => setLine(chosen!)}
              />
            </div>
            <p>
              Tap up to three squares of {shown.code} on the photo, without shine on them and some way apart;
              tap one again to leave it out. More are better than one.
            </p>
            <button
              type="button"
              className="button button-main self-start"
              disabled={busy !== null || lines.size === 0}
              onClick={() =>
                void work('Looking at the squares…', async () => {
                  const { samples } = await threads.ask<'examples'>({
                    what: 'examples',
                    photo: url,
                    squares,
                    examples,
                  });
                  if (await onKeep(samples)) setExamples([]);
                })
              }
            >
              Keep {counted(lines.size, 'colour')}
            </button>
          </>
        ) : (
          <button
            type="button"
            className="button button-main self-start"
            disabled={busy !== null}
            onClick={() => void follow()}
          >
            Follow its lines
          </button>
        )}
        {busy && <p aria-live="polite">{busy}</p>}
        {fault && <Notice kind="fault">{fault}</Notice>}
      </section>
    </div>
  );
}
