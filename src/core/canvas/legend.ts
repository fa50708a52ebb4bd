import type { Finish } from '../colour/finish';

/** One colour of a kit, as its inventory sheet lists it. `line` counts from 1 and is the chart's cell value. */
export interface LegendLine {
  line: number;
  /** Position of the colour in this kit as printed; some bags carry only this. */
  keyNumber: string;
  /** Printed symbol; null where the sheet has none. */
  symbol: string | null;
  code: string;
  name: string;
  /** sRGB as `#rrggbb`; null where the sheet gives no colour. */
  hex: string | null;
  finish: Finish;
  neededDrills: number;
  /** Packets that the sheet says are in the kit. */
  packets: number;
  /** `own` for a finish that the user chose and the sheet does not list; left out for a colour of the sheet. */
  origin?: 'own';
  /** The symbol as the user drew it, for one that no font has: an SVG path in a box of 100 × 100, filled evenodd. */
  drawing?: string;
}

/** More lines than any kit has; keeps a wrong file from becoming a legend. */
export const MAX_LEGEND_LINES = 250;
/** Numbers of colours are never used again, so they grow beyond the length of a list; a chart has two bytes for them. */
export const MAX_LINE = 60_000;

/** What to show where the symbol should stand: the symbol, or the key number when there is none. */
export function symbolOrKey(line: Pick<LegendLine, 'symbol' | 'keyNumber'>): string {
  return line.symbol ?? line.keyNumber;
}

/** Highest line number of a list, 0 for an empty one; numbers of colours that are gone stay unused. */
export function highestLine(list: readonly { line: number }[]): number {
  return list.reduce((most, { line }) => Math.max(most, line), 0);
}

const known = new WeakMap<readonly object[], Map<number, object>>();

/**
 * The entry that stands for a colour in a list of colours, or of anything kept by colour.
 * @example ofLine(legend, 7)?.code // '412'
 */
export function ofLine<Entry extends { line: number }>(
  list: readonly Entry[],
  line: number | null,
): Entry | undefined {
  if (line === null) return undefined;
  let entries = known.get(list);
  if (entries?.size !== list.length) {
    entries = new Map(list.map((entry) => [entry.line, entry]));
    known.set(list, entries);
  }
  return entries.get(line) as Entry | undefined;
}

/**
 * What each colour has, by line number from 0 up to the highest.
 * @param otherwise for 0 and for numbers that no colour has
 */
export function byLine<Entry extends { line: number }, Value>(
  list: readonly Entry[],
  value: (entry: Entry) => Value,
  otherwise: Value,
): Value[] {
  const values = new Array<Value>(highestLine(list) + 1).fill(otherwise);
  for (const entry of list) values[entry.line] = value(entry);
  return values;
}
