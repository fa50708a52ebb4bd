/**
 * A moment as people say it, by the clock of this device: `today at 14:02`, `yesterday at 9:15`, `on 3 November at 14:02`.
 * @example momentInWords(new Date(2026, 10, 3, 14, 2), new Date(2026, 10, 3, 18, 0)) // 'today at 14:02'
 */
export function momentInWords(moment: Date, now: Date): string {
  const time = moment.toLocaleTimeString('en-GB', { hour: 'numeric', minute: '2-digit' });
  const days = Math.round((startOfDay(now) - startOfDay(moment)) / 86_400_000);
  if (days === 0) return `today at ${time}`;
  if (days === 1) return `yesterday at ${time}`;
  const year = moment.getFullYear() === now.getFullYear() ? {} : ({ year: 'numeric' } as const);
  const date = moment.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', ...year });
  return `on ${date} at ${time}`;
}

function startOfDay(moment: Date): number {
  return new Date(moment.getFullYear(), moment.getMonth(), moment.getDate()).getTime();
}

/** A date as it stands in a letter: `25 November 2026`. */
export function dateInWords(date: Date): string {
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
}
