import { useMemo, useState } from 'react';
import { cellsToCm } from '../../core/canvas/canvas';
import { wholeRect } from '../../core/cells/rect';
import { type CoverSheet, cutLines, stripsFromRoll } from '../../core/sections/cover';
import { cutLineRow, foldSteps, numbersInWords, sheetsInWords } from '../../core/sections/coverInWords';
import { rollStops } from '../../core/sections/fit';
import type { JudgedOrder } from '../../core/sections/hand';
import { sheetsOf } from '../../core/sections/judge';
import { sectionByKey } from '../../core/sections/next';
import type { WorkOrder } from '../../core/sections/order';
import { orderInWords, planFigures } from '../../core/sections/planInWords';
import { type Section, sectionAt } from '../../core/sections/section';
import type { SectionWish } from '../../core/sections/wish';
import { counted, many } from '../../core/words/numbers';
import { panelsLayer } from '../../ui/cloth/layers';
import { Notice } from '../../ui/Notice';
import { TermsHere } from '../../ui/TermsHere';
import { withLegend } from '../../ui/withLegend';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { DownloadButton } from '../writing/DownloadButton';
import { UndoButtons } from '../writing/UndoButtons';
import { cutsLayer, orderLayer, sheetsLayer } from './cutsLayer';
import { allLaid, inTheWay, leftToLay } from './marked';
import { OrderFields } from './OrderFields';
import { SectionsNav } from './SectionsNav';
import { type SectionProps, type SectionStation, useSectionStation } from './useSectionStation';
import { useSectionWork } from './useSectionWork';
import { WishFields } from './WishFields';

/** So many cuts are listed on the page; all of them are on paper. */
const CUTS_LISTED = 24;
const ORDERS_LISTED = 6;

/** In which order to work, where the hand rests meanwhile, and what covers the adhesive. */
export const CoverPage = withLegend(CoverPageWithList);

function CoverPageWithList(props: SectionProps) {
  return (
    <>
      <SectionsNav canvasId={props.entry.canvas.id} here="/cover" />
      <WithCloth entry={props.entry} cut={props.first.plan}>
        {(data) => <Cover {...props} data={data} />}
      </WithCloth>
    </>
  );
}

function Cover({ data, ...props }: SectionProps & { data: ClothData }) {
  const { entry, legend } = props;
  const { canvas } = entry;
  const station = useSectionStation(props, data);
  const { wish, plan, judged, ground } = station;
  const sections = useMemo(() => station.tallies.map(({ section }) => section), [station.tallies]);
  const [at, setAt] = useState(1);
  const here = Math.min(at, sections.length);
  const sheets = useMemo(() => sheetsOf(canvas, sections, wish), [canvas, sections, wish]);
  const { ready } = station;
  const task = useMemo(
    () => (ready ? { what: 'orders' as const, ground, plan, wish } : null),
    [ready, ground, plan, wish],
  );
  const work = useSectionWork(task);
  const orders = work.result && 'orders' in work.result ? work.result.orders : null;
  const figures = useMemo(() => judged && planFigures(judged), [judged]);
  const marked = useMemo(() => (judged ? inTheWay(judged) : new Set<number>()), [judged]);
  const layers = useMemo(
    () => [
      sheetsLayer(sheets),
      cutsLayer(sections, here, allLaid(station.tallies), marked),
      orderLayer(leftToLay(station.tallies)),
      panelsLayer(canvas.panelRects),
    ],
    [sections, sheets, here, marked, canvas, station.tallies],
  );
  const view = useMemo(() => ({ laid: data.laid, focus: null }), [data]);
  const frame = useMemo(() => wholeRect(canvas), [canvas]);
  const section = judged?.[here - 1];

  return (
    <div className="station lg:h-[calc(100dvh-12.4rem)] lg:grid-cols-[1fr_25rem]">
      <section
        className="flex min-h-[30rem] min-w-0 flex-col md:min-h-[36rem] lg:min-h-0"
        aria-label="The order of the work"
      >
        <StationCloth
          label={`${canvas.title}, ${orderInWords(plan.order).toLowerCase()}; arrow keys move from section to section`}
          entry={entry}
          legend={legend}
          data={data}
          wish={view}
          layers={layers}
          frame={frame}
          cursor={null}
          onCursor={(place) => {
            const found = sectionAt(sections, place.x, place.y);
            if (found) setAt(found.number);
          }}
          onKey={({ key }) => {
            const next = sectionByKey(sections, here, key);
            if (next === null) return false;
            setAt(next);
            return true;
          }}
        />
      </section>
      <section className="flex min-h-0 min-w-0 flex-col gap-3 overflow-y-auto" aria-label="Order and cover">
        <div className="slip min-h-[11rem] !py-3" aria-live="polite" data-testid="cover-answer">
          <p className="big-number">
            {figures ? (figures.conflicts === 0 ? 'Hand clear' : many(figures.conflicts)) : '…'}
          </p>
          <p>
            {figures &&
              (figures.conflicts === 0
                ? 'Your hand rests on the cover or on finished drills all the way.'
                : `${figures.conflicts === 1 ? 'section' : 'sections'} in which your hand rests on bare adhesive (marked !).`)}
          </p>
          {figures?.worstAt && (
            <p>
              At most {many(Math.round(figures.worstCm2))} cm² lie bare at once, at section{' '}
              {many(figures.worstAt)}.
            </p>
          )}
          {section && (
            <p className="mt-1 text-faded">
              Section {many(here)}: turn {many(section.section.order)}, {many(Math.round(section.bareCm2))}{' '}
              cm² bare. {section.conflict}
            </p>
          )}
        </div>
        <WishFields wish={wish} onChange={station.changeWish} />
        <TermsHere terms={['cover', 'cover minder', 'light pad']} />
        <Orders station={station} orders={orders} />
        {(station.fault ?? work.fault) && <Notice kind="fault">{station.fault ?? work.fault}</Notice>}
        <UndoButtons
          history={station.history}
          words={({ sections: count }) => `an order of ${many(count)} sections`}
          busy={station.busy}
          onUndo={station.undo}
          onRedo={station.redo}
        />
        {wish.windowMm !== null && <Stops canvas={canvas} windowMm={wish.windowMm} />}
        <CoverPlan canvas={canvas} sections={sections} order={plan.order} wish={wish} sheets={sheets} />
        <Cautions />
        <div className="flex flex-wrap gap-2">
          <DownloadButton
            url={`/api/canvases/${canvas.id}/section-map.pdf`}
            words="Map of the sections (PDF)"
            making="Making the map"
          />
          <DownloadButton
            url={`/api/canvases/${canvas.id}/cover-plan.pdf`}
            words="Cover plan (PDF)"
            making="Making the cover plan"
          />
        </div>
      </section>
    </div>
  );
}

/** The order as it is, and others by what they lead to. */
function Orders({ station, orders }: { station: SectionStation; orders: readonly JudgedOrder[] | null }) {
  const { plan, busy } = station;
  const keep = (order: WorkOrder) => void station.keep({ order });
  const same = (order: WorkOrder) => orderInWords(order) === orderInWords(plan.order);
  return (
    <div className="flex flex-col gap-2">
      <OrderFields order={plan.order} onChange={keep} />
      <h2>Orders, the best for your hand first</h2>
      <ol className="flex flex-col" data-testid="orders">
        {(orders ?? []).slice(0, ORDERS_LISTED).map(({ order, conflicts, worstCm2 }) => (
          <li key={orderInWords(order)} className="border-t border-edge">
            <button
              type="button"
              className="flex min-h-11 w-full flex-col items-start py-1.5 text-left hover:text-accent"
              aria-pressed={same(order)}
              disabled={busy}
              onClick={() => keep(order)}
            >
              <span className="font-semibold">
                {orderInWords(order)}
                {same(order) && ' ✓'}
              </span>
              <span className="text-[0.95rem] text-faded">
                {conflicts === 0 ? 'hand clear' : `hand on adhesive in ${counted(conflicts, 'section')}`}, at
                most {many(Math.round(worstCm2))} cm² bare
              </span>
            </button>
          </li>
        ))}
      </ol>
      {!orders && <p>Comparing orders…</p>}
    </div>
  );
}

function CoverPlan({
  canvas,
  sections,
  order,
  wish,
  sheets,
}: {
  canvas: SectionProps['entry']['canvas'];
  sections: readonly Section[];
  order: WorkOrder;
  wish: SectionWish;
  sheets: readonly CoverSheet[];
}) {
  const cuts = useMemo(
    () => (wish.cover === 'cut' ? cutLines(canvas, sections) : []),
    [wish, canvas, sections],
  );
  const folds = useMemo(
    () => (wish.cover === 'fold' ? foldSteps(canvas, sections, order) : []),
    [wish, canvas, sections, order],
  );
  if (wish.cover === 'fold') {
    return (
      <section aria-label="Where to fold" data-testid="cover-plan">
        <h2>Fold the film back, step by step</h2>
        <ol className="mt-1 list-decimal pl-6">
          {folds.slice(0, CUTS_LISTED).map(({ words, sections: numbers }) => (
            <li key={words}>
              {words}, for {numbers.length === 1 ? 'section' : 'sections'} {numbersInWords(numbers)}
            </li>
          ))}
        </ol>
        {folds.length > CUTS_LISTED && (
          <p className="text-faded">The other {many(folds.length - CUTS_LISTED)} are on paper.</p>
        )}
        <p className="mt-1 text-faded">
          A cover minder at each end of the fold holds it; on a wide canvas one in the middle too.
        </p>
      </section>
    );
  }
  if (wish.cover === 'sheets') {
    const strips = wish.rollMm === null ? null : stripsFromRoll(canvas, wish.rollMm, wish.sheets.overlapMm);
    const laid = [...sheets].sort((a, b) => a.laidAs - b.laidAs);
    return (
      <section aria-label="Sheets" data-testid="cover-plan">
        <h2>
          {strips
            ? `${counted(strips.strips, 'strip')} of ${many(strips.lengthMm)} mm, ${many(Math.ceil(strips.totalMm / 100) / 10)} m of the roll`
            : sheetsInWords(sheets.length, wish.sheets)}
        </h2>
        <p className="mt-1">
          Lay them in this order, the last first: what you need first lies on top. Mark the upper side of
          each.
        </p>
        <ol className="mt-1 list-decimal pl-6">
          {laid.slice(0, CUTS_LISTED).map((sheet) => (
            <li key={sheet.laidAs}>
              {cellsToCm(sheet.rect.x, canvas.pitchMm).toFixed(1)} cm from the left,{' '}
              {cellsToCm(sheet.rect.y, canvas.pitchMm).toFixed(1)} cm from the top
              {sheet.firstFor !== null && `, lifted for section ${many(sheet.firstFor)}`}
            </li>
          ))}
        </ol>
        {laid.length > CUTS_LISTED && (
          <p className="text-faded">The other {many(laid.length - CUTS_LISTED)} are on paper.</p>
        )}
      </section>
    );
  }
  return (
    <section aria-label="Cuts" data-testid="cover-plan">
      <h2>{counted(cuts.length, 'cut')} through the film, the longest first</h2>
      {sections.some(({ rects }) => rects.length > 1) && (
        <Notice kind="hint">
          Some borders go in steps. “Straight cuts” under Cut makes fewer and longer ones.
        </Notice>
      )}
      <ol className="mt-1 list-decimal pl-7 text-[0.98rem]">
        {cuts.slice(0, CUTS_LISTED).map((line) => {
          const row = cutLineRow(line, canvas);
          return (
            <li key={`${line.upright} ${line.at} ${line.from}`}>
              {row.length} {row.way}: {row.fromNear}, {row.fromFar}; begins {row.begins}
            </li>
          );
        })}
      </ol>
      {cuts.length > CUTS_LISTED && (
        <p className="text-faded">The other {many(cuts.length - CUTS_LISTED)} are on paper.</p>
      )}
    </section>
  );
}

/** Where a roll or an easel stops. */
function Stops({ canvas, windowMm }: { canvas: { height: number; pitchMm: number }; windowMm: number }) {
  const stops = rollStops(canvas, windowMm);
  return (
    <p>
      The frame shows the canvas in {counted(stops.length, 'stop')}:{' '}
      {stops
        .slice(0, CUTS_LISTED)
        .map(({ from, to }) => `rows ${many(from + 1)}–${many(to)}`)
        .join(', ')}
      {stops.length > CUTS_LISTED && ` and ${many(stops.length - CUTS_LISTED)} more of as many rows`}.
    </p>
  );
}

function Cautions() {
  return (
    <details>
      <summary className="min-h-11 cursor-pointer font-semibold">
        What never to use, and other cautions
      </summary>
      <ul className="list-disc pl-6">
        <li>
          Never wax paper, foil or cling film: wax and softener stay on the adhesive, and foil tears. Release
          paper and baking parchment differ from country to country: try one corner first.
        </li>
        <li>
          Cut the film with the tip only just through it, on a firm ground, away from your hand; the canvas is
          below.
        </li>
        <li>Adhesive that lies bare gathers dust and hair: cover it again when you stop.</li>
        <li>
          Rest your wrist straight and raise the work rather than bend over it; take a break with every
          section.
        </li>
      </ul>
    </details>
  );
}
