import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { WORD_KINDS, type WordKind } from '../../core/codes/legendWords';
import { differenceInWords } from '../../core/colour/difference';
import { counted, many } from '../../core/words/numbers';
import type { ChartReport } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Colour } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';
import { FilePicker } from '../../ui/FilePicker';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { ApiProblem, sendFile } from '../writing/api';
import { JobLine } from '../writing/JobLine';
import { useJob } from '../writing/useJob';
import { ChartNav } from './ChartNav';
import { FilesOut } from './FilesOut';

/** What becomes of cells whose colour or word is on no line. */
type Rest = 'bare' | 'nearest';

interface Choice {
  /** Names the file to the server, so that it is sent once. */
  id: string;
  file: File;
  type: string;
  rest: Rest;
  /** How its words are read, where the reader said it. */
  words: WordKind | null;
  report: ChartReport;
}

/** Types by the ending of a file's name, because browsers do not know all of them. */
const TYPES: Record<string, string> = {
  png: 'image/png',
  webp: 'image/webp',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  json: 'application/json',
  tsv: 'text/tab-separated-values',
};

function typeOf(file: File): string {
  return TYPES[file.name.split('.').at(-1)?.toLowerCase() ?? ''] ?? 'text/csv';
}

/** Names a file that the server has; where it has it no longer, the file goes once more. */
async function sendKnown<Answer>(
  method: 'POST' | 'PUT',
  url: string,
  { file, type }: Choice,
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
export function ChartIn({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const [choice, setChoice] = useState<Choice | null>(null);
  const jobs = useJob();
  const { busy } = jobs;

  const choose = (file: File) => {
    const type = typeOf(file);
    const id = crypto.randomUUID();
    setChoice(null);
    void jobs.run(async (job, signal) => {
      const url = addressOf('chart-readings', 'bare', null, id, job);
      const report = await sendFile<ChartReport>('POST', url, file, type, signal);
      setChoice({ id, file, type, rest: 'bare', words: null, report });
    });
  };
  const addressOf = (
    what: 'chart' | 'chart-readings',
    rest: Rest,
    words: WordKind | null,
    id: string,
    job: string,
  ) =>
    `/api/canvases/${canvas.id}/${what}?unmatched=${rest}&reading=${id}&job=${job}${words ? `&words=${encodeURIComponent(words)}` : ''}`;
  const again = (choice: Choice, rest: Rest, words: WordKind | null) =>
    void jobs.run(async (job, signal) => {
      const url = addressOf('chart-readings', rest, words, choice.id, job);
      setChoice({
        ...choice,
        rest,
        words,
        report: await sendKnown<ChartReport>('POST', url, choice, signal),
      });
    });
  const save = (choice: Choice) =>
    void jobs.run(async (job, signal) => {
      await sendKnown('PUT', addressOf('chart', choice.rest, choice.words, choice.id, job), choice, signal);
      window.location.assign(`/canvas/${canvas.id}/checkin`);
    });

  if (legend.length === 0) {
    return (
      <div className="flex max-w-xl flex-col gap-6">
        <div className="slip">
          <p className="mb-3 text-lg">
            The chart’s cells are matched to the lines of the sheet, so the sheet comes first.
          </p>
          <a className="button button-main" href={`/canvas/${canvas.id}/checkin/sheet`}>
            Read the inventory sheet
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
            A picture (PNG, WebP, JPEG) of {canvas.width} × {canvas.height} cells, with one pixel a cell or
            larger cells of one size; a CSV or TSV grid of symbols or codes; or Oculent’s own JSON.
          </p>
          <FilePicker
            words="Choose a file"
            accept=".png,.webp,.jpg,.jpeg,.csv,.tsv,.txt,.json,image/png,image/webp,image/jpeg,text/csv,application/json"
            disabled={busy}
            onChoose={choose}
          />
          {!entry.hasChart && (
            <p>
              No chart at hand?{' '}
              <a className="underline" href={`/canvas/${canvas.id}/checkin`}>
                Go on without one
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
            <Report
              choice={choice}
              entry={entry}
              legend={legend}
              onSave={() => save(choice)}
              onNearest={() => again(choice, 'nearest', choice.words)}
              onWords={(words) => again(choice, choice.rest, words)}
            />
          )}
        </section>
      </div>
    </>
  );
}

function Report({
  choice: { file, type, report },
  entry,
  legend,
  onSave,
  onNearest,
  onWords,
}: {
  choice: Choice;
  entry: ShelfEntry;
  legend: LegendLine[];
  onSave: () => void;
  onNearest: () => void;
  onWords: (words: WordKind) => void;
}) {
  const differing = report.lines.filter((line) => line.onChart !== line.onSheet);
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="big-number">{many(report.drills)} drills</p>
          <p>
            read from {file.name}
            {report.bareCells > 0 && `; ${counted(report.bareCells, 'cell')} without a drill`}
          </p>
        </div>
        <button type="button" className="button button-main" disabled={report.drills === 0} onClick={onSave}>
          {report.unmatched.length > 0 ? 'Save, and leave those cells bare' : 'Save this chart'}
        </button>
      </div>
      {report.unmatched.length > 0 && (
        <Notice kind="fault">
          <strong>On no line of the sheet</strong>
          <ul className="max-h-48 overflow-y-auto">
            {report.unmatched.slice(0, 100).map(({ value, cells }) => (
              <li key={value} className="number flex items-center gap-2">
                {value.startsWith('#') && (
                  <span className="inline-block size-5 border border-edge" style={{ background: value }} />
                )}
                {value}: {counted(cells, 'cell')}
              </li>
            ))}
          </ul>
          {report.unmatched.length > 100 && <p>and {report.unmatched.length - 100} more</p>}
          {type.startsWith('image/') && (
            <button type="button" className="button mt-2" onClick={onNearest}>
              Take the nearest colour of the sheet for each
            </button>
          )}
        </Notice>
      )}
      {report.words && (
        <fieldset className="flex flex-wrap items-center gap-2">
          <legend className="sr-only">What the words of the file are</legend>
          <span>Its words are</span>
          {WORD_KINDS.map((kind) => (
            <ToggleButton key={kind} on={report.words?.kind === kind} onChange={() => onWords(kind)}>
              {kind}
            </ToggleButton>
          ))}
        </fieldset>
      )}
      {report.notices.map((notice) => (
        <Notice key={notice} kind="hint">
          {notice}
        </Notice>
      ))}
      {report.nearly.length > 0 && <Merges report={report} entry={entry} legend={legend} />}
      <p>
        {differing.length === 0
          ? 'Every colour has as many drills on the chart as on the sheet.'
          : `${counted(differing.length, 'colour')} with another number of drills than the sheet says:`}
      </p>
      {differing.length > 0 && (
        <div className="overflow-x-auto bg-paper">
          <DataTable
            caption="Colours whose number on the chart differs from the sheet"
            rows={differing}
            rowKey={(row) => String(row.line)}
            columns={[
              {
                key: 'colour',
                header: 'Colour',
                value: (row) => ofLine(legend, row.line)!.code,
                show: (row) => <Colour line={ofLine(legend, row.line)!} shape={entry.canvas.shape} />,
              },
              {
                key: 'sheet',
                header: 'On the sheet',
                numeric: true,
                value: (row) => row.onSheet,
                show: (row) => many(row.onSheet),
              },
              {
                key: 'chart',
                header: 'On the chart',
                numeric: true,
                value: (row) => row.onChart,
                show: (row) => many(row.onChart),
              },
            ]}
          />
        </div>
      )}
    </div>
  );
}

const MERGES_SHOWN = 40;

/** Colours of the picture that are taken for a colour of the sheet, the furthest off first. */
function Merges({ report, entry, legend }: { report: ChartReport; entry: ShelfEntry; legend: LegendLine[] }) {
  const furthest = [...report.nearly].sort((a, b) => b.difference - a.difference);
  return (
    <div className="overflow-x-auto bg-paper">
      <h3 className="px-3 pt-3 text-lg">Taken as the same colour</h3>
      <DataTable
        caption={`Taken as the same colour${furthest.length > MERGES_SHOWN ? `: the ${MERGES_SHOWN} furthest off of ${many(furthest.length)}` : ''}`}
        rows={furthest.slice(0, MERGES_SHOWN)}
        rowKey={(row) => row.hex}
        columns={[
          {
            key: 'hex',
            header: 'In the picture',
            value: (row) => row.hex,
            show: (row) => (
              <span className="number inline-flex items-center gap-2">
                <span className="inline-block size-7 border border-edge" style={{ background: row.hex }} />
                {row.hex}
              </span>
            ),
          },
          {
            key: 'line',
            header: 'Taken as',
            value: (row) => ofLine(legend, row.line)!.code,
            show: (row) => <Colour line={ofLine(legend, row.line)!} shape={entry.canvas.shape} />,
          },
          {
            key: 'difference',
            header: 'How far off',
            value: (row) => row.difference,
            show: (row) => differenceInWords(row.difference),
          },
          {
            key: 'cells',
            header: 'Cells',
            numeric: true,
            value: (row) => row.cells,
            show: (row) => many(row.cells),
          },
        ]}
      />
    </div>
  );
}
