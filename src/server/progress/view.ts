import type { Canvas } from '../../core/canvas/canvas';
import { highestLine, type LegendLine } from '../../core/canvas/legend';
import { countLaid } from '../../core/cells/bitmap';
import { countDrills, countPerLine, plainCloth } from '../../core/cells/chart';
import { burnUp, leftPerLine, panelProgress, percentLaid } from '../../core/progress/progress';
import { percentTicked, tickedColours } from '../../core/sections/ticks';
import { bitmapOf, type Sitting, sittingsOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { laidBefore, laidPerDay, makersOf } from '../../data/progress';
import { ticksOf } from '../../data/ticks';
import { sectionsOf } from '../sections/view';
import type { ProgressView } from './contract';

const SITTINGS_SHOWN = 60;

/** @param zone IANA time zone in which days begin @param today `YYYY-MM-DD` in that zone @param maker whose days and sittings: a device by its id, or `desk`; null for all */
export async function progressView(
  queries: Queries,
  canvas: Canvas,
  zone: string,
  today: string,
  maker: string | null = null,
): Promise<ProgressView> {
  const known = await chartOf(queries, canvas);
  const chart = known ?? plainCloth(canvas.width, canvas.height);
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const days = await laidPerDay(queries, canvas.id, zone, maker);
  // What was laid before the canvas was kept here is nobody's.
  const before = maker === null ? await laidBefore(queries, canvas.id) : 0;
  const makers = await makersOf(queries, canvas.id);
  const legend = await legendOf(queries, canvas.id);
  const lines = highestLine(legend);
  const drills = countDrills(chart);
  const laidDrills = countLaid(laid);
  const onChart = countPerLine(chart, lines);
  const left = known && leftPerLine(chart, laid, lines);
  return {
    laidToday: days.find((entry) => entry.day === today)?.drills ?? 0,
    laid: laidDrills,
    drills,
    percent: percentLaid(laidDrills, drills),
    burnUp: burnUp(days, before),
    laidBefore: before,
    colours: left && legend.map(({ line }) => ({ line, drills: onChart[line]!, left: left[line]! })),
    ticked: known ? null : await percentPerColour(queries, canvas, legend),
    panels: panelProgress(chart, laid, canvas.panelRects),
    makers: makers.length > 1 ? makers : [],
    sittings: await allSittings(queries, canvas, maker),
  };
}

/** Of a canvas without a chart: how far each colour is, by what was ticked. */
async function percentPerColour(
  queries: Queries,
  canvas: Canvas,
  legend: readonly LegendLine[],
): Promise<{ line: number; percent: number }[]> {
  const { sections } = await sectionsOf(queries, canvas);
  const percents = percentTicked(tickedColours(await ticksOf(queries, canvas.id), sections), sections);
  return legend.map(({ line }) => ({ line, percent: percents.get(line) ?? 0 }));
}

/** The newest sittings, removed ones among them. */
export function allSittings(
  queries: Queries,
  canvas: Canvas,
  maker: string | null = null,
): Promise<Sitting[]> {
  return sittingsOf(queries, canvas.id, SITTINGS_SHOWN, maker);
}

/** Today's date in a zone, `YYYY-MM-DD`. */
export function todayIn(zone: string, now: Date): string {
  // The Swedish locale writes dates the ISO way.
  return new Intl.DateTimeFormat('sv', { timeZone: zone, dateStyle: 'short' }).format(now);
}
