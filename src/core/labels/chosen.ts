import type { LegendLine } from '../canvas/legend';
import { compareCodes, looseCode } from '../codes/codes';
import { inColourOrder } from '../codes/colourOrder';
import { findLine } from '../codes/findLine';
import type { Pot } from '../codes/places';
import { Refusal } from '../refusal';

/** Which colours get a label: by where they live, or those whose leftovers lie in the stash. */
export const LABEL_CHOICES = ['all', 'pots', 'bags', 'leftovers'] as const;
export type LabelChoice = (typeof LABEL_CHOICES)[number];

/** What a bag of leftovers is called in place of its pot. */
const STASH_PLACE = 'stash';

/** Colours whose leftovers lie in the stash, in the order of their codes as the bags lie there. */
export function leftoverLabels(legend: readonly LegendLine[], lines: readonly number[]): Pot[] {
  return inColourOrder(
    legend.filter(({ line }) => lines.includes(line)),
    'code',
  ).map((line) => ({ place: STASH_PLACE, line }));
}

/** Colours in the order in which their labels are printed: by place, so that they lie side by side as the pots do. */
export function inPrintOrder(pots: readonly Pot[], which: Exclude<LabelChoice, 'leftovers'>): Pot[] {
  return pots
    .filter(({ place }) => which === 'all' || place.startsWith(which === 'pots' ? 'pot' : 'bag'))
    .sort(
      (a, b) =>
        Number(a.place.startsWith('bag')) - Number(b.place.startsWith('bag')) ||
        compareCodes(a.place, b.place),
    );
}

/**
 * The labels that a wish names: codes, key numbers or places, parted by commas; two of them with a dash between name all
 * labels from one to the other in the order of printing.
 * @example chosenLabels('412, pot 3 - pot 7', labels)
 * @throws Refusal naming the word that is no label
 */
export function chosenLabels(wish: string, labels: readonly Pot[]): Pot[] {
  const taken = new Set<Pot>();
  for (const part of wish.split(/[,;\n]/)) {
    const word = part.trim();
    if (word === '') continue;
    const whole = labelOf(word, labels);
    if (whole) {
      taken.add(whole);
      continue;
    }
    const ends = endsOf(word, labels);
    if (!ends)
      throw new Refusal(
        `“${word.slice(0, 40)}” is no label here. Write codes or places, such as 412, pot 7, or pot 3 - pot 9.`,
      );
    const [first, last] = ends;
    const [a, b] = [labels.indexOf(first), labels.indexOf(last)];
    for (const label of labels.slice(Math.min(a, b), Math.max(a, b) + 1)) taken.add(label);
  }
  return labels.filter((label) => taken.has(label));
}

/** From one label to another; codes may have dashes of their own. */
function endsOf(word: string, labels: readonly Pot[]): [Pot, Pot] | null {
  for (const dash of word.matchAll(/[-–—]|\bto\b/g)) {
    const first = labelOf(word.slice(0, dash.index), labels);
    const last = first && labelOf(word.slice(dash.index + dash[0].length), labels);
    if (first && last) return [first, last];
  }
  return null;
}

function labelOf(word: string, labels: readonly Pot[]): Pot | null {
  const place = looseCode(word);
  const placed = labels.find((label) => looseCode(label.place) === place);
  if (placed) return placed;
  const found = findLine(
    word,
    labels.map(({ line }) => line),
    'codes',
  );
  const line = found.kind === 'one' ? found.line : found.kind === 'several' ? found.lines[0] : undefined;
  return labels.find((label) => label.line === line) ?? null;
}
