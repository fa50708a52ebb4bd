const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });

/**
 * A text in lines, broken between words, and within a word only where one does not fit by itself; its own breaks are kept.
 * @param fits whether a line has room
 * @returns at least one line; nothing of the text is left out but spaces at breaks
 * @example wrapped('one two', (line) => line.length <= 4) // ['one', 'two']
 */
export function wrapped(text: string, fits: (line: string) => boolean): string[] {
  return text.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    let line = '';
    for (const word of paragraph.split(' ')) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (fits(longer)) {
        line = longer;
        continue;
      }
      if (line !== '') lines.push(line);
      const parts = fits(word) ? [word] : broken(word, fits);
      lines.push(...parts.slice(0, -1));
      line = parts.at(-1)!;
    }
    return [...lines, line];
  });
}

/** A word in pieces that fit, of one letter at least. */
function broken(word: string, fits: (line: string) => boolean): string[] {
  const parts: string[] = [];
  let part = '';
  for (const { segment } of graphemes.segment(word)) {
    if (part !== '' && !fits(part + segment)) {
      parts.push(part);
      part = '';
    }
    part += segment;
  }
  return [...parts, part];
}
