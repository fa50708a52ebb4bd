import { yupResolver } from '@hookform/resolvers/yup';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { sizeInWords } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine, ofLine } from '../../core/canvas/legend';
import { cellsInRect, countInRect, wholeRect } from '../../core/cells/rect';
import { percentLaid } from '../../core/progress/progress';
import { type BlockSize, type SectionTally, sectionAt } from '../../core/sections/blockGrid';
import { nextToDo, sectionByKey } from '../../core/sections/next';
import { counted, many } from '../../core/words/numbers';
import type { BenchView } from '../../server/bench/contract';
import { blockSizeSchema, type SectionsView } from '../../server/sections/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip, ColourName } from '../../ui/Chip';
import { panelsLayer } from '../../ui/cloth/layers';
import { DataTable } from '../../ui/DataTable';
import { showPercent } from '../../ui/headerFigures';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { SymbolGlyph } from '../../ui/SymbolGlyph';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { asNumber } from '../../ui/typedNumber';
import { useMarks } from '../bench/useMarks';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { useWrite } from '../writing/useWrite';
import { cutsLayer, pickedLayer } from './cutsLayer';
import { LaidBefore } from './LaidBefore';
import { useInFront, useKeptFront } from './useInFront';
import { usePickedSections } from './usePickedSections';
import { useSections } from './useSections';

/** The canvas cut into sittings. */
export function SectionsStation({
  entry,
  legend,
  first,
  bench,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: BlockSize;
  bench: BenchView;
}) {
  return (
    <WithCloth entry={entry}>
      {(data) => <Cuts entry={entry} legend={legend} first={first} bench={bench} data={data} />}
    </WithCloth>
  );
}

function Cuts({
  entry,
  legend,
  first,
  bench,
  data,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: BlockSize;
  bench: BenchView;
  data: ClothData;
}) {
  const { canvas, hasChart } = entry;
  const marks = useMarks(canvas, data, bench);
  const { store } = marks;
  useEffect(() => showPercent(percentLaid(marks.laid, bench.drills)), [marks.laid, bench.drills]);
  const [block, setBlock] = useState(first);
  const sections = useSections(canvas, data, block, highestLine(legend), marks.version);
  const front = useInFront(entry, sections);
  // Sections that were cut anew have other numbers.
  const chosen = Math.min(front.section, sections.length);
  const setChosen = (number: number) => front.show(number, number === front.section ? front.line : null);
  useKeptFront(entry, chosen, front.line);
  const { fault, write } = useWrite(canvas.id);
  const [asTable, setAsTable] = useState(false);
  const tally = sections[chosen - 1] ?? sections[0]!;
  const pieces = useMemo(() => sections.map((each) => each.section), [sections]);
  const done = useMemo(
    () =>
      new Set(
        sections
          .filter((each) => each.drills > 0 && each.laid === each.drills)
          .map((each) => each.section.number),
      ),
    [sections],
  );
  const [begun, setBegun] = useState(false);
  const shift = useRef(false);
  const hand = usePickedSections(pieces, chosen, setChosen, () => shift.current);
  const { picked } = hand;
  const [entered, setEntered] = useState<{ drills: number; ids: string[] } | null>(null);
  const layers = useMemo(
    () => [
      cutsLayer(pieces, chosen, done),
      ...(begun ? [pickedLayer(pieces, picked)] : []),
      panelsLayer(canvas, canvas.panels),
    ],
    [pieces, chosen, done, canvas, begun, picked],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new wish makes the canvas paint the changed bitmap
  const wish = useMemo(() => ({ laid: data.laid, focus: null }), [data, marks.version]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place
  const left = useMemo(
    () =>
      begun && hasChart ? countInRect(data.chart, wholeRect(canvas), highestLine(legend), data.laid) : null,
    [begun, hasChart, data, canvas, legend, marks.version],
  );
  const inPicked = sections.filter(({ section }) => picked.has(section.number));
  const enterBefore = (cells: number[]) => {
    const ids = store.commit('lay', store.preview('lay', cells), null, true);
    setEntered({ drills: cells.length, ids });
    hand.clear();
  };
  const frame = useMemo(() => wholeRect(canvas), [canvas]);

  return (
    <div className="grid min-h-[38rem] grow gap-4 lg:h-[calc(100dvh-9.6rem)] lg:min-h-0 lg:grid-cols-[1fr_20rem]">
      <section
        className="flex min-h-[30rem] min-w-0 flex-col md:min-h-[40rem] lg:min-h-0"
        aria-label="The canvas, cut into sections"
        onPointerDownCapture={({ shiftKey }) => {
          shift.current = shiftKey;
        }}
      >
        {asTable ? (
          <ScrollRegion label="Sections" className="min-h-0 grow">
            <SectionsTable sections={sections} legend={legend} hasChart={hasChart} />
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
        <ToggleButton
          on={begun}
          onChange={(on) => {
            setBegun(on);
            setAsTable(false);
            setEntered(null);
            hand.clear();
          }}
        >
          {begun ? 'Back to the sections' : 'Already begun'}
        </ToggleButton>
        {begun ? (
          <LaidBefore
            sections={picked.size}
            drills={inPicked.reduce((sum, each) => sum + each.drills - each.laid, 0)}
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
                inPicked.flatMap(({ section }) => cellsInRect(data.chart, data.laid, section, null, false)),
              )
            }
            onColours={(lines) =>
              enterBefore(
                lines.flatMap((line) => cellsInRect(data.chart, data.laid, wholeRect(canvas), line, false)),
              )
            }
            done={entered?.drills ?? null}
            onUndo={
              marks.waiting === 0 && entered
                ? () => {
                    for (const id of entered.ids.toReversed()) store.undo(id);
                    setEntered(null);
                  }
                : null
            }
          />
        ) : (
          <>
            <BlockForm
              block={block}
              onSave={async (wish) => {
                await write<SectionsView>('PUT', `/api/canvases/${canvas.id}/sections`, wish, (next) => {
                  setBlock(next.block);
                  front.show(nextToDo(next.sections), null);
                });
              }}
            />
            {fault && <Notice kind="fault">{fault}</Notice>}
            <div className="slip" aria-live="polite">
              <h2 className="text-xl">
                Section {tally.section.number} of {pieces.length}
              </h2>
              <p className="text-faded">
                Columns {tally.section.x + 1}–{tally.section.x + tally.section.width}, rows{' '}
                {tally.section.y + 1}–{tally.section.y + tally.section.height},{' '}
                {sizeInWords({ ...tally.section, pitchMm: canvas.pitchMm })}
              </p>
              <p className="big-number mt-2">{many(tally.drills - tally.laid)}</p>
              <p>
                {tally.laid === 0
                  ? `${tally.drills === 1 ? 'drill' : 'drills'} to lay`
                  : `left of ${counted(tally.drills, 'drill')}`}
                {hasChart && `, ${counted(tally.colours, 'colour')}`}
              </p>
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
            </div>
            <div className="flex flex-wrap gap-2">
              <a className="button button-main grow" href={`/canvas/${canvas.id}/bench?section=${chosen}`}>
                Lay this section
              </a>
              {hasChart && (
                <a
                  className="button grow"
                  href={`/canvas/${canvas.id}/placing?section=${tally.section.number}`}
                >
                  Its runs
                </a>
              )}
            </div>
          </>
        )}
        {marks.fault && <Notice kind="fault">{marks.fault}</Notice>}
        {!begun && (
          <ToggleButton on={asTable} onChange={setAsTable}>
            As a table
          </ToggleButton>
        )}
      </section>
    </div>
  );
}

function BlockForm({
  block,
  onSave,
}: {
  block: BlockSize;
  onSave: (block: { columns: number; rows: number }) => Promise<void>;
}) {
  const form = useForm({ resolver: yupResolver(blockSizeSchema), defaultValues: block });
  const fault = form.formState.errors.columns?.message ?? form.formState.errors.rows?.message;
  return (
    <form onSubmit={form.handleSubmit(onSave)} noValidate>
      <fieldset>
        <legend className="font-semibold">
          Size of a <TermWord term="section">section</TermWord>, in squares
        </legend>
        <div className="mt-1 flex items-center gap-2">
          <input
            className="field number !w-20"
            inputMode="numeric"
            aria-label="Width in squares"
            {...form.register('columns', asNumber('whole'))}
          />
          ×
          <input
            className="field number !w-20"
            inputMode="numeric"
            aria-label="Height in squares"
            {...form.register('rows', asNumber('whole'))}
          />
          <button type="submit" className="button grow" disabled={form.formState.isSubmitting}>
            Cut
          </button>
        </div>
      </fieldset>
      {fault && (
        <p role="alert" className="mt-1 font-medium text-alarm">
          {fault}
        </p>
      )}
    </form>
  );
}

function SectionsTable({
  sections,
  legend,
  hasChart,
}: {
  sections: SectionTally[];
  legend: LegendLine[];
  hasChart: boolean;
}) {
  return (
    <DataTable
      caption="Sections"
      rows={sections}
      rowKey={(row) => String(row.section.number)}
      columns={[
        { key: 'number', header: 'Section', numeric: true, value: (row) => row.section.number },
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
      ]}
    />
  );
}
