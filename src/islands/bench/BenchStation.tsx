import { Check, ChevronRight, Hand, PenTool } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { colourInFront, coloursInOrder, isMarkable, nextColour } from '../../core/bench/colours';
import type { MarkKind } from '../../core/bench/marking';
import { markInWords } from '../../core/bench/undoInWords';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine, ofLine } from '../../core/canvas/legend';
import { isLaid } from '../../core/cells/bitmap';
import { type CellPlace, cellIndex, cellsInRect, countInRect } from '../../core/cells/rect';
import { type PotPlaces, placeParts, potsInCodeOrder } from '../../core/codes/places';
import { percentLaid } from '../../core/progress/progress';
import type { BlockSize } from '../../core/sections/blockGrid';
import { sectionAsked } from '../../core/sections/next';
import { counted, many } from '../../core/words/numbers';
import type { BenchView, MarkOffer } from '../../server/bench/contract';
import type { CheckinView } from '../../server/checkin/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip } from '../../ui/Chip';
import { ColourList } from '../../ui/ColourList';
import type { Marking } from '../../ui/cloth/Cloth';
import { coverLayer } from '../../ui/cloth/layers';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { TrashSlip } from '../checkin/TrashSlip';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { SectionStepper } from '../sections/SectionStepper';
import { useSections } from '../sections/useSections';
import { UndoButtons } from '../writing/UndoButtons';
import { useWrite } from '../writing/useWrite';
import { SittingTimer } from './SittingTimer';
import { useMarks } from './useMarks';

interface BenchProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  places: PotPlaces;
  block: BlockSize;
  bench: BenchView;
  /** Section and colour named in the address. */
  asked: { section: number | null; line: number | null };
}

/** The work itself: one section and one colour in front, marked as they are laid. */
export function BenchStation(props: BenchProps) {
  return <WithCloth entry={props.entry}>{(data) => <Bench {...props} data={data} />}</WithCloth>;
}

function Bench({ entry, legend, places, block, bench, asked, data }: BenchProps & { data: ClothData }) {
  const { canvas, hasChart } = entry;
  const { chart, laid } = data;
  const marks = useMarks(canvas, data, bench);
  const sections = useSections(canvas, data, block, highestLine(legend));
  const { store } = marks;
  const { fault, enter } = useWrite(canvas.id);
  const [number, setNumber] = useState(() => sectionAsked(sections, asked.section));
  const [wanted, setWanted] = useState(asked.line);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const [moving, setMoving] = useState(false);
  const [other, setOther] = useState<LegendLine | null>(null);
  const [sittings, setSittings] = useState(bench.sittings);
  const [trash, setTrash] = useState(bench.trash);
  const section = sections[number - 1]!.section;
  const running = sittings.find((sitting) => sitting.endedAt === null) ?? null;
  const pots = useMemo(() => potsInCodeOrder(legend, places), [legend, places]);

  // The bitmap is changed in place; its version tells when to count again.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  const left = useMemo(
    () => countInRect(chart, section, Math.max(1, legend.length), laid),
    [chart, section, laid, legend, marks.version],
  );
  const all = useMemo(
    () => countInRect(chart, section, Math.max(1, legend.length), null),
    [chart, section, legend],
  );
  const lines = useMemo(() => (hasChart ? coloursInOrder(legend, all) : []), [hasChart, legend, all]);
  const colour = colourInFront(lines, left, wanted);
  const home = placeParts(pots.find((pot) => pot.line === colour)?.place ?? '');
  const leftHere = colour ? left[colour.line]! : left[1]!;
  const leftInSection = left.subarray(1).reduce((sum, drills) => sum + drills, 0);

  const layers = useMemo(
    () => [coverLayer(section, getComputedStyle(document.documentElement).getPropertyValue('--c-bench'))],
    [section],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new wish makes the cloth paint the changed bitmap
  const wish = useMemo(
    () => ({ laid, focus: colour ? new Set([colour.line]) : null }),
    [laid, colour, marks.version],
  );

  const cellOf = (place: CellPlace) => cellIndex(place, chart.width);
  const markable = (place: CellPlace) => isMarkable(chart, section, colour?.line ?? null, place);

  const stroke = useRef<{ kind: MarkKind; cells: number[] } | null>(null);
  const marking: Marking = {
    begin: (place) => {
      if (!markable(place)) {
        setOther(ofLine(legend, chart.cells[cellOf(place)]!) ?? null);
        return;
      }
      setOther(null);
      const kind = isLaid(laid, cellOf(place)) ? 'lift' : 'lay';
      stroke.current = { kind, cells: store.preview(kind, [cellOf(place)]) };
    },
    extend: (way) => {
      const { current } = stroke;
      if (current) current.cells.push(...store.preview(current.kind, way.filter(markable).map(cellOf)));
    },
    end: () => {
      if (stroke.current) store.commit(stroke.current.kind, stroke.current.cells, running?.id ?? null);
      stroke.current = null;
    },
  };
  const markAll = (kind: MarkKind) => {
    const cells = cellsInRect(chart, laid, section, colour?.line ?? null, kind === 'lift');
    store.preview(kind, cells);
    store.commit(kind, cells, running?.id ?? null);
  };
  const stepColour = (step: 1 | -1) => {
    const next = nextColour(lines, left, colour, step);
    if (next) setWanted(next.line);
  };
  const goTo = (next: number) => {
    setNumber(next);
    setWanted(null);
    setOther(null);
    setCursor(null);
  };
  const said = (mark: MarkOffer) =>
    markInWords(
      mark,
      legend,
      sections.map((each) => each.section),
      canvas.width,
    );
  const base = `/api/canvases/${canvas.id}`;
  const shown = (view: BenchView) => setSittings(view.sittings);
  const start = () => void enter<BenchView>(`${base}/sittings`, {}, shown);
  const stop = (note: string) =>
    running && void enter<BenchView>(`${base}/sittings/${running.id}/end`, { note }, shown);

  const onKey = (key: string) => {
    switch (key.toLowerCase()) {
      case ' ':
        if (cursor) {
          marking.begin(cursor);
          marking.end();
        }
        return true;
      case 'a':
        if (leftHere > 0) markAll('lay');
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
        className="flex min-h-[26rem] min-w-0 flex-col gap-2 md:min-h-[36rem] lg:min-h-0"
        aria-label="The section on the bench"
      >
        <div className="flex flex-wrap items-center justify-between gap-2">
          <SectionStepper number={number} count={sections.length} onChange={goTo} />
          <div className="flex gap-2">
            <UndoButtons
              short
              history={marks.history}
              words={said}
              busy={marks.waiting > 0}
              onUndo={(id) => store.undo(id)}
              onRedo={(id) => store.redo(id)}
            />
            <ToggleButton on={moving} onChange={setMoving}>
              {moving ? <Hand size={20} aria-hidden /> : <PenTool size={20} aria-hidden />}
              {moving ? 'A finger moves' : 'A finger marks'}
            </ToggleButton>
          </div>
        </div>
        <StationCloth
          label={`Section ${number} of ${canvas.title}${colour ? `, colour ${colour.code} in front` : ''}; arrow keys move, Space marks`}
          entry={entry}
          legend={legend}
          data={data}
          wish={wish}
          layers={layers}
          frame={section}
          cursor={cursor}
          onCursor={setCursor}
          marking={moving ? null : marking}
          onKey={(event) => onKey(event.key)}
        />
        <SavedLine waiting={marks.waiting} last={marks.history.undo && said(marks.history.undo)} />
      </section>
      <section className="flex min-h-0 flex-col gap-3 overflow-y-auto" aria-label="The colour in front">
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
                <p className="number text-[1.7rem] leading-tight font-semibold">{colour.code}</p>
                <p className="truncate text-[0.95rem] text-faded">
                  {colour.name}
                  {colour.finish !== 'plain' && `, ${colour.finish}`}
                </p>
              </div>
            </div>
          ) : (
            <p>Without a chart, progress is kept by area: mark a whole section when it is done.</p>
          )}
          <p className="mt-2" aria-live="polite" data-testid="left-here">
            <span className="big-number">{many(leftHere)}</span> left here of{' '}
            {many(colour ? all[colour.line]! : all[1]!)}
          </p>
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
                Take it back
              </button>
            )}
          </div>
        </div>
        {leftInSection === 0 && number < sections.length && (
          <button type="button" className="button" onClick={() => goTo(number + 1)}>
            Section {number} is done; on to {number + 1} <ChevronRight size={20} aria-hidden />
          </button>
        )}
        {other && (
          <Notice kind="hint">
            That cell is <span className="number">{other.code}</span>; {colour?.code} is in front.{' '}
            <button
              type="button"
              className="min-h-11 underline"
              onClick={() => {
                setWanted(other.line);
                setOther(null);
              }}
            >
              Bring {other.code} forward
            </button>
          </Notice>
        )}
        {(marks.fault ?? fault) && <Notice kind="fault">{marks.fault ?? fault}</Notice>}
        <SittingTimer running={running} onStart={start} onStop={stop} />
        <p className="text-faded" data-testid="laid-in-all">
          {many(marks.laid)} of {many(bench.drills)} laid, {percentLaid(marks.laid, bench.drills).toFixed(2)}{' '}
          %; {counted(leftInSection, 'drill')} left in this section
        </p>
        {hasChart && (
          <ColourList
            label="Colours of this section, most drills first"
            lines={lines}
            shape={canvas.shape}
            chosen={colour?.line ?? null}
            onChoose={(line) => {
              setWanted(line.line);
              setOther(null);
            }}
            beside={(line) => (left[line.line] === 0 ? 'done ✓' : `${left[line.line]} left`)}
          />
        )}
        <TrashSlip
          trash={trash}
          onRecord={(record) => enter<CheckinView>(`${base}/trash`, record, (view) => setTrash(view.trash))}
        />
        <p className="text-[0.95rem] text-faded">
          Rest eyes and wrists now and then; turn the tray or the pen, not the wrist.
        </p>
      </section>
    </div>
  );
}

/** Whether all marks have arrived, and what undo would take back. */
function SavedLine({ waiting, last }: { waiting: number; last: string | null }) {
  return (
    <p className="text-[0.95rem] text-faded" data-testid="saved" aria-live="polite">
      {waiting === 0 ? 'Every mark is saved.' : `Saving ${counted(waiting, 'mark')}…`}
      {last && ` Last: ${last}.`}
    </p>
  );
}
