import { useEffect, useMemo, useRef, useState } from 'react';
import { sizeInWords } from '../../core/canvas/canvas';
import { highestLine, type LegendLine, ofLine } from '../../core/canvas/legend';
import { cellsInPart, countInPart, wholeRect } from '../../core/cells/rect';
import { minutesInWords, roughTimeInWords } from '../../core/pace/timeInWords';
import { percentLaid } from '../../core/progress/progress';
import { misfitInWords } from '../../core/sections/fit';
import type { JudgedSection } from '../../core/sections/judge';
import { sectionByKey } from '../../core/sections/next';
import { leftInSections } from '../../core/sections/pick';
import { planFigures } from '../../core/sections/planInWords';
import { type SectionTally, sectionAt } from '../../core/sections/section';
import { counted, many } from '../../core/words/numbers';
import type { BenchView } from '../../server/bench/contract';
import { Chip, ColourName } from '../../ui/Chip';
import { panelsLayer } from '../../ui/cloth/layers';
import { DataTable } from '../../ui/DataTable';
import { showPercent } from '../../ui/headerFigures';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { SymbolGlyph } from '../../ui/SymbolGlyph';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { useMarks } from '../bench/useMarks';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { cutsLayer, pickedLayer } from './cutsLayer';
import { LaidBefore } from './LaidBefore';
import { allLaid, inTheWay } from './marked';
import { SectionsNav } from './SectionsNav';
import { TimeModelNote } from './TimeModelNote';
import { useInFront, useKeptFront } from './useInFront';
import { usePickedSections } from './usePickedSections';
import { type SectionProps, useSectionStation } from './useSectionStation';

/** The sections of a canvas: how each stands, how long it takes, and what is in the way. */
export const SectionsStation = withLegend(SectionsStationWithList);

function SectionsStationWithList(props: SectionProps & { bench: BenchView }) {
  return (
    <>
      <SectionsNav canvasId={props.entry.canvas.id} here="" />
      <WithCloth entry={props.entry} cut={props.first.plan}>
        {(data) => <Sections {...props} data={data} />}
      </WithCloth>
    </>
  );
}

function Sections({ bench, data, ...props }: SectionProps & { bench: BenchView; data: ClothData }) {
  const { entry, legend } = props;
  const { canvas, hasChart } = entry;
  const marks = useMarks(canvas, data, bench);
  const { store } = marks;
  useEffect(() => showPercent(percentLaid(marks.laid, bench.drills)), [marks.laid, bench.drills]);
  const station = useSectionStation(props, data, marks.version);
  const { tallies: sections, judged } = station;
  const front = useInFront(entry, sections);
  // Sections that were cut anew have other numbers.
  const chosen = Math.min(front.section, sections.length);
  const setChosen = (number: number) => front.show(number, number === front.section ? front.line : null);
  useKeptFront(entry, chosen, front.line);
  const [asTable, setAsTable] = useState(false);
  const tally = sections[chosen - 1] ?? sections[0]!;
  const pieces = useMemo(() => sections.map((each) => each.section), [sections]);
  const done = useMemo(() => allLaid(sections), [sections]);
  const marked = useMemo(() => inTheWay(judged ?? []), [judged]);
  const [begun, setBegun] = useState(false);
  const shift = useRef(false);
  const hand = usePickedSections(pieces, chosen, setChosen, () => shift.current);
  const { picked } = hand;
  const [entered, setEntered] = useState<{ drills: number; ids: string[] } | null>(null);
  const layers = useMemo(
    () => [
      cutsLayer(pieces, chosen, done, marked),
      ...(begun ? [pickedLayer(pieces, picked)] : []),
      panelsLayer(canvas.panelRects),
    ],
    [pieces, chosen, done, marked, canvas, begun, picked],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new wish makes the canvas paint the changed bitmap
  const wish = useMemo(() => ({ laid: data.laid, focus: null }), [data, marks.version]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place
  const left = useMemo(
    () =>
      begun && hasChart ? countInPart(data.chart, wholeRect(canvas), highestLine(legend), data.laid) : null,
    [begun, hasChart, data, canvas, legend, marks.version],
  );
  const inPicked = sections.filter(({ section }) => picked.has(section.number));
  const enterBefore = (cells: number[]) => {
    const ids = store.commit('lay', store.preview('lay', cells), null, { before: true });
    setEntered({ drills: cells.length, ids });
    hand.clear();
  };
  const frame = useMemo(() => wholeRect(canvas), [canvas]);

  return (
    <div className="station lg:h-[calc(100dvh-12.4rem)] lg:grid-cols-[1fr_20rem]">
      <section
        className="flex min-h-[30rem] min-w-0 flex-col md:min-h-[40rem] lg:min-h-0"
        aria-label="The canvas, cut into sections"
        onPointerDownCapture={({ shiftKey }) => {
          shift.current = shiftKey;
        }}
      >
        {asTable ? (
          <ScrollRegion label="Sections" className="min-h-0 grow">
            <SectionsTable sections={judged ?? sections} legend={legend} hasChart={hasChart} />
          </ScrollRegion>
        ) : (
          <StationCloth
            label={`${canvas.title}, cut into ${many(pieces.length)} sections; arrow keys move, ${begun ? 'Space chooses, Shift and arrows choose on the way' : 'Enter goes to the bench'}`}
            entry={entry}
            legend={legend}
            data={data}
            wish={wish}
            layers={layers}
            frame={frame}
            cursor={null}
            {...(begun ? { marking: hand.marking } : {})}
            onCursor={(place) => {
              if (begun) return;
              const section = sectionAt(pieces, place.x, place.y);
              if (section) setChosen(section.number);
            }}
            onKey={({ key, shiftKey }) => {
              if (begun) return hand.onKey({ key, shiftKey });
              if (key === 'Enter') {
                location.assign(`/canvas/${canvas.id}/bench?section=${chosen}`);
                return true;
              }
              const step = sectionByKey(pieces, chosen, key);
              if (step === null) return false;
              setChosen(step);
              return true;
            }}
          />
        )}
      </section>
      <section className="flex min-h-0 min-w-0 flex-col gap-3 overflow-y-auto" aria-label="The section">
        {begun ? (
          <>
            <ToggleButton
              on
              onChange={() => {
                setBegun(false);
                setEntered(null);
                hand.clear();
              }}
            >
              Back to the sections
            </ToggleButton>
            <LaidBefore
              sections={picked.size}
              drills={leftInSections(inPicked)}
              colours={
                left
                  ? legend.flatMap((line) => (left[line.line]! > 0 ? [{ line, left: left[line.line]! }] : []))
                  : []
              }
              shape={canvas.shape}
              area={hand.area}
              onArea={hand.setArea}
              onClear={hand.clear}
              onSections={() =>
                enterBefore(
                  inPicked.flatMap(({ section }) => cellsInPart(data.chart, data.laid, section, null, false)),
                )
              }
              onColours={(lines) =>
                enterBefore(
                  lines.flatMap((line) => cellsInPart(data.chart, data.laid, wholeRect(canvas), line, false)),
                )
              }
              done={entered?.drills ?? null}
              onUndo={
                marks.waiting === 0 && entered
                  ? () => {
                      for (const id of [...entered.ids].reverse()) store.undo(id);
                      setEntered(null);
                    }
                  : null
              }
            />
          </>
        ) : (
          <>
            <SectionSlip
              tally={tally}
              judged={judged?.[tally.section.number - 1] ?? null}
              count={pieces.length}
              canvas={canvas}
              legend={legend}
              hasChart={hasChart}
            />
            <div className="flex flex-wrap gap-2">
              <a className="button button-main grow" href={`/canvas/${canvas.id}/bench?section=${chosen}`}>
                Lay this section
              </a>
              {hasChart && (
                <a className="button grow" href={`/canvas/${canvas.id}/placing?section=${chosen}`}>
                  Its placements
                </a>
              )}
            </div>
            <AllSections
              judged={judged}
              done={done.size}
              count={pieces.length}
              cutUrl={`/canvas/${canvas.id}/sections/cut`}
            />
            {station.ready && <TimeModelNote view={station.timeModel} pace={station.pace} />}
            <div className="flex flex-wrap gap-2">
              <ToggleButton on={asTable} onChange={setAsTable}>
                As a table
              </ToggleButton>
              <ToggleButton
                on={false}
                onChange={() => {
                  setBegun(true);
                  setAsTable(false);
                }}
              >
                Already begun
              </ToggleButton>
            </div>
          </>
        )}
        {(station.fault ?? marks.fault) && <Notice kind="fault">{station.fault ?? marks.fault}</Notice>}
      </section>
    </div>
  );
}

function SectionSlip({
  tally,
  judged,
  count,
  canvas,
  legend,
  hasChart,
}: {
  tally: SectionTally;
  judged: JudgedSection | null;
  count: number;
  canvas: { pitchMm: number; shape: 'square' | 'round' };
  legend: readonly LegendLine[];
  hasChart: boolean;
}) {
  const { section } = tally;
  const left = tally.drills - tally.laid;
  return (
    <div className="slip" aria-live="polite">
      <h2 className="text-xl">
        Section {many(section.number)} of {many(count)}
      </h2>
      {section.name !== null && (
        <p className="font-semibold" dir="auto">
          {section.name}
        </p>
      )}
      <p className="text-faded">
        Columns {section.x + 1}–{section.x + section.width}, rows {section.y + 1}–{section.y + section.height}
        , {sizeInWords({ ...section, pitchMm: canvas.pitchMm })}
      </p>
      <p className="big-number mt-2">{many(left)}</p>
      <p>
        {tally.laid === 0
          ? `${tally.drills === 1 ? 'drill' : 'drills'} to lay`
          : `left of ${counted(tally.drills, 'drill')}`}
        {hasChart && `, ${counted(tally.colours, 'colour')}`}
      </p>
      {judged && left > 0 && <p data-testid="section-minutes">{minutesInWords(judged.minutes)}</p>}
      {section.order !== section.number && <p>Turn {many(section.order)} in the order of the work</p>}
      {hasChart && tally.largest && (
        <div className="mt-2 flex items-center gap-3">
          <Chip line={ofLine(legend, tally.largest.line)!} shape={canvas.shape} />
          <ColourName line={ofLine(legend, tally.largest.line)!} />
          <span className="ml-auto text-right">
            <span className="number font-semibold">{many(tally.largest.drills)}</span>
            <br />
            <span className="text-[0.95rem] text-faded">the largest</span>
          </span>
        </div>
      )}
      {judged?.conflict && left > 0 && <Notice kind="hint">{judged.conflict}</Notice>}
      {judged && judged.misfits.length > 0 && left > 0 && (
        <Notice kind="hint">{misfitInWords(judged.misfits, section, canvas.pitchMm)}</Notice>
      )}
    </div>
  );
}

/** What all sections come to. */
function AllSections({
  judged,
  done,
  count,
  cutUrl,
}: {
  judged: readonly JudgedSection[] | null;
  done: number;
  count: number;
  cutUrl: string;
}) {
  const figures = useMemo(() => judged && planFigures(judged), [judged]);
  return (
    <p data-testid="all-sections" aria-live="polite">
      {many(done)} of {many(count)} <TermWord term="section">sections</TermWord> done
      {figures?.minutes ? `; about ${roughTimeInWords(figures.minutes.all)} left.` : '.'}
      {figures &&
        figures.conflicts > 0 &&
        ` In ${counted(figures.conflicts, 'section')} your hand rests on bare adhesive (marked !).`}
      {figures &&
        figures.misfits > 0 &&
        ` ${counted(figures.misfits, 'section does not fit', 'sections do not fit')} your light pad, arm or frame (marked !).`}{' '}
      {figures && figures.misfits > 0 && (
        <a className="underline" href={cutUrl}>
          Cut it so that all fit
        </a>
      )}
    </p>
  );
}

function SectionsTable({
  sections,
  legend,
  hasChart,
}: {
  sections: readonly (SectionTally & Partial<JudgedSection>)[];
  legend: LegendLine[];
  hasChart: boolean;
}) {
  return (
    <DataTable
      caption="Sections"
      rows={[...sections]}
      rowKey={(row) => String(row.section.number)}
      columns={[
        { key: 'number', header: 'Section', numeric: true, value: (row) => row.section.number },
        { key: 'order', header: 'Turn', numeric: true, value: (row) => row.section.order },
        { key: 'name', header: 'Name', value: (row) => row.section.name ?? '' },
        {
          key: 'drills',
          header: 'Drills',
          numeric: true,
          value: (row) => row.drills,
          show: (row) => many(row.drills),
        },
        {
          key: 'left',
          header: 'Left',
          numeric: true,
          value: (row) => row.drills - row.laid,
          show: (row) => many(row.drills - row.laid),
        },
        {
          key: 'minutes',
          header: 'Minutes',
          numeric: true,
          value: (row) => row.minutes?.expected ?? 0,
          show: (row) => (row.minutes ? many(Math.round(row.minutes.expected)) : ''),
        },
        ...(hasChart
          ? [
              { key: 'colours', header: 'Colours', numeric: true, value: (row: SectionTally) => row.colours },
              {
                key: 'largest',
                header: 'Largest colour',
                value: (row: SectionTally) => (row.largest ? ofLine(legend, row.largest.line)!.code : ''),
                show: (row: SectionTally) => {
                  const line = row.largest && ofLine(legend, row.largest.line);
                  return line ? (
                    <span className="number">
                      <SymbolGlyph line={line} /> {line.code}, {many(row.largest?.drills ?? 0)}
                    </span>
                  ) : (
                    ''
                  );
                },
              },
            ]
          : []),
        {
          key: 'conflict',
          header: 'In the way',
          value: (row) => (row.conflict ? 'hand' : row.misfits && row.misfits.length > 0 ? 'size' : ''),
        },
      ]}
    />
  );
}
