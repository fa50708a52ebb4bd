import { type LegendLine, symbolOrKey } from '../canvas/legend';

/** Texts of a kit that are printed, each with what it is in words. */
export function printedTexts(title: string, legend: readonly LegendLine[]): { text: string; what: string }[] {
  return [
    { text: title, what: 'the title' },
    ...legend.flatMap((line) => [
      ...(line.drawing === undefined
        ? [{ text: symbolOrKey(line), what: `the symbol of ${line.code}` }]
        : []),
      { text: line.code, what: `the code of key number ${line.keyNumber}` },
      { text: line.name, what: `the name of ${line.code}` },
      { text: line.keyNumber, what: `the key number of ${line.code}` },
    ]),
  ];
}

/**
 * What a print will leave out, as one sentence; null where it leaves out nothing.
 * @param parts what cannot be printed, in words
 * @example lostInWords(['the name of 310']) // 'No font here prints the name of 310. …'
 */
export function lostInWords(parts: readonly string[]): string | null {
  if (parts.length === 0) return null;
  const shown = parts.slice(0, 5).join(', ');
  const more = parts.length > 5 ? `, and ${parts.length - 5} more` : '';
  return `No font here prints ${shown}${more}. The key number is printed in place of such a symbol, which can also be drawn by hand; a name is left out.`;
}
