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

  /** Readings of one square: its line, the line that it may be else, and the doubt; what they say together. */
  function together(...readings: [line: number, other: number, doubt: number][]) {
    const { cells, others, doubt, flagged } = stitched(
      readings.map(([line, other, share]) => {
        const one = photo(() => line, { column: 0, row: 0 });
        one.reading.others.fill(other);
        one.reading.doubt.fill(share);
        return one;
      }),
    );
    return { line: cells[0], other: others[0], doubt: doubt[0], isShown: flagged[0] === 1 };
  }

  it('are shown where they agree but both hesitated between the same two lines, for they may err for one reason', () => {
    const alike = together([4, 7, 0.01], [4, 7, 0.008]);
    expect(alike).toMatchObject({ line: 4, other: 7, isShown: true });
    expect(alike.doubt).toBeCloseTo(0.008, 6);
    // Another second choice each: what made the one hesitate did not trouble the other.
    const unlike = together([4, 7, 0.01], [4, 9, 0.008]);
    expect(unlike).toMatchObject({ line: 4, isShown: false });
    expect(unlike.doubt).toBeCloseTo(0.00008, 6);
    // One that is hardly in doubt settles it, in either order; none that knew of no other line hesitated.
    expect(together([4, 7, 0.2], [4, 7, 0.001]).isShown).toBe(false);
    expect(together([4, 7, 0.001], [4, 7, 0.2]).isShown).toBe(false);
    expect(together([4, 0, 0.02], [4, 0, 0.02]).isShown).toBe(false);
  });

  it('are shown where they differ, unless one is left with hardly a doubt: not both can be right', () => {
    // Of 0.02 and 0.3: the one alone is wrong, the other alone or both; the first is wrong in 0.02 of 0.314.
    for (const pair of [together([4, 7, 0.02], [7, 4, 0.3]), together([7, 4, 0.3], [4, 7, 0.02])]) {
      expect(pair).toMatchObject({ line: 4, other: 7, isShown: true });
      expect(pair.doubt).toBeCloseTo(0.02 / 0.314, 5);
    }
    expect(together([4, 7, 0.001], [7, 4, 0.9])).toMatchObject({ line: 4, isShown: false });
    expect(together([4, 7, 0.0001], [7, 4, 0.01])).toMatchObject({ line: 4, doubt: 0.5, isShown: true });
    expect(together([4, 7, 0], [7, 4, 0])).toMatchObject({ doubt: 0.5, isShown: true });
    // A third one that is sure decides.
    expect(together([4, 7, 0.02], [7, 4, 0.3], [4, 9, 0.01])).toMatchObject({ line: 4, isShown: false });
  });
});
