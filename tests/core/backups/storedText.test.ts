import fc from 'fast-check';
import { expect, it } from 'vitest';
import { contentsInWords, sizeInWords } from '../../../src/core/backups/contents';
import { readStored, writeStored } from '../../../src/core/backups/storedText';
import { unguarded } from '../../../src/core/words/csvGuard';

it('any text and no text come back as they were', () => {
  fc.assert(
    fc.property(fc.option(fc.string(), { nil: null }), (text) => {
      expect(readStored(writeStored(text))).toBe(text);
    }),
  );
  for (const text of [null, '', '\\N', '\\', '\\\\N', 'N']) expect(readStored(writeStored(text))).toBe(text);
  expect(writeStored(null)).toBe('\\N');
  expect(writeStored('\\N')).not.toBe('\\N');
});

it('what is in a backup is one sentence', () => {
  const none = { canvases: [], bags: 0, marks: 0, leftovers: 0, cases: 0, photos: 0 };
  expect(contentsInWords(none)).toBe('0 canvases.');
  const canvases = [
    { title: 'A', laid: 1, deleted: false },
    { title: 'B', laid: 0, deleted: true },
  ];
  expect(contentsInWords({ ...none, canvases, bags: 1200, photos: 1 })).toBe(
    '1 canvas, 1,200 bags and 1 photo.',
  );
  expect(contentsInWords(null)).toContain('everything');
  expect([sizeInWords(1), sizeInWords(840_400), sizeInWords(12_340_000)]).toEqual([
    '1 kB',
    '840 kB',
    '12.3 MB',
  ]);
});

it('an apostrophe is taken off only where it guards a formula', () => {
  expect(["'=1", "''=1", "'+", "'\tx"].map(unguarded)).toEqual(['=1', "'=1", '+', '\tx']);
  expect(["'tis", "'", '', '=1', "O'-"].map(unguarded)).toEqual(["'tis", "'", '', '=1', "O'-"]);
});
