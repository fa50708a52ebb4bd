import { Download } from 'lucide-react';
import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { counted, many } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/contract/canvases';
import type { ChartReport } from '../../server/contract/chart';
import { inWords, sendFile } from '../../ui/api';
import { Colour } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';

interface Choice {
  file: File;
  type: string;
  report: ChartReport;
}

/** Reads the chart from a picture or a grid: choose, look at what was understood, then save. */
export function ChartIn({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const [choice, setChoice] = useState<Choice | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const act = async (work: () => Promise<void>) => {
    setBusy(true);
    setFault(null);
    try {
      await work();
    } catch (error) {
      setFault(inWords(error));
    }
    setBusy(false);
  };
  const choose = (file: File | undefined) => {
    setChoice(null);
    if (!file) return;
    const type = /\.png$/i.test(file.name) || file.type === 'image/png' ? 'image/png' : 'text/csv';
    void act(async () => {
      const report = await sendFile<ChartReport>(
        'POST',
        `/api/canvases/${canvas.id}/chart-readings`,
        file,
        type,
      );
      setChoice({ file, type, report });
    });
  };
  const save = ({ file, type }: Choice) =>
    act(async () => {
      await sendFile('PUT', `/api/canvases/${canvas.id}/chart?unmatched=bare`, file, type);
      window.location.assign(`/canvas/${canvas.id}/checkin`);
    });

  if (legend.length === 0) {
    return (
      <div className="slip max-w-xl">
        <p className="mb-3 text-lg">
          The chart’s cells are matched to the lines of the sheet, so the sheet comes first.
        </p>
        <a className="button button-main" href={`/canvas/${canvas.id}/checkin/sheet`}>
          Read the inventory sheet
        </a>
      </div>
    );
  }
  return (
    <div className="grid gap-5 lg:grid-cols-[23rem_1fr]">
      <section className="flex flex-col gap-3">
        <h2 className="text-xl">The chart</h2>
        <p>
          Choose a PNG picture with one pixel a cell, {canvas.width} × {canvas.height}, or a CSV grid of
          symbols or codes of the same size.
        </p>
        <label className="button" htmlFor="chart-file">
          Choose a file
        </label>
        <input
          id="chart-file"
          type="file"
          accept=".png,.csv,.tsv,.txt,image/png,text/csv"
          className="sr-only"
          disabled={busy}
          onChange={(event) => {
            choose(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        {fault && <Notice kind="fault">{fault}</Notice>}
        {entry.hasChart ? (
          <Notice kind="hint">
            This canvas has a chart.{' '}
            <a className="underline" href={`/api/canvases/${canvas.id}/chart.csv`}>
              <Download size={16} className="inline" aria-hidden /> As a grid of codes (CSV)
            </a>{' '}
            or{' '}
            <a
              className="underline"
              href={`/api/canvases/${canvas.id}/picture.png?width=4000`}
              download={`${canvas.title}.png`}
            >
              as a picture (PNG)
            </a>
          </Notice>
        ) : (
          <p>
            No chart at hand?{' '}
            <a className="underline" href={`/canvas/${canvas.id}/checkin`}>
              Go on without one
            </a>
            : check-in, kit-up and progress by area do not need it.
          </p>
        )}
        <p className="text-faded">A chart you bought is for your own use; please do not publish it.</p>
      </section>
      <section aria-live="polite" className="min-w-0">
        {busy && <p>Reading…</p>}
        {choice && !busy && (
          <Report choice={choice} entry={entry} legend={legend} onSave={() => void save(choice)} />
        )}
      </section>
    </div>
  );
}

function Report({
  choice: { file, report },
  entry,
  legend,
  onSave,
}: {
  choice: Choice;
  entry: ShelfEntry;
  legend: LegendLine[];
  onSave: () => void;
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
        </Notice>
      )}
      {report.nearly.length > 0 && (
        <Notice kind="hint">
          <strong>Taken as the same colour</strong>
          <ul>
            {report.nearly.slice(0, 12).map(({ hex, cells, line }) => (
              <li key={hex} className="number">
                {hex} as {legend[line - 1]?.code}: {counted(cells, 'cell')}
              </li>
            ))}
          </ul>
        </Notice>
      )}
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
                value: (row) => legend[row.line - 1]!.code,
                show: (row) => <Colour line={legend[row.line - 1]!} shape={entry.canvas.shape} />,
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
