import fc from 'fast-check';
import { expect, it } from 'vitest';
import { wrapped } from '../../../src/core/print/wrapped';

const within = (letters: number) => (line: string) => line.length <= letters;

it('breaks between words, keeps breaks of the text, and breaks a word only where it has to', () => {
  expect(wrapped('one two three', within(8))).toEqual(['one two', 'three']);
  expect(wrapped('one\n\ntwo', within(8))).toEqual(['one', '', 'two']);
  expect(wrapped('a unbreakable b', within(5))).toEqual(['a', 'unbre', 'akabl', 'e b']);
  expect(wrapped('', within(5))).toEqual(['']);
  // Han has no spaces; a letter that is put together stays whole, however little room there is.
  expect(wrapped('漢字漢字漢', within(2))).toEqual(['漢字', '漢字', '漢']);
  expect(wrapped('e\u0301e\u0301', within(1))).toEqual(['e\u0301', 'e\u0301']);
});

it('loses no letter, and fills no line beyond its room', () => {
  const text = fc
    .array(fc.stringMatching(/^[a-z]{1,12}$/), { maxLength: 30 })
    .map((words) => words.join(' '));
  fc.assert(
    fc.property(text, fc.integer({ min: 1, max: 20 }), (words, room) => {
      const lines = wrapped(words, within(room));
      expect(lines.join('').replaceAll(' ', '')).toBe(words.replaceAll(' ', ''));
      expect(lines.every(within(room))).toBe(true);
    }),
  );
});
