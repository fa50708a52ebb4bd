import type { LegendLine } from '../canvas/legend';
import { inColourOrder } from './colourOrder';

/**
 * Where colours live, by line: `pot 17`, `pot B17` where there are several cases, `bag 3`. A colour may have several
 * pots, in the order in which they are filled.
 */
export type PotPlaces = Readonly<Record<number, readonly string[]>>;

/** A colour and the place where it lives. */
export interface Pot {
  place: string;
  line: LegendLine;
}

/** The colours in natural order of their codes with their places; before any allotment pots are numbered in that order. */
export function potsInCodeOrder(legend: readonly LegendLine[], places: PotPlaces = {}): Pot[] {
  return inColourOrder(legend, 'code').map((line, i) => ({
    place: placesInWords(places[line.line] ?? [`pot ${i + 1}`]),
    line,
  }));
}

/** Every pot and bag by itself, in natural order of the codes: what gets a label. */
export function placesInCodeOrder(legend: readonly LegendLine[], places: PotPlaces = {}): Pot[] {
  return inColourOrder(legend, 'code').flatMap((line, i) =>
    (places[line.line] ?? [`pot ${i + 1}`]).map((place) => ({ place, line })),
  );
}

/**
 * All places of a colour as one.
 * @example placesInWords(['pot 17', 'pot 73']) // 'pot 17, 73'
 */
export function placesInWords(places: readonly string[]): string {
  return places.map((place, i) => (i === 0 ? place : shortPlace(place))).join(', ');
}

/** The place as it fits on a small label: pots by their number alone. */
export function shortPlace(place: string): string {
  return place.replace(/^pot /, '');
}

/** The place in two parts, for a word in small and a number in large: `Pot`, `B17`. */
export function placeParts(place: string): { word: string; number: string } {
  const [word = '', ...number] = placeInWords(place).split(' ');
  return { word, number: number.join(' ') };
}

/** The place as a sentence begins with it. */
export function placeInWords(place: string): string {
  return place.charAt(0).toUpperCase() + place.slice(1);
}

/** Name of a pot from its case and its number; with several cases each has a letter. */
export function potName(caseIndex: number, cases: number, number: number): string {
  return cases > 1 ? `pot ${String.fromCharCode(65 + caseIndex)}${number}` : `pot ${number}`;
}
