import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cellsFromLength,
  cellsToCm,
  cellsToInches,
  panelSpans,
  sizeInWords,
} from '../../../src/core/canvas/canvas';

describe('size of a canvas', () => {
  // Common practice, no source: cells ÷ 4 = centimetres at the square pitch of 2.5 mm.
  it.each([
    [120, 30],
    [160, 40],
    [600, 150],
    [440, 110],
    [10, 2.5],
    [50, 12.5],
  ])('%i cells are %d cm', (cells, cm) => {
    expect(cellsToCm(cells, 2.5)).toBeCloseTo(cm, 10);
  });

  it('gives inches of 25.4 mm', () => {
    // The international inch: 25.4 mm by definition (1959 agreement).
    expect(cellsToInches(254, 2.5)).toBeCloseTo(25, 10);
  });

  it('goes by the pitch of the canvas, not by a fixed one', () => {
    expect(cellsToCm(100, 2.8)).toBeCloseTo(28, 10);
  });

  it('says the size, metric first', () => {
    expect(sizeInWords({ width: 120, height: 160, pitchMm: 2.5 })).toBe('30 × 40 cm (11.8 × 15.7 in)');
    expect(sizeInWords({ width: 10, height: 5, pitchMm: 2.5 })).toBe('2.5 × 1.3 cm (1 × 0.5 in)');
  });

  it('finds the cells that fill a length, whatever the unit', () => {
    expect(cellsFromLength(30, 'cm', 2.5)).toBe(120);
    expect(cellsFromLength(11.81, 'in', 2.5)).toBe(120);
    expect(cellsFromLength(120, 'cells', 2.5)).toBe(120);
  });

  it('comes back to the same cells over centimetres and inches', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4000 }),
        fc.double({ min: 1, max: 10, noNaN: true }),
        (cells, pitch) => {
          expect(cellsFromLength(cellsToCm(cells, pitch), 'cm', pitch)).toBe(cells);
          expect(cellsFromLength(cellsToInches(cells, pitch), 'in', pitch)).toBe(cells);
        },
      ),
    );
  });
});

describe('panels', () => {
  it('splits 840 cells into three of 280', () => {
    expect(panelSpans(840, 3)).toEqual([
      { start: 0, end: 280 },
      { start: 280, end: 560 },
      { start: 560, end: 840 },
    ]);
  });

  it('covers the width without gap or overlap, and no panel is more than one cell wider than another', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: 1, max: 20 }), (width, wanted) => {
        const panels = Math.min(width, wanted);
        const spans = panelSpans(width, panels);
        expect(spans).toHaveLength(panels);
        expect(spans[0]!.start).toBe(0);
        expect(spans.at(-1)!.end).toBe(width);
        spans.slice(1).forEach((span, i) => {
          expect(span.start).toBe(spans[i]!.end);
        });
        const widths = spans.map((span) => span.end - span.start);
        expect(Math.max(...widths) - Math.min(...widths)).toBeLessThanOrEqual(1);
      }),
    );
  });
});
