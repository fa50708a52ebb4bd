import { createEvents, type EventAttributes } from 'ics';
import { sittingMinutes } from '../../core/bench/sitting';
import type { Canvas } from '../../core/canvas/canvas';
import type { OutTable } from '../../core/checkin/checkinTable';
import { plannedSittings } from '../../core/progress/plannedSittings';
import { weekPage } from '../../core/progress/weekPage';
import { addDays, dayIn } from '../../core/words/calendar';
import { dateInWords } from '../../core/words/moments';
import { conflict } from '../http/problem';
import type { ForecastView, ProgressView, SittingRecord } from './contract';

/** Sittings that stand, oldest first. */
export function sittingsTable(sittings: readonly SittingRecord[]): OutTable {
  return {
    header: ['Began (UTC)', 'Ended (UTC)', 'Minutes', 'Drills', 'At', 'Note'],
    rows: sittings
      .filter(({ removed }) => !removed)
      .sort((a, b) => Date.parse(a.startedAt) - Date.parse(b.startedAt))
      .map((sitting) => [
        sitting.startedAt,
        sitting.endedAt ?? '',
        sitting.endedAt === null ? '' : sittingMinutes(sitting),
        sitting.drills,
        sitting.device ?? '',
        sitting.note,
      ]),
  };
}

/** Each day with work: what it added, and the total at its end. */
export function daysTable({ burnUp, laidBefore }: ProgressView): OutTable {
  return {
    header: ['Day', 'Drills', 'Laid in all'],
    rows: burnUp.map(({ day, total }, i) => [day, total - (burnUp[i - 1]?.total ?? laidBefore), total]),
  };
}

/** Evenings begin about here, by the clock of the place. */
const EVENING_HOUR = 19;

/**
 * Planned sittings up to the wished (or likely) day and the day itself, as a calendar (RFC 5545). Times are of the place,
 * whatever its zone. @throws Problem where nothing is left to plan
 */
export function calendarOf(canvas: Canvas, view: ForecastView): string {
  const end = view.finishBy !== null && view.finishBy > view.today ? view.finishBy : view.forecast?.likely;
  if (!end || view.minutesLeft <= 0)
    throw conflict('Nothing is left to plan, or nothing foretells when it will be done.');
  const parts = (day: string): [number, number, number] => {
    const [year, month, date] = day.split('-').map(Number);
    return [year!, month!, date!];
  };
  const events: EventAttributes[] = plannedSittings(view.days, view.minutesLeft, view.today, end).map(
    ({ day, minutes }) => ({
      uid: `${canvas.id}-${day}@oculent`,
      productId: 'oculent',
      start: [...parts(day), EVENING_HOUR, 0],
      startInputType: 'local',
      startOutputType: 'local',
      duration: { minutes },
      title: `At the bench: ${canvas.title}`,
    }),
  );
  events.push({
    uid: `${canvas.id}-end@oculent`,
    productId: 'oculent',
    start: parts(end),
    end: parts(addDays(end, 1)),
    title: `${canvas.title}: ${view.finishBy === end ? 'wished to be done' : 'likely done'}`,
  });
  const { error, value } = createEvents(events);
  if (error || !value) throw error ?? new Error('The calendar came out empty.');
  return value;
}

/** The week that holds a day, ready to be drawn. */
export function weekPrint(
  canvas: Canvas,
  view: ProgressView,
  foretold: ForecastView,
  day: string,
  paper: 'a4' | 'letter',
  zone: string,
) {
  const head = { title: canvas.title, date: dateInWords(new Date()), paper };
  return {
    title: `Week: ${canvas.title}`,
    pages: weekPage(
      head,
      {
        days: foretold.days,
        sittings: view.sittings
          .filter(({ removed }) => !removed)
          .map((sitting) => ({ ...sitting, day: dayIn(zone, Date.parse(sitting.startedAt)) })),
        laid: view.laid,
        drills: view.drills,
        forecast: foretold.forecast,
      },
      day,
    ),
  };
}
