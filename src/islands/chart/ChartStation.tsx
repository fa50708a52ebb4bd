import { useMemo, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { highestLine, type LegendLine, ofLine, symbolOrKey } from '../../core/canvas/legend';
import { type CellRect, countPerLine } from '../../core/cells/chart';
import { panelPlace, panelPlaceInWords, positionOf } from '../../core/cells/position';
import type { CellPlace } from '../../core/cells/rect';
import { cellIndex, placeOfCell, wholeRect } from '../../core/cells/rect';
import { nextOf, rarest, rectAround } from '../../core/chart/find';
import { type PotPlaces, potsInCodeOrder } from '../../core/codes/places';
import { noSuchSection } from '../../core/sections/next';
import type { SectionPlan } from '../../core/sections/plan';
import { many } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip } from '../../ui/Chip';
import { ColourList } from '../../ui/ColourList';
import { HoverStore, useHover } from '../../ui/cloth/hoverStore';
import { edgeMarksLayer, panelsLayer, type RulerUnit, ringsLayer } from '../../ui/cloth/layers';
import { NumberField } from '../../ui/NumberField';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { FindField, type Found } from '../find/FindField';
import { useInFront, useKeptFront } from '../sections/useInFront';
import { useSections } from '../sections/useSections';
import { ChartNav } from './ChartNav';
import { NoChart } from './NoChart';

interface ChartProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  places: PotPlaces;
  cut: SectionPlan | null;
  /** Cells whose drill came off again. */
  popped: number[];
}

/** The picture as cells: look, find, and see where one colour goes. */
export const ChartStation = withLegend(ChartStationWithList);

function ChartStationWithList(props: ChartProps) {
  const { entry } = props;
  if (!entry.hasChart) {
    return (
      <>
        <ChartNav canvasId={entry.canvas.id} here="" />
        <NoChart
          canvasId={entry.canvas.id}
          what="This canvas has no chart yet. Check-in, kit-up and progress by area work without one; runs and single squares need it. It can be read from a file, or typed in under Repair."
        />
      </>
    );
  }
  return (
    <WithCloth entry={entry} cut={props.cut}>
      {(data) => <ChartView {...props} data={data} />}
    </WithCloth>
  );
}

function ChartView({ entry, legend, places, popped, data }: ChartProps & { data: ClothData }) {
  const { canvas } = entry;
  const { chart, laid } = data;
  const sections = useSections(canvas, data, data.cut!, highestLine(legend));
  const pieces = useMemo(() => sections.map(({ section }) => section), [sections]);
  const front = useInFront(entry, sections);
  // All colours may be looked at here without leaving the one in hand.
  const [allColours, setAllColours] = useState(false);
  const chosen = !allColours && legend.some(({ line }) => line === front.line) ? front.line : null;
  useKeptFront(entry, front.section, front.line);
  const setChosen = (line: number | null) => {
    setAllColours(line === null);
    if (line !== null) front.show(front.section, line);
  };
  const [showLaid, setShowLaid] = useState(false);
  const [showPopped, setShowPopped] = useState(false);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const [hover] = useState(() => new HoverStore());
  const counts = useMemo(() => countPerLine(chart, highestLine(legend)), [chart, legend]);
  const pots = useMemo(() => potsInCodeOrder(legend, places), [legend, places]);
  const inOrder = useMemo(() => pots.map((pot) => pot.line), [pots]);
  const wish = useMemo(
    () => ({ laid: showLaid ? laid : null, focus: chosen === null ? null : new Set([chosen]) }),
    [showLaid, laid, chosen],
  );
  const [rarestFirst, setRarestFirst] = useState(false);
  const [unit, setUnit] = useState<RulerUnit>('cells');
  const [every, setEvery] = useState(50);
  const whole = useMemo(() => wholeRect(chart), [chart]);
  const [frame, setFrame] = useState<CellRect>(whole);
  const poppedPlaces = useMemo(() => popped.map((cell) => placeOfCell(cell, chart.width)), [popped, chart]);
  const layers = useMemo(
    () => [
      panelsLayer(canvas.panelRects),
      edgeMarksLayer(canvas, every),
      ...(showPopped ? [ringsLayer(poppedPlaces)] : []),
    ],
    [canvas, every, showPopped, poppedPlaces],
  );
  const ruler = useMemo(() => ({ unit, pitchMm: canvas.pitchMm }), [unit, canvas]);
  const listed = useMemo(
    () => (rarestFirst ? rarest(inOrder, counts) : inOrder),
    [rarestFirst, inOrder, counts],
  );
  const goTo = (x: number, y: number) => {
    hover.set(null);
    setCursor({ x, y });
    setFrame(rectAround(x, y, canvas));
  };
  const goToNext = (line: LegendLine): string | null => {
    setChosen(line.line);
    const next = nextOf(chart, line.line, cursor ? cellIndex(cursor, chart.width) : -1);
    if (!next) return `No drill of ${line.code} is on this canvas.`;
    goTo(next.x, next.y);
    return null;
  };
  const found = (find: Found): string | null => {
    if (find.kind === 'cell') {
      goTo(find.x, find.y);
      return null;
    }
    if (find.kind === 'section') {
      const section = pieces[find.number - 1];
      if (!section) return noSuchSection(find.number, pieces.length);
      front.show(section.number, front.line);
      setFrame(section);
      return null;
    }
    return goToNext(find.lines.find(({ line }) => line === chosen) ?? find.lines[0]!);
  };
  const colour = chosen === null ? null : ofLine(legend, chosen);

  return (
    <>
      <ChartNav canvasId={canvas.id} here="" />
      <div className="station lg:h-[calc(100dvh-12.2rem)] lg:grid-cols-[1fr_19rem]">
        <section
          className="flex min-h-[30rem] min-w-0 flex-col md:min-h-[40rem] lg:min-h-0"
          aria-label="The canvas"
        >
          <div className="mb-2 flex flex-wrap items-center gap-2">
            <FindField canvas={canvas} legend={legend} onFind={found} ready />
            <select
              className="field !w-auto"
              aria-label="The ruler counts"
              value={unit}
              onChange={(event) => setUnit(event.target.value as RulerUnit)}
            >
              <option value="cells">squares</option>
              <option value="cm">centimetres</option>
              <option value="in">inches</option>
            </select>
            <NumberField
              words="Edge mark every"
              className="flex items-center gap-2 [&_input]:!w-20"
              value={every}
              least={5}
              most={500}
              whole
              onChange={setEvery}
            />
            <a
              className="inline-flex min-h-11 items-center underline"
              href={`/api/canvases/${canvas.id}/edge-marks.pdf?every=${every}`}
            >
              Print stickers
            </a>
            <TermWord term="edge mark">What is that?</TermWord>
          </div>
          <StationCloth
            label={`Chart of ${canvas.title}, ${chart.width} by ${chart.height} squares`}
            entry={entry}
            legend={legend}
            data={data}
            wish={wish}
            layers={layers}
            ruler={ruler}
            frame={frame}
            cursor={cursor}
            onCursor={setCursor}
            sections={pieces}
            onHover={hover.set}
          />
          <Readout
            hover={hover}
            cursor={cursor}
            canvas={canvas}
            lineAt={(place) => ofLine(legend, chart.cells[cellIndex(place, chart.width)]!)}
            homeOf={(line) => pots.find((pot) => pot.line === line)?.place ?? ''}
          />
        </section>
        <section className="flex min-h-0 min-w-0 flex-col gap-2.5" aria-label="Colours">
          {colour ? (
            <div>
              <p className="big-number">{many(counts[colour.line]!)}</p>
              <p>
                drills of{' '}
                <span translate="no" className="number font-semibold">
                  {colour.code}
                </span>
                , in front now
              </p>
            </div>
          ) : (
            <p>Choose a colour to see where it goes.</p>
          )}
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="button"
              disabled={chosen === null}
              onClick={() => setChosen(null)}
            >
              All colours
            </button>
            <button
              type="button"
              className="button"
              disabled={!colour}
              onClick={() => colour && goToNext(colour)}
            >
              Next place
            </button>
            <ToggleButton on={showLaid} onChange={setShowLaid}>
              What is laid
            </ToggleButton>
            <ToggleButton on={rarestFirst} onChange={setRarestFirst}>
              Rarest first
            </ToggleButton>
            {popped.length > 0 && (
              <ToggleButton on={showPopped} onChange={setShowPopped}>
                {many(popped.length)} popped
              </ToggleButton>
            )}
          </div>
          <ColourList
            label={rarestFirst ? 'Colours, the rarest first' : 'Colours in code order'}
            lines={listed}
            shape={canvas.shape}
            chosen={chosen}
            onChoose={(line) => setChosen(line.line === chosen ? null : line.line)}
            beside={(line) => many(counts[line.line]!)}
          />
        </section>
      </div>
    </>
  );
}

/** Where the pointer or the cell in hand is, and what belongs there. */
function Readout({
  hover,
  cursor,
  canvas,
  lineAt,
  homeOf,
}: {
  hover: HoverStore;
  cursor: CellPlace | null;
  canvas: Canvas;
  lineAt: (place: CellPlace) => LegendLine | undefined;
  /** Where the drills of a colour live. */
  homeOf: (line: LegendLine) => string;
}) {
  const place = useHover(hover) ?? cursor;
  if (!place) {
    return (
      <p className="flex min-h-16 items-center text-faded">
        Point at a square, or move with the arrow keys. Use the wheel or pinch to come nearer, drag to move.
      </p>
    );
  }
  const at = positionOf(place.x, place.y, canvas);
  const panel = panelPlace(canvas, place);
  const line = lineAt(place);
  return (
    <div className="flex min-h-16 flex-wrap items-center gap-x-6 gap-y-1" data-testid="readout">
      <p className="number text-lg font-semibold">
        Column {at.column}, row {at.row}
      </p>
      <p className="number">
        {at.cm.fromLeft.toFixed(1)} cm from the left, {at.cm.fromTop.toFixed(1)} cm from the top (
        {at.inches.fromLeft.toFixed(1)}, {at.inches.fromTop.toFixed(1)} in)
        {panel && `; ${panelPlaceInWords(panel)}`}
      </p>
      {line ? (
        <p className="flex items-center gap-2">
          <Chip line={line} shape={canvas.shape} size={34} />
          <span>
            <span className="sr-only">Symbol {symbolOrKey(line)}, </span>
            <span translate="no" className="number font-semibold">
              {line.code}
            </span>{' '}
            {line.name}, {homeOf(line)}
          </span>
        </p>
      ) : (
        <p>No drill here</p>
      )}
    </div>
  );
}
