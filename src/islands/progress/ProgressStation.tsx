import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { percentLaid } from '../../core/progress/progress';
import { dayInWords } from '../../core/words/calendar';
import { counted, many } from '../../core/words/numbers';
import type { ForecastView, ProgressView } from '../../server/progress/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { DataTable } from '../../ui/DataTable';
import { CalendarPlus, Download, Printer } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { ToggleButton } from '../../ui/ToggleButton';
import { usePrinting } from '../../ui/usePrinting';
import { withLegend } from '../../ui/withLegend';
import { WithCloth } from '../cloth/StationCloth';
import { useAnswer } from '../writing/useAnswer';
import { BurnUpChart } from './BurnUpChart';
import { ColoursPanel, RunningOutList } from './ColoursPanel';
import { colourColumn } from './colourColumn';
import { DayCalendar } from './DayCalendar';
import { ForecastSlip } from './ForecastSlip';
import { PacePanel } from './PacePanel';
import { PastPicture } from './PastPicture';
import { Photos } from './Photos';
import { SharePicture } from './SharePicture';
import { Sittings } from './Sittings';

const PANELS = {
  days: 'Days',
  pace: 'Pace',
  colours: 'Colours',
  picture: 'Picture',
  sittings: 'Sittings',
  out: 'Take along',
} as const;
type Panel = keyof typeof PANELS;

/** How far the canvas has come, when it will be done, and what may run out before. */
export const ProgressStation = withLegend(ProgressStationWithList);

function ProgressStationWithList({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const [zone] = useState(() => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC');
  const [maker, setMaker] = useState('');
  const [panel, setPanel] = useState<Panel>('days');
  // On paper days, colours and sittings stand one below the other.
  const printing = usePrinting();
  const query = `zone=${encodeURIComponent(zone)}${maker === '' ? '' : `&maker=${maker}`}`;
  const base = `/api/canvases/${canvas.id}`;
  const {
    answer: view,
    isOld,
    fault,
    reload,
  } = useAnswer<ProgressView>(`${base}/progress?${query}`, [
    'marks',
    'sittings',
    'sheet',
    'repairs',
    'other',
  ]);
  // It takes a moment, and the figures need not wait for it.
  const {
    answer: foretold,
    fault: unforetold,
    reload: reckonAgain,
  } = useAnswer<ForecastView>(`${base}/forecast?${query}`, ['marks', 'sittings', 'bags', 'trash', 'other']);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!view) return <p aria-live="polite">Loading…</p>;
  const changed = () => {
    reload();
    reckonAgain();
  };
  const { estimate, section } = view;
  const figures = [
    { key: 'percent', words: `${view.percent.toFixed(2)} % laid` },
    { key: 'laid', words: `${many(view.laid)} of ${many(view.drills)} drills` },
    { key: 'week', words: `${many(view.laidThisWeek)} this week` },
    ...(foretold?.forecast
      ? [{ key: 'likely', words: `Likely done on ${dayInWords(foretold.forecast.likely)}` }]
      : []),
  ];
  return (
    <div className="flex flex-col gap-4">
      {view.makers.length > 0 && (
        <label className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <span className="font-semibold">Days and sittings of</span>
          <select className="field !w-auto" value={maker} onChange={(event) => setMaker(event.target.value)}>
            <option value="">everybody</option>
            {view.makers.map(({ id, name, drills }) => (
              <option key={id} value={id}>
                {name}: {counted(drills, 'drill')}
              </option>
            ))}
          </select>
        </label>
      )}
      <dl
        aria-busy={isOld}
        className={`${isOld ? 'opacity-60' : ''} grid gap-x-6 gap-y-3 [grid-template-columns:repeat(auto-fit,minmax(9.5rem,1fr))]`}
      >
        <Figure name="of the canvas" value={`${view.percent.toFixed(2)} %`} />
        <Figure name="laid today" value={many(view.laidToday)} />
        <Figure name="laid this week" value={many(view.laidThisWeek)} />
        <Figure name={`laid of ${many(view.drills)}`} value={many(view.laid)} />
        <Figure name="left to lay" value={many(view.drills - view.laid)} />
        {section && section.drills > 0 && (
          <Figure
            name={`of section ${many(section.number)}`}
            value={`${percentLaid(section.laid, section.drills).toFixed(2)} %`}
          />
        )}
      </dl>
      {estimate && estimate.expected > 0 && (
        <p data-testid="estimate">
          By the sections and colours that are ticked about {many(estimate.expected)} drills are laid, four
          times in five between {many(estimate.low)} and {many(estimate.high)}: without a chart nobody knows
          how much of a colour lies where.
        </p>
      )}
      {view.panels.length > 0 && (
        <ul className="flex flex-wrap gap-x-6 gap-y-1" aria-label="Panels">
          {view.panels.map(({ panel: number, laid, drills, percent }) => (
            <li key={number}>
              Panel {number}: <span className="number font-semibold">{percent.toFixed(2)} %</span>,{' '}
              {many(laid)} of {many(drills)}
            </li>
          ))}
        </ul>
      )}
      {view.burnUp.length === 0 && view.laid === 0 ? (
        <p className="slip max-w-xl text-lg">
          Nothing is laid yet.{' '}
          <a className="underline" href={`/canvas/${canvas.id}/bench`}>
            Mark the first drills at the bench
          </a>
          , and this page shows how far you are.
        </p>
      ) : (
        <>
          {unforetold && <Notice kind="fault">{unforetold}</Notice>}
          {foretold ? (
            <ForecastSlip canvasId={canvas.id} view={foretold} onChange={reckonAgain} />
          ) : (
            // About as high as what comes, so that what stands below does not move from under a finger.
            !unforetold && <p className="slip min-h-[9.6rem] text-faded">Reckoning when it will be done…</p>
          )}
          {foretold && (
            <RunningOutList
              canvasId={canvas.id}
              colours={foretold.runningOut}
              legend={legend}
              shape={canvas.shape}
            />
          )}
        </>
      )}
      <fieldset className="flex flex-wrap gap-1 print:hidden" aria-label="What to look at">
        {(Object.keys(PANELS) as Panel[]).map((key) => (
          <ToggleButton key={key} on={panel === key} onChange={() => setPanel(key)}>
            {PANELS[key]}
          </ToggleButton>
        ))}
      </fieldset>
      {(panel === 'days' || printing) && (
        <div className="grid gap-6 lg:grid-cols-2">
          {view.burnUp.length > 0 && <Burning view={view} foretold={foretold} />}
          {foretold && foretold.days.length > 0 && (
            <section className="min-w-0">
              <DayCalendar days={foretold.days} today={foretold.today} />
            </section>
          )}
        </div>
      )}
      {panel === 'pace' && foretold && <PacePanel pace={foretold.pace} />}
      {(panel === 'colours' || printing) && view.colours && (
        <ColoursPanel canvasId={canvas.id} colours={view.colours} legend={legend} shape={canvas.shape} />
      )}
      {(panel === 'colours' || printing) && view.ticked && (
        <ColoursTicked ticked={view.ticked} legend={legend} shape={canvas.shape} />
      )}
      {panel === 'picture' && (
        <div className="grid gap-6 lg:grid-cols-2">
          <WithCloth entry={entry}>
            {(data) => (
              <PastPicture entry={entry} legend={legend} data={data} zone={zone} drills={view.drills} />
            )}
          </WithCloth>
          <Photos canvasId={canvas.id} today={view.today} />
        </div>
      )}
      {(panel === 'sittings' || printing) && (
        <Sittings canvasId={canvas.id} first={view.sittings} onChanged={changed} />
      )}
      {panel === 'out' && (
        <div className="grid gap-6 md:grid-cols-2">
          <WithCloth entry={entry}>
            {(data) => <SharePicture entry={entry} legend={legend} data={data} figures={figures} />}
          </WithCloth>
          <section className="flex flex-col items-start gap-2">
            <h2>Files</h2>
            <a className="button" href={`${base}/week.pdf?${query}`}>
              <Printer size={20} aria-hidden /> The week on one page
            </a>
            <a className="button" href={`${base}/sittings.csv`}>
              <Download size={20} aria-hidden /> Sittings as CSV
            </a>
            <a className="button" href={`${base}/days.csv?${query}`}>
              <Download size={20} aria-hidden /> Days as CSV
            </a>
            {foretold && foretold.minutesLeft > 0 && (
              <>
                <a className="button" href={`${base}/calendar.ics?${query}`}>
                  <CalendarPlus size={20} aria-hidden /> Sittings to come for a calendar
                </a>
                <p className="text-[0.95rem] text-faded">
                  On the weekdays on which you work most, up to the wished day, else the likely one.
                </p>
              </>
            )}
          </section>
        </div>
      )}
    </div>
  );
}

function Burning({ view, foretold }: { view: ProgressView; foretold: ForecastView | null }) {
  return (
    <section className="min-w-0">
      <h2>Laid in all, day by day</h2>
      <BurnUpChart
        days={view.burnUp}
        drills={view.drills}
        today={view.today}
        forecast={foretold?.forecast ?? null}
      />
      {foretold?.forecast && (
        <p className="text-[0.95rem] text-faded">
          The grey lines go on to {dayInWords(foretold.forecast.early)},{' '}
          {dayInWords(foretold.forecast.likely)} and {dayInWords(foretold.forecast.late)}.
        </p>
      )}
      <details>
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
    </section>
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
  if (ticked.length === 0) return <p>There is no colour list yet.</p>;
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
