import { describe, expect, it } from 'vitest';
import { darkLines, likePairs, shadePairs } from '../../../src/core/symbols/check';
import { type SymbolShape, shapeOf } from '../../../src/core/symbols/shape';
import { line } from '../samples';

const SIDE = 48;
const barAt = (half: number): SymbolShape =>
  shapeOf(
    Float32Array.from({ length: SIDE * SIDE }, (_, i) => {
      const [x, y] = [((i % SIDE) + 0.5) / (SIDE / 2) - 1, (Math.floor(i / SIDE) + 0.5) / (SIDE / 2) - 1];
      return Math.abs(x) < 0.6 && Math.abs(y) < half ? 1 : 0;
    }),
    SIDE,
  )!;

describe('where the symbol check draws its lines', () => {
  it('names like shapes on like tints, not plainly other shapes, nor like ones on far tints', () => {
    const shapes = new Map([
      [1, barAt(0.09)],
      [2, barAt(0.11)],
      [3, barAt(0.6)],
    ]);
    const kit = (hex: string) => [line(1), line(2, { hex }), line(3)];
    expect(likePairs(kit('#2f6f8f'), shapes).map(({ lines }) => lines)).toEqual([[1, 2]]);
    expect(likePairs(kit('#fff4b0'), shapes)).toEqual([]);
    const [pair] = likePairs(kit('#2f6f8f'), shapes);
    expect(pair!.shape).toBeGreaterThanOrEqual(0.8);
    expect(pair!.risk).toBeCloseTo(pair!.shape, 9);
  });

  it('calls tints a shade apart below a difference of 4, and only those', () => {
    // ΔE00 of greys near L* 50 is near the difference in L*: 2 units apart against 7 (CIE 142, from memory).
    const near = shadePairs([line(1, { hex: '#777777' }), line(2, { hex: '#7c7c7c' })], null);
    expect(near).toHaveLength(1);
    expect(near[0]!.difference).toBeLessThan(4);
    expect(shadePairs([line(1, { hex: '#777777' }), line(2, { hex: '#8a8a8a' })], null)).toEqual([]);
  });

  it('calls a tint dark below L* 25: #3a3a3a is 24.4 and #3d3d3d is 25.8 (IEC 61966-2-1 and CIE 15, worked by hand)', () => {
    expect(darkLines([line(1, { hex: '#3d3d3d' }), line(2, { hex: '#3a3a3a' })])).toEqual([2]);
  });
});
