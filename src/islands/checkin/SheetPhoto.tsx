import { useEffect, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { faultInPhoto } from '../../core/inspection/photo';
import { type Corners, cornersWithin } from '../../core/reading/homography';
import { counted } from '../../core/words/numbers';
import type { SheetPhotoReading } from '../../server/reading/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { FilePicker } from '../../ui/FilePicker';
import { Camera } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { type BoardSpot, Lens, PointBoard } from '../../ui/PointBoard';
import { mayBeSimulated } from '../../ui/standIns';
import { CORNER_NAMES } from '../chart/CornerPicker';
import { simulatedPhoto } from '../reading/simulated';
import { inWords, sendFile } from '../writing/api';
import { JobLine } from '../writing/JobLine';
import { useJob } from '../writing/useJob';
import type { ReadTable } from './HowRead';

const MOST_BYTES = 32_000_000;
/** Share of the photo by which the corners stand inside of it at first. */
const INSET = 0.08;

/** The printed sheet from a photo: its corners are marked, it is read, and what is doubtful is looked at beside its picture. */
export function SheetPhoto({ canvas, onTable }: { canvas: Canvas; onTable: (table: ReadTable) => void }) {
  const [file, setFile] = useState<Blob | null>(null);
  const [url, setUrl] = useState<string | null>(null);
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  const [corners, setCorners] = useState<Corners | null>(null);
  const [chosen, setChosen] = useState(0);
  const [reading, setReading] = useState<SheetPhotoReading | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const jobs = useJob();
  useEffect(() => {
    if (!file) return;
    const own = URL.createObjectURL(file);
    setUrl(own);
    return () => URL.revokeObjectURL(own);
  }, [file]);
  const take = (photo: Blob, known: Corners | null) => {
    setFile(photo);
    setCorners(known);
    setReading(null);
    setFault(null);
  };
  const choose = (photo: File) => {
    const unfit = faultInPhoto(photo, MOST_BYTES);
    if (unfit) return setFault(unfit);
    take(photo, null);
  };
  const simulate = async () => {
    try {
      const wish = { of: canvas.id, what: 'sheet', seed: Date.now() % 1e9 };
      const { photo, corners: known } = await simulatedPhoto(canvas.id, wish);
      take(photo, known[0] ?? null);
    } catch (error) {
      setFault(inWords(error));
    }
  };
  const size = image && { width: image.naturalWidth, height: image.naturalHeight };
  const shown: Corners | null = corners ?? (size && cornersWithin(size, INSET));
  const read = () =>
    void jobs.run(async (job, signal) => {
      setReading(null);
      const query = new URLSearchParams({
        canvas: canvas.id,
        corners: shown!.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(),
        job,
      });
      setReading(
        await sendFile<SheetPhotoReading>('POST', `/api/sheet-photos?${query}`, file, file!.type, signal),
      );
    });
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-center gap-3">
        <FilePicker
          words={
            <>
              <Camera size={20} aria-hidden /> {file ? 'Another photo' : 'Choose a photo of the sheet'}
            </>
          }
          accept="image/jpeg,image/png,image/webp"
          className={file ? '' : 'button-main'}
          disabled={jobs.busy}
          onChoose={choose}
        />
        {mayBeSimulated() && (
          <button type="button" className="button" disabled={jobs.busy} onClick={() => void simulate()}>
            Simulated camera
          </button>
        )}
        {!file && (
          <p>
            Lay the sheet flat in even light and photograph its whole table straight from above. Codes, names,
            drills and bags are read; symbols are not.
          </p>
        )}
      </div>
      {(fault ?? jobs.fault) && <Notice kind="fault">{fault ?? jobs.fault}</Notice>}
      {file && !reading && (
        <div className="grid gap-5 lg:grid-cols-[1fr_20rem]">
          <PointBoard
            url={url}
            alt="The photo of the sheet, with the corners of its table"
            spots={(shown ?? []).map(([x, y], i) => ({ x, y, name: CORNER_NAMES[i]! }))}
            outlined
            chosen={chosen}
            onChoose={setChosen}
            onMove={(which, { x, y }: BoardSpot) => {
              setChosen(which);
              if (shown)
                setCorners(shown.map((spot, i) => (i === which ? [x, y] : spot)) as unknown as Corners);
            }}
            onLoad={setImage}
          />
          <section className="flex flex-col gap-3" aria-label="Corners of the table">
            <h2 className="text-xl">Mark the corners of the table</h2>
            <p>Set each ring where the outer lines of the table meet, its headings included.</p>
            {image && shown && (
              <Lens image={image} spot={{ x: shown[chosen]![0], y: shown[chosen]![1] }} zoom={3} />
            )}
            <button
              type="button"
              className="button button-main self-start"
              disabled={!shown || jobs.busy}
              onClick={read}
            >
              Read the sheet
            </button>
            {jobs.busy && !jobs.running && <p aria-live="polite">Reading…</p>}
            <JobLine jobs={jobs} words="Reading column" />
          </section>
        </div>
      )}
      {reading && <Doubtful reading={reading} onTable={onTable} onBack={() => setReading(null)} />}
    </div>
  );
}

/** Cells that were hard to read or do not agree with the others, each beside its picture. */
function Doubtful({
  reading: { table, doubtful, sum },
  onTable,
  onBack,
}: {
  reading: SheetPhotoReading;
  onTable: (table: ReadTable) => void;
  onBack: () => void;
}) {
  const [texts, setTexts] = useState<ReadonlyMap<string, string>>(new Map());
  const keyOf = ({ row, column }: { row: number; column: number }) => `${row} ${column}`;
  const use = () =>
    onTable({
      ...table,
      rows: table.rows.map((row, r) => ({
        ...row,
        cells: row.cells.map((text, column) => texts.get(keyOf({ row: r, column })) ?? text),
      })),
    });
  return (
    <section aria-label="What was read" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="big-number">
            {doubtful.length === 0 ? 'Nothing doubtful' : `${counted(doubtful.length, 'cell')} to look at`}
          </p>
          <p>{counted(table.rows.length, 'row')} read. Nothing is saved yet.</p>
        </div>
        <div className="flex gap-2">
          <button type="button" className="button" onClick={onBack}>
            Back to the corners
          </button>
          <button type="button" className="button button-main" onClick={use}>
            Go on with this list
          </button>
        </div>
      </div>
      {sum && <Notice kind="fault">{sum}</Notice>}
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(18rem,1fr))]">
        {doubtful.map((entry) => (
          <li key={keyOf(entry)} className="slip flex flex-col gap-2">
            {entry.picture && (
              <img
                src={entry.picture}
                alt="As it is printed"
                className="h-10 self-start border border-edge"
              />
            )}
            <label>
              <span className="mb-1 block">
                Row {entry.row + 1}, {table.columns[entry.column]}
              </span>
              <input
                className="field number"
                {...AS_TYPED}
                value={texts.get(keyOf(entry)) ?? table.rows[entry.row]!.cells[entry.column] ?? ''}
                onChange={({ target }) => setTexts(new Map(texts).set(keyOf(entry), target.value))}
              />
            </label>
            <p className="text-faded">{entry.why}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
