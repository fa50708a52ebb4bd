import { describe, expect, it } from 'vitest';
import { edgeStickers } from '../../../../src/core/chart/files/edgeStickers';
import type { Drawing, Mark } from '../../../../src/core/print/drawing';
import { PAPERS } from '../../../../src/core/print/paper';

const rects = ({ marks }: Drawing) =>
  marks.filter((mark): mark is Mark & { kind: 'rect' } => mark.kind === 'rect');
const texts = ({ marks }: Drawing) =>
  marks.filter((mark): mark is Mark & { kind: 'text' } => mark.kind === 'text');
/** What stands on each sticker of a page, from left to right and from top to bottom. */
const words = (page: Drawing) =>
  rects(page).map((rect) =>
    texts(page)
      .filter(({ x, y }) => x > rect.x && x < rect.x + rect.width && y > rect.y && y < rect.y + rect.height)
      .map(({ text }) => text)
      .join(' '),
  );

describe('stickers for the edges', () => {
  it('have every tenth number for all four edges, with an arrow into the picture', () => {
    const [page] = edgeStickers([{ x: 0, y: 0, width: 20, height: 10 }], 10, 'a4');
    const on = words(page!);
    expect(on).toContain('10 ↓');
    expect(on.filter((each) => each.startsWith('20'))).toEqual(['20 ↓', '20 ↑']);
    expect(on.filter((each) => each.startsWith('10'))).toEqual(['10 ↓', '10 ↑', '10 →', '10 ←']);
  });

  it('of a panel that begins later have its own number beside, below the larger one', () => {
    const [page] = edgeStickers([{ x: 30, y: 0, width: 20, height: 10 }], 10, 'a4');
    const on = words(page!);
    expect(on).toContain('40 10 ↓');
    expect(on).toContain('50 20 ↑');
    expect(on).toContain('10 →');
    // 30 belongs to the panel before.
    expect(on.some((each) => each.startsWith('30'))).toBe(false);
    const [number, own] = ['40', '10'].map((text) => texts(page!).find((each) => each.text === text)!);
    expect(own!.y).toBeGreaterThan(number!.y);
    expect(own!.size).toBeLessThan(number!.size);
  });

  it.each(['a4', 'letter'] as const)(
    'lie side by side on %s, none over another or over the margin',
    (paper) => {
      const pages = edgeStickers([{ x: 0, y: 0, width: 900, height: 900 }], 5, paper);
      const { widthMm, heightMm } = PAPERS[paper];
      const total = pages.reduce((sum, page) => sum + rects(page).length, 0);
      expect(total).toBe(words(pages[0]!).length * (pages.length - 1) + rects(pages.at(-1)!).length);
      expect(new Set(pages.slice(0, -1).map((page) => rects(page).length)).size).toBe(1);
      for (const page of pages) {
        expect(page).toMatchObject({ widthMm, heightMm });
        const all = rects(page);
        for (const { x, y, width, height } of all) {
          expect(x).toBeGreaterThanOrEqual(12);
          expect(y).toBeGreaterThanOrEqual(12);
          expect(x + width).toBeLessThanOrEqual(widthMm - 12);
          expect(y + height).toBeLessThanOrEqual(heightMm - 12);
        }
        const places = all.map(({ x, y }) => [x, y] as const);
        for (const [i, [x, y]] of places.entries())
          for (const [u, v] of places.slice(i + 1))
            expect(Math.abs(u - x) >= 15.99 || Math.abs(v - y) >= 10.99).toBe(true);
      }
      // As many as there is room for: one more would not fit beside or below.
      const first = rects(pages[0]!);
      expect(Math.max(...first.map(({ x }) => x)) + 16 + 14).toBeGreaterThan(widthMm - 12);
      expect(Math.max(...first.map(({ y }) => y)) + 11 + 9).toBeGreaterThan(heightMm - 12);
      // 180 numbers for four edges.
      expect(total).toBe(720);
      expect(new Set(pages.flatMap(words)).size).toBe(total);
    },
  );

  it('of a canvas too small for any number are an empty page', () => {
    expect(edgeStickers([], 10, 'a4')).toEqual(
      [{ ...PAPERS.a4, marks: [] }].map(({ widthMm, heightMm, marks }) => ({ widthMm, heightMm, marks })),
    );
  });
});
