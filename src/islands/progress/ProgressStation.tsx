import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { counted, many } from '../../core/words/numbers';
import type { ProgressView } from '../../server/progress/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Colour } from '../../ui/Chip';
import { DataTable, type TableColumn } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { withLegend } from '../../ui/withLegend';
import { useAnswer } from '../writing/useAnswer';
import { BurnUpChart } from './BurnUpChart';
import { Sittings } from './Sittings';

/** How far the canvas has come: today, in all, per colour, and day by day. */
export const ProgressStation = withLegend(ProgressStationWithList);

function ProgressStationWithList({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const [zone] = useState(() => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC');
  const [maker, setMaker] = useState('');
  const { answer: view, fault } = useAnswer<ProgressView>(
    `/api/canvases/${canvas.id}/progress?zone=${encodeURIComponent(zone)}${maker === '' ? '' : `&maker=${maker}`}`,
    ['marks', 'sittings', 'sheet', 'repairs', 'other'],
  );
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!view) return <p aria-live="polite">Loading…</p>;
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[1fr_24rem]">
      <section className="min-w-0">
        {view.makers.length > 0 && (
          <label className="mb-4 flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="font-semibold">Days and sittings of</span>
            <select
              className="field !w-auto"
              value={maker}
              onChange={(event) => setMaker(event.target.value)}
            >
              <option value="">everybody</option>
              {view.makers.map(({ id, name, drills }) => (
                <option key={id} value={id}>
                  {name}: {counted(drills, 'drill')}
                </option>
              ))}
            </select>
          </label>
        )}
        <dl className="mb-4 grid gap-x-8 gap-y-3 [grid-template-columns:repeat(auto-fit,minmax(11rem,1fr))]">
          <Figure name="of the canvas" value={`${view.percent.toFixed(2)} %`} />
          <Figure name="laid today" value={many(view.laidToday)} />
          <Figure name={`laid of ${many(view.drills)}`} value={many(view.laid)} />
          <Figure name="left to lay" value={many(view.drills - view.laid)} />
        </dl>
        {view.panels.length > 0 && (
          <ul className="flex flex-wrap gap-x-6 gap-y-1" aria-label="Panels">
            {view.panels.map(({ panel, laid, drills, percent }) => (
              <li key={panel}>
                Panel {panel}: <span className="number font-semibold">{percent.toFixed(2)} %</span>,{' '}
                {many(laid)} of {many(drills)}
              </li>
            ))}
          </ul>
        )}
        {view.burnUp.length > 0 ? (
          <>
            <h2>Laid in all, day by day</h2>
            <BurnUpChart days={view.burnUp} drills={view.drills} />
            <details className="mt-2">
              <summary className="min-h-11 py-2 underline">The same as a table</summary>
              <ScrollRegion label="Laid in all, day by day" className="max-h-72">
                <DataTable
                  caption="Laid in all, day by day"
                  rows={view.burnUp}
                  rowKey={(row) => row.day}
                  columns={[
                    { key: 'day', header: 'Day', value: (row) => row.day },
                    {
                      key: 'total',
                      header: 'Laid in all',
                      numeric: true,
                      value: (row) => row.total,
                      show: (row) => many(row.total),
                    },
                  ]}
                />
              </ScrollRegion>
            </details>
          </>
        ) : (
          <p className="slip max-w-xl text-lg">
            Nothing is laid yet.{' '}
            <a className="underline" href={`/canvas/${canvas.id}/bench`}>
              Mark the first drills at the bench
            </a>
            , and this page shows how far you are.
          </p>
        )}
        <Sittings canvasId={canvas.id} first={view.sittings} />
      </section>
      {view.colours && <ColoursLeft colours={view.colours} legend={legend} shape={canvas.shape} />}
      {view.ticked && view.ticked.length > 0 && (
        <ColoursTicked ticked={view.ticked} legend={legend} shape={canvas.shape} />
      )}
    </div>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-faded">{name}</dt>
      <dd className="big-number">{value}</dd>
    </div>
  );
}

function colourColumn(legend: LegendLine[], shape: 'square' | 'round'): TableColumn<{ line: number }> {
  return {
    key: 'colour',
    header: 'Colour',
    value: (row) => ofLine(legend, row.line)!.code,
    show: (row) => <Colour line={ofLine(legend, row.line)!} shape={shape} size={32} />,
  };
}

function ColoursLeft({
  colours,
  legend,
  shape,
}: {
  colours: NonNullable<ProgressView['colours']>;
  legend: LegendLine[];
  shape: 'square' | 'round';
}) {
  const byLeft = [...colours].sort((a, b) => b.left - a.left);
  return (
    <section className="min-w-0">
      <h2>Left per colour</h2>
      <ScrollRegion label="Left per colour" className="max-h-[36rem]">
        <DataTable
          caption="Left per colour"
          rows={byLeft}
          rowKey={(row) => String(row.line)}
          columns={[
            colourColumn(legend, shape),
            {
              key: 'left',
              header: 'Left',
              numeric: true,
              value: (row) => row.left,
              show: (row) => (row.left === 0 && row.drills > 0 ? 'all laid ✓' : many(row.left)),
            },
            {
              key: 'all',
              header: 'Of',
              numeric: true,
              value: (row) => row.drills,
              show: (row) => many(row.drills),
            },
          ]}
        />
      </ScrollRegion>
    </section>
  );
}

/** Without a chart: how far each colour is, by what was ticked at the bench. */
function ColoursTicked({
  ticked,
  legend,
  shape,
}: {
  ticked: NonNullable<ProgressView['ticked']>;
  legend: LegendLine[];
  shape: 'square' | 'round';
}) {
  return (
    <section className="min-w-0">
      <h2>Done per colour</h2>
      <p className="text-faded">By the sections in which a colour is ticked at the bench.</p>
      <ScrollRegion label="Done per colour" className="max-h-[36rem]">
        <DataTable
          caption="Done per colour"
          rows={ticked}
          rowKey={(row) => String(row.line)}
          columns={[
            colourColumn(legend, shape),
            {
              key: 'percent',
              header: 'Done',
              numeric: true,
              value: (row) => row.percent,
              show: (row) => `${row.percent.toFixed(2)} %`,
            },
          ]}
        />
      </ScrollRegion>
    </section>
  );
}
