import { type SittingTimes, sittingMinutes } from '../bench/sitting';
import type { Drawing } from '../print/drawing';
import { headed, INK, inLines, MARGIN_MM, PALE, type PaperHead, text, WARM } from '../print/page';
import { PAPERS } from '../print/paper';
import { addDays, dayInWords, mondayOf } from '../words/calendar';
import { counted, largest, many } from '../words/numbers';
import { percentLaid } from './progress';

/** What the page of a week is made from. */
export interface WeekFacts {
  days: readonly { day: string; drills: number }[];
  /** Each with the calendar day on which it began, by the clock of the place. */
  sittings: readonly (SittingTimes & { day: string; drills: number; note: string })[];
  laid: number;
  drills: number;
  forecast: { early: string; likely: string; late: string } | null;
}

const ROW_MM = 11;
const NOTE_MM = 5.2;

/** The week on one page: each day with its bar, the week's sum, the sittings with their notes, and the forecast. */
export function weekPage(head: PaperHead, facts: WeekFacts, day: string): Drawing[] {
  const monday = mondayOf(day);
  const { widthMm, heightMm } = PAPERS[head.paper];
  const page = headed(head, `The week of ${dayInWords(monday)}`);
  const { marks } = page;
  const perDay = Array.from({ length: 7 }, (_, i) => {
    const date = addDays(monday, i);
    return { date, drills: facts.days.find((each) => each.day === date)?.drills ?? 0 };
  });
  const most = largest(
    perDay.map(({ drills }) => drills),
    1,
  );
  const left = MARGIN_MM + 48;
  const room = widthMm - MARGIN_MM - left - 24;
  let y = MARGIN_MM + 26;
  for (const { date, drills } of perDay) {
    marks.push(text(MARGIN_MM, y, dayInWords(date, { weekday: true, year: false }), 3.8));
    const width = (Math.max(0, drills) / most) * room;
    if (width > 0) marks.push({ kind: 'rect', x: left, y: y - 4, width, height: 5, fill: WARM });
    marks.push(text(left + width + 2, y, many(drills), 3.8, { font: 'codes' }));
    y += ROW_MM;
  }
  const sum = perDay.reduce((all, { drills }) => all + drills, 0);
  y += 4;
  marks.push(text(MARGIN_MM, y, `${counted(sum, 'drill')} in this week`, 6));
  y += 8;
  marks.push(
    text(
      MARGIN_MM,
      y,
      `${many(facts.laid)} of ${many(facts.drills)} laid, ${percentLaid(facts.laid, facts.drills).toFixed(2)} %`,
      4,
    ),
  );
  if (facts.forecast) {
    y += 7;
    const { early, late } = facts.forecast;
    marks.push(
      text(MARGIN_MM, y, `Done between ${dayInWords(early)} and ${dayInWords(late)}, four times in five`, 4),
    );
  }
  const end = addDays(monday, 7);
  const own = facts.sittings
    .filter(({ day: began, endedAt }) => endedAt !== null && began >= monday && began < end)
    .sort((a, b) => Date.parse(a.startedAt) - Date.parse(b.startedAt));
  y += 12;
  marks.push({
    kind: 'line',
    x1: MARGIN_MM,
    y1: y - 5,
    x2: widthMm - MARGIN_MM,
    y2: y - 5,
    stroke: PALE,
    width: 0.2,
  });
  const minutes = own.reduce((all, sitting) => all + sittingMinutes(sitting), 0);
  marks.push(text(MARGIN_MM, y, `${counted(own.length, 'sitting')}, ${counted(minutes, 'minute')}`, 4.4));
  y += 1.3;
  const bottom = heightMm - MARGIN_MM;
  const told = own.map(({ day: began, drills, note, ...times }) => {
    const what = `${dayInWords(began, { weekday: true, year: false })}: ${counted(sittingMinutes(times), 'minute')}, ${counted(drills, 'drill')}`;
    return inLines(head, note === '' ? what : `${what}. ${note}`, 3.6);
  });
  for (const [i, lines] of told.entries()) {
    // The last line of the page says how many have no room.
    const room = Math.floor((bottom - y) / NOTE_MM) - (i < told.length - 1 ? 1 : 0);
    if (lines.length > room) {
      y += NOTE_MM;
      marks.push(text(MARGIN_MM, y, `and ${counted(told.length - i, 'sitting')} more`, 3.6, { fill: PALE }));
      break;
    }
    for (const words of lines) {
      y += NOTE_MM;
      marks.push(text(MARGIN_MM, y, words, 3.6, { fill: INK }));
    }
    y += 1.3;
  }
  return [page];
}
