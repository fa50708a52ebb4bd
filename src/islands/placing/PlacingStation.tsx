import { useMemo, useState } from 'react';
import { markInWords } from '../../core/bench/undoInWords';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine, ofLine } from '../../core/canvas/legend';
import type { CellPlace } from '../../core/cells/rect';
import { minutesInWords } from '../../core/pace/timeInWords';
import { minutesFor } from '../../core/pace/timeModel';
import { boundInWords } from '../../core/placing/inWords';
import {
  cellsOfPlacement,
  placementOn,
  type StepPlace,
  stepBehind,
  stepIn,
} from '../../core/placing/stepping';
import { tipsFor } from '../../core/placing/tips';
import type { PlacingWish } from '../../core/placing/wish';
import type { SectionPlan } from '../../core/sections/plan';
import { counted, many } from '../../core/words/numbers';
import type { BenchView, MarkOffer } from '../../server/bench/contract';
import type { PlacingStart } from '../../server/placing/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { coverLayer } from '../../ui/cloth/layers';
import { Printer } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { useMarks } from '../bench/useMarks';
import { NoChart } from '../chart/NoChart';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { SectionChooser } from '../sections/SectionChooser';
import { useInFront, useKeptFront } from '../sections/useInFront';
import { useSections } from '../sections/useSections';
import { useTimeModel } from '../sections/useSectionWork';
import { UndoButtons } from '../writing/UndoButtons';
import { useWrite } from '../writing/useWrite';
import { barsLayer } from './barsLayer';
import { ColoursPanel } from './ColoursPanel';
import { HintsPanel } from './HintsPanel';
import { ReadOut } from './ReadOut';
import { StepSlip } from './StepSlip';
import { TipsPanel } from './TipsPanel';
import { useBarInHand } from './useBarInHand';
import { useOwnTips } from './useOwnTips';
import { usePlacingWork } from './usePlacingWork';
import { WishPanel } from './WishPanel';

const PANELS = { colours: 'Colours', wishes: 'Wishes', tips: 'Tips', hints: 'Hints' } as const;
type Panel = keyof typeof PANELS;

/** As high while it is made, so that what stands below does not move from under a finger. */
const PLAN = 'min-h-[5.4rem]';

interface PlacingProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  cut: SectionPlan | null;
  start: PlacingStart;
  bench: BenchView;
}

/** Which bars to lay, with which tip, in which order. */
export const PlacingStation = withLegend(PlacingStationWithList);

function PlacingStationWithList(props: PlacingProps) {
  if (!props.entry.hasChart)
    return (
      <NoChart
        canvasId={props.entry.canvas.id}
        what="Placements are planned on the chart, and this canvas has none yet."
      />
    );
  return (
    <WithCloth entry={props.entry} cut={props.cut}>
      {(data) => <Placing {...props} data={data} />}
    </WithCloth>
  );
}

function Placing({ entry, legend, data, start, bench }: PlacingProps & { data: ClothData }) {
  const { canvas } = entry;
  const { chart } = data;
  const marks = useMarks(canvas, data, bench);
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const pieces = useMemo(() => sections.map((each) => each.section), [sections]);
  const { section: number, line: chosen, show } = useInFront(entry, sections);
  const section = pieces[number - 1]!;
  const { model, ready } = useTimeModel(canvas.id);
  const { fault, write } = useWrite(canvas.id);
  const [wish, setWish] = useState(start.wish);
  const [own, setOwn] = useOwnTips(start.tips);
  const [panel, setPanel] = useState<Panel>('colours');
  const [asTable, setAsTable] = useState(false);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  /** Where stepping is: the plan may be made anew, this stays. */
  const [at, setAt] = useState<StepPlace>(null);

  const tips = useMemo(() => tipsFor(own, canvas.shape), [own, canvas.shape]);
  const work = usePlacingWork(data, marks.version, legend, section, {
    tips,
    seconds: model.seconds,
    hand: start.hand,
    wish,
    // By the usual times they would stand for a moment, and be others then.
    prices: ready && (panel === 'wishes' || panel === 'colours'),
  });
  const { plan } = work;
  const by = useMemo(() => JSON.stringify([section, tips, wish, start.hand]), [section, tips, wish, start]);
  const { placements, step, inHand, release, wasTaken } = useBarInHand(
    data,
    plan?.placements ?? null,
    { at, line: chosen, tips, by },
    (all) => (all.length === 0 ? -1 : stepIn(all, at, chosen, chart.width)),
  );
  const line = inHand?.line ?? chosen;
  useKeptFront(entry, number, line);
  const ofColour = useMemo(() => placements.filter((each) => each.line === line), [placements, line]);

  const layers = useMemo(() => {
    const ground = getComputedStyle(document.documentElement).getPropertyValue('--c-bench');
    return [coverLayer(section, ground), barsLayer(ofColour, inHand, start.hand)];
  }, [section, ofColour, inHand, start.hand]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new wish makes the canvas paint the changed bitmap
  const shown = useMemo(
    () => ({ laid: data.laid, focus: line ? new Set([line]) : null }),
    [data, line, marks.version],
  );

  const goTo = (index: number) => {
    const to = placements[index];
    if (!to) return;
    setAt({ x: to.x, y: to.y });
    show(number, to.line);
  };
  /** The sitting that runs, which what is laid belongs to as at the bench. */
  const sitting = bench.sittings.find(({ endedAt }) => endedAt === null)?.id ?? null;
  const layIt = () => {
    if (!inHand || wasTaken()) return;
    release();
    const next = stepBehind(placements, step, chart.width);
    const cells = marks.store.preview('lay', cellsOfPlacement(inHand, chart.width));
    if (cells.length > 0) marks.store.commit('lay', cells, sitting);
    setAt(next.place);
    if (next.place) show(number, next.line);
  };
  const change = (part: Partial<PlacingWish>) => {
    const next = { ...wish, ...part };
    setWish(next);
    void write('PUT', `/api/canvases/${canvas.id}/placing-wish`, next, () => {}, true);
  };
  const onKey = ({ key, repeat }: Pick<KeyboardEvent, 'key' | 'repeat'>) => {
    switch (key) {
      case ' ':
        goTo(step + 1);
        return true;
      case 'Backspace':
        goTo(step - 1);
        return true;
      case 'Enter':
        // A key that is held down lays one bar, not the whole section.
        if (!repeat) layIt();
        return true;
      default:
        return false;
    }
  };
  const said = (mark: MarkOffer) => markInWords(mark, legend, pieces, canvas.width);
  const code = line === null ? null : ofLine(legend, line)?.code;

  return (
    <div className="station lg:h-[calc(100dvh-9.6rem)] lg:grid-cols-[1fr_23rem]">
      <section
        className="flex min-h-[30rem] min-w-0 flex-col gap-2 md:min-h-[40rem] lg:min-h-0"
        aria-label="The placements on the canvas"
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
              setAt(null);
            }}
          />
          <div className="flex flex-wrap gap-2">
            <UndoButtons
              short
              history={marks.history}
              words={said}
              busy={marks.waiting > 0}
              onUndo={(id) => marks.store.undo(id)}
              onRedo={(id) => marks.store.redo(id)}
            />
            <a
              className="button"
              href={`/canvas/${canvas.id}/bench?section=${number}${line ? `&colour=${line}` : ''}`}
            >
              Bench
            </a>
            <a
              className="button"
              href={`/api/canvases/${canvas.id}/placements.pdf?section=${number}`}
              aria-label="Print the placements of this section"
            >
              <Printer size={20} aria-hidden />
            </a>
            <ToggleButton on={asTable} onChange={setAsTable}>
              Read out
            </ToggleButton>
          </div>
        </div>
        {asTable && plan ? (
          <ScrollRegion label="Placements, row by row" className="min-h-0 grow">
            <ReadOut plan={plan} legend={legend} shape={canvas.shape} line={line} />
          </ScrollRegion>
        ) : (
          <StationCloth
            label={`Section ${number} of ${canvas.title}${code ? `, placements of ${code}` : ''}; Space shows the next placement, Backspace the one before, Enter lays it`}
            entry={entry}
            legend={legend}
            data={data}
            wish={shown}
            layers={layers}
            frame={section}
            cursor={cursor}
            sections={pieces}
            onCursor={(place) => {
              setCursor(place);
              goTo(placementOn(placements, place));
            }}
            onKey={onKey}
          />
        )}
        {(inHand !== null || (plan === null && !work.fault)) && (
          <StepSlip
            placement={inHand}
            number={inHand ? ofColour.indexOf(inHand) + 1 : 0}
            of={ofColour.length}
            colour={inHand && ofLine(legend, inHand.line)!}
            shape={canvas.shape}
            hand={start.hand}
            isFirst={step <= 0}
            isLast={step >= placements.length - 1}
            onStep={(by) => goTo(step + by)}
            onLay={layIt}
          />
        )}
      </section>
      <section className="flex min-h-0 min-w-0 flex-col gap-3" aria-label="Plan">
        {(fault ?? work.fault ?? marks.fault) && (
          <Notice kind="fault">{fault ?? work.fault ?? marks.fault}</Notice>
        )}
        {plan ? (
          <div aria-live="polite" data-testid="plan" className={PLAN}>
            {plan.placements.length === 0 ? (
              <p className="text-[1.3rem] font-semibold">Everything in this section is laid.</p>
            ) : (
              <>
                <p>
                  <span className="big-number">{many(plan.placements.length)}</span>{' '}
                  <TermWord term="placement">
                    {plan.placements.length === 1 ? 'placement' : 'placements'}
                  </TermWord>{' '}
                  for {counted(plan.drills, 'drill')}
                </p>
                <p>
                  {boundInWords(plan)}{' '}
                  {ready && `They take ${minutesInWords(minutesFor(model, plan.effort))}. `}
                  {counted(plan.effort.colours, 'colour')} to open, {counted(plan.turns, 'turn')},{' '}
                  {counted(plan.tipChanges, 'change')} of tip.
                </p>
              </>
            )}
          </div>
        ) : (
          <p aria-live="polite" className={PLAN}>
            {work.fault ? '' : 'Loading…'}
          </p>
        )}
        <fieldset className="flex flex-wrap gap-1" aria-label="What to look at">
          {(Object.keys(PANELS) as Panel[]).map((key) => (
            <ToggleButton key={key} on={panel === key} onChange={() => setPanel(key)}>
              {PANELS[key]}
            </ToggleButton>
          ))}
        </fieldset>
        {plan && panel === 'colours' && (
          <ColoursPanel
            plan={plan}
            legend={legend}
            shape={canvas.shape}
            line={line}
            wish={wish}
            model={model}
            checkerboard={work.prices.checkerboard ?? null}
            onChoose={(next) => goTo(placements.findIndex((each) => each.line === next))}
            onChange={change}
          />
        )}
        {panel === 'wishes' && (
          <WishPanel
            wish={wish}
            prices={work.prices}
            hand={start.hand}
            canvasId={canvas.id}
            whole={work.whole}
            onWhole={(borders) => work.searchWhole(borders ? pieces : canvas.panelRects)}
            onStop={work.stopWhole}
            onChange={change}
          />
        )}
        {panel === 'tips' && (
          <TipsPanel
            own={own}
            shape={canvas.shape}
            tips={tips}
            worth={work.worth}
            comparing={work.comparing}
            section={section}
            canvas={canvas}
            onCompare={work.compareTips}
            onChange={setOwn}
          />
        )}
        {plan && panel === 'hints' && (
          <HintsPanel
            plan={plan}
            shape={canvas.shape}
            tips={own}
            finishes={plan.colours[0]!.map((each) => ofLine(legend, each.line)!.finish)}
          />
        )}
      </section>
    </div>
  );
}
