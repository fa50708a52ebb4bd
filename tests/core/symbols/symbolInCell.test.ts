import { describe, expect, it } from 'vitest';
import { shadePairs } from '../../../src/core/symbols/check';
import { fontShare, SYMBOL_INSET, SYMBOL_SHARE } from '../../../src/core/symbols/symbolInCell';
import { symbolMark } from '../../../src/core/symbols/symbolMark';
import { line } from '../samples';

describe('a symbol in its cell', () => {
  it('stands smaller the more letters it has, counted as people count them', () => {
    expect(['A', '★', '🂡'].map(fontShare)).toEqual([SYMBOL_SHARE, SYMBOL_SHARE, SYMBOL_SHARE]);
    expect(fontShare('10')).toBeLessThan(SYMBOL_SHARE);
    expect(fontShare('123')).toBeLessThan(fontShare('10'));
  });

  it('is as large on paper as where symbols are compared, drawn or written', () => {
    const fonts = {
      canPrint: () => true,
      widthOf: (text: string, _: unknown, size: number) => text.length * size,
    };
    const drawn = symbolMark(line(1, { drawing: 'M0 0L100 0L50 100Z' }), 10, 20, 5, '#000', fonts);
    expect(drawn).toMatchObject({ kind: 'path', x: 10 + 5 * SYMBOL_INSET, y: 20 + 5 * SYMBOL_INSET });
    expect((drawn as { scale: number }).scale * 100).toBeCloseTo(5 * SYMBOL_SHARE, 12);
    const written = symbolMark(line(2, { symbol: 'Ω' }), 0, 0, 5, '#000', fonts);
    expect(written).toMatchObject({ kind: 'text', size: 5 * SYMBOL_SHARE, anchor: 'middle' });
    // A key number of eight digits, each as wide as high, takes 92 % of its cell and not eight cells.
    const long = symbolMark(line(3, { symbol: null, keyNumber: '12345678' }), 0, 0, 5, '#000', fonts);
    expect((long as { size: number }).size * 8).toBeCloseTo(5 * 0.92, 12);
  });
});

describe('near shades', () => {
  it('are named within a finish, not across two', () => {
    const near = (finish: 'plain' | 'glow') =>
      shadePairs([line(1, { hex: '#2f6f8f' }), line(2, { hex: '#2f6f90', finish })], null);
    expect(near('plain')).toHaveLength(1);
    expect(near('glow')).toEqual([]);
  });
});
