import type { MarkKind } from '../bench/marking';
import { isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import type { CellPart } from '../cells/rect';
import type { Effort } from '../pace/effort';
import { isConfetti } from '../placing/confetti';
import { KNOWN_TIPS } from '../placing/tips';
import { dayIn } from '../words/calendar';
import { largest } from '../words/numbers';
import { cellWork } from './cellWork';
import { type Forecast, forecast } from './forecast';
import { changesByDay, type DayChange } from './laidByDay';
import type { SittingPace } from './pace';
import type { PackedMarks } from './packedMarks';

/** What days and sittings are reckoned from; it goes to another thread. */
export interface WorkTask {
  chart: Chart;
  /** Without one each square costs the same. */
  hasChart: boolean;
  laid: Uint8Array;
  /** In the order of the work, each with its number. */
  sections: (CellPart & { number: number })[];
  widest: number;
  seconds: Readonly<Effort>;
  /** Seconds a drill, where there is no chart. */
  plainSeconds: number;
  marks: PackedMarks;
  /** Those that ended, with their times as they were corrected last. */
  sittings: { id: string; startedAt: string; minutes: number }[];
  zone: string;
  /** `YYYY-MM-DD` in that zone. */
  today: string;
}

export interface WorkDone {
  days: { day: string; drills: number; minutes: number }[];
  /** Minutes of work that are left, in all and up to the end of each section in the order of the work. */
  minutesLeft: number;
  untilSection: { number: number; minutes: number }[];
  sittings: SittingPace[];
  /** When the rest will be done; null as {@link forecast} says. */
  foretold: Forecast | null;
}

/** A placement that was marked later than so long after the one before was no quick one after the other, s. */
const LONGEST_PLACEMENT = 60;
const WIDEST = largest(KNOWN_TIPS);

/** What each day did, what is left and for how long, and the pace of each sitting. */
export function progressWork(task: WorkTask): WorkDone {
  const { chart, laid, marks, zone } = task;
  const { cells, width } = chart;
  const work = task.hasChart
    ? cellWork(chart, task.sections, task.widest, task.seconds)
    : Float32Array.from(cells, (line) => (line === 0 ? 0 : task.plainSeconds));
  const days = new Map<string, { drills: number; minutes: number }>();
  const bySitting = new Map(
    task.sittings.map(({ id, startedAt, minutes }): [string, SittingPace & { last: number }] => [
      id,
      { startedAt, minutes, drills: 0, confetti: 0, placements: [], last: 0 },
    ]),
  );
  let from = 0;
  for (let i = 0; i < marks.ends.length; i++) {
    const to = marks.ends[i]!;
    const sign = marks.lays[i] === 1 ? 1 : -1;
    let [drills, seconds, confetti] = [0, 0, 0];
    for (let run = from; run < to; run += 2) {
      const start = marks.runs[run]!;
      for (let cell = start; cell < Math.min(cells.length, start + marks.runs[run + 1]!); cell++) {
        drills++;
        seconds += work[cell]!;
        if (task.hasChart && isConfetti(chart, cell, cell % width, Math.floor(cell / width))) confetti++;
      }
    }
    from = to;
    const day = dayIn(zone, marks.at[i]!);
    const sum = days.get(day) ?? { drills: 0, minutes: 0 };
    sum.drills += sign * drills;
    sum.minutes += (sign * seconds) / 60;
    days.set(day, sum);
    const sitting = bySitting.get(marks.sittings[marks.sitting[i]!] ?? '');
    if (!sitting) continue;
    sitting.drills += sign * drills;
    sitting.confetti += sign * confetti;
    const gap = (marks.at[i]! - sitting.last) / 1000;
    if (sign === 1 && drills <= WIDEST && gap > 0 && gap <= LONGEST_PLACEMENT)
      sitting.placements.push({ drills, seconds: gap });
    sitting.last = marks.at[i]!;
  }
  let minutesLeft = 0;
  const untilSection = task.sections.map((section) => {
    for (const rect of section.rects ?? [section]) {
      for (let y = rect.y; y < rect.y + rect.height; y++) {
        for (let x = rect.x; x < rect.x + rect.width; x++) {
          const cell = y * width + x;
          if (!isLaid(laid, cell)) minutesLeft += work[cell]! / 60;
        }
      }
    }
    return { number: section.number, minutes: minutesLeft };
  });
  const inOrder = [...days].map(([day, sum]) => ({ day, ...sum })).sort((a, b) => (a.day < b.day ? -1 : 1));
  return {
    days: inOrder,
    foretold: forecast(inOrder, minutesLeft, task.today),
    minutesLeft,
    untilSection,
    sittings: [...bySitting.values()].map(({ last: _, ...sitting }) => sitting),
  };
}

/** Day by day what changed on the canvas. */
export function dayChanges({
  marks,
  cells,
  zone,
}: {
  marks: PackedMarks;
  cells: number;
  zone: string;
}): DayChange[] {
  function* all(): Generator<{ day: string; kind: MarkKind; runs: number[] }> {
    let from = 0;
    for (let i = 0; i < marks.ends.length; i++) {
      const runs = [...marks.runs.subarray(from, marks.ends[i])];
      from = marks.ends[i]!;
      yield { day: dayIn(zone, marks.at[i]!), kind: marks.lays[i] === 1 ? 'lay' : 'lift', runs };
    }
  }
  return changesByDay(all(), cells);
}
