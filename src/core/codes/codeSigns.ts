import type { LegendLine } from '../canvas/legend';

/** More letters than these make no keypad. */
const MOST_LETTERS = 8;

/**
 * Signs besides the digits that a keypad needs for the codes of a kit, in their order; none where there are too many to
 * show, so that the letters have to come from elsewhere.
 * @example codeSigns([{ code: '1204' }, { code: 'B-12' }]) // ['-', 'B']
 */
export function codeSigns(legend: readonly Pick<LegendLine, 'code'>[]): string[] {
  const signs = new Set(
    legend.flatMap(({ code }) => [...code.toUpperCase()]).filter((sign) => !/[0-9\s]/.test(sign)),
  );
  return signs.size > MOST_LETTERS ? [] : [...signs].sort();
}
