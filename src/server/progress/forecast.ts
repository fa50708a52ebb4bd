import { sittingMinutes } from '../../core/bench/sitting';
import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { plainCloth } from '../../core/cells/chart';
import { tipsFor } from '../../core/placing/tips';
import { chanceBy, minutesAWeek, usualMinutesAWeek } from '../../core/progress/forecast';
import type { DayChange } from '../../core/progress/laidByDay';
import {
  paceByHour,
  paceByKind,
  paceBySitting,
  paceByTip,
  paceOfAll,
  trendOf,
} from '../../core/progress/pace';
import { leftPerLine } from '../../core/progress/progress';
import { runningOut } from '../../core/progress/runningOut';
import type { WorkDone } from '../../core/progress/work';
import { dayIn, hourIn } from '../../core/words/calendar';
import { largest } from '../../core/words/numbers';
import { bitmapOf, sittingsOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database } from '../../data/engine/database';
import { ledgerHeads } from '../../data/live';
import { ownTips } from '../../data/placing';
import { finishByOf, packedMarks } from '../../data/progress';
import { checkinView } from '../checkin/view';
import { inWorker } from '../jobs/pool';
import { timeModel } from '../sections/timeModel';
import { sectionsOf } from '../sections/view';
import type { ForecastView } from './contract';

/** Seconds a drill before anything is known, where there is no chart (common practice, no source). */
const PLAIN_SECONDS = 5;
/** Sittings whose pace is shown. */
const PACES_SHOWN = 120;

/** What was reckoned last, by canvas, zone and maker: months of marks are not gone through again for every look. */
const known = new Map<string, { stamp: string; done: Promise<WorkDone> }>();
const MOST_KNOWN = 12;

/** Days, what is left, and paces, from all marks of a canvas. */
async function workOf(
  database: Database,
  canvas: Canvas,
  zone: string,
  maker: string | null,
  today: string,
): Promise<WorkDone> {
  const model = await timeModel(database);
  const heads = await ledgerHeads(database, canvas.id);
  const key = `${canvas.id} ${zone} ${maker}`;
  const stamp = JSON.stringify([heads, model.seconds, today]);
  const before = known.get(key);
  if (before?.stamp === stamp) return before.done;
  const done = (async () => {
    const { chart, ...task } = await database.snapshot(async (queries) => {
      const chart = await chartOf(queries, canvas);
      const cells = canvas.width * canvas.height;
      const { sections } = await sectionsOf(queries, canvas);
      const sittings = (await sittingsOf(queries, canvas.id, null, maker)).filter(
        ({ removed, endedAt }) => !removed && endedAt !== null,
      );
      const minutes = sittings.reduce((sum, sitting) => sum + sittingMinutes(sitting), 0);
      const drills = sittings.reduce((sum, sitting) => sum + sitting.drills, 0);
      return {
        chart,
        laid: await bitmapOf(queries, canvas.id, cells),
        sections: [...sections].sort((a, b) => a.order - b.order),
        widest: largest(tipsFor(await ownTips(queries), canvas.shape), 1),
        plainSeconds: minutes > 0 && drills > 0 ? (minutes * 60) / drills : PLAIN_SECONDS,
        sittings: sittings.map((sitting) => ({
          id: sitting.id,
          startedAt: sitting.startedAt,
          minutes: sittingMinutes(sitting),
        })),
      };
    });
    const marks = await packedMarks(database, canvas.id, { before: false, maker });
    return inWorker('progressWork', {
      ...task,
      chart: chart ?? plainCloth(canvas.width, canvas.height),
      hasChart: chart !== null,
      seconds: model.seconds,
      marks,
      zone,
      today,
    });
  })();
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(key, { stamp, done });
  done.catch(() => known.delete(key));
  return done;
}

/** @param zone IANA time zone in which days begin @param maker whose days and sittings: a device by its id, or `desk`; null for all */
export async function forecastView(
  database: Database,
  canvas: Canvas,
  zone: string,
  maker: string | null,
  now = new Date(),
): Promise<ForecastView> {
  const today = dayIn(zone, now);
  const work = await workOf(database, canvas, zone, maker, today);
  const { foretold } = work;
  const usual = usualMinutesAWeek(work.days, today);
  const { finishBy, out } = await database.snapshot(async (queries) => {
    const legend = await legendOf(queries, canvas.id);
    const chart = await chartOf(queries, canvas);
    const { supply, trash } = await checkinView(queries, canvas);
    const left =
      chart &&
      leftPerLine(chart, await bitmapOf(queries, canvas.id, chart.cells.length), highestLine(legend));
    const reached = new Map(work.untilSection.map(({ number, minutes }) => [number, minutes]));
    const dayOf = (section: number) => {
      const minutes = reached.get(section);
      return minutes === undefined || !usual ? null : Math.ceil((minutes / usual) * 7);
    };
    return {
      finishBy: await finishByOf(queries, canvas.id),
      out: left ? runningOut(supply, (line) => left[line] ?? 0, trash.share, dayOf, today) : [],
    };
  });
  const paces = paceBySitting(work.sittings);
  return {
    today,
    days: work.days,
    minutesLeft: Math.round(work.minutesLeft),
    forecast: foretold && {
      early: foretold.early,
      likely: foretold.likely,
      late: foretold.late,
      weeks: foretold.weeks,
      usual: foretold.usual,
    },
    finishBy,
    chance: foretold && finishBy !== null ? chanceBy(foretold, today, finishBy) : null,
    minutesAWeek: finishBy === null ? null : minutesAWeek(work.minutesLeft, today, finishBy),
    usualMinutesAWeek: usual,
    runningOut: out,
    pace: {
      sittings: paces.slice(-PACES_SHOWN),
      ofAll: paceOfAll(work.sittings),
      trend: trendOf(paces),
      kinds: paceByKind(work.sittings),
      hours: paceByHour(work.sittings, (moment) => hourIn(zone, Date.parse(moment))),
      tips: paceByTip(work.sittings),
    },
  };
}

/** Day by day what changed on a canvas, so that its picture at any past day can be made. */
export async function dayChangesOf(database: Database, canvas: Canvas, zone: string): Promise<DayChange[]> {
  const marks = await packedMarks(database, canvas.id, { before: true });
  return inWorker('dayChanges', { marks, cells: canvas.width * canvas.height, zone });
}
