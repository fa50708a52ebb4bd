import { type Canvas, sizeInWords } from '../canvas/canvas';
import { hoursInWords } from '../pace/timeInWords';
import { dayInWords, daysBetween } from '../words/calendar';
import { counted, many } from '../words/numbers';

/** So many photos stand on a page of the log. */
export const LOG_PHOTOS = 3;

/** What the log tells of a canvas. */
export interface LogFacts {
  id: string;
  title: string;
  shape: 'square' | 'round';
  size: string;
  width: number;
  height: number;
  colours: number;
  drills: number;
  laid: number;
  /** `YYYY-MM-DD`; null where nothing is known. */
  startedOn: string | null;
  finishedOn: string | null;
  /** Minutes at the bench. */
  minutes: number;
  sittings: number;
  notes: string;
  sealed: boolean | null;
}

/** The facts of a canvas, each with its name, as the log page lists them. */
export function logRows(facts: LogFacts): { name: string; value: string }[] {
  const { startedOn, finishedOn, minutes, laid } = facts;
  const rows = [
    { name: 'Size', value: `${facts.size}, ${many(facts.width)} × ${many(facts.height)} squares` },
    { name: 'Drills', value: `${counted(facts.drills, 'drill')}, ${facts.shape}` },
    { name: 'Colours', value: many(facts.colours) },
    { name: 'Begun', value: startedOn === null ? 'not known' : dayInWords(startedOn) },
    { name: 'Finished', value: finishedOn === null ? 'not yet' : dayInWords(finishedOn) },
  ];
  if (startedOn !== null && finishedOn !== null)
    rows.push({ name: 'Days between', value: many(daysBetween(startedOn, finishedOn)) });
  if (minutes > 0) {
    rows.push({
      name: 'At the bench',
      value: `${hoursInWords(minutes)} in ${counted(facts.sittings, 'sitting')}`,
    });
    if (laid > 0)
      rows.push({ name: 'Pace', value: `${many(Math.round(laid / (minutes / 60)))} drills an hour` });
  }
  if (facts.sealed !== null) rows.push({ name: 'Sealed', value: facts.sealed ? 'yes' : 'no' });
  return rows;
}

/** The facts that the log has of every canvas. */
export function logFactsOf(
  canvas: Canvas,
  more: Omit<LogFacts, 'id' | 'title' | 'shape' | 'size' | 'width' | 'height'>,
): LogFacts {
  const { id, title, shape, width, height } = canvas;
  return { id, title, shape, size: sizeInWords(canvas), width, height, ...more };
}

/** Whether a canvas of the log is one that is looked for: each word stands in its title, its notes or its days. */
export function isFoundInLog(facts: LogFacts, search: string): boolean {
  const words = [facts.title, facts.notes, facts.startedOn ?? '', facts.finishedOn ?? '', facts.shape]
    .join(' ')
    .toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => words.includes(word));
}
