import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { countLaid, isLaid } from '../../core/cells/bitmap';
import { runsFromCells } from '../../core/cells/cellRuns';
import { countPerLine } from '../../core/cells/chart';
import { inColourOrder } from '../../core/codes/colourOrder';
import { framesFor } from '../../core/finish/frames';
import { leftoverOf } from '../../core/finish/leftovers';
import { type LogFacts, logFactsOf } from '../../core/finish/logPage';
import { UNTOLD_FINISH } from '../../core/finish/record';
import { dayIn } from '../../core/progress/calendar';
import { leftPerLine } from '../../core/progress/progress';
import { bitmapOf, laidOf } from '../../data/bench';
import { legendOf, shelf } from '../../data/canvas';
import { chartOf, drillsOf } from '../../data/chart';
import { trashRecords } from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { benchTime, finishOf, markedBetween, repairedSquares } from '../../data/finish';
import { putAwayOf } from '../../data/kitup';
import { packedMarks } from '../../data/progress';
import { poppedOf } from '../bench/view';
import { checkinView } from '../checkin/view';
import { inWorker } from '../jobs/pool';
import type { FinishView, WalkView } from './contract';

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
  for (const { canvas, laid } of await shelf(queries)) {
    if (laid > 0) all.push(await logFacts(queries, canvas, zone));
  }
  return all.sort(
    (a, b) => (b.finishedOn ?? '').localeCompare(a.finishedOn ?? '') || a.title.localeCompare(b.title),
  );
}

export async function finishView(database: Database, canvas: Canvas, zone: string): Promise<FinishView> {
  const { doubt, ...view } = await database.snapshot(async (queries) => {
    const legend = await legendOf(queries, canvas.id);
    const chart = await chartOf(queries, canvas);
    const cells = canvas.width * canvas.height;
    const laid = await bitmapOf(queries, canvas.id, cells);
    const popped = await poppedOf(queries, canvas);
    const record = (await finishOf(queries, canvas.id)) ?? UNTOLD_FINISH;
    const lines = highestLine(legend);
    const left = chart && leftPerLine(chart, laid, lines);
    const onChart = chart && countPerLine(chart, lines);
    const { supply } = await checkinView(queries, canvas);
    const trash = await trashRecords(queries, canvas.id);
    const putAway = await putAwayOf(queries, canvas.id);
    const isPopped = new Set(popped);
    const walked = lookOver(cells, (cell) => {
      const line = chart ? chart.cells[cell]! : 1;
      return {
        bare: line !== 0 && !isLaid(laid, cell) && !isPopped.has(cell),
        unknown: line === 0 && isLaid(laid, cell),
      };
    });
    const repairs = chart ? await repairedSquares(queries, canvas.id) : [];
    return {
      doubt: { laid, unknown: walked.unknown, repairs, none: countLaid(laid) === 0 },
      record,
      facts: await logFacts(queries, canvas, zone),
      walk: { bare: walked.bare, popped: runsOf(popped) },
      frames: framesFor(canvas, record.borderMm),
      leftovers: inColourOrder(
        legend.filter(({ line }) => supply.some((each) => each.line === line)),
        'code',
      ).map(({ line }) => ({
        ...leftoverOf(
          supply.find((each) => each.line === line)!,
          onChart && left ? onChart[line]! - left[line]! : 0,
          trash,
        ),
        putAway: putAway.get(line) ?? null,
      })),
    };
  });
  const { laid, unknown, repairs, none } = doubt;
  const moved =
    none || repairs.length === 0
      ? []
      : await inWorker('doubtfulSquares', {
          marks: await packedMarks(database, canvas.id, { before: true }),
          laid,
          cells: canvas.width * canvas.height,
          repairs,
        });
  const doubtful = [...new Set([...unknown, ...moved])];
  return { ...view, walk: { ...view.walk, doubtful: runsOf(doubtful) } };
}

/** Goes over all squares once; what is bare on a large canvas is too much to gather square by square. */
function lookOver(
  cells: number,
  look: (cell: number) => { bare: boolean; unknown: boolean },
): { bare: WalkView['bare']; unknown: number[] } {
  const bare: WalkView['bare'] = { drills: 0, runs: [] };
  const unknown: number[] = [];
  let before = false;
  for (let cell = 0; cell < cells; cell++) {
    const found = look(cell);
    if (found.unknown) unknown.push(cell);
    if (found.bare) {
      bare.drills++;
      if (before) bare.runs[bare.runs.length - 1]!++;
      else bare.runs.push(cell, 1);
    }
    before = found.bare;
  }
  return { bare, unknown };
}

function runsOf(cells: readonly number[]): WalkView['bare'] {
  return { drills: cells.length, runs: runsFromCells(cells) };
}
