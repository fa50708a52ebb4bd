import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { WORD_KINDS, type WordKind } from '../../core/codes/legendWords';
import { differenceInWords } from '../../core/colour/difference';
import { counted, many } from '../../core/words/numbers';
import type { ChartReport } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Colour } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { LeastSure } from './LeastSure';

/** What was understood of a chart file, to be looked at before it is saved. */
export function ReadReport({
  file,
  type,
  report,
  entry,
  legend,
  onSave,
  onNearest,
  onWords,
}: {
  file: File;
  /** Media type of the file. */
  type: string;
  report: ChartReport;
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
            {report.bareCells > 0 && `; ${counted(report.bareCells, 'square')} without a drill`}
          </p>
        </div>
        <button type="button" className="button button-main" disabled={report.drills === 0} onClick={onSave}>
          {report.unmatched.length > 0 ? 'Save, and leave those squares bare' : 'Save this chart'}
        </button>
      </div>
      {report.unmatched.length > 0 && (
        <Notice kind="fault">
          <strong>Not in the colour list</strong>
          <ul className="max-h-48 overflow-y-auto">
            {report.unmatched.slice(0, 100).map(({ value, cells }) => (
              <li key={value} className="number flex items-center gap-2">
                {value.startsWith('#') && (
                  <span
                    className="swatch inline-block size-5 border border-edge"
                    style={{ background: value }}
                  />
                )}
                {value}: {counted(cells, 'square')}
              </li>
            ))}
          </ul>
          {report.unmatched.length > 100 && <p>and {report.unmatched.length - 100} more</p>}
          {type.startsWith('image/') && (
            <button type="button" className="button mt-2" onClick={onNearest}>
              Use the nearest colour of the list for each
            </button>
          )}
        </Notice>
      )}
      {report.words && (
        <fieldset className="flex flex-wrap items-center gap-2">
          <legend className="sr-only">What the words in the file are</legend>
          <span>Its words are</span>
          {WORD_KINDS.map((kind) => (
            <ToggleButton key={kind} on={report.words?.kind === kind} onChange={() => onWords(kind)}>
              {kind}
            </ToggleButton>
          ))}
        </fieldset>
      )}
      {report.picture && <LeastSure file={file} picture={report.picture} legend={legend} />}
      {report.notices.map((notice) => (
        <Notice key={notice} kind="hint">
          {notice}
        </Notice>
      ))}
      {report.nearly.length > 0 && <Merges report={report} entry={entry} legend={legend} />}
      <p>
        {differing.length === 0
          ? 'Every colour has as many drills on the chart as in the colour list.'
          : `${counted(differing.length, 'colour')} with a different number of drills from the colour list:`}
      </p>
      {differing.length > 0 && (
        <div className="overflow-x-auto bg-paper">
          <DataTable
            caption="Colours whose number on the chart differs from the colour list"
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
                header: 'In the list',
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
                <span
                  className="swatch inline-block size-7 border border-edge"
                  style={{ background: row.hex }}
                />
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
            header: 'Squares',
            numeric: true,
            value: (row) => row.cells,
            show: (row) => many(row.cells),
          },
        ]}
      />
    </div>
  );
}
