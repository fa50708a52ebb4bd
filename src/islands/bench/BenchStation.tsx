import { useEffect, useMemo, useRef, useState } from 'react';
import { nextColour } from '../../core/bench/colours';
import { nextPace } from '../../core/bench/comfort';
import { crossHairInWords } from '../../core/bench/crossHair';
import { benchPlace } from '../../core/bench/found';
import { type Reach, reachesFor } from '../../core/bench/reach';
import { colourInWords } from '../../core/bench/runsToSay';
import { markInWords } from '../../core/bench/undoInWords';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine } from '../../core/canvas/legend';
import { countPerLine } from '../../core/cells/chart';
import type { CellPlace } from '../../core/cells/rect';
import { type PotPlaces, placeInWords, potsInCodeOrder } from '../../core/codes/places';
import { leftPerLine, percentLaid } from '../../core/progress/progress';
import { nextInOrder } from '../../core/sections/next';
import type { SectionPlan } from '../../core/sections/plan';
import { tallySections } from '../../core/sections/section';
import { many } from '../../core/words/numbers';
import type { BenchView, MarkOffer } from '../../server/bench/contract';
import type { CheckinView } from '../../server/checkin/contract';
import type { KitupView } from '../../server/kitup/contract';
import type { PlacingStart } from '../../server/placing/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { showPercent } from '../../ui/headerFigures';
import { ChevronRight } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { withLegend } from '../../ui/withLegend';
import { TrashSlip } from '../checkin/TrashSlip';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { FindField, type Found } from '../find/FindField';
import { ScanButton } from '../scanning/ScanButton';
import { SectionChooser } from '../sections/SectionChooser';
import { useInFront, useKeptFront } from '../sections/useInFront';
import { useSections } from '../sections/useSections';
import { UndoButtons } from '../writing/UndoButtons';
import { useAnswer } from '../writing/useAnswer';
import { BadDrillButtons } from './BadDrillButtons';
import { AllLaid, PoppedLine, SavedLine, type Told, UnmarkedNotice } from './BenchNotices';
import { BenchTools } from './BenchTools';
import { ColoursInLine } from './ColoursInLine';
import { ComfortDialog } from './ComfortDialog';
import { FrontSlip } from './FrontSlip';
import { GuideSlip } from './GuideSlip';
import { OtherCanvases } from './OtherCanvases';
import { RanOutSlip } from './RanOutSlip';
import { SittingTimer } from './SittingTimer';
import { TickList } from './TickList';
import { useAwake } from './useAwake';
import { useBadDrills } from './useBadDrills';
import { useBenchKeys } from './useBenchKeys';
import { useBenchLayers } from './useBenchLayers';
import { useBenchRecord } from './useBenchRecord';
import { useComfort } from './useComfort';
import { useGuide } from './useGuide';
import { useMarks } from './useMarks';
import { usePopped } from './usePopped';
import { useSectionCounts } from './useSectionCounts';
import { type TouchMode, useStroke } from './useStroke';
import { useVoice } from './useVoice';
import { useWideActs } from './useWideActs';
import { ShareLaid, WiderMarks } from './WiderMarks';

interface BenchProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  places: PotPlaces;
  cut: SectionPlan | null;
  bench: BenchView;
  /** Tips, wishes and the hand that works: what the plan goes by. */
  start: PlacingStart;
}

/** The work itself: one section and one colour in front, marked as they are laid. */
export const BenchStation = withLegend(BenchStationWithList);

function BenchStationWithList(props: BenchProps) {
  return (
    <WithCloth entry={props.entry} cut={props.cut}>
      {(data) => <Bench {...props} data={data} />}
    </WithCloth>
  );
}

function Bench({ entry, legend, places, bench, start: placing, data }: BenchProps & { data: ClothData }) {
  const { canvas, hasChart } = entry;
  const { chart, laid } = data;
  const lines = Math.max(1, highestLine(legend));
  const marks = useMarks(canvas, data, bench);
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const { store } = marks;
  useEffect(() => showPercent(percentLaid(marks.laid, bench.drills)), [marks.laid, bench.drills]);
  const allLaid = bench.drills > 0 && marks.laid >= bench.drills;
  const record = useBenchRecord(canvas.id, bench, allLaid);
  const { running, markedNow } = record;
  const { section: number, line: wanted, show } = useInFront(entry, sections);
  const setWanted = (line: number) => show(number, line);
  const { comfort, change, eyes } = useComfort();
  const comfortDialog = useRef<HTMLDialogElement>(null);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const [mode, setMode] = useState<TouchMode>('lay');
  const [reach, setReach] = useState<Reach>('square');
  const [told, tell] = useState<Told | null>(null);
  /** Whether the plan leads, so that the view may move along; a hand that marks by itself has it stand still. */
  const [led, setLed] = useState(false);
  /** The colour of which something was laid from the plan: it needs no introduction any more. */
  const [begun, setBegun] = useState<number | null>(null);
  const bad = useBadDrills(canvas.id, marks.laid, record.setThrown);
  const fault = marks.fault ?? record.fault ?? bad.fault;
  // Without a plan of the pots there is nothing to show of them, and no need to ask.
  const hasPots = Object.keys(places).length > 0;
  const { answer: kit } = useAnswer<KitupView>(hasPots ? `/api/canvases/${canvas.id}/kitup` : null, [
    'pots',
    'bags',
    'trash',
    'sheet',
  ]);
  const { popped, add: addPopped } = usePopped(canvas.id, laid, marks.version);
  const pieces = useMemo(() => sections.map((each) => each.section), [sections]);
  const section = pieces[number - 1]!;
  const tallyNow = () => tallySections(chart, laid, pieces, lines);
  const heading = useRef<HTMLHeadingElement>(null);
  /** After what was pressed goes away, the focus is at what is in front now. */
  const headed = () => requestAnimationFrame(() => heading.current?.focus({ preventScroll: true }));
  useAwake(comfort.awake === 'always' || (comfort.awake === 'sitting' && running !== null));
  const pots = useMemo(() => potsInCodeOrder(legend, places), [legend, places]);

  const { school, ownOrder } = placing.wish;
  const counts = useSectionCounts(
    data,
    marks.version,
    section,
    legend,
    { hasChart, school, ownOrder },
    wanted,
  );
  const { left, all, colours, colour, leftHere, allHere, leftInSection } = counts;
  useKeptFront(entry, number, colour?.line ?? null);
  const place = pots.find((pot) => pot.line === colour)?.place ?? '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: counted anew when another colour is in front, or with its marks
  const laidOfColour = useMemo(
    () =>
      colour && kit
        ? countPerLine(chart, lines)[colour.line]! - leftPerLine(chart, laid, lines)[colour.line]!
        : 0,
    [chart, laid, colour, leftHere, kit !== null],
  );

  const guide = useGuide(
    { canvasId: canvas.id, hasChart, shape: canvas.shape },
    data,
    marks.version,
    legend,
    section,
    colour,
    placing,
    comfort,
    reach === 'placement',
  );
  const sittingId = running?.id ?? null;
  const { marking, corner, drawn, forgetCorner } = useStroke({
    store,
    data,
    section,
    line: colour?.line ?? null,
    mode,
    reach,
    snaps: comfort.tremor,
    sitting: sittingId,
    placementAt: guide.placementAt,
    planning: guide.planning,
    onPopped: addPopped,
    onTouch: (what) => {
      setLed(false);
      tell(what.what === 'marked' ? null : what);
      if (what.what === 'marked' && what.drills > 0) markedNow();
    },
  });

  const layers = useBenchLayers({
    section,
    guide,
    comfort,
    popped,
    cursor,
    ends: drawn ?? (corner && [corner, cursor ?? corner]),
    hand: placing.hand,
    columns: chart.width,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new wish makes the canvas paint the changed bitmap
  const wish = useMemo(
    () => ({ laid, focus: colour ? new Set([colour.line]) : null }),
    [laid, colour, marks.version],
  );

  const wide = useWideActs({
    ...{ canvas, store, data, section, counts },
    version: marks.version,
    sitting: sittingId,
    onColour: setWanted,
    onMarked: (act) => {
      markedNow();
      tell({ what: 'done', ...act });
      if (document.activeElement instanceof HTMLButtonElement) headed();
    },
  });
  const choose = (line: number) => {
    setWanted(line);
    tell(null);
  };
  const stepColour = (step: 1 | -1) => {
    tell(null);
    const next = nextColour(colours, left, colour, step);
    if (next) setWanted(next.line);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at when the section is done, not with every mark
  const onTo = useMemo(
    () => (leftInSection === 0 && !allLaid ? nextInOrder(tallyNow(), number) : null),
    [leftInSection === 0, allLaid, number],
  );
  const bring = (next: number, line: number | null) => {
    show(next, line);
    tell(null);
    setCursor(null);
    forgetCorner();
  };
  const goTo = (next: number) => {
    bring(next, null);
    headed();
  };
  /** Lays what is in hand, and the next comes forward: a bar, a row, a colour, a section. */
  const layNext = () => {
    if (guide.wasTaken()) return;
    setLed(true);
    setBegun(colour?.line ?? null);
    if (guide.cells.length > 0) {
      const { after } = guide;
      guide.laid();
      const changed = store.preview('lay', guide.cells);
      if (changed.length > 0) {
        store.commit('lay', changed, sittingId);
        markedNow();
      }
      tell(null);
      const isLast = leftHere <= changed.length;
      const next = isLast ? (nextColour(colours, left, colour, 1)?.line ?? null) : after.line;
      if (next !== null && next !== colour?.line) setWanted(next);
    } else if (leftInSection > 0 && leftHere === 0) stepColour(1);
    else if (onTo !== null) goTo(onTo);
  };
  const opening =
    colour && guide.isFirst && begun !== colour.line
      ? `${colourInWords(placeInWords(place), colour.code, colour.name, leftHere)} `
      : '';
  /** What is taken back comes to the front again, so that it can be seen. */
  const undo = (id: string) => {
    tell(null);
    const line = marks.history.undo?.line ?? null;
    if (line !== null && all[line]! > 0) setWanted(line);
    store.undo(id);
  };
  const stepGuide = (by: 1 | -1) => {
    setLed(true);
    guide.step(by);
  };
  const sectionDone =
    leftInSection === 0
      ? `Section ${number} is done.${onTo === null ? '' : ` Next is section ${onTo}.`}`
      : null;
  const sayAll = guide.words === null ? sectionDone : `${opening}${guide.words}`;
  const voice = useVoice(comfort.voice && hasChart, sayAll, comfort.pace, layNext);

  const found = (find: Found): string | null => {
    const there = benchPlace(find, chart, pieces, number, lines);
    if (there.kind === 'nowhere') return there.words;
    // The focus stays in the field: what is typed there next must not act on the canvas.
    bring(there.section, there.line);
    setCursor(there.cell);
    if (there.cell) guide.goTo(there.cell);
    return null;
  };
  const said = (mark: MarkOffer) => markInWords(mark, legend, pieces, canvas.width);
  const speaks = comfort.voice && hasChart;
  const toggleMode = (which: TouchMode) => setMode(mode === which ? 'lay' : which);
  const onKey = useBenchKeys({
    hasChart,
    speaks,
    touch: () => {
      if (!cursor) return;
      marking.begin(cursor, false);
      marking.end();
    },
    layNext,
    stepBack: () => stepGuide(-1),
    finish: wide.finish,
    lift: () => toggleMode('lift'),
    popped: () => toggleMode('popped'),
    reach: () => {
      const all = reachesFor(hasChart);
      setReach(all[(all.indexOf(reach) + 1) % all.length]!);
      forgetCorner();
    },
    colour: stepColour,
    timer: () => (running ? record.stop() : record.start()),
    badDrill: () => bad.count(1),
    speak: () => change({ voice: !comfort.voice }),
    again: voice.again,
    pause: voice.toggle,
    pace: () => change({ pace: nextPace(comfort.pace) }),
    crossHair: () => change({ crossHair: !comfort.crossHair }),
    count: () => change({ counting: !comfort.counting }),
  });

  const verb = { lay: 'lays', lift: 'lifts', popped: 'says that it popped' }[mode];
  const onLeft = comfort.slip === 'left';
  return (
    <div
      className={`station lg:h-[calc(100dvh-9.6rem)] ${onLeft ? 'lg:grid-cols-[21rem_1fr]' : 'lg:grid-cols-[1fr_21rem]'}`}
    >
      <section
        className={`flex min-w-0 flex-col gap-2 sm:min-h-[26rem] md:min-h-[max(30rem,calc(100dvh-36rem))] lg:min-h-0 ${onLeft ? 'lg:order-2' : ''}`}
        aria-label="The section on the bench"
      >
        <div className="flex flex-wrap items-center justify-between gap-2">
          <SectionChooser
            canvas={canvas}
            hasChart={hasChart}
            count={sections.length}
            tally={tallyNow}
            number={number}
            onChange={goTo}
          />
          <UndoButtons
            short
            history={marks.history}
            words={said}
            busy={marks.waiting > 0}
            onUndo={undo}
            onRedo={(id) => {
              tell(null);
              store.redo(id);
            }}
          />
          {hasChart && (
            <a
              className="button max-sm:hidden"
              href={`/canvas/${canvas.id}/placing?section=${number}${colour ? `&colour=${colour.line}` : ''}`}
            >
              Its placements
            </a>
          )}
        </div>
        <BenchTools
          hasChart={hasChart}
          mode={mode}
          reach={reach}
          counting={comfort.counting}
          onMode={setMode}
          onReach={(next) => {
            setReach(next);
            forgetCorner();
          }}
          onCounting={(counting) => change({ counting })}
          onComfort={() => comfortDialog.current?.showModal()}
        />
        <ComfortDialog handle={comfortDialog} comfort={comfort} hasChart={hasChart} onChange={change} />
        <StationCloth
          label={`Section ${number} of ${canvas.title}${colour ? `, colour ${colour.code} in front` : ''}; arrow keys move, Space ${verb}, L changes between laying and lifting${hasChart ? ', Enter lays what is next' : ''}`}
          entry={entry}
          legend={legend}
          data={data}
          wish={wish}
          layers={layers}
          frame={section}
          sections={pieces}
          cursor={cursor}
          onCursor={setCursor}
          marking={marking}
          onKey={onKey}
          eyes={eyes}
          follow={comfort.follow && led ? guide.rect : null}
          tremor={comfort.tremor}
          keptAs={`${canvas.id}-${number}`}
        />
        {comfort.crossHair && cursor && (
          <p className="text-[0.95rem]" data-testid="cross-hair">
            {crossHairInWords(cursor, canvas)}
          </p>
        )}
        {corner && (
          <p role="status" className="text-[0.95rem]">
            Now touch the opposite corner of the area.
          </p>
        )}
        <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
          <SavedLine waiting={marks.waiting} last={marks.history.undo && said(marks.history.undo)} />
          <div className="flex min-w-0 grow justify-end gap-2">
            <FindField canvas={canvas} legend={legend} onFind={found} above />
            {legend.length > 0 && (
              <ScanButton
                canvas={canvas}
                legend={legend}
                bagsCarry={canvas.bagsCarry}
                act="Take it in front"
                onColour={(line) => found({ kind: 'colour', lines: [line] })}
              />
            )}
          </div>
        </div>
      </section>
      <section
        className="flex min-h-0 min-w-0 flex-col gap-3 overflow-y-auto md:max-lg:grid md:max-lg:grid-cols-2 md:max-lg:content-start"
        aria-label="The colour in front"
      >
        <FrontSlip
          counts={counts}
          shape={canvas.shape}
          place={place}
          section={number}
          heading={heading}
          kit={kit}
          laidOfColour={laidOfColour}
          done={told?.what === 'done' ? told : null}
          canUndo={marks.waiting === 0 && !marks.history.nameless && marks.history.undo?.own === true}
          onFinish={wide.finish}
          onLiftAll={() => wide.markWide('section', 'lift')}
          onNext={() => stepColour(1)}
          onUndo={() => marks.history.undo && undo(marks.history.undo.id)}
        >
          {hasChart ? (
            <GuideSlip
              guide={{ ...guide, step: stepGuide }}
              left={colour && leftInSection > 0 ? leftHere : null}
              voice={{ on: speaks, ...voice }}
              onLay={layNext}
              onVoice={(on) => change({ voice: on })}
            />
          ) : (
            <ShareLaid share={allHere === 0 ? 0 : 1 - leftHere / allHere} onShare={wide.setShare} />
          )}
        </FrontSlip>
        {allLaid && <AllLaid canvasId={canvas.id} drills={bench.drills} />}
        {onTo !== null && (
          <button type="button" className="button button-main" onClick={() => goTo(onTo)}>
            Section {number} is done; go on to {onTo} <ChevronRight size={20} aria-hidden />
          </button>
        )}
        <UnmarkedNotice
          told={told}
          planning={guide.planning}
          {...{ chart, legend, sections: pieces, here: number, front: colour }}
          onSection={goTo}
          onColour={choose}
        />
        {fault && <Notice kind="fault">{fault}</Notice>}
        {hasChart && (
          <ColoursInLine
            school={school}
            counts={counts}
            section={number}
            shape={canvas.shape}
            onChoose={choose}
          />
        )}
        {!hasChart && legend.length > 0 && (
          <TickList canvasId={canvas.id} section={section} pots={pots} shape={canvas.shape} />
        )}
        <SittingTimer
          running={running}
          lastMarkAt={record.lastMarkAt}
          note={record.note}
          onNote={record.setNote}
          onStart={record.start}
          onStop={record.stop}
        />
        <p className="text-faded" data-testid="laid-in-all">
          {many(marks.laid)} of {many(bench.drills)} laid, {percentLaid(marks.laid, bench.drills).toFixed(2)}{' '}
          %
        </p>
        {popped.length > 0 && <PoppedLine canvasId={canvas.id} drills={popped.length} />}
        <BadDrillButtons thrown={bad.thrown} onCount={bad.count} />
        <WiderMarks section={number} counts={counts} panel={wide.panel} onMark={wide.markWide} />
        {colour && <RanOutSlip key={colour.line} canvasId={canvas.id} line={colour} />}
        <TrashSlip
          trash={record.thrown.trash}
          records={record.thrown.trashRecords}
          onRecord={(trash, refused) => {
            const url = `/api/canvases/${canvas.id}/trash`;
            void record.enter<CheckinView>(url, trash, record.setThrown, true, refused);
          }}
        />
        <OtherCanvases here={canvas.id} />
        <p className="text-[0.95rem] text-faded">
          Rest eyes and wrists now and then; turn the tray or the pen, not the wrist.
        </p>
      </section>
    </div>
  );
}
