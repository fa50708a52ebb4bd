import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { makeChart } from '../../src/core/cells/chart';
import { clothColours } from '../../src/core/view/paint';
import { ClothRenderer } from '../../src/ui/cloth/ClothRenderer';
import { USUAL_EYES } from '../../src/ui/cloth/clothPalette';

/** What the renderer needs of a browser: pixels, and canvases that take all that is drawn. */
class Pixels {
  readonly data: Uint8ClampedArray;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.data = new Uint8ClampedArray(width * height * 4);
  }
}
/** Pictures drawn into a canvas, by their width. */
function context(drawn: number[] = []) {
  const known = {
    drawImage: (picture: { width: number }) => drawn.push(picture.width),
    getImageData: (_: number, __: number, width: number, height: number) => new Pixels(width, height),
  };
  return new Proxy(known as unknown as CanvasRenderingContext2D, {
    get: (all, name) => Reflect.get(all, name) ?? (() => {}),
    set: () => true,
  });
}
beforeEach(() => {
  vi.stubGlobal('ImageData', Pixels);
  // A clock that stands: how much is made in a frame would hang on what else the machine does.
  vi.spyOn(performance, 'now').mockReturnValue(0);
  vi.stubGlobal('document', { createElement: () => ({ width: 0, height: 0, getContext: () => context() }) });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const WIDTH = 600;
const VIEW = { width: 640, height: 384 };
const SCALE = 32; // eight squares, 256 pixels a tile
const AT = { scale: SCALE, left: 80, top: 80 };

function renderer(): ClothRenderer {
  return new ClothRenderer(
    makeChart(
      WIDTH,
      400,
      Uint16Array.from({ length: WIDTH * 400 }, (_, i) => (i % 3) + 1),
    ),
    {
      colours: clothColours(
        [
          [10, 20, 30],
          [200, 200, 200],
          [90, 0, 0],
        ],
        [240, 240, 240],
      ),
      symbols: ['', 'A', 'B', 'C'],
      drawings: [],
      special: [],
      ground: [240, 240, 240],
      ink: '#000000',
      eyes: USUAL_EYES,
    },
    'square',
  );
}

/** Pictures of a frame: tiles, and parts seen from afar for want of one. */
function frame(cloth: ClothRenderer, camera: { scale: number; left: number; top: number }) {
  const drawn: number[] = [];
  const isWhole = cloth.draw(context(drawn), camera, VIEW, 1);
  const afar = drawn.filter((width) => width === WIDTH).length;
  return { isWhole, afar, tiles: drawn.length - afar };
}

describe('the canvas near by', () => {
  it('makes no tile in a frame in which it moves; they come between the frames', () => {
    const cloth = renderer();
    // 640 × 384 pixels from a corner of a tile: three by two of them.
    expect(frame(cloth, AT)).toEqual({ isWhole: false, afar: 6, tiles: 0 });
    expect(cloth.prepare(10_000)).toEqual({ lacked: true, isDone: true });
    expect(frame(cloth, { ...AT, left: 80.01 })).toEqual({ isWhole: true, afar: 0, tiles: 6 });
  });

  it('has a ring of tiles around the view, so that a step to any side lacks none', () => {
    const cloth = renderer();
    frame(cloth, AT);
    cloth.prepare(10_000);
    for (const [left, top] of [
      [88, 80],
      [72, 80],
      [80, 88],
      [80, 72],
      [72, 72],
    ] as const)
      expect(frame(cloth, { ...AT, left, top }).afar, `${left}, ${top}`).toBe(0);
    // Two tiles on, the ring is at its end.
    expect(frame(cloth, { ...AT, left: 96 + 16 }).afar).toBeGreaterThan(0);
  });

  it('makes them in the frame once it lies still, so that a mark is seen at once', () => {
    const cloth = renderer();
    frame(cloth, AT);
    cloth.prepare(10_000);
    cloth.setWish({ laid: new Uint8Array((WIDTH * 400) / 8), focus: null });
    expect(frame(cloth, AT).tiles).toBeGreaterThan(0);
  });

  it('stops when its time is over, and goes on', () => {
    const cloth = renderer();
    frame(cloth, AT);
    expect(cloth.prepare(0)).toEqual({ lacked: true, isDone: false });
    expect(cloth.prepare(10_000).isDone).toBe(true);
    // Nothing is left to do.
    expect(cloth.prepare(0)).toEqual({ lacked: false, isDone: true });
  });

  it('keeps the view and the ring around it, whatever the size of a square, and does not make them again', () => {
    for (let scale = 13; scale <= 320; scale += 14) {
      const cloth = renderer();
      // At some of these places the view touches as many tiles as it can.
      for (let step = 0; step < 8; step++) {
        const at = { scale, left: 100 + (step * 37) / scale, top: 100 + (step * 37) / scale };
        frame(cloth, at);
        cloth.prepare(10_000);
        expect(cloth.prepare(0), `${scale} pixels, ${step}`).toEqual({ lacked: false, isDone: true });
        expect(frame(cloth, { ...at, left: at.left + 0.001 }).afar, `${scale} pixels, ${step}`).toBe(0);
      }
    }
  });

  it('makes none beyond the edges, and none from afar', () => {
    const cloth = renderer();
    frame(cloth, { scale: SCALE, left: 0, top: 0 });
    expect(cloth.prepare(10_000)).toEqual({ lacked: true, isDone: true });
    frame(cloth, { scale: 2, left: 0, top: 0 });
    expect(cloth.prepare(10_000)).toEqual({ lacked: false, isDone: true });
  });
});
