import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { IdleTiling } from '../../src/ui/cloth/idleTiling';

/** A browser's idle times, played by hand. */
let asked: Map<number, (deadline: { didTimeout: boolean; timeRemaining(): number }) => void>;
beforeEach(() => {
  asked = new Map();
  let last = 0;
  vi.stubGlobal('requestIdleCallback', (work: never) => {
    asked.set(++last, work);
    return last;
  });
  vi.stubGlobal('cancelIdleCallback', (id: number) => asked.delete(id));
});
afterEach(() => vi.unstubAllGlobals());

function idle(left: number, didTimeout = false): void {
  for (const [id, work] of [...asked]) {
    asked.delete(id);
    work({ didTimeout, timeRemaining: () => left });
  }
}

/** A maker with so many slices of work, the first few of them in view. */
function maker(slices: number, inView: number) {
  const given: number[] = [];
  return {
    given,
    prepare(ms: number) {
      given.push(ms);
      return { lacked: given.length <= inView, isDone: given.length >= slices };
    },
  };
}

describe('tiles between the frames', () => {
  it('are made slice by slice, no longer than the page is idle and never for long', () => {
    const tiles = maker(3, 0);
    new IdleTiling().afterFrame(
      () => tiles,
      () => expect.unreachable('nothing was lacking'),
    );
    idle(4);
    idle(40);
    idle(0, true);
    expect(tiles.given).toEqual([4, 6, 2]);
    expect(asked.size).toBe(0);
  });

  it('ask for a frame when they are in view, and leave the rest to it', () => {
    const tiles = maker(5, 1);
    const redraw = vi.fn();
    new IdleTiling().afterFrame(() => tiles, redraw);
    idle(5);
    expect(redraw).toHaveBeenCalledOnce();
    expect(asked.size).toBe(0);
  });

  it('are not put off by further frames, and are made by the renderer that is there by then', () => {
    const [old, present] = [maker(1, 0), maker(1, 0)];
    let now = old;
    const tiling = new IdleTiling();
    for (let frame = 0; frame < 3; frame++)
      tiling.afterFrame(
        () => now,
        () => {},
      );
    expect([...asked.keys()]).toEqual([1]);
    now = present;
    idle(5);
    expect([old.given, present.given]).toEqual([[], [5]]);
  });

  it('end with the page', () => {
    const tiles = maker(9, 0);
    const tiling = new IdleTiling();
    tiling.afterFrame(
      () => tiles,
      () => {},
    );
    tiling.stop();
    idle(5);
    expect(tiles.given).toEqual([]);
  });

  it('come in short slices where the browser does not tell when it is idle', async () => {
    vi.stubGlobal('requestIdleCallback', undefined);
    vi.useFakeTimers();
    const tiles = maker(2, 0);
    new IdleTiling().afterFrame(
      () => tiles,
      () => {},
    );
    await vi.runAllTimersAsync();
    vi.useRealTimers();
    expect(tiles.given).toEqual([2, 2]);
  });
});
