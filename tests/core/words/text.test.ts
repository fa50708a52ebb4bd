import { describe, expect, it } from 'vitest';
import { largest } from '../../../src/core/words/numbers';
import { readText } from '../../../src/core/words/text';

describe('bytes as text', () => {
  it('are read in the encoding that they carry or that is said', () => {
    // Reference: Node's own encoders.
    expect(readText(Buffer.from('Ständer\n', 'utf8'))).toBe('Ständer\n');
    expect(readText(Buffer.from('\uFEFFStänder', 'utf8'))).toBe('Ständer');
    expect(readText(Buffer.from('\uFEFFStänder', 'utf16le'))).toBe('Ständer');
    expect(readText(Buffer.from('Ständer', 'latin1'), 'iso-8859-1')).toBe('Ständer');
    const bigEndian = Buffer.from('\uFEFFStänder', 'utf16le').swap16();
    expect(readText(bigEndian)).toBe('Ständer');
    // The mark goes before what is said.
    expect(readText(Buffer.from('\uFEFFStänder', 'utf8'), 'iso-8859-1')).toBe('Ständer');
    // Half a mark is none.
    expect(readText(Buffer.from([0xff, 0x61]), 'iso-8859-1')).toBe('ÿa');
  });

  it.each([
    ['Latin letters that are no UTF-8', Buffer.from('Ständer', 'latin1'), 'not UTF-8 text'],
    ['a spreadsheet', Buffer.from('PK\u0003\u0004…'), 'a spreadsheet or ZIP file, not text'],
    ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10]), 'a PNG picture'],
    ['bytes with a zero', Buffer.from('a\u0000b'), 'not a text file'],
  ])('are refused: %s', (_, bytes, words) => {
    expect(() => readText(bytes)).toThrow(words);
  });
});

it('an encoding that is not known, or does not fit, is named', () => {
  expect(() => readText(Buffer.from('a'), `x-${'y'.repeat(60)}`)).toThrow(
    `The encoding “x-${'y'.repeat(38)}” is not known here.`,
  );
  expect(() => readText(Buffer.from([0xff, 0xff, 0xff]), 'shift_jis')).toThrow(
    'This file is not text in shift_jis. Save it as UTF-8.',
  );
});

describe('the largest of many', () => {
  it('is found however many there are', () => {
    expect(largest(Array.from({ length: 1_000_000 }, (_, i) => i % 777_777))).toBe(777_776);
    expect(largest([], 1)).toBe(1);
    expect(largest([-3, -2])).toBe(-2);
  });
});
