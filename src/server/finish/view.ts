import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { countLaid } from '../../core/cells/bitmap';
import { inColourOrder } from '../../core/codes/colourOrder';
import { framesFor } from '../../core/finish/frames';
import { leftoverOf } from '../../core/finish/leftovers';
import { type LogFacts, logFactsOf } from '../../core/finish/logPage';
import { UNTOLD_FINISH } from '../../core/finish/record';
import { dayIn } from '../../core/words/calendar';
import { bitmapOf, laidOf } from '../../data/bench';
import { legendOf, shelf } from '../../data/canvas';
import { chartOf, drillsOf } from '../../data/chart';
import { trashRecords } from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { benchTime, finishOf, markedBetween, repairedSquares } from '../../data/finish';
import { putAwayOf } from '../../data/kitup';
import { packedMarks } from '../../data/progress';
import { poppedOf } from '../bench/view';
import { supplyNow } from '../checkin/view';
import { inWorker } from '../jobs/pool';
import type { FinishView } from './contract';

/** What the log tells of a canvas. @param zone in which days begin */
export async function logFacts(queries: Queries, canvas: Canvas, zone: string): Promise<LogFacts> {
  const record = (await finishOf(queries, canvas.id)) ?? UNTOLD_FINISH;
  const legend = await legendOf(queries, canvas.id);
  const { first, last } = await markedBetween(queries, canvas.id);
  const time = await benchTime(queries, canvas.id);
  const drills = (await drillsOf(queries, canvas.id)) ?? canvas.width * canvas.height;
  const laid = await laidOf(queries, canvas.id);
  const day = (moment: string | null) => moment && dayIn(zone, Date.parse(moment));
  return logFactsOf(canvas, {
    colours: legend.length,
    drills,
    laid,
    startedOn: record.startedOn ?? day(first),
    // With the last drill it is done, unless something else is told.
    finishedOn: record.finishedOn ?? (drills > 0 && laid >= drills ? day(last) : null),
    minutes: record.minutes ?? time.minutes,
    sittings: time.sittings,
    notes: record.notes,
    sealed: record.sealing === 'open' ? null : record.sealing === 'yes',
  });
}

/** Every canvas that is done, or that has been begun, the last finished first. */
export async function logOfAll(queries: Queries, zone: string): Promise<LogFacts[]> {
  const all: LogFacts[] = [];
  for (const { canvas } of await shelf(queries, null, { begun: true }))
    all.push(await logFacts(queries, canvas, zone));
  return all.sort(
    (a, b) => (b.finishedOn ?? '').localeCompare(a.finishedOn ?? '') || a.title.localeCompare(b.title),
  );
}

export async function finishView(database: Database, canvas: Canvas, zone: string): Promise<FinishView> {
  const cells = canvas.width * canvas.height;
  const known = await database.snapshot(async (queries) => ({
    legend: await legendOf(queries, canvas.id),
    chart: await chartOf(queries, canvas),
    laid: await bitmapOf(queries, canvas.id, cells),
    popped: await poppedOf(queries, canvas),
    record: (await finishOf(queries, canvas.id)) ?? UNTOLD_FINISH,
    supply: await supplyNow(queries, canvas),
    trash: await trashRecords(queries, canvas.id),
    putAway: await putAwayOf(queries, canvas.id),
    facts: await logFacts(queries, canvas, zone),
    repairs: await repairedSquares(queries, canvas.id),
  }));
  const { legend, chart, laid, popped, record, supply, trash, putAway, facts } = known;
  const repairs = chart && countLaid(laid) > 0 ? known.repairs : [];
  const { walk, laidPerLine } = await inWorker('lastWalk', {
    ...{ chart, cells, laid, popped, repairs },
    lines: highestLine(legend),
    marks: repairs.length === 0 ? null : await packedMarks(database, canvas.id, { before: true }),
  });
  const supplied = new Map(supply.map((each) => [each.line, each]));
  return {
    record,
    facts,
    walk,
    frames: framesFor(canvas, record.borderMm),
    leftovers: inColourOrder(
      legend.filter(({ line }) => supplied.has(line)),
      'code',
    ).map(({ line }) => ({
      ...leftoverOf(supplied.get(line)!, laidPerLine[line]!, trash),
      putAway: putAway.get(line) ?? null,
    })),
  };
}
