import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { squaresTyped } from '../../../src/core/canvas/canvas';
import { squareInWords } from '../../../src/core/cells/squareInWords';
import { isIn } from '../../../src/core/words/isIn';
import { inUnit, many, readLength, readNumber, readWhole } from '../../../src/core/words/numbers';
import { line } from '../samples';

describe('a typed number', () => {
  it.each([
    ['1,240', 1240],
    ['1.240', 1240],
    ['1 240', 1240],
    ['1’240’000', 1240000],
    ['417,600', 417600],
    [' 12 ', 12],
    ['１，２４０', 1240],
    ['١٬٢٤٠', 1240],
    ['−12', -12],
    ['2,5', null],
    ['0.125', null],
    ['0,250', null],
    ['012', 12],
    ['1,24', null],
    ['1,240.500', null],
    ['12a', null],
    ['', null],
  ])('whole: %j is %j', (text, number) => expect(readWhole(text)).toBe(number));

  it('is read back as it is written here, whatever its size', () => {
    fc.assert(
      fc.property(fc.nat(2_000_000_000), (n) => {
        expect(readWhole(many(n))).toBe(n);
      }),
    );
  });

  it.each([
    [' 2.5 ', 2.5],
    ['-3', -3],
    ['.25', 0.25],
    ['7.', 7],
    ['٢٫٥', 2.5],
    ['２．５', 2.5],
    ['–3', -3],
    ['2.5mm', null],
    ['about 2', null],
    ['.', null],
    ['', null],
  ])('measured: %j is %j', (text, number) => expect(readNumber(text)).toBe(number));

  it('with a comma stays a fraction where it is measured', () => {
    expect(readNumber('2,5')).toBe(2.5);
    expect(readNumber('1,240')).toBe(1.24);
  });
});

describe('a typed length', () => {
  // The international inch is 25.4 mm exactly (ISO 80000-3).
  it.each([
    ['40 cm', 'cm', 40],
    ['400mm', 'cm', 40],
    ['12 in', 'cm', 30.48],
    ['12"', 'mm', 304.8],
    ['15 3/4 in', 'in', 15.75],
    ['3/4″', 'mm', 19.05],
    ['2,5', 'mm', 2.5],
    ['2.5 Inches', 'mm', 63.5],
    [' 12   11/16 in ', 'in', 12.6875],
    ['1/16 in', 'in', 0.0625],
    ['a 3/4 in', 'in', null],
    ['3/4x in', 'in', null],
    ['12 cm wide', 'cm', null],
    ['40 ft', 'cm', null],
    ['cm', 'cm', null],
    ['1/0 in', 'in', null],
    ['', 'cm', null],
  ] as const)('%j in a field for %s is %j', (text, unit, length) =>
    expect(readLength(text, unit)?.length ?? null).toBe(length),
  );

  it('keeps the unit in which it was typed', () => {
    expect(readLength('12 in', 'cm')?.typedIn).toBe('in');
    expect(readLength('12', 'cm')?.typedIn).toBe('cm');
    expect(inUnit(40, 'mm', 'in')).toBeCloseTo(1.5748, 4);
  });

  it('is a side of a canvas in whole squares', () => {
    expect(squaresTyped('30', 'cm', 2.5)).toBe(120);
    expect(squaresTyped('12 in', 'cm', 2.5)).toBe(122);
    expect(squaresTyped('1,240', 'cells', 2.5)).toBe(1240);
    expect(squaresTyped('40 cm', 'cells', 2.5)).toBe(160);
    expect(squaresTyped('12.5', 'cells', 2.5)).toBeNull();
    expect(squaresTyped('wide', 'in', 2.5)).toBeNull();
  });
});

it('a text is found by every word of it, without case and accents', () => {
  expect(isIn('412 Café crème, metallic', 'creme 41')).toBe(true);
  expect(isIn('412 Café crème, metallic', '４１ ＣＡＦＥ')).toBe(true);
  expect(isIn('412 Café crème, metallic', 'creme 43')).toBe(false);
  expect(isIn('412', '')).toBe(true);
});

describe('a square for the ear', () => {
  it('says place, symbol, code, laid or not, and section, as far as they are known', () => {
    const place = { x: 11, y: 3 };
    const colour = line(3, { symbol: 'A', code: '745', name: 'Rose' });
    expect(squareInWords(place, colour, true, 2)).toBe(
      'Column 12, row 4: symbol A, 745 Rose, laid, section 2',
    );
    expect(squareInWords(place, { ...colour, symbol: null, name: '' }, false, null)).toBe(
      'Column 12, row 4: symbol 3, 745, not laid',
    );
    expect(squareInWords(place, undefined, false, 2)).toBe('Column 12, row 4: no drill goes here, section 2');
    expect(squareInWords(place, null, true, null)).toBe('Column 12, row 4: laid');
    expect(squareInWords(place, null, null, null)).toBe('Column 12, row 4');
  });
});
