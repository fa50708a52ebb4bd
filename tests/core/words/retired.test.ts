import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { everyText, retiredIn, toldIn } from '../../../bin/words';

describe('the texts of the program', () => {
  let texts: ReturnType<typeof everyText>;
  // All sources are parsed for it.
  beforeAll(() => {
    texts = everyText();
  });

  it('are found as they are read: across lines, with holes for values, and without what no one reads', () => {
    const told = toldIn(
      'slip.tsx',
      `import { x } from './One thing';
       const kind = 'two words';
       export const Slip = ({ n }: { n: number }) => (
         <p className="flex gap-2" aria-label="All of it">
           {n} drills <b>left</b>
           in this section.
           {n > 3 && \`Only \${n} more\`}
         </p>
       );`,
    ).map(({ line, text }) => [line, text]);
    expect(told).toEqual([
      [2, 'two words'],
      [4, '{…} drills {…} in this section. {…}'],
      [4, 'All of it'],
      [5, 'left'],
      [7, 'Only {…} more'],
    ]);
  });

  it('of pages are found too', () => {
    expect(texts.filter(({ file }) => file === 'src/pages/404.astro').map(({ text }) => text)).toContain(
      'There is nothing here',
    );
  });

  it('have no word that the list of words has retired', () => {
    expect(texts.length).toBeGreaterThan(1500);
    expect(
      retiredIn(texts.filter(({ file }) => file.startsWith('src/'))).map(
        ({ told, word, instead }) => `${told.file}:${told.line} says “${word}”; write ${instead}`,
      ),
    ).toEqual([]);
  });

  it('are held against the list: a retired word in a page is found', () => {
    const page = toldIn('slip.tsx', 'const slip = <p>Nothing is lacking on this cloth.</p>;');
    expect(retiredIn(page).map(({ word }) => word)).toEqual(['cloth', 'lacking']);
    expect(readFileSync('package.json', 'utf8')).toContain('"words"');
  });
});
