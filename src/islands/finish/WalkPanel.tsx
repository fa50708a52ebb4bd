import { useMemo, useState } from 'react';
import { highestLine, type LegendLine, ofLine } from '../../core/canvas/legend';
import { cellsOfRuns } from '../../core/cells/cellRuns';
import { type CellPlace, cellIndex, placeOfCell, wholeRect } from '../../core/cells/rect';
import type { LastWalk } from '../../core/finish/lastWalk';
import { type FinishChange, type FinishRecord, WALK_STEPS } from '../../core/finish/record';
import { sectionAt } from '../../core/sections/section';
import { counted, many } from '../../core/words/numbers';
import type { FinishView } from '../../server/finish/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { ringsLayer } from '../../ui/cloth/layers';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { ToggleButton } from '../../ui/ToggleButton';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { useSections } from '../sections/useSections';

type Kind = keyof LastWalk;
const KINDS: Record<Kind, { words: string; what: string }> = {
  bare: { words: 'Bare', what: 'No drill is marked there.' },
  popped: { words: 'Popped', what: 'A drill came off and was not laid again.' },
  doubtful: {
    words: 'Doubtful',
    what: 'Laid before the colour of the square was corrected, or where no colour is known: look whether the right drill lies there.',
  },
};
/** More squares than these are neither ringed nor listed one by one: rings would lie over each other. */
const MOST_LISTED = 400;

/** A last walk over the canvas: squares that want a look, by place, and the steps of the inspection. */
export function WalkPanel(props: {
  entry: ShelfEntry;
  legend: LegendLine[];
  view: FinishView;
  onChange: (part: FinishChange) => void;
}) {
  return (
    <div className="grid gap-6 lg:grid-cols-[1fr_26rem]">
      <WithCloth entry={props.entry} cut={null}>
        {(data) => <Squares {...props} data={data} />}
      </WithCloth>
      <Steps record={props.view.record} onChange={props.onChange} />
    </div>
  );
}

function Squares({
  entry,
  legend,
  view,
  data,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  view: FinishView;
  data: ClothData;
}) {
  const { canvas } = entry;
  const { walk } = view;
  const kinds = (Object.keys(KINDS) as Kind[]).filter((kind) => walk[kind].drills > 0);
  const [chosen, setChosen] = useState<Kind | null>(null);
  const kind =
    chosen && walk[chosen].drills > 0
      ? chosen
      : (kinds.findLast((each) => walk[each].drills <= MOST_LISTED) ?? kinds[0] ?? null);
  const [at, setAt] = useState<CellPlace | null>(null);
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const cells = useMemo(() => (kind ? [...cellsOfRuns(walk[kind].runs)] : []), [kind, walk]);
  const places = useMemo(
    () => (cells.length > MOST_LISTED ? [] : cells.map((cell) => placeOfCell(cell, canvas.width))),
    [cells, canvas.width],
  );
  const bySection = useMemo(() => {
    const pieces = sections.map(({ section }) => section);
    const counts = new Map<number, number>();
    for (const cell of cells) {
      const { x, y } = placeOfCell(cell, canvas.width);
      const number = sectionAt(pieces, x, y)?.number;
      if (number) counts.set(number, (counts.get(number) ?? 0) + 1);
    }
    return [...counts].sort((a, b) => b[1] - a[1]);
  }, [cells, sections, canvas.width]);
  const layers = useMemo(() => [ringsLayer(places)], [places]);
  const wish = useMemo(() => ({ laid: data.laid, focus: null }), [data]);
  const whole = useMemo(() => wholeRect(canvas), [canvas]);
  const near = at && { x: Math.max(0, at.x - 8), y: Math.max(0, at.y - 8), width: 17, height: 17 };
  return (
    <section aria-label="Squares that want a look" className="flex min-w-0 flex-col gap-2">
      {kinds.length === 0 ? (
        <p>No square is bare, popped or doubtful.</p>
      ) : (
        <>
          <fieldset className="flex flex-wrap gap-1" aria-label="Which squares">
            {kinds.map((each) => (
              <ToggleButton key={each} on={kind === each} onChange={() => setChosen(each)}>
                {KINDS[each].words}: {many(walk[each].drills)}
              </ToggleButton>
            ))}
          </fieldset>
          {kind && <p className="text-[0.95rem] text-faded">{KINDS[kind].what}</p>}
        </>
      )}
      {cells.length > MOST_LISTED && (
        <p>
          {counted(cells.length, 'square')} are too many to ring one by one.
          {bySection.length > 0 && ' The sections below say where they lie.'}
        </p>
      )}
      <div className="flex h-[26rem] min-h-0 flex-col">
        <StationCloth
          label={places.length > 0 ? `${canvas.title}, squares that want a look are ringed` : canvas.title}
          entry={entry}
          legend={legend}
          data={data}
          wish={wish}
          layers={layers}
          frame={near ?? whole}
          cursor={at}
          onCursor={setAt}
        />
      </div>
      {bySection.length > 0 && (
        <ScrollRegion label="By section" className="max-h-72">
          <ul className="flex flex-col divide-y divide-line">
            {bySection.slice(0, 200).map(([number, count]) => (
              <li key={number} className="flex flex-wrap items-center gap-3 py-1">
                <a className="min-h-11 py-2 underline" href={`/canvas/${canvas.id}/bench?section=${number}`}>
                  Section {many(number)}
                </a>
                <span>{counted(count, 'square')}</span>
              </li>
            ))}
          </ul>
        </ScrollRegion>
      )}
      {places.length > 0 && (
        <ScrollRegion label="One by one" className="max-h-72">
          <ul className="grid gap-1 [grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))]">
            {places.map((place) => {
              const line = ofLine(legend, data.chart.cells[cellIndex(place, canvas.width)]!);
              return (
                <li key={`${place.x} ${place.y}`}>
                  <button type="button" className="button w-full !justify-start" onClick={() => setAt(place)}>
                    Column {place.x + 1}, row {place.y + 1}
                    {line && entry.hasChart && <span className="number"> {line.code}</span>}
                  </button>
                </li>
              );
            })}
          </ul>
        </ScrollRegion>
      )}
    </section>
  );
}

function Steps({ record, onChange }: { record: FinishRecord; onChange: (part: FinishChange) => void }) {
  return (
    <section aria-label="Steps of the last walk" className="slip flex flex-col gap-1 self-start">
      <h2>Once over all of it</h2>
      {WALK_STEPS.map(({ key, name, how }) => (
        <label key={key} className="flex items-start gap-3 py-1.5">
          <input
            type="checkbox"
            className="mt-1 size-6 shrink-0 accent-accent"
            checked={record.checked.includes(key)}
            onChange={(event) => onChange({ steps: { [key]: event.target.checked } })}
          />
          <span>
            <span className="font-semibold">{name}</span>
            <span className="block text-[0.95rem] text-faded">{how}</span>
          </span>
        </label>
      ))}
    </section>
  );
}
