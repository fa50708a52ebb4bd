import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { type CellLooks, emptyLooks, LOOK_PIXELS, unit } from '../../../src/core/reading/cellLooks';
import { tornRegions } from '../../../src/core/reading/tornRegions';

const COLUMNS = 12;
const ROWS = 8;
type Tint = [number, number, number];
const MOSS: Tint = [0.08, 0.25, 0.06];
const STRAW: Tint = [0.6, 0.5, 0.2];

/** Cells whose tint and glyph a rule gives, each a little off as a camera has it. */
function looksWith(of: (x: number, y: number) => { tint: Tint; glyph: number }): CellLooks {
  const random = seededRandom(3);
  const glyphs = [0, 1].map(() => Float32Array.from({ length: LOOK_PIXELS }, () => random.normal()));
  const count = COLUMNS * ROWS;
  const looks = emptyLooks(count);
  for (let cell = 0; cell < count; cell++) {
    const { tint, glyph } = of(cell % COLUMNS, Math.floor(cell / COLUMNS));
    const seen = glyphs[glyph]!.map((value) => value + 0.2 * random.normal());
    looks.glyphs.set(unit(seen), cell * LOOK_PIXELS);
    looks.tints.set(
      tint.map((value) => value * (1 + 0.02 * random.normal())),
      cell * 3,
    );
  }
  return looks;
}
const classesWith = (of: (x: number, y: number) => number) =>
  Int32Array.from({ length: COLUMNS * ROWS }, (_, cell) => of(cell % COLUMNS, Math.floor(cell / COLUMNS)));
const count = (torn: Uint8Array) => torn.reduce((sum, value) => sum + value, 0);
const ALIKE = looksWith(() => ({ tint: MOSS, glyph: 0 }));

describe('regions that were torn', () => {
  it('are both told where they are about as large', () => {
    const classes = classesWith((x) => (x < 5 ? 0 : 1));
    expect(count(tornRegions(ALIKE, classes, COLUMNS, ROWS))).toBe(COLUMNS * ROWS);
  });

  it('are told by the smaller one where the other is far larger', () => {
    // 9 cells of 96; a single cell and a pair have less than three neighbours that look alike on one side, or are told too.
    const classes = classesWith((x, y) => (x >= 3 && x < 6 && y >= 2 && y < 5 ? 1 : 0));
    const torn = tornRegions(ALIKE, classes, COLUMNS, ROWS);
    expect([...torn]).toEqual([...classes]);
  });

  it('are none where tints differ, or glyphs do, as those of two colours', () => {
    const classes = classesWith((x) => (x < 5 ? 0 : 1));
    for (const other of [
      { tint: STRAW, glyph: 0 },
      { tint: MOSS, glyph: 1 },
    ]) {
      const looks = looksWith((x) => (x < 5 ? { tint: MOSS, glyph: 0 } : other));
      expect(count(tornRegions(looks, classes, COLUMNS, ROWS))).toBe(0);
    }
  });

  it('are none where only two neighbours look alike, and less than half of the border does', () => {
    // A corner of two cells beside the edge of the photograph has three neighbours, a single one there two.
    const corner = (size: number) => classesWith((x, y) => (y === 0 && x < size ? 1 : 0));
    expect(count(tornRegions(ALIKE, corner(1), COLUMNS, ROWS))).toBe(0);
    expect(count(tornRegions(ALIKE, corner(2), COLUMNS, ROWS))).toBe(2);
    // Of eight rows the border lies between like cells in three: by chance, one colour fades into the other.
    const looks = looksWith((x, y) => ({ tint: x < 5 || y < 3 ? MOSS : STRAW, glyph: 0 }));
    expect(
      count(
        tornRegions(
          looks,
          classesWith((x) => (x < 5 ? 0 : 1)),
          COLUMNS,
          ROWS,
        ),
      ),
    ).toBe(0);
  });

  it('are none in a photograph of one colour, or of single cells', () => {
    expect(
      count(
        tornRegions(
          ALIKE,
          classesWith(() => 0),
          COLUMNS,
          ROWS,
        ),
      ),
    ).toBe(0);
    expect(
      count(
        tornRegions(
          ALIKE,
          classesWith((x, y) => (x + y) % 2),
          COLUMNS,
          ROWS,
        ),
      ),
    ).toBe(0);
  });
});
