import { describe, expect, it } from 'vitest';
import type { Corners } from '../../../../../src/core/chart/files/picture/corners';
import { chartFromPicture } from '../../../../../src/core/chart/files/picture/fromPicture';
import { line } from '../../../samples';
import { patchy, type ScanLook, scanned } from './scan';

const HEXES = ['#d8432b', '#2f6f8f', '#f2e8c9', '#1c1a17', '#6aa84f', '#8e4fa8', '#e0a030', '#7a7f86'];
const legend = HEXES.map((hex, i) => line(i + 1, { hex }));
const SCAN = { compressed: true, nearest: true };

/** Cells read otherwise than they were drawn, and what the reading says of itself. */
function readBack(look: ScanLook) {
  const cells = patchy(look.width, look.height, HEXES.length);
  const picture = scanned(cells, HEXES, look);
  const reading = chartFromPicture(picture, look, legend, SCAN);
  const wrong = [...reading.chart.cells].filter((cell, i) => cell !== cells[i]).length;
  return { wrong, ...reading, file: picture };
}

describe('a chart that somebody scanned', () => {
  it.each<[string, ScanLook]>([
    // 29.53 px: cells of 2.5 mm scanned at 300 dots an inch, 2.5 ÷ 25.4 × 300.
    ['cells of 29.53 px with noise', { width: 26, height: 20, pitch: 29.53, marginPx: 43, noise: 6 }],
    ['cells of 7.3 px without lines', { width: 60, height: 44, pitch: 7.3, marginPx: 17, noise: 3 }],
    [
      'drawn lines, heavier every ten, and symbols',
      { width: 33, height: 25, pitch: 17.7, marginPx: 25, lines: 0.06, symbols: true, noise: 4 },
    ],
    ['a scan cut to its edge', { width: 48, height: 36, pitch: 11.81, marginPx: 0, noise: 4 }],
    ['lines as wide as a tenth of a cell', { width: 30, height: 30, pitch: 14.2, marginPx: 9, lines: 0.1 }],
  ])('is found whatever the size of its cells: %s', (_, look) => {
    const { wrong, picture } = readBack(look);
    expect(wrong).toBe(0);
    expect(picture.sure.unsure / picture.sure.cells).toBeLessThanOrEqual(0.02);
  });

  it.each<[string, ScanLook]>([
    ['turned by 0.8°', { width: 40, height: 30, pitch: 17.4, marginPx: 40, turned: 0.8, lines: 0.06 }],
    [
      'many small cells, turned by 0.9°',
      { width: 110, height: 90, pitch: 7.3, marginPx: 40, turned: 0.9, noise: 2 },
    ],
    ['turned by −1.6°', { width: 40, height: 30, pitch: 19.2, marginPx: 60, turned: -1.6, noise: 3 }],
    [
      'seen a little from below',
      { width: 30, height: 22, pitch: 17.4, marginPx: 30, keystone: 0.03, lines: 0.06, noise: 3 },
    ],
    [
      'turned and seen from below, with symbols',
      {
        width: 30,
        height: 24,
        pitch: 20.3,
        marginPx: 40,
        turned: 0.7,
        keystone: 0.02,
        symbols: true,
        lines: 0.05,
      },
    ],
  ])('is found where it is turned, and says so: %s', (_, look) => {
    const { wrong, notices, picture } = readBack(look);
    expect(picture.by).toBe('edges');
    expect(wrong / picture.sure.cells).toBeLessThanOrEqual(0.001);
    expect(notices[0]).toContain('is turned');
  });

  it.each([0.4, 2, 5])('is read right or refused, whatever it is turned by: %s°', (turned) => {
    // No margin to speak of: the picture has about the proportions of the canvas, and its size tells nothing.
    const look = { width: 60, height: 45, pitch: 9.3, marginPx: 2, turned, noise: 2 };
    const cells = patchy(60, 45, HEXES.length);
    const picture = scanned(cells, HEXES, look);
    let chart: { cells: Uint16Array };
    try {
      ({ chart } = chartFromPicture(picture, look, legend, SCAN));
    } catch (error) {
      expect((error as Error).message).toContain('mark the four corners');
      return;
    }
    // Where the paper is turned out of the picture there is nothing to read; inside all must be right.
    const inside = [...cells.keys()].filter((i) => i % 60 > 6 && i % 60 < 53 && i / 60 > 6 && i / 60 < 39);
    expect(inside.filter((i) => chart.cells[i] !== cells[i])).toEqual([]);
  });

  it('is found although a title stands in the margin', () => {
    const look = { width: 28, height: 20, pitch: 15.3, marginPx: 60, words: true, noise: 3 };
    expect(readBack(look).wrong).toBe(0);
  });

  it('is refused rather than read wrong where it has more cells than the canvas, and read between marked corners', () => {
    const look = { width: 46, height: 30, pitch: 15.3, marginPx: 60, noise: 3 };
    const cells = patchy(46, 30, HEXES.length);
    const picture = scanned(cells, HEXES, look);
    const canvas = { width: 40, height: 30 };
    expect(() => chartFromPicture(picture, canvas, legend, SCAN)).toThrow('mark the four corners');
    const [left, top] = [(picture.width - 46 * 15.3) / 2, (picture.height - 30 * 15.3) / 2];
    const [right, bottom] = [left + 40 * 15.3, picture.height - top];
    const corners = [
      { x: left, y: top },
      { x: right, y: top },
      { x: right, y: bottom },
      { x: left, y: bottom },
    ] as const;
    const read = (of: Corners) => chartFromPicture(picture, canvas, legend, { ...SCAN, corners: of });
    const wanted = [...cells].filter((_, i) => i % 46 < 40);
    expect([...read(corners).chart.cells]).toEqual(wanted);
    expect(read(corners).picture.by).toBe('hand');
    const [a, b, c, d] = corners;
    expect(() => read([b, a, c, d])).toThrow('go round the chart');
    expect(() => read([a, { x: 5000, y: 0 }, c, d])).toThrow('must lie on the picture');
    const tiny: Corners = [a, { x: a.x + 20, y: a.y }, { x: a.x + 20, y: a.y + 20 }, { x: a.x, y: a.y + 20 }];
    expect(() => read(tiny)).toThrow('at least one pixel is needed');
  });

  it('says which cells it is least sure of, the wrong ones among them', () => {
    // Corners that are marked two thirds of a cell off on the right.
    const look = { width: 40, height: 30, pitch: 15, marginPx: 0, noise: 3 };
    const cells = patchy(40, 30, HEXES.length);
    const picture = scanned(cells, HEXES, look);
    const { width, height } = picture;
    const corners = [
      { x: 0, y: 0 },
      { x: width - 10, y: 0 },
      { x: width - 10, y: height },
      { x: 0, y: height },
    ] as const;
    const { chart, picture: read } = chartFromPicture(picture, look, legend, { ...SCAN, corners });
    const wrong = [...chart.cells].filter((cell, i) => cell !== cells[i]).length;
    expect(wrong).toBeGreaterThan(20);
    expect(read.sure.unsure).toBeGreaterThan(wrong / 4);
    expect(read.sure.least).toHaveLength(12);
    expect(read.sure.least[0]!.doubt).toBeGreaterThanOrEqual(read.sure.least[11]!.doubt);
  });

  it('is sure of every cell of a drawn picture, and of none that belongs to no line', () => {
    const look = { width: 12, height: 9, pitch: 8, marginPx: 0 };
    const cells = patchy(12, 9, HEXES.length);
    const exact = { compressed: false, nearest: false };
    const drawn = chartFromPicture(scanned(cells, HEXES, look), look, legend, exact);
    expect(drawn.picture.sure).toEqual({ cells: 108, unsure: 0, least: [] });
    const fewer = chartFromPicture(scanned(cells, HEXES, look), look, legend.slice(1), exact);
    const foreign = [...cells].filter((cell) => cell === 1).length;
    expect(fewer.picture.sure.unsure).toBe(foreign);
    expect(fewer.picture.sure.least[0]).toMatchObject({ hex: HEXES[0], line: 0, doubt: 1 });
  });
});
