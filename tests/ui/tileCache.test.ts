import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type Tile, TileCache } from '../../src/ui/cloth/TileCache';

/** What the cache needs of a browser: canvases with a size, and pixels. */
let put: { width: number; height: number }[] = [];
beforeEach(() => {
  put = [];
  vi.stubGlobal(
    'ImageData',
    class {
      readonly data: Uint8ClampedArray;
      constructor(
        readonly width: number,
        readonly height: number,
      ) {
        this.data = new Uint8ClampedArray(width * height * 4);
      }
    },
  );
  vi.stubGlobal('document', {
    createElement: () => ({
      width: 0,
      height: 0,
      getContext: () => ({
        putImageData: (image: { width: number; height: number }) =>
          put.push({ width: image.width, height: image.height }),
      }),
    }),
  });
});

const CLOTH = { width: 100, height: 50 };
/** Paints a tile whole, or so many rows at a time. */
function cache(rowsAtATime = Number.POSITIVE_INFINITY) {
  const painted: { x: number; y: number; fromRow: number }[] = [];
  const paint = (_: Uint32Array, { x, y, rows }: Tile, __: number, fromRow: number) => {
    painted.push({ x, y, fromRow });
    return Math.min(rows, fromRow + rowsAtATime);
  };
  const tiles = new TileCache(CLOTH, paint);
  tiles.keepFor(1000, 1000);
  return { tiles, painted };
}

describe('tiles of the canvas', () => {
  it('are drawn once, at the size of their cells, smaller at the edge', () => {
    const { tiles, painted } = cache();
    // 192 device pixels a side: 24 cells of 8.
    expect(TileCache.span(8)).toBe(24);
    const tile = tiles.get(0, 0, 8, true)!;
    expect(tile).toMatchObject({ x: 0, y: 0, columns: 24, rows: 24 });
    expect(put).toEqual([{ width: 192, height: 192 }]);
    expect(tiles.get(0, 0, 8, true)).toBe(tile);
    expect(tiles.get(0, 0, 8, false)).toBe(tile);
    expect(painted).toHaveLength(1);
    expect(tiles.get(4, 2, 8, true)).toMatchObject({ x: 96, y: 48, columns: 4, rows: 2 });
    // Another size of cells is another tile.
    expect(tiles.get(0, 0, 16, true)).not.toBe(tile);
  });

  it('are not made where there is no time', () => {
    const { tiles, painted } = cache();
    expect(tiles.get(1, 0, 8, false)).toBeNull();
    expect(painted).toEqual([]);
  });

  it('go on where the time ran out, unless another is begun in between', () => {
    const { tiles, painted } = cache(10);
    expect([1, 2, 3].map(() => tiles.get(0, 0, 8, true) !== null)).toEqual([false, false, true]);
    expect(painted.map(({ fromRow }) => fromRow)).toEqual([0, 10, 20]);
    tiles.get(1, 0, 8, true);
    tiles.get(2, 0, 8, true);
    // The pixels of the first were painted over by the second, so it begins anew.
    tiles.get(1, 0, 8, true);
    expect(painted.slice(3).map(({ x, fromRow }) => [x, fromRow])).toEqual([
      [24, 0],
      [48, 0],
      [24, 0],
    ]);
  });

  it('are forgotten, first those looked at longest ago, and all when the canvas changes', () => {
    const { tiles, painted } = cache();
    // Room for a view of one pixel and its rim: 386² pixels, four whole tiles of 192².
    tiles.keepFor(2, 2);
    for (const column of [0, 1, 2, 3]) tiles.get(column, 0, 8, true);
    tiles.get(0, 0, 8, true);
    tiles.get(0, 1, 8, true);
    expect(painted).toHaveLength(5);
    // The first was looked at again, so the second is gone.
    expect(tiles.get(0, 0, 8, false)).not.toBeNull();
    expect(tiles.get(1, 0, 8, false)).toBeNull();
    tiles.clear();
    expect(tiles.get(0, 0, 8, false)).toBeNull();
  });
});
