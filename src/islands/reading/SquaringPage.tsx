import { useCallback, useMemo, useRef, useState } from 'react';
import { otherCount } from '../../core/reading/countCells';
import { type Corners, cornersWithin, faultInCorners } from '../../core/reading/homography';
import { meshFromText } from '../../core/reading/keptReading';
import { cornerNear, type Mesh, type Pin } from '../../core/reading/mesh';
import { cellPixels, ENOUGH_CELL_PX, LEAST_CELL_PX } from '../../core/reading/readPhoto';
import { shotPlan } from '../../core/reading/shotPlan';
import { many } from '../../core/words/numbers';
import type { ReadingPhoto, ReadingView } from '../../server/reading/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Labelled } from '../../ui/Labelled';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { type BoardSpot, Lens, PointBoard } from '../../ui/PointBoard';
import { ToggleButton } from '../../ui/ToggleButton';
import { CORNER_NAMES } from '../chart/CornerPicker';
import { inWords } from '../writing/api';
import { WithView } from '../writing/WithView';
import { MeshLines } from './MeshLines';
import { PlaceFields } from './PlaceFields';
import { ReadingNav } from './ReadingNav';
import { photosInUse, squaresOfPhoto } from './steps';
import { addressOfReading, pictureOf, useReading, useThreads } from './useReading';

/** Where the squares of a photo lie: its corners, how many columns and rows, and whether the lines are followed rightly. */
export function SquaringPage({ entry, photo }: { entry: ShelfEntry; photo: string }) {
  return (
    <>
      <ReadingNav canvasId={entry.canvas.id} here="" />
      <WithView<ReadingView> url={addressOfReading(entry.canvas.id)}>
        {(first) => <Squaring entry={entry} id={photo} first={first} />}
      </WithView>
    </>
  );
}

/** Share of the photo by which the corners stand inside of it at first. */
const INSET = 0.06;
const ZOOMS = [1, 2, 4] as const;
/** Columns and rows until they are counted. */
const USUAL = { columns: 60, rows: 48 };

function Squaring({ entry, id, first }: { entry: ShelfEntry; id: string; first: ReadingView }) {
  const { canvas } = entry;
  const { view, show, writing, base } = useReading(canvas.id, first);
  const photo = view.photos.find((each) => each.id === id);
  if (!photo)
    return (
      <p className="mt-4">
        This photo is no longer here. <a href={`/canvas/${canvas.id}/chart/photos`}>Back to the photos</a>
      </p>
    );
  if (!photo.kept)
    return (
      <p className="mt-4 text-lg">
        Of this photo only its squares are kept; they can be read again on the{' '}
        <a className="underline" href={`/canvas/${canvas.id}/chart/photos`}>
          page of the photos
        </a>
        .
      </p>
    );
  return <Board key={id} {...{ entry, photo, view, show, writing, base }} />;
}

function Board({
  entry: { canvas },
  photo,
  view,
  show,
  writing,
  base,
}: {
  entry: ShelfEntry;
  photo: ReadingPhoto;
} & ReturnType<typeof useReading>) {
  const threads = useThreads();
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  const [corners, setCorners] = useState<Corners>(photo.corners ?? cornersWithin(photo, INSET));
  const [touched, setTouched] = useState(photo.corners !== null);
  const [count, setCount] = useState({
    columns: photo.columns ?? USUAL.columns,
    rows: photo.rows ?? USUAL.rows,
  });
  const [at, setAt] = useState(photo.at);
  const [pins, setPins] = useState<readonly Pin[]>(photo.pins);
  const [mesh, setMesh] = useState<Mesh | null>(null);
  const [node, setNode] = useState<{ column: number; row: number } | null>(null);
  const [chosen, setChosen] = useState(0);
  const [zoom, setZoom] = useState<(typeof ZOOMS)[number]>(1);
  const [busy, setBusy] = useState<string | null>(null);
  const [said, setSaid] = useState<{ kind: 'fault' | 'hint'; words: string } | null>(null);
  const plan = useMemo(() => shotPlan(canvas, 12), [canvas]);
  const newest = useRef(0);
  const px = cellPixels(corners, count.columns, count.rows);
  const fault = touched ? faultInCorners(corners, photo) : null;
  const url = pictureOf(canvas.id, photo);
  const others = photosInUse(view).filter((each) => each.id !== photo.id && !squaresOfPhoto(each));
  const number = photosInUse(view).findIndex(({ id }) => id === photo.id) + 1;

  const forget = () => {
    newest.current++;
    setSaid(null);
    setMesh(null);
    setNode(null);
  };
  const move = useCallback((which: number, { x, y }: BoardSpot) => {
    setTouched(true);
    setChosen(which);
    newest.current++;
    setMesh(null);
    setPins([]);
    setCorners((before) => before.map((spot, i) => (i === which ? [x, y] : spot)) as unknown as Corners);
  }, []);
  /** Work in the thread, of which only the newest counts. */
  const work = async (words: string, act: () => Promise<() => void>) => {
    const mine = ++newest.current;
    setBusy(words);
    setSaid(null);
    try {
      const then = await act();
      if (newest.current === mine) then();
    } catch (error) {
      if (newest.current === mine) setSaid({ kind: 'fault', words: inWords(error) });
    } finally {
      setBusy(null);
    }
  };
  const countThem = () =>
    work('Counting…', async () => {
      const { count: found } = await threads.ask<'count'>({ what: 'count', photo: url, corners });
      return () => {
        if (!found)
          return setSaid({
            kind: 'fault',
            words:
              'No lines come again between these corners. Is this the canvas, and do the corners lie on it?',
          });
        setCount({ columns: found.columns, rows: found.rows });
        setSaid({
          kind: 'hint',
          words: `Counted ${found.columns} columns and ${found.rows} rows, ${
            found.sure > 0.8 ? 'the same nearly everywhere.' : 'not the same everywhere: please check.'
          }`,
        });
      };
    });
  const follow = (through: readonly Pin[]) =>
    work('Following the lines…', async () => {
      const squares = { corners, ...count, pins: through };
      const { mesh: text, count: found } = await threads.ask<'mesh'>({ what: 'mesh', photo: url, squares });
      return () => {
        setMesh(meshFromText(text, count.columns, count.rows));
        const words = otherCount(found, count, 'told');
        if (words !== null) setSaid({ kind: 'fault', words });
      };
    });
  const pin = (spot: BoardSpot, which = node) => {
    if (!which) return;
    const rest = pins.filter(({ column, row }) => column !== which.column || row !== which.row);
    setPins([...rest, { ...which, ...spot }]);
  };
  const nodeSpot = (which: { column: number; row: number }): BoardSpot => {
    const own = pins.find(({ column, row }) => column === which.column && row === which.row);
    if (own) return own;
    const index = which.row * (count.columns + 1) + which.column;
    return { x: mesh!.x[index]!, y: mesh!.y[index]! };
  };
  const save = () => {
    const body = { corners, ...count, at, pins };
    void writing.write<ReadingView>('PATCH', `${base}/photos/${photo.id}`, body, (next) => {
      show(next);
      const left = photosInUse(next).find((each) => !squaresOfPhoto(each));
      window.location.assign(`/canvas/${canvas.id}/chart/photos${left ? `/${left.id}` : ''}`);
    });
  };
  const shot = at && plan.shots.findIndex((rect) => rect.x === at.column && rect.y === at.row);

  return (
    <div className="mt-2 grid gap-5 lg:grid-cols-[1fr_22rem]">
      <section className="min-w-0">
        <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl">
            Photo {number} <span className="text-base font-normal text-faded">{photo.name}</span>
          </h2>
          <div className="flex gap-2">
            {ZOOMS.map((each) => (
              <ToggleButton key={each} on={zoom === each} onChange={() => setZoom(each)}>
                {each === 1 ? 'All of it' : `${each}×`}
              </ToggleButton>
            ))}
          </div>
        </div>
        <PointBoard
          url={url}
          alt={`Photo ${number}, with the corners of its squares`}
          zoom={zoom}
          spots={
            node
              ? [
                  {
                    ...nodeSpot(node),
                    name: `Corner of squares in column ${node.column + 1}, row ${node.row + 1}`,
                  },
                ]
              : corners.map(([x, y], i) => ({ x, y, name: CORNER_NAMES[i]! }))
          }
          outlined={!mesh}
          chosen={node ? 0 : chosen}
          onChoose={(which) => !node && setChosen(which)}
          onMove={(which, spot) => (node ? pin(spot) : move(which, spot))}
          onLoad={setImage}
          {...(mesh ? { onTap: (spot: BoardSpot) => setNode(cornerNear(mesh, [spot.x, spot.y])) } : {})}
        >
          {mesh && <MeshLines mesh={mesh} pins={pins} />}
        </PointBoard>
      </section>
      <section className="flex flex-col gap-3" aria-label="Where its squares lie">
        {mesh ? (
          <>
            <h2 className="text-xl">Do the lines lie on the printed ones?</h2>
            <p>
              Look along all four sides and in the middle. Where they slip, tap the nearest crossing, set the
              ring on its place (drag it, or the arrow keys) and follow the lines again.
            </p>
            {node && image && (
              <div className="flex flex-wrap items-center gap-3">
                <Lens image={image} spot={nodeSpot(node)} zoom={3} />
                <div className="flex flex-col gap-2">
                  <div className="flex gap-3">
                    <NumberField
                      words="Left of column"
                      value={node.column + 1}
                      least={1}
                      most={count.columns + 1}
                      whole
                      className="w-28"
                      onChange={(column) => setNode({ ...node, column: column - 1 })}
                    />
                    <NumberField
                      words="Above row"
                      value={node.row + 1}
                      least={1}
                      most={count.rows + 1}
                      whole
                      className="w-28"
                      onChange={(row) => setNode({ ...node, row: row - 1 })}
                    />
                  </div>
                  <button
                    type="button"
                    className="button"
                    onClick={() => {
                      setPins(pins.filter((each) => each.column !== node.column || each.row !== node.row));
                      setNode(null);
                    }}
                  >
                    Leave it as it was
                  </button>
                </div>
              </div>
            )}
            {!node && (
              <button
                type="button"
                className="button self-start"
                onClick={() => setNode({ column: count.columns >> 1, row: count.rows >> 1 })}
              >
                Choose a crossing by its numbers
              </button>
            )}
            {pins.length > 0 && (
              <button
                type="button"
                className="button self-start"
                disabled={busy !== null}
                onClick={() => {
                  setNode(null);
                  void follow(pins);
                }}
              >
                Follow the lines again
              </button>
            )}
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="button button-main"
                disabled={writing.busy || busy !== null}
                onClick={save}
              >
                {others.length > 0 ? 'Yes, next photo' : 'Yes, save'}
              </button>
              <button type="button" className="button" onClick={forget}>
                Back to its corners
              </button>
            </div>
          </>
        ) : (
          <>
            <h2 className="text-xl">Mark its corners</h2>
            <p>
              Set each ring on an outer corner of a whole block of squares, as large as the photo shows
              sharply: drag it, tap where the chosen one belongs, or use the arrow keys.
            </p>
            <div className="flex flex-wrap items-center gap-3">
              {image && <Lens image={image} spot={spotOf(corners[chosen]!)} zoom={3} />}
              <p aria-live="polite">
                {CORNER_NAMES[chosen]}, at <span className="number">{corners[chosen]![0].toFixed(0)}</span>,{' '}
                <span className="number">{corners[chosen]![1].toFixed(0)}</span>
              </p>
            </div>
            <Labelled words="Which part does it show?">
              <select
                className="field"
                value={shot === null || shot < 0 ? 'other' : String(shot)}
                onChange={({ target }) => {
                  const rect = plan.shots[Number(target.value)];
                  setAt(rect ? { column: rect.x, row: rect.y } : null);
                  if (rect) setCount({ columns: rect.width, rows: rect.height });
                }}
              >
                <option value="other">Found by what it shows, or told below</option>
                {plan.shots.map((rect, i) => (
                  <option key={`${rect.x} ${rect.y}`} value={i}>
                    {i + 1}: columns {rect.x + 1} to {rect.x + rect.width}, rows {rect.y + 1} to{' '}
                    {rect.y + rect.height}
                  </option>
                ))}
              </select>
            </Labelled>
            <div className="flex flex-wrap items-end gap-3">
              <NumberField
                words="Columns"
                value={count.columns}
                least={1}
                most={1000}
                whole
                className="w-24"
                onChange={(columns) => setCount({ ...count, columns })}
              />
              <NumberField
                words="Rows"
                value={count.rows}
                least={1}
                most={1000}
                whole
                className="w-24"
                onChange={(rows) => setCount({ ...count, rows })}
              />
              <button
                type="button"
                className="button"
                disabled={!touched || busy !== null || fault !== null}
                onClick={() => void countThem()}
              >
                Count them
              </button>
            </div>
            <div className="flex flex-wrap items-end gap-3">
              <label className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-5 accent-accent"
                  checked={at !== null}
                  onChange={({ target }) => setAt(target.checked ? { column: 0, row: 0 } : null)}
                />
                I know where it lies
              </label>
              {at && <PlaceFields canvas={canvas} first place={at} onChange={setAt} />}
            </div>
            {touched && (
              <p className={px < ENOUGH_CELL_PX ? 'text-alarm' : ''}>
                A square is {many(Math.round(px))} pixels wide
                {px < LEAST_CELL_PX
                  ? ': too small to be read. Go nearer, or take more photos.'
                  : px < ENOUGH_CELL_PX
                    ? ': hard to read. A nearer photo is better.'
                    : '.'}
              </p>
            )}
            {fault && <Notice kind="fault">{fault}</Notice>}
            <button
              type="button"
              className="button button-main self-start"
              disabled={!touched || busy !== null || fault !== null || px < LEAST_CELL_PX}
              onClick={() => void follow(pins)}
            >
              Follow the lines
            </button>
          </>
        )}
        {busy && <p aria-live="polite">{busy}</p>}
        {said && <Notice kind={said.kind}>{said.words}</Notice>}
        {writing.fault && <Notice kind="fault">{writing.fault}</Notice>}
      </section>
    </div>
  );
}

const spotOf = ([x, y]: readonly [number, number]): BoardSpot => ({ x, y });
