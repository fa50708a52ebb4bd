import { useMemo, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine, ofLine } from '../../core/canvas/legend';
import type { CellPlace } from '../../core/cells/rect';
import type { ColourPlan, Direction } from '../../core/placing/barPlan';
import { KNOWN_TIPS } from '../../core/placing/tips';
import type { SectionPlan } from '../../core/sections/plan';
import { counted, many } from '../../core/words/numbers';
import type { PlacingView } from '../../server/placing/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Colour } from '../../ui/Chip';
import { ColourList } from '../../ui/ColourList';
import { coverLayer } from '../../ui/cloth/layers';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { NoChart } from '../chart/NoChart';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { SectionChooser } from '../sections/SectionChooser';
import { useInFront, useKeptFront } from '../sections/useInFront';
import { useSections } from '../sections/useSections';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';
import { barsLayer } from './barsLayer';

/** Which runs to lay with which tip, along rows or columns. */
export const PlacingStation = withLegend(PlacingStationWithList);

function PlacingStationWithList({
  entry,
  legend,
  cut,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  cut: SectionPlan | null;
}) {
  if (!entry.hasChart)
    return (
      <NoChart canvasId={entry.canvas.id} what="Runs are found on the chart, and this canvas has none yet." />
    );
  return (
    <WithCloth entry={entry} cut={cut}>
      {(data) => <Runs entry={entry} legend={legend} data={data} />}
    </WithCloth>
  );
}

function Runs({ entry, legend, data }: { entry: ShelfEntry; legend: LegendLine[]; data: ClothData }) {
  const { canvas } = entry;
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const pieces = useMemo(() => sections.map((each) => each.section), [sections]);
  const { section: number, line: chosen, show } = useInFront(entry, sections);
  const setChosen = (line: number) => show(number, line);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const {
    answer: view,
    fault: lost,
    reload,
  } = useAnswer<PlacingView>(`/api/canvases/${canvas.id}/placing?section=${number}`);
  const { fault, write } = useWrite();
  const [asTable, setAsTable] = useState(false);
  const [otherWay, setOtherWay] = useState(false);

  const changeTips = (tips: number[]) => void write('PUT', '/api/tips', { tips }, reload);

  const plan = view?.plans.find((each) => each.line === chosen) ?? view?.plans[0] ?? null;
  useKeptFront(entry, number, plan?.line ?? chosen);
  const section = pieces[number - 1]!;
  const best = plan && (otherWay ? other(plan) : plan[plan.better]);
  const layers = useMemo(() => {
    const ground = getComputedStyle(document.documentElement).getPropertyValue('--c-bench');
    const cover = coverLayer(section, ground);
    return best ? [cover, barsLayer(best.placements, best.direction)] : [cover];
  }, [section, best]);
  const wish = useMemo(() => ({ laid: data.laid, focus: plan ? new Set([plan.line]) : null }), [data, plan]);
  const planned = (line: LegendLine) => view?.plans.find((each) => each.line === line.line);

  return (
    <div className="grid min-h-[38rem] grow gap-4 lg:h-[calc(100dvh-9.6rem)] lg:min-h-0 lg:grid-cols-[1fr_23rem]">
      <section
        className="flex min-h-[30rem] min-w-0 md:min-h-[40rem] lg:min-h-0 md:min-h-[40rem] lg:min-h-0 flex-col gap-2"
        aria-label="The runs on the canvas"
      >
        <div className="flex flex-wrap items-center justify-between gap-2">
          <SectionChooser
            canvas={canvas}
            hasChart
            count={sections.length}
            tally={() => sections}
            number={number}
            onChange={(next) => {
              show(next, null);
              setCursor(null);
            }}
          />
          <div className="flex flex-wrap gap-2">
            <a
              className="button"
              href={`/canvas/${canvas.id}/bench?section=${number}${plan ? `&colour=${plan.line}` : ''}`}
            >
              Lay it at the bench
            </a>
            <ToggleButton on={asTable} onChange={setAsTable}>
              As a table
            </ToggleButton>
          </div>
        </div>
        {asTable && view ? (
          <ScrollRegion label="Placements" className="min-h-0 grow">
            <PlansTable plans={view.plans} legend={legend} shape={canvas.shape} />
            {plan && best && <RunsTable best={best} code={ofLine(legend, plan.line)!.code} />}
          </ScrollRegion>
        ) : (
          <StationCloth
            label={`Section ${number} of ${canvas.title} with its runs`}
            entry={entry}
            legend={legend}
            data={data}
            wish={wish}
            layers={layers}
            frame={section}
            cursor={cursor}
            sections={pieces}
            onCursor={({ x, y }) => {
              setCursor({ x, y });
              const line = data.chart.cells[y * data.chart.width + x];
              if (line && view?.plans.some((each) => each.line === line)) setChosen(line);
            }}
          />
        )}
      </section>
      <section className="flex min-h-0 min-w-0 flex-col gap-3" aria-label="Plan">
        {(fault ?? lost) && <Notice kind="fault">{fault ?? lost}</Notice>}
        {view && (
          <>
            <div aria-live="polite">
              <p className="big-number">{many(view.placements.planned)}</p>
              <p>
                {view.placements.oneByOne === 0 ? (
                  'Everything in this section is laid.'
                ) : (
                  <>
                    <TermWord term="placement">placements</TermWord> with these tips, against{' '}
                    {many(view.placements.oneByOne)} one by one
                  </>
                )}
              </p>
            </div>
            <TipChoice tips={view.tips} onChange={changeTips} />
            {plan && best && (
              <div className="slip !py-3" data-testid="plan">
                <Colour line={ofLine(legend, plan.line)!} shape={canvas.shape} size={44} />
                <p className="mt-1.5 font-semibold">
                  Along the {best.direction}: {counted(best.placements.length, 'placement')} for{' '}
                  {counted(plan.drills, 'drill')}
                </p>
                <p>
                  Rows take {many(plan.rows.placements.length)}, columns{' '}
                  {many(plan.columns.placements.length)}; longest <TermWord term="run">run</TermWord>{' '}
                  {best.longestRun}
                </p>
                <div className="mt-1.5">
                  <ToggleButton on={otherWay} onChange={setOtherWay}>
                    See the {plan.better === 'rows' ? 'columns' : 'rows'} instead
                  </ToggleButton>
                </div>
              </div>
            )}
            <ColourList
              label="Colours of this section, most drills first"
              lines={view.plans.map((each) => ofLine(legend, each.line)!)}
              shape={canvas.shape}
              chosen={plan?.line ?? null}
              onChoose={(line) => setChosen(line.line)}
              beside={(line) => {
                const own = planned(line);
                return own ? `${own[own.better].placements.length} of ${own.drills}` : '';
              }}
            />
          </>
        )}
      </section>
    </div>
  );
}

function other(plan: ColourPlan) {
  return plan.better === 'rows' ? plan.columns : plan.rows;
}

/** The tips in the pen case; the single placer is always there. */
function TipChoice({ tips, onChange }: { tips: number[]; onChange: (tips: number[]) => void }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">
        Your <TermWord term="bar tip">tips</TermWord>, by the drills they take
      </legend>
      <div className="flex flex-wrap gap-1.5">
        {KNOWN_TIPS.map((tip) => {
          const own = tips.includes(tip);
          return (
            <button
              key={tip}
              type="button"
              className={`button number !px-0 w-[2.75rem] ${own ? 'button-on bg-wash' : ''}`}
              aria-pressed={own}
              aria-label={`Tip for ${counted(tip, 'drill')}`}
              disabled={tip === 1}
              onClick={() => onChange(own ? tips.filter((each) => each !== tip) : [...tips, tip])}
            >
              {tip}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

/** The runs of one colour, one a row, as they are drawn on the canvas. */
function RunsTable({ best, code }: { best: ColourPlan['rows']; code: string }) {
  const alongRows = best.direction === 'rows';
  return (
    <>
      <h2 className="px-2.5 pt-4">
        Runs of <span className="number">{code}</span>, along the {best.direction}
      </h2>
      <DataTable
        caption={`Runs of ${code}`}
        rows={best.placements}
        rowKey={({ x, y }) => `${x} ${y}`}
        columns={[
          {
            key: 'line',
            header: alongRows ? 'Row' : 'Column',
            numeric: true,
            value: ({ x, y }) => (alongRows ? y : x) + 1,
          },
          {
            key: 'from',
            header: alongRows ? 'From column' : 'From row',
            numeric: true,
            value: ({ x, y }) => (alongRows ? x : y) + 1,
          },
          { key: 'drills', header: 'Drills', numeric: true, value: ({ drills }) => drills },
          { key: 'tip', header: 'Tip for', numeric: true, value: ({ tip }) => tip },
        ]}
      />
    </>
  );
}

function PlansTable({
  plans,
  legend,
  shape,
}: {
  plans: ColourPlan[];
  legend: LegendLine[];
  shape: 'square' | 'round';
}) {
  const along = (plan: ColourPlan, direction: Direction) => plan[direction].placements.length;
  return (
    <DataTable
      caption="Placements per colour"
      rows={plans}
      rowKey={(plan) => String(plan.line)}
      columns={[
        {
          key: 'colour',
          header: 'Colour',
          value: (plan) => ofLine(legend, plan.line)!.code,
          show: (plan) => <Colour line={ofLine(legend, plan.line)!} shape={shape} />,
        },
        { key: 'drills', header: 'Drills', numeric: true, value: (plan) => plan.drills },
        { key: 'rows', header: 'Along rows', numeric: true, value: (plan) => along(plan, 'rows') },
        { key: 'columns', header: 'Along columns', numeric: true, value: (plan) => along(plan, 'columns') },
        { key: 'better', header: 'Better', value: (plan) => plan.better },
        {
          key: 'longest',
          header: 'Longest run',
          numeric: true,
          value: (plan) => plan[plan.better].longestRun,
        },
      ]}
    />
  );
}
