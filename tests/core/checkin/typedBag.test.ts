import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTypedBag } from '../../../src/core/checkin/typedBag';
import { line } from '../samples';

const legend = [
  line(1, { code: '412' }),
  line(2, { code: '88' }),
  line(3, { code: 'SH12' }),
  line(4, { code: '300' }),
  line(5, { code: '1240' }),
  line(6, { code: 'x12', symbol: '*' }),
  line(7, { code: '4', keyNumber: '7' }),
];
const read = (typed: string) => {
  const entry = readTypedBag(typed, legend);
  return entry.kind === 'known' ? [entry.line.code, entry.bags, entry.drills] : entry.kind;
};

describe('a bag as it is typed', () => {
  it.each([
    ['412', ['412', 1, null]],
    ['412 x5', ['412', 5, null]],
    ['412 x 5', ['412', 5, null]],
    ['412 × 12', ['412', 12, null]],
    ['412 x 140', ['412', 1, 140]],
    ['412*140', ['412', 1, 140]],
    ['88x140', ['88', 1, 140]],
    ['SH12 X 80', ['SH12', 1, 80]],
    ['412 x 1,240', ['412', 1, 1240]],
    ['412 x 1 240 drills', ['412', 1, 1240]],
    ['300 × 5 bags', ['300', 5, null]],
    ['300 x 20 bags', ['300', 20, null]],
    ['300 x 20 drills', ['300', 1, 20]],
    ['412 x 5 x 140', ['412', 5, 140]],
    ['x12', ['x12', 1, null]],
    ['*', ['x12', 1, null]],
    ['x12 x 200', ['x12', 1, 200]],
    ['４１２　ｘ５', ['412', 5, null]],
    ['٤١٢ × ١٤٠', ['412', 1, 140]],
    ['412 х5', ['412', 5, null]],
    ['８８ｘ１４０', ['88', 1, 140]],
    ['\u200b412', ['412', 1, null]],
    ['sh‑12 x 80', ['SH12', 1, 80]],
  ])('“%s” is understood', (typed, meant) => expect(read(typed)).toEqual(meant));

  it.each([
    '412 x 20',
    '1,500',
    '412 x 0',
    '412 x 900 bags',
    '412 x 3,000,000',
    '412 x',
    '5 bags',
    '9 x 412',
    '9 × 9 × 9 × 9 y',
    '４１２ x ２０',
    '٥ bags',
    '９ х 412',
  ])('“%s” is refused with what to type', (typed) => {
    const entry = readTypedBag(typed, legend);
    if (typed === '412 x') return expect(entry.kind).toBe('stray');
    expect(entry.kind).toBe('fault');
    expect(entry.kind === 'fault' && entry.sentence.length).toBeGreaterThan(20);
  });

  it('asks about a code with a comma in it, and about a code that is a key number too', () => {
    expect(readTypedBag('1,240', legend)).toMatchObject({ kind: 'ask', lines: [{ code: '1240' }], bags: 1 });
    expect(readTypedBag('4 x 3', legend)).toMatchObject({ kind: 'ask', word: '4', bags: 3 });
  });

  it('never makes a stray of an amount, whatever is typed around it', () => {
    const amount = fc.integer({ min: 0, max: 200_000 }).map((n) => n.toLocaleString('en'));
    fc.assert(
      fc.property(amount, fc.constantFrom(' x ', '×', ' * '), (text, sign) => {
        expect(readTypedBag(`412${sign}${text}`, legend).kind).not.toBe('stray');
      }),
    );
  });
});
