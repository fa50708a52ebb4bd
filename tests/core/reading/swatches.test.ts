import { describe, expect, it } from 'vitest';
import { makeChart } from '../../../src/core/cells/chart';
import { CAMERA_LEVELS, takePhoto } from '../../../src/core/reading/camera';
import type { Corners } from '../../../src/core/reading/homography';
import { listScene } from '../../../src/core/reading/listScene';
import { samplesOf } from '../../../src/core/reading/samples';
import { countedSwatches, swatchesOfColumn } from '../../../src/core/reading/swatchColumn';
import { PRINTS } from './prints';

/** A photo of the printed list in two columns of four, and the corners of each column. */
const list = listScene([...PRINTS.keys()], PRINTS, 4);
const taken = takePhoto(list.scene, {
  rect: { x: 0, y: 0, width: list.columns, height: list.rows },
  cellPx: 48,
  level: { ...CAMERA_LEVELS.normal, waves: 0, tilt: 3, glare: 0 },
  seed: 11,
});
const cornersOf = ({ x, y, width, height }: (typeof list.blocks)[number]['rect'], miss = 0): Corners => [
  taken.where(x - miss, y + miss),
  taken.where(x + width + miss, y - miss),
  taken.where(x + width - miss, y + height + miss),
  taken.where(x + miss, y + height - miss),
];

describe('a column of swatches on a photo of the printed list', () => {
  it('is counted, and cut apart where the swatches are', () => {
    for (const { rect, lines } of list.blocks) {
      const corners = cornersOf(rect, 0.06);
      expect(countedSwatches(taken.photo, corners, 60)).toBe(lines.length);
      swatchesOfColumn(taken.photo, corners, lines.length).forEach((swatch, i) => {
        const { column, row } = list.at.find(({ line }) => line === lines[i])!;
        const [x, y] = taken.where(column, row);
        expect(Math.hypot(swatch[0][0] - x, swatch[0][1] - y) / 48).toBeLessThan(0.12);
      });
    }
  });

  it('may have one swatch, or swatches without paper between them', () => {
    const [first] = list.at;
    const one = cornersOf({ x: first!.column, y: first!.row, width: 1, height: 1 });
    expect(countedSwatches(taken.photo, one, 60)).toBe(1);
    expect(swatchesOfColumn(taken.photo, one, 1)).toHaveLength(1);
    const cells = new Uint16Array(3 * 8);
    for (let row = 1; row < 7; row++) cells[row * 3 + 1] = row;
    const close = takePhoto(
      { chart: makeChart(3, 8, cells), prints: PRINTS, lineWidth: 0.05 },
      { rect: { x: 0, y: 0, width: 3, height: 8 }, cellPx: 48, level: CAMERA_LEVELS.easy, seed: 12 },
    );
    const corners: Corners = [close.where(1, 1), close.where(2, 1), close.where(2, 7), close.where(1, 7)];
    expect(countedSwatches(close.photo, corners, 60)).toBe(6);
  });

  it('gives each colour its symbol and its tint', () => {
    const swatches = list.blocks.flatMap(({ rect, lines }) =>
      swatchesOfColumn(taken.photo, cornersOf(rect), lines.length).map((corners, i) => ({
        line: lines[i]!,
        corners,
      })),
    );
    const samples = samplesOf(taken.photo, swatches);
    expect(samples.map(({ line }) => line)).toEqual([...PRINTS.keys()]);
    // A light tint stays lighter than a dark one, whatever the light was.
    const light = (line: number) => samples.find((sample) => sample.line === line)!.tint[1];
    expect(light(1)).toBeGreaterThan(light(4) * 2);
  });
});
