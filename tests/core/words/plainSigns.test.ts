import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainSigns } from '../../../src/core/words/plainSigns';

describe('plain signs', () => {
  it('are what a keyboard of ASCII types, untouched', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme-ascii' }), (text) => plainSigns(text) === text));
  });

  it.each([
    ['Ａ－４１２ ｘ５', 'A-412 x5'],
    ['B‑12', 'B-12'],
    ['B–12—−', 'B-12--'],
    ['\ufeff4\u200b1\u00ad2\u200e', '412'],
    ['①½Ⅳ★é', '①½Ⅳ★é'],
    ['e\u0301', 'é'],
  ])('of %j are %j', (typed, plain) => expect(plainSigns(typed)).toBe(plain));

  // Reference: the numbering systems of CLDR, by way of Intl.NumberFormat.
  it('read the digits of every numbering system', () => {
    for (const system of Intl.supportedValuesOf('numberingSystem')) {
      const digits = new Intl.NumberFormat(`en-u-nu-${system}`, { useGrouping: false }).format(9876543210);
      if (!/^\p{Nd}+$/u.test(digits)) continue;
      expect(plainSigns(digits), system).toBe('9876543210');
    }
    expect(plainSigns('𝟗𝟘𝟙𝟢𝟫')).toBe('90109');
  });
});
