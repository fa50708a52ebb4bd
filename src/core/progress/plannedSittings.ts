import { addDays, daysBetween, weekdayOf } from '../words/calendar';
import type { DayWork } from './forecast';

/** A sitting to come, for a calendar. */
export interface PlannedSitting {
  day: string;
  minutes: number;
}

/** No sitting is planned shorter or longer than this, minutes. */
const SHORTEST = 20;
const LONGEST = 180;

/**
 * Sittings that bring a canvas to its end by a day, on the weekdays on which the user works most: as many a week as he has
 * had, each as long as it takes.
 * @param left minutes of work @param today days from tomorrow on are planned
 * @param most so many sittings at most
 */
export function plannedSittings(
  days: readonly DayWork[],
  left: number,
  today: string,
  finishBy: string,
  most = 200,
): PlannedSitting[] {
  const perWeekday = new Array<number>(7).fill(0);
  for (const { day, minutes } of days) if (minutes > 0) perWeekday[weekdayOf(day)]! += 1;
  const ranked = [0, 1, 2, 3, 4, 5, 6].sort((a, b) => perWeekday[b]! - perWeekday[a]! || a - b);
  const span = days.length === 0 ? 0 : (Date.parse(today) - Date.parse(days[0]!.day)) / (7 * 86_400_000);
  const aWeek = Math.min(7, Math.max(2, Math.round(span < 1 ? 3 : days.length / span)));
  const away = daysBetween(today, finishBy);
  const on = (count: number) => {
    const chosen = new Set(ranked.slice(0, count));
    const dates: string[] = [];
    // A wished day may be centuries away: more sittings than the shortest ones would take are none.
    for (let i = 1; i <= away && dates.length * SHORTEST < left; i++) {
      const day = addDays(today, i);
      if (chosen.has(weekdayOf(day))) dates.push(day);
    }
    return dates;
  };
  // More days a week where the sittings would be too long.
  let dates = on(aWeek);
  for (let count = aWeek + 1; count <= 7 && left / Math.max(1, dates.length) > LONGEST; count++)
    dates = on(count);
  const each = Math.min(LONGEST, Math.max(SHORTEST, Math.ceil(left / Math.max(1, dates.length) / 5) * 5));
  const planned: PlannedSitting[] = [];
  for (let rest = left; rest > 0 && planned.length < Math.min(dates.length, most); rest -= each)
    planned.push({ day: dates[planned.length]!, minutes: each });
  return planned;
}
