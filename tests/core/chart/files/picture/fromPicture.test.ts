import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Picture } from '../../../../../src/core/chart/files/picture/edges';
import { cellPitch, findCells } from '../../../../../src/core/chart/files/picture/findCells';
import { chartFromPicture } from '../../../../../src/core/chart/files/picture/fromPicture';
import { hexToRgb, type Rgb } from '../../../../../src/core/colour/rgb';
import { line } from '../../../samples';

const HEXES = ['#d8432b', '#2f6f8f', '#f2e8c9', '#1c1a17', '#6aa84f'];
const legend = HEXES.map((hex, i) => line(i + 1, { hex }));
const EXACT = { compressed: false, nearest: false };

interface Look {
  /** Pixels a cell. */
  scale: number;
  margin?: number;
  gridLines?: boolean;
  symbols?: boolean;
}

/** Draws cells as a chart program would: larger squares, perhaps with a margin, lines between them and symbols on them. */
function drawn(
  cells: readonly number[],
  width: number,
  { scale, margin = 0, gridLines, symbols }: Look,
): Picture {
  const rows = cells.length / width;
  const picture = { width: width * scale + 2 * margin, height: rows * scale + 2 * margin };
  const rgba = new Uint8Array(picture.width * picture.height * 4).fill(255);
  const set = (x: number, y: number, rgb: Rgb) =>
    rgba.set([...rgb, 255], ((y + margin) * picture.width + x + margin) * 4);
  cells.forEach((cell, i) => {
    const [left, top] = [(i % width) * scale, Math.floor(i / width) * scale];
    for (let y = 0; y < scale; y++) {
      for (let x = 0; x < scale; x++) {
        const onLine = gridLines && (x === 0 || y === 0);
        const onSymbol = symbols && Math.abs(x - y) < scale / 8 && x > scale / 5 && x < (scale * 4) / 5;
        set(left + x, top + y, onLine ? [60, 60, 60] : onSymbol ? [255, 0, 255] : hexToRgb(HEXES[cell - 1]!));
      }
    }
  });
  return { ...picture, rgba };
}

const SIZE = { width: 8, height: 6 };
const someCells = fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 48, maxLength: 48 });

describe('a chart from a picture with larger cells', () => {
  it('comes back cell by cell, whatever their size', () => {
    fc.assert(
      fc.property(someCells, fc.integer({ min: 2, max: 14 }), (cells, scale) => {
        const { chart, unmatched } = chartFromPicture(drawn(cells, 8, { scale }), SIZE, legend, EXACT);
        expect([...chart.cells]).toEqual(cells);
        expect(unmatched).toEqual([]);
      }),
    );
  });

  it('is not confused by lines between the cells, symbols on them and a margin around them', () => {
    fc.assert(
      fc.property(someCells, fc.integer({ min: 10, max: 16 }), (cells, scale) => {
        const picture = drawn(cells, 8, { scale, margin: 23, gridLines: true, symbols: true });
        expect([...chartFromPicture(picture, SIZE, legend, EXACT).chart.cells]).toEqual(cells);
      }),
      { numRuns: 40 },
    );
  });

  it('says how large the cells are', () => {
    const { notices } = chartFromPicture(drawn(new Array(48).fill(2), 8, { scale: 9 }), SIZE, legend, EXACT);
    expect(notices).toEqual([
      'A square is 9 × 9 pixels large on this picture; the inner part of each was read.',
    ]);
  });

  it('is refused with the size that it seems to have', () => {
    const cells = Array.from({ length: 54 }, (_, i) => 1 + ((i * 7) % 5));
    expect(() => findCells(drawn(cells, 9, { scale: 10 }), SIZE)).toThrow(
      'The picture is 90 × 60 pixels and its squares look 10 × 10 pixels large, which makes 9 × 6 squares, but the canvas is 8 × 6 squares.',
    );
  });

  it('may have cells that are not square, where their edges say so', () => {
    const cells = Array.from({ length: 48 }, (_, i) => 1 + ((i * 7 + (i >> 3)) % 5));
    const square = drawn(cells, 8, { scale: 6 });
    // Every other row once more: cells of 6 × 9 pixels.
    const rows = Array.from({ length: square.height * 1.5 }, (_, y) => Math.floor(y / 1.5));
    const rgba = Uint8Array.from(
      rows.flatMap((row) => [...square.rgba.subarray(row * square.width * 4, (row + 1) * square.width * 4)]),
    );
    const { chart } = chartFromPicture(
      { width: square.width, height: rows.length, rgba },
      SIZE,
      legend,
      EXACT,
    );
    expect([...chart.cells]).toEqual(cells);
  });

  it('warns when it seems to be a finer chart whose size divides', () => {
    const cells = Array.from({ length: 192 }, (_, i) => 1 + ((i * 3 + (i >> 4)) % 5));
    const { notices } = chartFromPicture(drawn(cells, 16, { scale: 5 }), SIZE, legend, EXACT);
    expect(notices[1]).toContain('seems to show 16 × 12 squares');
  });

  it('warns of colours that no picture tells apart', () => {
    const twins = [...legend, line(6, { code: '999', hex: HEXES[0]! })];
    const { notices } = chartFromPicture(drawn(new Array(48).fill(1), 8, { scale: 1 }), SIZE, twins, EXACT);
    expect(notices[0]).toContain('401 and 999 have the same tint');
  });
});

describe('the distance at which edges repeat', () => {
  it('is found among noise, and is none where there is no edge', () => {
    const noisy = Float64Array.from({ length: 400 }, (_, x) => (x % 7 === 3 ? 40 : (x * 31) % 9));
    expect(cellPitch(noisy)).toBe(7);
    expect(cellPitch(new Float64Array(400))).toBeNull();
  });
});

describe('colours that are not quite the same', () => {
  const off = (rgb: Rgb): Picture => ({ width: 1, height: 1, rgba: Uint8Array.of(...rgb, 255) });
  const read = (how: typeof EXACT) =>
    chartFromPicture(off([206, 74, 60]), { width: 1, height: 1 }, legend, how);

  it('are left out of an exact picture, taken within a shade from a compressed one, and always when asked to', () => {
    expect(read(EXACT).unmatched).toHaveLength(1);
    const compressed = read({ compressed: true, nearest: false });
    expect([...compressed.chart.cells]).toEqual([1]);
    expect(compressed.nearly[0]).toMatchObject({ hex: '#ce4a3c', line: 1, cells: 1 });
    expect(compressed.notices[0]).toContain('compressed');
    const far = chartFromPicture(off([120, 0, 255]), { width: 1, height: 1 }, legend, {
      compressed: false,
      nearest: true,
    });
    expect(far.unmatched).toEqual([]);
    expect(far.nearly[0]!.difference).toBeGreaterThan(15);
  });

  it('are gathered where there are thousands, so that a photo ends in time', () => {
    const side = 300;
    const rgba = Uint8Array.from({ length: side * side * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : Math.imul(i, 2654435761) >>> 24,
    );
    const { nearly, chart } = chartFromPicture(
      { width: side, height: side, rgba },
      { width: side, height: side },
      legend,
      {
        compressed: false,
        nearest: true,
      },
    );
    expect(chart.cells.every((cell) => cell > 0)).toBe(true);
    expect(nearly.length).toBeLessThanOrEqual(32 ** 3);
  });
});
