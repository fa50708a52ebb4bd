import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareCodes, looseCode } from '../../../src/core/codes/codes';
import { findLine } from '../../../src/core/codes/findLine';
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
    line(1, { code: '412', keyNumber: '1', symbol: 'k' }),
    line(2, { code: 'SH-517', keyNumber: '2', symbol: 'K' }),
    line(3, { code: '7', keyNumber: '3', symbol: '%' }),
    line(4, { code: '900', keyNumber: '4', finish: 'plain' }),
    line(5, { code: '900', keyNumber: '5', finish: 'metallic', symbol: '3' }),
    line(6, { code: 'SH88', keyNumber: '6', symbol: '9' }),
    line(7, { code: 'MT88', keyNumber: '7', symbol: '8' }),
    line(8, { code: '0305', keyNumber: '8', symbol: 'h' }),
  ];
  const found = (typed: string, bagsCarry: 'codes' | 'key numbers' | null = null) => {
    const result = findLine(typed, legend, bagsCarry);
    return result.kind === 'one'
      ? result.line.line
      : result.kind === 'several'
        ? result.lines.map((each) => each.line)
        : null;
  };

  it('goes by the code as printed first, whatever letter case, spaces and dashes', () => {
    expect(found('412')).toBe(1);
    expect(found(' sh517 ')).toBe(2);
    expect(looseCode('Sh - 4_12')).toBe('sh412');
  });

  it('asks where the code of one is the key number of another, the code first, unless it is known what bags carry', () => {
    expect(found('7')).toEqual([3, 7]);
    expect(found('7', 'codes')).toBe(3);
    expect(found('7', 'key numbers')).toBe(7);
    // On bags that carry codes a key number is half a code, perhaps.
    expect(found('4', 'codes')).toEqual([4]);
    expect(found('517', 'codes')).toBe(2);
  });

  it('then by key number or symbol, and asks where these are two lines', () => {
    expect(found('6')).toBe(6);
    expect(found('06')).toBe(6);
    expect(found('%')).toBe(3);
    expect(found('3')).toEqual([3, 5]);
  });

  it('keeps the letter case of a symbol', () => {
    expect(found('k')).toBe(1);
    expect(found('K')).toBe(2);
  });

  it('takes signs of other keyboards for those of the list, unless the list has just these', () => {
    expect(found('ＳＨ５１７')).toBe(2);
    expect(found('０６')).toBe(6);
    expect(found('％')).toBe(3);
    const dashes = [line(1, { symbol: '-' }), line(2, { symbol: '–' }), line(3, { symbol: '—' })];
    const lines = (typed: string) => {
      const result = findLine(typed, dashes);
      return result.kind === 'several'
        ? result.lines.map((each) => each.line)
        : result.kind === 'one' && result.line.line;
    };
    expect(['-', '–', '—'].map(lines)).toEqual([1, 2, 3]);
    expect(lines('−')).toEqual([1, 2, 3]);
  });

  it('forgives a missing prefix and leading zeros, but no wrong prefix', () => {
    expect(found('517')).toBe(2);
    expect(found('0412')).toBe(1);
    expect(found('305')).toBe(8);
    expect(found('sh0088')).toBe(6);
    expect(found('MT517')).toBeNull();
  });

  it('asks when two lines fit, and says when none does', () => {
    expect(found('900')).toEqual([4, 5]);
    expect(found('88')).toEqual([6, 7]);
    expect(found('3717')).toBeNull();
    expect(found('  ')).toBeNull();
  });
});
