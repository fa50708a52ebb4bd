import { ArrowDownToLine, ArrowUpFromLine, Check, ChevronRight, Undo2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { colourInFront, isMarkable, nextColour } from '../../core/bench/colours';
import { benchPlace } from '../../core/bench/found';
import type { MarkKind } from '../../core/bench/marking';
import { markInWords } from '../../core/bench/undoInWords';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine, ofLine } from '../../core/canvas/legend';
import { isLaid } from '../../core/cells/bitmap';
import { type CellPlace, cellIndex, cellsInPart, countInPart, isInside } from '../../core/cells/rect';
import { type PotPlaces, placeParts, potsInCodeOrder } from '../../core/codes/places';
import { coloursInOrder } from '../../core/placing/schools';
import type { PlacingWish } from '../../core/placing/wish';
import { percentLaid } from '../../core/progress/progress';
import { nextInOrder } from '../../core/sections/next';
import type { SectionPlan } from '../../core/sections/plan';
import { type Section, tallySections } from '../../core/sections/section';
import { counted, many } from '../../core/words/numbers';
import type { BenchView, MarkOffer } from '../../server/bench/contract';
import type { CheckinView } from '../../server/checkin/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip } from '../../ui/Chip';
import { ColourList } from '../../ui/ColourList';
import type { Marking } from '../../ui/cloth/Cloth';
import { coverLayer } from '../../ui/cloth/layers';
import { showPercent } from '../../ui/headerFigures';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { TrashSlip } from '../checkin/TrashSlip';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { FindField, type Found } from '../find/FindField';
import { useLive } from '../live/useLive';
import { ScanButton } from '../scanning/ScanButton';
import { SectionChooser } from '../sections/SectionChooser';
import { useInFront, useKeptFront } from '../sections/useInFront';
import { useSections } from '../sections/useSections';
import { getJson } from '../writing/api';
import { UndoButtons } from '../writing/UndoButtons';
import { useOutbox, useWrite } from '../writing/useWrite';
import { RanOutSlip } from './RanOutSlip';
import { SittingTimer } from './SittingTimer';
import { TickList } from './TickList';
import { useMarks } from './useMarks';

/** A large act (ms) is not repeated by a second click or a key that is held down. */
const LARGE_ACT_MS = 600;

interface BenchProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  places: PotPlaces;
  cut: SectionPlan | null;
  bench: BenchView;
  /** In which order the colours of a section are laid. */
  order: Pick<PlacingWish, 'school' | 'ownOrder'>;
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

function Bench({ entry, legend, places, bench, order, data }: BenchProps & { data: ClothData }) {
  const { canvas, hasChart } = entry;
  const { chart, laid } = data;
  const marks = useMarks(canvas, data, bench);
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const { store } = marks;
  useEffect(() => showPercent(percentLaid(marks.laid, bench.drills)), [marks.laid, bench.drills]);
  const { fault, enter } = useWrite(canvas.id);
  const { section: number, line: wanted, show } = useInFront(entry, sections);
  const setWanted = (line: number) => show(number, line);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const [lifting, setLifting] = useState(false);
  /** A square that was touched and is not to be marked now. */
  const [other, setOther] = useState<CellPlace | null>(null);
  /** Whether a laid square was touched that stays as it is. */
  const [stays, setStays] = useState(false);
  /** What the last large act did. */
  const [done, setDone] = useState<{ kind: MarkKind; drills: number; code: string | null } | null>(null);
  const [sittings, setSittings] = useState(bench.sittings);
  const [thrown, setThrown] = useState<Pick<BenchView, 'trash' | 'trashRecords'>>(bench);
  useLive(canvas.id, ['sittings', 'trash'], () => {
    getJson<BenchView>(`/api/canvases/${canvas.id}/marks`).then(
      (view) => {
        setSittings(view.sittings);
        setThrown(view);
      },
      () => {},
    );
  });
  const pieces = useMemo(() => sections.map((each) => each.section), [sections]);
  const section = pieces[number - 1]!;
  const tallyNow = () => tallySections(chart, laid, pieces, Math.max(1, highestLine(legend)));
  const heading = useRef<HTMLHeadingElement>(null);
  /** After what was pressed goes away, the focus is at what is in front now. */
  const headed = () => requestAnimationFrame(() => heading.current?.focus({ preventScroll: true }));
  const running = sittings.find((sitting) => sitting.endedAt === null) ?? null;
  const pots = useMemo(() => potsInCodeOrder(legend, places), [legend, places]);

  // The bitmap is changed in place; its version tells when to count again.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  const left = useMemo(
    () => countInPart(chart, section, Math.max(1, highestLine(legend)), laid),
    [chart, section, laid, legend, marks.version],
  );
  const all = useMemo(
    () => countInPart(chart, section, Math.max(1, highestLine(legend)), null),
    [chart, section, legend],
  );
  const lines = useMemo(
    () => (hasChart ? coloursInOrder(legend, all, order.school, order.ownOrder) : []),
    [hasChart, legend, all, order],
  );
  const colour = colourInFront(lines, left, wanted);
  useKeptFront(entry, number, colour?.line ?? null);
  const home = placeParts(pots.find((pot) => pot.line === colour)?.place ?? '');
  const leftHere = colour ? left[colour.line]! : left[1]!;
  const leftInSection = left.subarray(1).reduce((sum, drills) => sum + drills, 0);

  const layers = useMemo(
    () => [coverLayer(section, getComputedStyle(document.documentElement).getPropertyValue('--c-bench'))],
    [section],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new wish makes the canvas paint the changed bitmap
  const wish = useMemo(
    () => ({ laid, focus: colour ? new Set([colour.line]) : null }),
    [laid, colour, marks.version],
  );

  const cellOf = (place: CellPlace) => cellIndex(place, chart.width);
  const markable = (place: CellPlace, lifts: boolean) =>
    isMarkable(data, section, colour?.line ?? null, place, lifts);

  const stroke = useRef<{ kind: MarkKind; cells: number[] } | null>(null);
  const marking: Marking = {
    begin: (place, held) => {
      setDone(null);
      if (!markable(place, lifting || held)) {
        setOther(place);
        return;
      }
      setOther(null);
      const here = isLaid(laid, cellOf(place));
      const kind = lifting || (held && here) ? 'lift' : 'lay';
      const cells = store.preview(kind, [cellOf(place)]);
      stroke.current = { kind, cells };
      setStays(kind === 'lay' && here);
    },
    extend: (way) => {
      const { current } = stroke;
      if (!current) return;
      setStays(false);
      const meant = way.filter((place) => markable(place, current.kind === 'lift'));
      current.cells.push(...store.preview(current.kind, meant.map(cellOf)));
    },
    end: () => {
      if (stroke.current) store.commit(stroke.current.kind, stroke.current.cells, running?.id ?? null);
      stroke.current = null;
    },
    abort: () => {
      if (stroke.current) store.forget();
      stroke.current = null;
    },
  };
  const lastLarge = useRef(Number.NEGATIVE_INFINITY);
  const markAll = (kind: MarkKind) => {
    // A double click, or a key that is held down, is one act: the colour that comes forward next is not meant.
    if (performance.now() - lastLarge.current < LARGE_ACT_MS) return;
    lastLarge.current = performance.now();
    const cells = cellsInPart(chart, laid, section, colour?.line ?? null, kind === 'lift');
    store.preview(kind, cells);
    store.commit(kind, cells, running?.id ?? null);
    // What was done stays in front, so that it can be looked at and undone.
    if (colour) setWanted(colour.line);
    setDone({ kind, drills: cells.length, code: colour?.code ?? null });
    if (document.activeElement instanceof HTMLButtonElement) headed();
  };
  const stepColour = (step: 1 | -1) => {
    setDone(null);
    setStays(false);
    const next = nextColour(lines, left, colour, step);
    if (next) setWanted(next.line);
  };
  const allLaid = bench.drills > 0 && marks.laid >= bench.drills;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at when the section is done, not with every mark
  const onTo = useMemo(
    () => (leftInSection === 0 && !allLaid ? nextInOrder(tallyNow(), number) : null),
    [leftInSection === 0, allLaid, number],
  );
  const bring = (next: number, line: number | null) => {
    show(next, line);
    setOther(null);
    setDone(null);
    setStays(false);
    setCursor(null);
  };
  const goTo = (next: number) => {
    bring(next, null);
    headed();
  };
  const found = (find: Found): string | null => {
    const place = benchPlace(find, chart, pieces, number, Math.max(1, highestLine(legend)));
    if (place.kind === 'nowhere') return place.words;
    // The focus stays in the field: what is typed there next must not act on the canvas.
    bring(place.section, place.line);
    setCursor(place.cell);
    return null;
  };
  const said = (mark: MarkOffer) => markInWords(mark, legend, pieces, canvas.width);
  const base = `/api/canvases/${canvas.id}`;
  const shown = (view: BenchView) => setSittings(view.sittings);
  const start = () => void enter<BenchView>(`${base}/sittings`, {}, shown);
  const stop = (note: string) =>
    running && void enter<BenchView>(`${base}/sittings/${running.id}/end`, { note }, shown);

  // The clock stops by itself with the last drill; a mark that is undone afterwards starts none.
  const wasLaid = useRef(allLaid);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what counts is the moment at which all is laid
  useEffect(() => {
    if (allLaid && !wasLaid.current && running) stop('');
    wasLaid.current = allLaid;
  }, [allLaid]);

  const onKey = ({ key, repeat }: Pick<KeyboardEvent, 'key' | 'repeat'>) => {
    switch (key.toLowerCase()) {
      case ' ':
        if (cursor && !repeat) {
          marking.begin(cursor, false);
          marking.end();
        }
        return true;
      case 'a':
        if (leftHere > 0 && !repeat) markAll('lay');
        return true;
      case 'l':
        if (!repeat) setLifting(!lifting);
        return true;
      case 'n':
        stepColour(1);
        return true;
      case 'p':
        stepColour(-1);
        return true;
      case 't':
        if (running) stop('');
        else start();
        return true;
      default:
        return false;
    }
  };

  return (
    <div className="grid min-h-[38rem] grow gap-4 lg:h-[calc(100dvh-9.6rem)] lg:min-h-0 lg:grid-cols-[1fr_21rem]">
      <section
        className="flex min-w-0 flex-col gap-2 sm:min-h-[26rem] md:min-h-[36rem] lg:min-h-0"
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
          <div className="flex flex-wrap gap-2">
            {hasChart && (
              <a
                className="button"
                href={`/canvas/${canvas.id}/placing?section=${number}${colour ? `&colour=${colour.line}` : ''}`}
              >
                Its placements
              </a>
            )}
            <UndoButtons
              short
              history={marks.history}
              words={said}
              busy={marks.waiting > 0}
              onUndo={(id) => {
                setDone(null);
                store.undo(id);
              }}
              onRedo={(id) => {
                setDone(null);
                store.redo(id);
              }}
            />
            <fieldset className="flex" aria-label="What a touch does">
              <ToggleButton on={!lifting} onChange={() => setLifting(false)}>
                <ArrowDownToLine size={20} aria-hidden /> Lay
              </ToggleButton>
              <ToggleButton on={lifting} onChange={() => setLifting(true)}>
                <ArrowUpFromLine size={20} aria-hidden /> Lift
              </ToggleButton>
            </fieldset>
          </div>
        </div>
        <StationCloth
          label={`Section ${number} of ${canvas.title}${colour ? `, colour ${colour.code} in front` : ''}; arrow keys move, Space ${lifting ? 'lifts' : 'lays'}, L changes between the two`}
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
        />
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
        <div className="slip !py-3">
          {colour ? (
            <div className="flex items-center gap-3.5">
              <Chip line={colour} shape={canvas.shape} size={76} />
              <div className="min-w-0">
                <p className="text-faded">
                  {home.word}{' '}
                  <span className="number text-[1.9rem] leading-none font-semibold text-ink">
                    {home.number}
                  </span>
                </p>
                <h2
                  ref={heading}
                  tabIndex={-1}
                  className="number text-[1.7rem] leading-tight font-semibold focus-visible:outline-offset-0"
                >
                  <span className="sr-only">Section {number}, colour </span>
                  {colour.code}
                </h2>
                <p className="truncate text-[0.95rem] text-faded">
                  {colour.name}
                  {colour.finish !== 'plain' && `, ${colour.finish}`}
                </p>
              </div>
            </div>
          ) : (
            <>
              <h2 ref={heading} tabIndex={-1}>
                Section {number}
              </h2>
              <p>
                There is no chart, so nothing is known of single squares: tick each colour when it is done
                here, and the section when all of it is.
              </p>
            </>
          )}
          <p className="mt-2" aria-live="polite" data-testid="left-here">
            <span className="big-number">{many(leftHere)}</span> left here of{' '}
            {many(colour ? all[colour.line]! : all[1]!)}
          </p>
          {colour && (
            <p className="text-faded">
              {many(leftInSection)} left in section {number}, all colours
            </p>
          )}
          <div className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="button button-main grow"
              disabled={leftHere === 0}
              onClick={() => markAll('lay')}
            >
              <Check size={20} aria-hidden /> {colour ? 'All of it laid' : 'Section laid'}
            </button>
            {colour && (
              <button
                type="button"
                className="button"
                disabled={leftInSection === 0}
                onClick={() => stepColour(1)}
              >
                Next colour <ChevronRight size={20} aria-hidden />
              </button>
            )}
            {!colour && leftHere < all[1]! && (
              <button type="button" className="button" onClick={() => markAll('lift')}>
                Lift all of it
              </button>
            )}
          </div>
          {done && (
            <p className="mt-2 flex flex-wrap items-center gap-2" role="status">
              <span className="grow">
                {many(done.drills)} {done.code && <>of {done.code} </>}
                {done.kind === 'lay' ? 'laid.' : 'lifted.'}
              </span>
              <button
                type="button"
                className="button"
                disabled={marks.waiting > 0 || !marks.history.undo?.own}
                onClick={() => {
                  if (marks.history.undo) store.undo(marks.history.undo.id);
                  setDone(null);
                }}
              >
                <Undo2 size={20} aria-hidden /> Undo
              </button>
            </p>
          )}
        </div>
        {allLaid && (
          <div className="slip border-l-4 border-well" role="status">
            <h2>
              {bench.drills === 1 ? 'The one drill is laid' : `All ${many(bench.drills)} drills are laid`}
            </h2>
            <p className="mt-1">
              <a className="button button-main" href={`/canvas/${canvas.id}/progress`}>
                See how it went
              </a>
            </p>
          </div>
        )}
        {onTo !== null && (
          <button type="button" className="button" onClick={() => goTo(onTo)}>
            Section {number} is done; go on to {onTo} <ChevronRight size={20} aria-hidden />
          </button>
        )}
        {other && (
          <Elsewhere
            place={other}
            sections={pieces}
            here={number}
            line={ofLine(legend, chart.cells[cellOf(other)]!)}
            front={colour}
            onSection={goTo}
            onColour={(line) => {
              setWanted(line);
              setOther(null);
            }}
          />
        )}
        {stays && (
          <Notice kind="hint">
            This square is laid already. To lift its drill, hold it, or choose Lift above the canvas (key L).
          </Notice>
        )}
        {(marks.fault ?? fault) && <Notice kind="fault">{marks.fault ?? fault}</Notice>}
        {hasChart && (
          <div className="flex shrink-0 flex-col md:max-lg:col-start-2 md:max-lg:row-span-12 md:max-lg:row-start-1">
            <ColourList
              label="Colours of this section, in the order in which they are laid"
              atLeastSix
              lines={lines}
              shape={canvas.shape}
              chosen={colour?.line ?? null}
              onChoose={(line) => {
                setWanted(line.line);
                setOther(null);
              }}
              beside={(line) => (left[line.line] === 0 ? 'done ✓' : `${left[line.line]} left`)}
            />
          </div>
        )}
        {!hasChart && legend.length > 0 && (
          <TickList canvasId={canvas.id} section={number} pots={pots} shape={canvas.shape} />
        )}
        <SittingTimer running={running} onStart={start} onStop={stop} />
        <p className="text-faded" data-testid="laid-in-all">
          {many(marks.laid)} of {many(bench.drills)} laid, {percentLaid(marks.laid, bench.drills).toFixed(2)}{' '}
          %
        </p>
        {colour && <RanOutSlip key={colour.line} canvasId={canvas.id} line={colour} />}
        <TrashSlip
          trash={thrown.trash}
          records={thrown.trashRecords}
          onRecord={(record) => enter<CheckinView>(`${base}/trash`, record, setThrown)}
        />
        <p className="text-[0.95rem] text-faded">
          Rest eyes and wrists now and then; turn the tray or the pen, not the wrist.
        </p>
      </section>
    </div>
  );
}

/** A colour by its code; where another one has the same code, by its finish too. */
function nameOf(line: LegendLine, other: LegendLine | null): string {
  return other?.code === line.code ? `${line.code} ${line.finish}` : line.code;
}

/** Where a square is that was touched and not marked, and the way there. */
function Elsewhere({
  place,
  sections,
  here,
  line,
  front,
  onSection,
  onColour,
}: {
  place: CellPlace;
  sections: readonly Section[];
  here: number;
  line: LegendLine | undefined;
  front: LegendLine | null;
  onSection: (number: number) => void;
  onColour: (line: number) => void;
}) {
  const section = sections.find((each) => isInside(each, place));
  if (section && section.number !== here) {
    return (
      <Notice kind="hint">
        That square is in section <span className="number">{section.number}</span>.{' '}
        <button type="button" className="min-h-11 underline" onClick={() => onSection(section.number)}>
          Go to section {section.number}
        </button>
      </Notice>
    );
  }
  if (!line) return <Notice kind="hint">No drill goes on that square.</Notice>;
  return (
    <Notice kind="hint">
      That square is <span className="number">{nameOf(line, front)}</span>; {front && nameOf(front, line)} is
      in front.{' '}
      <button type="button" className="min-h-11 underline" onClick={() => onColour(line.line)}>
        Bring {nameOf(line, front)} forward
      </button>
    </Notice>
  );
}

/** Whether all marks have arrived, and what undo would take back. */
function SavedLine({ waiting, last }: { waiting: number; last: string | null }) {
  // Counted as on every other page: all that waits, and a mark from the moment it is made.
  const shown = Math.max(waiting, useOutbox().waiting);
  return (
    <p className="text-[0.95rem] text-faded" data-testid="saved" aria-live="polite">
      {shown === 0 ? 'Every mark is saved.' : `Saving ${counted(shown, 'change')}…`}
      {last && ` Last: ${last}.`}
    </p>
  );
}
