import { type LegendLine, MAX_LEGEND_LINES, ofLine } from '../canvas/legend';
import { looseCode } from '../codes/codes';
import { counted, many } from '../words/numbers';

/** A colour as it is to stand in the list. `line` names the colour that it is; without it, that is found. */
export type WishedColour = Omit<LegendLine, 'line'> & { line?: number | null | undefined };

/**
 * Finds out which colour each row of a new list is, so that bags, pots and squares stay with their colour when its code
 * is corrected or the order changes. A row that names no colour is the one with its code and finish; else the one with
 * its key number and symbol, for a canvas knows a colour by its symbol; else a new one.
 * @param next number for the first new colour; none of these was ever used
 * @returns the list with the number of each colour
 */
export function identified(
  before: readonly LegendLine[],
  rows: readonly WishedColour[],
  next: number,
): LegendLine[] {
  const found = rows.map(({ line }) => line ?? null);
  const taken = new Set(found);
  const ways: ((colour: LegendLine, row: WishedColour) => boolean)[] = [
    (colour, row) => looseCode(colour.code) === looseCode(row.code) && colour.finish === row.finish,
    (colour, row) =>
      row.symbol !== null && colour.symbol === row.symbol && colour.keyNumber === row.keyNumber,
  ];
  for (const fits of ways) {
    rows.forEach((row, i) => {
      if (found[i] !== null) return;
      const open = before.filter((colour) => !taken.has(colour.line) && fits(colour, row));
      if (open.length !== 1) return;
      found[i] = open[0]!.line;
      taken.add(found[i]!);
    });
  }
  let fresh = next;
  return rows.map((row, i) => ({ ...row, line: found[i] ?? fresh++ }));
}

/** What hangs on a colour: bags that were counted, squares of the chart, and whether it has a pot that is filled. */
export interface ColourUse {
  bags: number;
  squares: number;
  pot: boolean;
}

/**
 * What is wrong with a new list, as a sentence; null where it may take the old one's place.
 * @param uses by line number; colours that nothing uses may be left out
 */
export function faultInList(
  before: readonly LegendLine[],
  after: readonly LegendLine[],
  uses: ReadonlyMap<number, ColourUse>,
): string | null {
  if (after.length > MAX_LEGEND_LINES) return `A canvas can have at most ${MAX_LEGEND_LINES} colours.`;
  const codes = new Map<string, LegendLine>();
  const numbers = new Set<number>();
  for (const colour of after) {
    const key = `${looseCode(colour.code)} ${colour.finish}`;
    const twin = codes.get(key);
    if (twin) {
      return `Code ${colour.code} stands there twice, with key numbers ${twin.keyNumber} and ${colour.keyNumber}. Give the two different codes or finishes, or delete one.`;
    }
    codes.set(key, colour);
    if (numbers.has(colour.line)) return `Two rows claim to be ${colour.code}. Load the list again.`;
    numbers.add(colour.line);
  }
  for (const colour of before) {
    const use = uses.get(colour.line);
    if (!use || ofLine(after, colour.line)) continue;
    const things = [
      use.bags > 0 && counted(use.bags, 'bag'),
      use.squares > 0 && `${many(use.squares)} ${use.squares === 1 ? 'square' : 'squares'} of the chart`,
      use.pot && 'a filled pot',
    ].filter((each) => each !== false);
    if (things.length === 0) continue;
    return `${colour.code} has ${things.join(' and ')}, so it cannot be deleted. Move its bags to another colour, set its squares, empty its pot; or correct its row instead.`;
  }
  return null;
}

/** One difference between two lists, for people. */
export function changesInWords(before: readonly LegendLine[], after: readonly LegendLine[]): string[] {
  const words: string[] = [];
  for (const colour of before) {
    if (!ofLine(after, colour.line)) words.push(`${colour.code} deleted`);
  }
  for (const colour of after) {
    const was = ofLine(before, colour.line);
    if (!was) words.push(`${colour.code} added`);
    else words.push(...FIELDS.flatMap(({ field, told }) => fieldInWords(was, colour, field, told)));
  }
  const order = (list: readonly LegendLine[], other: readonly LegendLine[]) =>
    list.flatMap(({ line }) => (ofLine(other, line) ? [line] : [])).join(' ');
  if (order(before, after) !== order(after, before)) words.push('the order changed');
  return words;
}

const FIELDS: readonly { field: Exclude<keyof LegendLine, 'line' | 'drawing' | 'origin'>; told: string }[] = [
  { field: 'code', told: 'code' },
  { field: 'keyNumber', told: 'key number' },
  { field: 'symbol', told: 'symbol' },
  { field: 'name', told: 'name' },
  { field: 'hex', told: 'colour' },
  { field: 'finish', told: 'finish' },
  { field: 'neededDrills', told: 'drills' },
  { field: 'packets', told: 'bags' },
];

function fieldInWords(
  was: LegendLine,
  is: LegendLine,
  field: (typeof FIELDS)[number]['field'],
  told: string,
): string[] {
  if (was[field] === is[field]) return [];
  const show = (value: string | number | null) =>
    value === null || value === '' ? 'none' : typeof value === 'number' ? many(value) : value;
  if (field === 'code') return [`${was.code} is now ${is.code}`];
  return [`${told} of ${is.code}: ${show(was[field])} → ${show(is[field])}`];
}

/** Rows that were read from a sheet: their numbers are places in it, not the numbers of colours. */
export function withoutNumbers(rows: readonly LegendLine[]): WishedColour[] {
  return rows.map(({ line: _, ...row }) => row);
}
