import { useState } from 'react';
import { highestLine, type LegendLine, ofLine } from '../../core/canvas/legend';
import { placeInWords } from '../../core/codes/places';
import { pulledFor, pullNote } from '../../core/sections/pullList';
import { counted, many } from '../../core/words/numbers';
import type { PullListView, PullView } from '../../server/sections/contract';
import { Chip, ColourName } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { withLegend } from '../../ui/withLegend';
import { NoChart } from '../chart/NoChart';
import { WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { DownloadButton } from '../writing/DownloadButton';
import { useAnswer } from '../writing/useAnswer';
import { SectionChooser } from './SectionChooser';
import { SectionsNav } from './SectionsNav';
import { useInFront, useKeptFront } from './useInFront';
import type { SectionProps } from './useSectionStation';
import { useSections } from './useSections';

/** Which pots to take out for the coming sections, and what to tip into the tray. */
export const PullPage = withLegend(PullPageWithList);

function PullPageWithList(props: SectionProps) {
  const { entry } = props;
  return (
    <>
      <SectionsNav canvasId={entry.canvas.id} here="/pull" />
      {entry.hasChart ? (
        <WithCloth entry={entry} cut={props.first.plan}>
          {(data) => <Pull {...props} data={data} />}
        </WithCloth>
      ) : (
        <NoChart
          canvasId={entry.canvas.id}
          what="Which colours a section has is read from the chart, and this canvas has none yet."
        />
      )}
    </>
  );
}

function Pull({ entry, legend, data }: SectionProps & { data: ClothData }) {
  const { canvas } = entry;
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const front = useInFront(entry, sections);
  const number = Math.min(front.section, sections.length);
  useKeptFront(entry, number, front.line);
  const [next, setNext] = useState(1);
  const query = `section=${number}&next=${next}`;
  const { answer: view, fault } = useAnswer<PullListView>(`/api/canvases/${canvas.id}/pull-list?${query}`, [
    'marks',
    'pots',
    'sections',
    'sheet',
    'repairs',
  ]);
  const bags = view?.pulls.filter(({ bag }) => bag !== null) ?? [];
  const opened = view?.pulls.filter(({ place }) => place.startsWith('bag')) ?? [];

  return (
    <div className="flex max-w-[76rem] flex-col gap-4">
      <div className="flex flex-wrap items-end gap-4 print:hidden">
        <SectionChooser
          canvas={canvas}
          hasChart
          count={sections.length}
          tally={() => sections}
          number={number}
          onChange={(to) => front.show(to, null)}
        />
        <NumberField
          words="Sections at once, in the order of the work"
          className="[&_input]:!w-24"
          value={next}
          least={1}
          most={50}
          whole
          onChange={setNext}
        />
        <DownloadButton
          url={`/api/canvases/${canvas.id}/pull-list.pdf?${query}`}
          words="Print (PDF)"
          making="Making the list"
        />
      </div>
      {fault && <Notice kind="fault">{fault}</Notice>}
      {view && (
        <>
          <div aria-live="polite">
            <p className="big-number">
              {view.pulls.length === 0 ? 'All laid' : counted(view.pulls.length, 'colour')}
            </p>
            <p>
              {view.pulls.length === 0
                ? `Nothing is left in ${pulledFor(view.sections)}.`
                : `to take out for ${pulledFor(view.sections)}, ${counted(view.drills, 'drill')} to lay; ${(view.trashShare * 100).toFixed(1)} % bad ones are reckoned in.`}
            </p>
            {bags.length > 0 && (
              <p className="font-semibold">
                Have ready: {bags.map(({ bag }) => `bag ${bag}`).join(', ')}. Their pots run empty on the way.
              </p>
            )}
            {opened.length > 0 && (
              <p>Open these bags now: {opened.map(({ line }) => ofLine(legend, line)!.code).join(', ')}.</p>
            )}
          </div>
          {view.pulls.length > 0 && <PullTable pulls={view.pulls} legend={legend} shape={canvas.shape} />}
        </>
      )}
    </div>
  );
}

function PullTable({
  pulls,
  legend,
  shape,
}: {
  pulls: PullView[];
  legend: readonly LegendLine[];
  shape: 'square' | 'round';
}) {
  return (
    <div className="overflow-x-auto bg-paper">
      <DataTable
        caption="What to take out, as the pots stand"
        rows={pulls}
        rowKey={({ line }) => String(line)}
        columns={[
          { key: 'place', header: 'Place', value: ({ place }) => placeInWords(place) },
          {
            key: 'colour',
            header: 'Colour',
            value: ({ line }) => ofLine(legend, line)!.code,
            show: ({ line }) => (
              <span className="flex items-center gap-3">
                <Chip line={ofLine(legend, line)!} shape={shape} />
                <ColourName line={ofLine(legend, line)!} />
              </span>
            ),
          },
          {
            key: 'toTip',
            header: 'Tip into the tray',
            numeric: true,
            value: ({ toTip }) => toTip,
            show: ({ toTip }) => <strong>{many(toTip)}</strong>,
          },
          {
            key: 'inPot',
            header: 'In the pot',
            numeric: true,
            value: ({ inPot }) => inPot ?? 0,
            show: ({ inPot }) => (inPot === null ? '' : many(inPot)),
          },
          {
            key: 'after',
            header: 'Afterwards',
            numeric: true,
            value: ({ after }) => after ?? 0,
            show: ({ after }) => (after === null ? '' : many(after)),
          },
          { key: 'note', header: 'Besides', value: ({ bag, short }) => pullNote(bag, short) },
        ]}
      />
    </div>
  );
}
