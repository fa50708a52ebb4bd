import { describe, expect, it } from 'vitest';
import { chartFromPixels } from '../../../../src/core/chart/files/fromPixels';
import { line } from '../../samples';

describe('a picture with transparency', () => {
  it('wants a drill where a pixel is at least half opaque', () => {
    const pixel = (alpha: number) => [0x2f, 0x6f, 0x8f, alpha];
    const rgba = Uint8Array.from([...pixel(127), ...pixel(128), ...pixel(255), ...pixel(0)]);
    const { chart, unmatched } = chartFromPixels(4, 1, rgba, [line(1)]);
    expect([...chart.cells]).toEqual([0, 1, 1, 0]);
    expect(unmatched).toEqual([]);
  });
});
