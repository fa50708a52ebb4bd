import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { Corners } from '../../core/chart/files/picture/corners';
import type { WordKind } from '../../core/codes/legendWords';
import { SPREADSHEET_TYPES } from '../../core/words/spreadsheetTypes';
import type { ChartReport } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { FilePicker } from '../../ui/FilePicker';
import { withLegend } from '../../ui/withLegend';
import { ApiProblem, sendFile } from '../writing/api';
import { JobLine } from '../writing/JobLine';
import { useJob } from '../writing/useJob';
import { ChartNav } from './ChartNav';
import { CornerPicker } from './CornerPicker';
import { FilesOut } from './FilesOut';
import { ReadReport } from './ReadReport';

/** What becomes of cells whose colour or word is on no line. */
type Rest = 'bare' | 'nearest';

/** A file and how it is to be read. */
interface Wish {
  /** Names the file to the server, so that it is sent once. */
  id: string;
  file: File;
  type: string;
  rest: Rest;
  /** How its words are read, where the reader said it. */
  words: WordKind | null;
  /** Corners of the chart on a picture, where the reader marked them. */
  corners: Corners | null;
}

/** A file that was read. */
interface Choice extends Wish {
  report: ChartReport;
}

/** Types by the ending of a file's name, because browsers do not know all of them. */
const TYPES: Record<string, string> = {
  png: 'image/png',
  webp: 'image/webp',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  tif: 'image/tiff',
  tiff: 'image/tiff',
  bmp: 'image/bmp',
  heic: 'image/heic',
  ...SPREADSHEET_TYPES,
  json: 'application/json',
  tsv: 'text/tab-separated-values',
};

/** Whether browsers show a picture of this kind, so that something can be marked on it. */
function isShown(type: string): boolean {
  return ['image/png', 'image/webp', 'image/jpeg', 'image/gif'].includes(type);
}

function typeOf(file: File): string {
  return TYPES[file.name.split('.').at(-1)?.toLowerCase() ?? ''] ?? 'text/csv';
}

/** Names a file that the server has; where it has it no longer, the file goes once more. */
async function sendKnown<Answer>(
  method: 'POST' | 'PUT',
  url: string,
  { file, type }: Pick<Wish, 'file' | 'type'>,
  signal: AbortSignal,
): Promise<Answer> {
  try {
    return await sendFile<Answer>(method, url, null, type, signal);
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 404) throw error;
    return sendFile<Answer>(method, url, file, type, signal);
  }
}

/** Reads the chart from a picture or a grid: choose, look at what was understood, then save. */
export const ChartIn = withLegend(ChartInWithList);

function ChartInWithList({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const [choice, setChoice] = useState<Choice | null>(null);
  /** The file in hand, also where it could not be read yet. */
  const [picked, setPicked] = useState<Wish | null>(null);
  const jobs = useJob();
  const { busy } = jobs;

  const addressOf = (what: 'chart' | 'chart-readings', wish: Wish, job: string) => {
    const query = new URLSearchParams({ unmatched: wish.rest, reading: wish.id, job });
    if (wish.words) query.set('words', wish.words);
    if (wish.corners)
      query.set('corners', wish.corners.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join());
    return `/api/canvases/${canvas.id}/${what}?${query}`;
  };
  const choose = (file: File) => {
    const wish: Wish = {
      id: crypto.randomUUID(),
      file,
      type: typeOf(file),
      rest: 'bare',
      words: null,
      corners: null,
    };
    setChoice(null);
    setPicked(wish);
    void jobs.run(async (job, signal) => {
      const url = addressOf('chart-readings', wish, job);
      setChoice({ ...wish, report: await sendFile<ChartReport>('POST', url, file, wish.type, signal) });
    });
  };
  const read = (wish: Wish) =>
    jobs.run(async (job, signal) => {
      const report = await sendKnown<ChartReport>(
        'POST',
        addressOf('chart-readings', wish, job),
        wish,
        signal,
      );
      setChoice({ ...wish, report });
    });
  const again = ({ report: _, ...wish }: Choice) => void read(wish);
  const save = (choice: Choice) =>
    void jobs.run(async (job, signal) => {
      await sendKnown('PUT', addressOf('chart', choice, job), choice, signal);
      window.location.assign(`/canvas/${canvas.id}/checkin`);
    });

  if (legend.length === 0) {
    return (
      <div className="flex max-w-xl flex-col gap-6">
        <div className="slip">
          <p className="mb-3 text-lg">
            The squares of the chart are matched to the colour list, so the list comes first.
          </p>
          <a className="button button-main" href={`/canvas/${canvas.id}/checkin/sheet`}>
            Read the colour list
          </a>
        </div>
        <FilesOut canvas={canvas} hasChart={false} />
      </div>
    );
  }
  return (
    <>
      <ChartNav canvasId={canvas.id} here="/read" />
      <div className="grid gap-5 lg:grid-cols-[23rem_1fr]">
        <section className="flex flex-col gap-3">
          <h2 className="text-xl">Read a chart</h2>
          <p>
            A picture (PNG, WebP, JPEG, GIF, TIFF) of {canvas.width} × {canvas.height} squares, drawn, scanned
            or photographed straight; a grid of symbols or codes (CSV, TSV, XLSX, ODS); or Oculent’s own JSON.
          </p>
          <FilePicker
            words="Choose a file"
            accept=".png,.webp,.jpg,.jpeg,.gif,.tif,.tiff,.bmp,.csv,.tsv,.txt,.xlsx,.ods,.json,image/*,text/csv,application/json"
            disabled={busy}
            onChoose={choose}
          />
          {!entry.hasChart && (
            <p>
              No chart to hand?{' '}
              <a className="underline" href={`/canvas/${canvas.id}/chart/photos`}>
                Read it from photos of the canvas
              </a>
              , or{' '}
              <a className="underline" href={`/canvas/${canvas.id}/checkin`}>
                go on without one
              </a>
              : check-in, kit-up and progress by area do not need it.
            </p>
          )}
          <p className="text-faded">A chart you bought is for your own use; please do not publish it.</p>
          <FilesOut canvas={canvas} hasChart={entry.hasChart} />
        </section>
        <section aria-live="polite" className="min-w-0">
          {busy && !jobs.running && <p>Reading…</p>}
          <JobLine jobs={jobs} words="Reading" />
          {choice && !busy && (
            <ReadReport
              file={choice.file}
              type={choice.type}
              report={choice.report}
              entry={entry}
              legend={legend}
              onSave={() => save(choice)}
              onNearest={() => again({ ...choice, rest: 'nearest' })}
              onWords={(words) => again({ ...choice, words })}
            />
          )}
          {picked && isShown(picked.type) && !busy && (
            <CornerPicker
              key={picked.id}
              file={picked.file}
              first={choice?.report.picture?.corners ?? null}
              open={choice === null}
              onUse={(corners) =>
                void read({ ...picked, rest: choice?.rest ?? 'bare', words: null, corners })
              }
            />
          )}
        </section>
      </div>
    </>
  );
}
