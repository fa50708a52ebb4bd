import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareCodes, looseCode } from '../../../src/core/checkin/codes';
import { findLine, readTypedBag } from '../../../src/core/checkin/findLine';
import { faultInReplacement } from '../../../src/core/checkin/replaceSheet';
import { line } from '../samples';

describe('natural order of codes', () => {
  it('goes by prefix, then by number', () => {
    const codes = ['SH12', '1204', '98', 'MT7', '412', 'SH9', 'MT100'];
    expect(codes.sort(compareCodes)).toEqual(['98', '412', '1204', 'MT7', 'MT100', 'SH9', 'SH12']);
  });

  // Reference: Intl.Collator with `numeric`, as ECMA-402 describes it.
  it('agrees with Intl.Collator wherever that tells two codes apart', () => {
    const reference = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
    const code = fc
      .tuple(fc.constantFrom('', 'SH', 'MT', 'gl'), fc.integer({ min: 1, max: 5000 }))
      .map(([prefix, number]) => `${prefix}${number}`);
    fc.assert(
      fc.property(code, code, (a, b) => {
        const told = reference.compare(a, b);
        if (told !== 0) expect(Math.sign(compareCodes(a, b))).toBe(Math.sign(told));
      }),
    );
  });

  it('sorts numbers as numbers, without help from any collator', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), fc.integer({ min: 0, max: 9999 }), (a, b) => {
        expect(Math.sign(compareCodes(String(a), String(b)))).toBe(Math.sign(a - b));
      }),
    );
  });

  it('is an order: turned round it turns its sign, and only the same code is equal', () => {
    const text = fc.string({ maxLength: 6 });
    fc.assert(
      fc.property(text, text, (a, b) => {
        expect(Math.sign(compareCodes(a, b)) + Math.sign(compareCodes(b, a))).toBe(0);
        if (compareCodes(a, b) === 0) expect(a).toBe(b);
      }),
    );
  });
});

describe('the line of a typed word', () => {
  const legend = [
    line(1, { code: '412', keyNumber: '7', symbol: 'k' }),
    line(2, { code: 'SH-412', keyNumber: '8', symbol: 'K' }),
    line(3, { code: '7', keyNumber: '412', symbol: '%' }),
    line(4, { code: '900', finish: 'plain' }),
    line(5, { code: '900', finish: 'metallic' }),
  ];

  it('goes by code first, then key number, then symbol', () => {
    expect(findLine('412', legend)).toMatchObject({ kind: 'one', by: 'code', line: { line: 1 } });
    expect(findLine('7', legend)).toMatchObject({ kind: 'one', by: 'code', line: { line: 3 } });
    expect(findLine('8', legend)).toMatchObject({ kind: 'one', by: 'key number', line: { line: 2 } });
    expect(findLine('%', legend)).toMatchObject({ kind: 'one', by: 'symbol', line: { line: 3 } });
  });

  it('passes over letter case, spaces and dashes in a code, but not over the case of a symbol', () => {
    expect(findLine(' sh412 ', legend)).toMatchObject({ line: { line: 2 } });
    expect(findLine('k', legend)).toMatchObject({ line: { line: 1 } });
    expect(findLine('K', legend)).toMatchObject({ line: { line: 2 } });
    expect(looseCode('Sh - 4_12')).toBe('sh412');
  });

  it('says when two lines fit, and when none does', () => {
    expect(findLine('900', legend)).toMatchObject({ kind: 'several', lines: [{ line: 4 }, { line: 5 }] });
    expect(findLine('3717', legend)).toEqual({ kind: 'none' });
    expect(findLine('  ', legend)).toEqual({ kind: 'none' });
  });

  it.each([
    ['412', '412', null],
    ['412 x 140', '412', 140],
    ['412 × 140', '412', 140],
    ['412*140', '412', 140],
    ['SH12 X 80', 'SH12', 80],
    ['x12', 'x12', null],
    ['*', '*', null],
    ['x x 200', 'x', 200],
  ])('takes “%s” apart', (typed, word, drills) => expect(readTypedBag(typed)).toEqual({ word, drills }));
});

describe('a corrected sheet', () => {
  const before = [line(1, { code: '412' }), line(2, { code: '517' })];

  it('may change counts and names, and add lines at its end', () => {
    const after = [line(1, { code: '412', neededDrills: 9 }), line(2, { code: '517' }), line(3)];
    expect(faultInReplacement(before, after, new Set([1, 2]))).toBeNull();
  });

  it('may not move a code that bags or cells point at', () => {
    expect(faultInReplacement(before, [line(1, { code: '517' })], new Set([1]))).toContain(
      'code 412, which would become 517',
    );
    expect(faultInReplacement(before, [line(1, { code: '412' })], new Set([2]))).toContain(
      'code 517, which would be gone',
    );
  });

  it('may move what nothing points at', () => {
    expect(faultInReplacement(before, [line(1, { code: '900' })], new Set())).toBeNull();
  });
});
