import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fillSheet, labelBoxes, mmToPoints, PAPERS } from '../../../src/core/kitup/labelSheet';
import { potsInCodeOrder } from '../../../src/core/kitup/pots';
import { line } from '../samples';

describe('pots', () => {
  it('are numbered in natural order of the codes', () => {
    const pots = potsInCodeOrder([
      line(1, { code: 'SH12' }),
      line(2, { code: '1204' }),
      line(3, { code: '98' }),
    ]);
    expect(pots.map(({ pot, line: { code } }) => [pot, code])).toEqual([
      [1, '98'],
      [2, '1204'],
      [3, 'SH12'],
    ]);
  });

  it('leave the legend as it is', () => {
    const legend = [line(1, { code: '9' }), line(2, { code: '1' })];
    potsInCodeOrder(legend);
    expect(legend.map((each) => each.code)).toEqual(['9', '1']);
  });
});

describe('label sheets', () => {
  // ISO 216: A4 is 210 × 297 mm. US Letter: 8.5 × 11 in of 25.4 mm.
  it('know their papers', () => {
    expect([PAPERS.a4.widthMm, PAPERS.a4.heightMm]).toEqual([210, 297]);
    expect(PAPERS.letter.widthMm).toBeCloseTo(8.5 * 25.4, 10);
    expect(PAPERS.letter.heightMm).toBeCloseTo(11 * 25.4, 10);
  });

  it('measure 72 points to the inch', () => expect(mmToPoints(25.4)).toBeCloseTo(72, 10));

  it('keep every label on the paper, apart from each other and inside the margin', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('a4' as const, 'letter' as const),
        fc.integer({ min: 10, max: 90 }),
        fc.integer({ min: 8, max: 60 }),
        fc.integer({ min: 1, max: 200 }),
        (paper, width, height, count) => {
          const sheet = fillSheet(paper, width, height);
          const boxes = labelBoxes(sheet, count);
          expect(boxes).toHaveLength(count);
          for (const box of boxes) {
            expect(box.xMm).toBeGreaterThanOrEqual(8 - 1e-9);
            expect(box.yMm).toBeGreaterThanOrEqual(8 - 1e-9);
            expect(box.xMm + width).toBeLessThanOrEqual(PAPERS[paper].widthMm - 8 + 1e-9);
            expect(box.yMm + height).toBeLessThanOrEqual(PAPERS[paper].heightMm - 8 + 1e-9);
          }
          const places = new Set(boxes.map((box) => `${box.page} ${box.xMm} ${box.yMm}`));
          expect(places.size).toBe(count);
        },
      ),
    );
  });

  it('refuse a label larger than the paper', () => {
    expect(() => fillSheet('a4', 250, 20)).toThrow('larger than the paper');
  });
});
