import { beforeEach, describe, expect, it, vi } from 'vitest';
import { TileCache, type TileCells } from '../../src/ui/cloth/TileCache';

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
  const paint = (_: Uint32Array, { x, y, rows }: TileCells, __: number, fromRow: number) => {
    painted.push({ x, y, fromRow });
    return Math.min(rows, fromRow + rowsAtATime);
  };
  const tiles = new TileCache(CLOTH, paint);
  tiles.keepFor(1000, 1000, 8);
  return { tiles, painted };
}

describe('tiles of the canvas', () => {
  it('are drawn once, at the size of their cells, smaller at the edge', () => {
    const { tiles, painted } = cache();
    // 256 device pixels a side: 32 cells of 8.
    expect(TileCache.span(8)).toBe(32);
    const tile = tiles.make(0, 0, 8)!;
    expect(tile).toMatchObject({ x: 0, y: 0, columns: 32, rows: 32 });
    expect(put).toEqual([{ width: 256, height: 256 }]);
    expect(tiles.make(0, 0, 8)).toBe(tile);
    expect(tiles.known(0, 0, 8)).toBe(tile);
    expect(painted).toHaveLength(1);
    expect(tiles.make(3, 1, 8)).toMatchObject({ x: 96, y: 32, columns: 4, rows: 18 });
    // Another size of cells is another tile.
    expect(tiles.make(0, 0, 16)).not.toBe(tile);
  });

  it('are not made where there is no time', () => {
    const { tiles, painted } = cache();
    expect(tiles.known(1, 0, 8)).toBeNull();
    expect(painted).toEqual([]);
  });

  it('go on where the time ran out, unless another is begun in between', () => {
    const { tiles, painted } = cache(10);
    expect([1, 2, 3, 4].map(() => tiles.make(0, 0, 8) !== null)).toEqual([false, false, false, true]);
    expect(painted.map(({ fromRow }) => fromRow)).toEqual([0, 10, 20, 30]);
    tiles.make(1, 0, 8);
    tiles.make(2, 0, 8);
    // The pixels of the first were painted over by the second, so it begins anew.
    tiles.make(1, 0, 8);
    expect(painted.slice(4).map(({ x, fromRow }) => [x, fromRow])).toEqual([
      [32, 0],
      [64, 0],
      [32, 0],
    ]);
  });

  it('are forgotten, first those looked at longest ago, and all when the canvas changes', () => {
    const { tiles, painted } = cache();
    // Room for a view of two pixels and what lies around it: 1026² pixels, sixteen whole tiles of 256².
    tiles.keepFor(2, 2, 64);
    const made = Array.from({ length: 16 }, (_, column) => tiles.make(column, 0, 64)!);
    tiles.make(0, 0, 64);
    const next = tiles.make(0, 1, 64)!;
    expect(painted).toHaveLength(17);
    // The first was looked at again, so the second is gone; its canvas is used again.
    expect(tiles.known(0, 0, 64)).not.toBeNull();
    expect(tiles.known(1, 0, 64)).toBeNull();
    expect(next.picture).toBe(made[1]!.picture);
    tiles.clear();
    expect(tiles.known(0, 0, 64)).toBeNull();
  });
});
