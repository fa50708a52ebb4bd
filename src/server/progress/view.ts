import type { Canvas } from '../../core/canvas/canvas';
import { highestLine, type LegendLine } from '../../core/canvas/legend';
import { type Bitmap, countLaid, isLaid } from '../../core/cells/bitmap';
import { type Chart, countDrills, countPerLine, plainCloth } from '../../core/cells/chart';
import { forEachCell } from '../../core/cells/rect';
import { burnUp, leftPerLine, panelProgress, percentLaid } from '../../core/progress/progress';
import { tickedLaid } from '../../core/progress/tickedLaid';
import { sectionsOfPlan } from '../../core/sections/plan';
import type { Section } from '../../core/sections/section';
import { percentTicked, type TickedColour, tickedColours } from '../../core/sections/ticks';
import { mondayOf } from '../../core/words/calendar';
import { bitmapOf, type Sitting, sittingsOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { inFrontOf } from '../../data/inFront';
import { laidBefore, laidPerDay, makersOf } from '../../data/progress';
import { sectionPlanOf } from '../../data/sections';
import { ticksOf } from '../../data/ticks';
import type { ProgressView } from './contract';

const SITTINGS_SHOWN = 200;

/**
 * Everything is read at one moment; what is made of it is worked out when others may read again.
 * @param zone IANA time zone in which days begin @param today `YYYY-MM-DD` in that zone @param maker whose days and sittings: a device by its id, or `desk`; null for all
 */
export async function progressView(
  database: Database,
  canvas: Canvas,
  zone: string,
  today: string,
  maker: string | null = null,
): Promise<ProgressView> {
  const { known, laid, days, before, makers, legend, plan, shelved, ticks, sittings } =
    await database.snapshot(async (queries) => ({
      known: await chartOf(queries, canvas),
      laid: await bitmapOf(queries, canvas.id, canvas.width * canvas.height),
      days: await laidPerDay(queries, canvas.id, zone, maker),
      // What was laid before the canvas was kept here is nobody's.
      before: maker === null ? await laidBefore(queries, canvas.id) : 0,
      makers: await makersOf(queries, canvas.id),
      legend: await legendOf(queries, canvas.id),
      plan: await sectionPlanOf(queries, canvas),
      shelved: await inFrontOf(queries, canvas.id),
      ticks: await ticksOf(queries, canvas.id),
      sittings: await allSittings(queries, canvas, maker),
    }));
  const chart = known ?? plainCloth(canvas.width, canvas.height);
  const sections = sectionsOfPlan(canvas, plan);
  const lines = highestLine(legend);
  const drills = countDrills(chart);
  const laidDrills = countLaid(laid);
  const here = sections[(shelved?.section ?? 0) - 1];
  const monday = mondayOf(today);
  const ticked = known ? null : tickedColours(ticks, sections);
  const onChart = countPerLine(chart, lines);
  const left = known && leftPerLine(chart, laid, lines);
  return {
    today,
    laidThisWeek: days.reduce(
      (sum, { day, drills: some }) => sum + (day >= monday && day <= today ? some : 0),
      0,
    ),
    section: here ? { number: here.number, ...drillsIn(chart, laid, here) } : null,
    estimate:
      ticked &&
      tickedLaid(
        ticked,
        sections,
        sections.map((section) => {
          const all = drillsIn(chart, laid, section);
          return all.drills === 0 ? 0 : all.laid / all.drills;
        }),
        legend,
        chart.cells.length,
      ),
    laidToday: days.find((entry) => entry.day === today)?.drills ?? 0,
    laid: laidDrills,
    drills,
    percent: percentLaid(laidDrills, drills),
    burnUp: burnUp(days, before),
    laidBefore: before,
    colours: left && legend.map(({ line }) => ({ line, drills: onChart[line]!, left: left[line]! })),
    ticked: ticked && percentPerColour(ticked, sections, legend),
    panels: panelProgress(chart, laid, canvas.panelRects),
    makers: makers.length > 1 ? makers : [],
    sittings,
  };
}

/** Of a canvas without a chart: how far each colour is, by what was ticked. */
function percentPerColour(
  ticked: readonly TickedColour[],
  sections: readonly Section[],
  legend: readonly LegendLine[],
): { line: number; percent: number }[] {
  const percents = percentTicked(ticked, sections);
  return legend.map(({ line }) => ({ line, percent: percents.get(line) ?? 0 }));
}

function drillsIn(chart: Chart, laid: Bitmap, section: Section): { drills: number; laid: number } {
  let [drills, done] = [0, 0];
  forEachCell(chart, section, (cell, line) => {
    if (line === 0) return;
    drills++;
    if (isLaid(laid, cell)) done++;
  });
  return { drills, laid: done };
}

/** The newest sittings, removed ones among them. */
export function allSittings(
  queries: Queries,
  canvas: Canvas,
  maker: string | null = null,
): Promise<Sitting[]> {
  return sittingsOf(queries, canvas.id, SITTINGS_SHOWN, maker);
}

/** All sittings, however long the canvas is in the work. */
export function everySitting(queries: Queries, canvas: Canvas): Promise<Sitting[]> {
  return sittingsOf(queries, canvas.id, null);
}
