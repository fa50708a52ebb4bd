import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { type PlacedReading, stitched } from '../../../src/core/reading/stitch';

const SIDE = 20;

/** A photo of which every square is sure. @param line of each square */
function photo(line: (column: number, row: number) => number, at: PlacedReading['at'] = null): PlacedReading {
  return {
    at,
    reading: {
      columns: SIDE,
      rows: SIDE,
      cells: Uint16Array.from({ length: SIDE * SIDE }, (_, i) => line(i % SIDE, Math.floor(i / SIDE))),
      others: new Uint16Array(SIDE * SIDE),
      doubt: new Float32Array(SIDE * SIDE),
      torn: new Uint8Array(SIDE * SIDE),
    },
  };
}

describe('photos put together', () => {
  it('lie where all that touch them agree, though one alone would have them elsewhere', () => {
    const random = seededRandom(11);
    const canvas = Array.from({ length: 40 * 40 }, () => 1 + Math.floor(30 * random.uniform()));
    // What lies left below on the third photo is as what lies right above on the first: as a pattern repeats itself.
    for (let row = 0; row < 10; row++)
      for (let column = 0; column < 10; column++)
        canvas[(25 + row) * 40 + 15 + column] = canvas[row * 40 + 10 + column]!;
    const at = (x: number, y: number) => (column: number, row: number) =>
      canvas[(y + row) * 40 + x + column]!;
    const first = photo(at(0, 0), { column: 0, row: 0 });
    const [second, third] = [photo(at(15, 0)), photo(at(15, 15))];
    const { places, contradicted, unclear } = stitched([first, second, third]);
    expect(places).toEqual([
      { column: 0, row: 0 },
      { column: 15, row: 0 },
      { column: 15, row: 15 },
    ]);
    expect([contradicted, unclear]).toEqual([[], []]);
  });

  it('settle each other’s doubt where they agree, but not that of a torn region, in whatever order they come', () => {
    const here = { column: 0, row: 0 };
    const line = (column: number, row: number) => 1 + ((column + row) % 5);
    const [doubtful, sure] = [photo(line, here), photo(line, here)];
    doubtful.reading.doubt.fill(0.3, 0, 3);
    doubtful.reading.torn.fill(1, 1, 3);
    // The third one is another line to the sure photo.
    sure.reading.cells[2] = 9;
    for (const photos of [
      [doubtful, sure],
      [sure, doubtful],
      [sure, doubtful, sure],
    ]) {
      const { flagged, doubt } = stitched(photos);
      expect([...flagged.subarray(0, 4)]).toEqual([0, 1, 1, 0]);
      expect(doubt[1]).toBeCloseTo(0.3, 6);
    }
  });
});
