// @vitest-environment happy-dom
import { cleanup, fireEvent, render } from '@testing-library/react';
import { cloneElement, type ReactNode, useLayoutEffect } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LegendLine } from '../../src/core/canvas/legend';
import { makeChart } from '../../src/core/cells/chart';
import { Cloth } from '../../src/ui/cloth/Cloth';
import { ClothRenderer } from '../../src/ui/cloth/ClothRenderer';

/** What happened in its order: a renderer got its picture, or drew a frame. */
let events: { what: 'wish' | 'draw'; by: ClothRenderer; scale?: number }[] = [];
const drawn = () => events.filter(({ what }) => what === 'draw');

beforeEach(() => {
  events = [];
  vi.useFakeTimers({
    toFake: ['setTimeout', 'clearTimeout', 'requestAnimationFrame', 'cancelAnimationFrame', 'performance'],
  });
  document.documentElement.style.setProperty('--c-cloth', '#f4f1ea');
  Object.defineProperty(document, 'fonts', {
    value: { load: () => new Promise(() => {}) },
    configurable: true,
  });
  vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(640);
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(400);
  vi.stubGlobal(
    'ResizeObserver',
    class {
      constructor(private readonly seen: () => void) {}
      observe() {
        this.seen();
      }
      disconnect() {}
    },
  );
  const context = new Proxy({} as CanvasRenderingContext2D, { get: () => () => {}, set: () => true });
  vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockImplementation((() => context) as never);
  vi.spyOn(ClothRenderer.prototype, 'setWish').mockImplementation(function (this: ClothRenderer) {
    events.push({ what: 'wish', by: this });
  });
  vi.spyOn(ClothRenderer.prototype, 'draw').mockImplementation(function (
    this: ClothRenderer,
    _context,
    camera,
  ) {
    events.push({ what: 'draw', by: this, scale: camera.scale });
    return true;
  });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const chart = makeChart(20, 10, new Uint16Array(200).fill(1));
const WISH = { laid: null, focus: null };
const FRAME = { x: 0, y: 0, width: 20, height: 10 };
const legend = (hex: string): LegendLine[] => [
  {
    line: 1,
    symbol: 'A',
    code: '412',
    name: 'Moss',
    hex,
    finish: 'plain',
    keyNumber: '1',
    neededDrills: 200,
    packets: 1,
  },
];
const shown = (lines: LegendLine[]) => (
  <Cloth
    label="The canvas"
    chart={chart}
    hasChart
    legend={lines}
    shape="square"
    wish={WISH}
    frame={FRAME}
    cursor={null}
    onCursor={() => {}}
  />
);

/** Presses a key before anything that waits for a drawing. */
function PressedAtSight({ children }: { children: ReactNode }) {
  useLayoutEffect(() => {
    fireEvent.keyDown(document.querySelector('canvas')!, { key: 'x' });
  }, []);
  return children;
}

describe('the canvas on a page', () => {
  it('asks for the fonts that have its symbols, and draws those anew once they are there', async () => {
    const asked: [font: string, text: string][] = [];
    let arrive = () => {};
    const arrived = new Promise<void>((resolve) => {
      arrive = resolve;
    });
    document.fonts.load = (font, text = '') => {
      asked.push([font, text]);
      return arrived.then(() => []);
    };
    const redrawn = vi.spyOn(ClothRenderer.prototype, 'redrawSymbols');
    const [moss] = legend('#4a7c3f') as [LegendLine];
    render(shown([moss, { ...moss, line: 2, symbol: '❖' }, { ...moss, line: 3, symbol: '⊕' }]));
    vi.advanceTimersByTime(100);
    const symbols = asked.find(([font]) => font.includes('Symbols'));
    expect(symbols?.[1]).toBe('❖⊕');
    expect(redrawn).not.toHaveBeenCalled();
    arrive();
    await vi.waitFor(() => expect(redrawn).toHaveBeenCalledOnce());
  });

  it('keeps what it has drawn where fonts cannot be had', async () => {
    document.fonts.load = () => Promise.reject(new Error('away'));
    const redrawn = vi.spyOn(ClothRenderer.prototype, 'redrawSymbols');
    render(shown(legend('#4a7c3f')));
    vi.advanceTimersByTime(100);
    await Promise.resolve();
    expect(redrawn).not.toHaveBeenCalled();
    expect(drawn().length).toBeGreaterThan(0);
  });

  it('stays where the hand moved it when another screen brings other colours', () => {
    const { container, rerender } = render(shown(legend('#4a7c3f')));
    vi.advanceTimersByTime(1000);
    const before = drawn().at(-1)!;
    for (let turn = 0; turn < 2; turn++)
      fireEvent.wheel(container.querySelector('canvas')!, { deltaY: -200 });
    vi.advanceTimersByTime(100);
    const moved = drawn().at(-1)!;
    expect(moved.scale).toBeGreaterThan(1.5 * before.scale!);
    rerender(shown(legend('#34406e')));
    vi.advanceTimersByTime(1000);
    const after = drawn().at(-1)!;
    expect(after.by).not.toBe(before.by);
    // Come to rest on whole pixels, no farther.
    expect(Math.abs(after.scale! - moved.scale!)).toBeLessThanOrEqual(0.5);
  });

  it('comes nearer once for each turn of the wheel, and not again when the wheel has stopped', () => {
    const { container } = render(shown(legend('#4a7c3f')));
    vi.advanceTimersByTime(1000);
    const before = drawn().at(-1)!.scale!;
    fireEvent.wheel(container.querySelector('canvas')!, { deltaY: -200 });
    vi.advanceTimersByTime(100);
    const turned = drawn().at(-1)!.scale!;
    expect(turned).toBeGreaterThan(1.2 * before);
    vi.advanceTimersByTime(1000);
    expect(Math.abs(drawn().at(-1)!.scale! - turned)).toBeLessThanOrEqual(0.5);
  });

  it('takes a key that is pressed as soon as its squares are there', () => {
    const onKey = vi.fn(() => true);
    render(<PressedAtSight>{cloneElement(shown(legend('#4a7c3f')), { onKey })}</PressedAtSight>);
    expect(onKey).toHaveBeenCalledExactlyOnceWith(expect.objectContaining({ key: 'x' }));
  });

  it('draws no frame with a renderer that has no picture yet', () => {
    const { rerender } = render(shown(legend('#4a7c3f')));
    vi.advanceTimersByTime(1000);
    rerender(shown(legend('#34406e')));
    vi.advanceTimersByTime(1000);
    const withPicture = new Set<ClothRenderer>();
    for (const { what, by } of events) {
      if (what === 'wish') withPicture.add(by);
      else expect(withPicture).toContain(by);
    }
    expect(withPicture.size).toBe(2);
  });
});
