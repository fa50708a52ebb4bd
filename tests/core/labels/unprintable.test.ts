import { describe, expect, it } from 'vitest';
import { lostInWords, printedTexts } from '../../../src/core/labels/unprintable';
import { line } from '../samples';

describe('what cannot be printed', () => {
  it('is looked for in all that is printed of a kit; a drawn symbol needs no font', () => {
    const texts = printedTexts('Hills', [
      line(1, { symbol: '★', code: '310', name: 'Sky' }),
      line(2, { drawing: 'M0 0Z' }),
    ]);
    expect(texts.slice(0, 3)).toEqual([
      { text: 'Hills', what: 'the title' },
      { text: '★', what: 'the symbol of 310' },
      { text: '310', what: 'the code of key number 1' },
    ]);
    expect(texts.filter(({ what }) => what.startsWith('the symbol'))).toHaveLength(1);
  });

  it('is told in one sentence, and of many only some are named', () => {
    expect(lostInWords([])).toBeNull();
    expect(lostInWords(['the name of 310'])).toMatch(/^No font here prints the name of 310\. /);
    const many = Array.from({ length: 8 }, (_, i) => `the name of ${i}`);
    expect(lostInWords(many)).toContain('the name of 4, and 3 more.');
  });
});
