import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import type { Rgb } from '../../../src/core/colour/rgb';
import { cellColour, clothColours, paintCloth } from '../../../src/core/view/paint';
import { chartOfRows } from '../samples';

const GROUND: Rgb = [240, 240, 240];
const colours = clothColours(
  [
    [200, 0, 0],
    [0, 0, 100],
  ],
  GROUND,
);
const toGround = (rgb: Rgb) => Math.hypot(...rgb.map((part, i) => part - GROUND[i]!));

describe('the colours of the cloth', () => {
  it('step back from laid to printed, and lose their tint where another colour is looked for', () => {
    expect(cellColour(colours, 1, true, true)).toEqual([200, 0, 0]);
    const printed = cellColour(colours, 1, false, true);
    expect(printed[0]).toBeGreaterThan(printed[1]!);
    expect(toGround(printed)).toBeLessThan(toGround([200, 0, 0]));
    for (const laid of [true, false]) {
      const quiet = cellColour(colours, 2, laid, false);
      expect(new Set(quiet).size).toBe(1);
    }
    // What is laid already is still told from what is not.
    expect(toGround(cellColour(colours, 2, true, false))).toBeGreaterThan(
      toGround(cellColour(colours, 2, false, false)),
    );
  });

  it('are painted cell by cell, from any cell on', () => {
    const chart = chartOfRows('12.', '211');
    const laid = emptyBitmap(6);
    setLaid(laid, 0, true);
    setLaid(laid, 3, true);
    const pixels = new Uint8ClampedArray(5 * 4);
    paintCloth(chart, colours, { laid, focus: new Set([1]) }, pixels, 1);
    const at = (i: number) => [...pixels.subarray(i * 4, i * 4 + 4)];
    expect(at(0)).toEqual([...cellColour(colours, 2, false, false), 255]);
    expect(at(1)).toEqual([...cellColour(colours, 0, false, false), 255]);
    expect(at(2)).toEqual([...cellColour(colours, 2, true, false), 255]);
    expect(at(3)).toEqual([...cellColour(colours, 1, false, true), 255]);
    paintCloth(chart, colours, { laid: null, focus: null }, pixels, 1);
    expect(at(3)).toEqual([200, 0, 0, 255]);
  });
});
