import { useMemo, useState } from 'react';
import type { CellRect } from '../../core/cells/chart';
import { type CellPlace, rectBetween, wholeRect } from '../../core/cells/rect';
import { mostSquares } from '../../core/sections/fit';
import type { SectionPlan } from '../../core/sections/plan';
import { planFigures } from '../../core/sections/planInWords';
import type { CutKind, CutWish } from '../../core/sections/propose';
import { fitOf } from '../../core/sections/wish';
import { many } from '../../core/words/numbers';
import { frameLayer, panelsLayer } from '../../ui/cloth/layers';
import { Notice } from '../../ui/Notice';
import { TermsHere } from '../../ui/TermsHere';
import { withLegend } from '../../ui/withLegend';
import type { SectionTask } from '../../workers/sections';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { UndoButtons } from '../writing/UndoButtons';
import { CutByHand } from './CutByHand';
import { CutFields } from './CutFields';
import { CutFigures } from './CutFigures';
import { cutsLayer, oldCutsLayer } from './cutsLayer';
import { allLaid, inTheWay } from './marked';
import { SectionsNav } from './SectionsNav';
import { type SectionProps, type SectionStation, useSectionStation } from './useSectionStation';
import { useSectionWork } from './useSectionWork';

/** Ways to cut, in the order in which they are offered. */
const WAYS: [CutKind | 'hand', string, string][] = [
  ['sittings', 'Even sittings', 'All take about the same time and open few colours; borders go in steps.'],
  ['straight', 'Straight cuts', 'All take about the same time; borders are straight, to tape and cut along.'],
  [
    'colours',
    'Along the colours',
    'Borders follow the picture, so that few colours are opened; times differ more.',
  ],
  ['focal', 'A focal part first', 'Draw the part that you want to see first; the rest is cut around it.'],
  ['strips', 'Strips', 'Strips of equal breadth over the whole panel.'],
  ['blocks', 'Blocks', 'A plain grid of equal blocks.'],
  ['hand', 'By hand', 'Join, split, move a border, renumber and name sections.'],
];

/** Cuts the canvas anew: a proposal beside the present cut, kept only when it pleases. */
export const CutPage = withLegend(CutPageWithList);

function CutPageWithList(props: SectionProps) {
  return (
    <>
      <SectionsNav canvasId={props.entry.canvas.id} here="/cut" />
      <WithCloth entry={props.entry} cut={props.first.plan}>
        {(data) => <Cut {...props} data={data} />}
      </WithCloth>
    </>
  );
}

function Cut({ data, ...props }: SectionProps & { data: ClothData }) {
  const station = useSectionStation(props, data);
  const [way, setWay] = useState<CutKind | 'hand'>('sittings');
  const words = WAYS.find(([each]) => each === way)![2];
  const choice = (
    <>
      <label className="block">
        <span className="mb-1 block font-semibold">How to cut</span>
        <select
          className="field"
          value={way}
          onChange={(event) => setWay(event.target.value as CutKind | 'hand')}
        >
          {WAYS.map(([each, name]) => (
            <option key={each} value={each}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <p className="text-faded">{words}</p>
      {way === 'focal' && <TermsHere terms={['focal part']} />}
    </>
  );
  const kept = (
    <>
      {station.fault && <Notice kind="fault">{station.fault}</Notice>}
      <UndoButtons
        history={station.history}
        words={({ sections }) => `a cut into ${many(sections)}`}
        busy={station.busy}
        onUndo={station.undo}
        onRedo={station.redo}
      />
    </>
  );
  return way === 'hand' ? (
    <CutByHand {...props} data={data} station={station} choice={choice} kept={kept} />
  ) : (
    <Proposed {...props} data={data} station={station} kind={way} choice={choice} kept={kept} />
  );
}

function Proposed({
  entry,
  legend,
  data,
  station,
  kind,
  choice,
  kept,
}: SectionProps & {
  data: ClothData;
  station: SectionStation;
  kind: CutKind;
  choice: React.ReactNode;
  kept: React.ReactNode;
}) {
  const { canvas, hasChart } = entry;
  const { ground, plan, wish, judged } = station;
  const [cut, setCut] = useState<Omit<CutWish, 'kind' | 'mostColumns' | 'mostRows'>>(() => ({
    minutes: wish.minutes,
    snap: 1,
    columns: plan.block?.columns ?? 20,
    rows: plan.block?.rows ?? 20,
    along: 'columns',
    focal: null,
    order: plan.order.way === 'numbers' ? { ...plan.order, way: 'rows' } : plan.order,
  }));
  const [fits, setFits] = useState(true);
  const [task, setTask] = useState<SectionTask | null>(null);
  const work = useSectionWork(task);
  const draft = task && work.result && 'judged' in work.result ? work.result.judged : null;
  const [drawn, setDrawn] = useState<{ from: CellPlace; to: CellPlace } | null>(null);
  const focal: CellRect | null = drawn ? rectBetween(drawn.from, drawn.to) : cut.focal;
  const most = mostSquares(fitOf(wish), canvas.pitchMm);
  const limited = most.columns !== null || most.rows !== null;
  const propose = () =>
    setTask({
      what: 'cut',
      ground,
      plan,
      wish,
      cut: {
        ...cut,
        kind,
        focal: kind === 'focal' ? focal : null,
        mostColumns: fits ? most.columns : null,
        mostRows: fits ? most.rows : null,
      },
    });
  const change = (part: Partial<typeof cut>) => {
    setCut({ ...cut, ...part });
    setTask(null);
  };
  const sections = useMemo(() => station.tallies.map(({ section }) => section), [station.tallies]);
  const layers = useMemo(() => {
    const fresh = draft ? draft.sections.map(({ section }) => section) : null;
    return [
      ...(fresh
        ? [
            oldCutsLayer(sections),
            cutsLayer(fresh, null, allLaid(draft!.sections), inTheWay(draft!.sections)),
          ]
        : [cutsLayer(sections, null, allLaid(station.tallies))]),
      ...(kind === 'focal' && focal ? [frameLayer(focal)] : []),
      panelsLayer(canvas.panelRects),
    ];
  }, [draft, sections, station.tallies, canvas, kind, focal]);
  const view = useMemo(() => ({ laid: data.laid, focus: null }), [data]);
  const frame = useMemo(() => wholeRect(canvas), [canvas]);
  const keep = async (made: SectionPlan) => {
    if (await station.keep({ pieces: made.pieces, order: made.order })) setTask(null);
  };
  const figures = (
    <CutFigures
      now={judged && planFigures(judged)}
      next={draft && planFigures(draft.sections)}
      hasChart={hasChart}
      minutes={kind === 'strips' || kind === 'blocks' ? null : cut.minutes}
    >
      {draft && (
        <div className="mb-2 flex flex-wrap gap-2">
          <button
            type="button"
            className="button button-main grow"
            disabled={station.busy}
            onClick={() => void keep(draft.plan)}
          >
            Keep this cut
          </button>
          <button type="button" className="button" onClick={() => setTask(null)}>
            Back
          </button>
        </div>
      )}
    </CutFigures>
  );
  const needsFocal = kind === 'focal' && focal === null;

  return (
    <div className="station lg:h-[calc(100dvh-12.4rem)] lg:grid-cols-[1fr_23rem]">
      <section
        className="flex min-h-[30rem] min-w-0 flex-col md:min-h-[36rem] lg:min-h-0"
        aria-label={draft ? 'The new cut, over the present one' : 'The present cut'}
      >
        <StationCloth
          label={`${canvas.title}, ${draft ? `a new cut into ${many(draft.sections.length)} sections` : `cut into ${many(sections.length)} sections`}`}
          entry={entry}
          legend={legend}
          data={data}
          wish={view}
          layers={layers}
          frame={frame}
          cursor={null}
          {...(kind === 'focal'
            ? {
                marking: {
                  begin: (place: CellPlace) => setDrawn({ from: place, to: place }),
                  extend: (way: readonly CellPlace[]) =>
                    setDrawn((now) => now && { ...now, to: way.at(-1) ?? now.to }),
                  end: () => {
                    change({ focal });
                    setDrawn(null);
                  },
                  abort: () => setDrawn(null),
                },
              }
            : {})}
          onCursor={() => {}}
          onKey={() => false}
        />
      </section>
      <section className="flex min-h-0 min-w-0 flex-col gap-3 overflow-y-auto" aria-label="How it is cut">
        {choice}
        {draft && figures}
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            propose();
          }}
        >
          <CutFields
            kind={kind}
            cut={{ ...cut, focal }}
            canvas={canvas}
            onChange={change}
            limited={limited}
            fits={fits}
            onFits={(on) => {
              setFits(on);
              setTask(null);
            }}
          />
          {work.done === null ? (
            <button type="submit" className="button" disabled={needsFocal || !station.ready}>
              {needsFocal ? 'Draw the focal part first' : 'Show this cut'}
            </button>
          ) : (
            <div className="flex items-center gap-2">
              <progress className="h-3 grow" value={work.done} max={1} aria-label="Cutting" />
              <button type="button" className="button" onClick={work.cancel}>
                Cancel
              </button>
            </div>
          )}
        </form>
        {work.fault && <Notice kind="fault">{work.fault}</Notice>}
        {!draft && figures}
        {kept}
      </section>
    </div>
  );
}
