import { yupResolver } from '@hookform/resolvers/yup';
import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { sizeInWords } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine, ofLine } from '../../core/canvas/legend';
import { wholeRect } from '../../core/cells/rect';
import { type BlockSize, type SectionTally, sectionAt } from '../../core/sections/blockGrid';
import { nextToDo, sectionByKey } from '../../core/sections/next';
import { counted, many } from '../../core/words/numbers';
import { blockSizeSchema, type SectionsView } from '../../server/sections/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip, ColourName } from '../../ui/Chip';
import { panelsLayer } from '../../ui/cloth/layers';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { SymbolGlyph } from '../../ui/SymbolGlyph';
import { ToggleButton } from '../../ui/ToggleButton';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { useWrite } from '../writing/useWrite';
import { cutsLayer } from './cutsLayer';
import { useSections } from './useSections';

/** The canvas cut into sittings. */
export function SectionsStation({
  entry,
  legend,
  first,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: BlockSize;
}) {
  return (
    <WithCloth entry={entry}>
      {(data) => <Cuts entry={entry} legend={legend} first={first} data={data} />}
    </WithCloth>
  );
}

function Cuts({
  entry,
  legend,
  first,
  data,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: BlockSize;
  data: ClothData;
}) {
  const { canvas, hasChart } = entry;
  const [block, setBlock] = useState(first);
  const sections = useSections(canvas, data, block, highestLine(legend));
  const [wanted, setChosen] = useState<number | null>(null);
  const chosen = wanted ?? nextToDo(sections);
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
  const layers = useMemo(
    () => [cutsLayer(pieces, chosen, done), panelsLayer(canvas, canvas.panels)],
    [pieces, chosen, done, canvas],
  );
  const wish = useMemo(() => ({ laid: data.laid, focus: null }), [data]);
  const frame = useMemo(() => wholeRect(canvas), [canvas]);

  return (
    <div className="grid min-h-[38rem] grow gap-4 lg:h-[calc(100dvh-9.6rem)] lg:min-h-0 lg:grid-cols-[1fr_20rem]">
      <section
        className="flex min-h-[30rem] min-w-0 md:min-h-[40rem] lg:min-h-0 md:min-h-[40rem] lg:min-h-0 flex-col"
        aria-label="The canvas with its cuts"
      >
        {asTable ? (
          <ScrollRegion label="Sections" className="min-h-0 grow">
            <SectionsTable sections={sections} legend={legend} hasChart={hasChart} />
          </ScrollRegion>
        ) : (
          <StationCloth
            label={`${canvas.title}, cut into ${pieces.length} sections; arrow keys move, Enter chooses`}
            entry={entry}
            legend={legend}
            data={data}
            wish={wish}
            layers={layers}
            frame={frame}
            cursor={null}
            onCursor={(place) => {
              const section = sectionAt(pieces, place.x, place.y);
              if (section) setChosen(section.number);
            }}
            onKey={({ key }) => {
              const step = sectionByKey(pieces, chosen, key);
              if (step === null) return false;
              setChosen(step);
              return true;
            }}
          />
        )}
      </section>
      <section className="flex min-h-0 flex-col gap-3 overflow-y-auto" aria-label="The section">
        <BlockForm
          block={block}
          onSave={async (wish) => {
            await write<SectionsView>('PUT', `/api/canvases/${canvas.id}/sections`, wish, (next) => {
              setBlock(next.block);
              setChosen(null);
            });
          }}
        />
        {fault && <Notice kind="fault">{fault}</Notice>}
        <div className="slip" aria-live="polite">
          <h2 className="text-xl">
            Section {tally.section.number} of {pieces.length}
          </h2>
          <p className="text-faded">
            Columns {tally.section.x + 1}–{tally.section.x + tally.section.width}, rows {tally.section.y + 1}–
            {tally.section.y + tally.section.height},{' '}
            {sizeInWords({ ...tally.section, pitchMm: canvas.pitchMm })}
          </p>
          <p className="big-number mt-2">{many(tally.drills - tally.laid)}</p>
          <p>
            {tally.laid === 0 ? 'drills to lay' : `left of ${many(tally.drills)} drills`}
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
          <a
            className="button button-main grow"
            href={`/canvas/${canvas.id}/bench?section=${tally.section.number}`}
          >
            Lay this section
          </a>
          {hasChart && (
            <a className="button grow" href={`/canvas/${canvas.id}/placing?section=${tally.section.number}`}>
              Its runs
            </a>
          )}
        </div>
        <ToggleButton on={asTable} onChange={setAsTable}>
          As a table
        </ToggleButton>
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
        <legend className="font-semibold">Size of a section, in cells</legend>
        <div className="mt-1 flex items-center gap-2">
          <input
            className="field number !w-20"
            inputMode="numeric"
            aria-label="Width in cells"
            {...form.register('columns')}
          />
          ×
          <input
            className="field number !w-20"
            inputMode="numeric"
            aria-label="Height in cells"
            {...form.register('rows')}
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
