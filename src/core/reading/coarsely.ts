/** Every so many pixels a smooth function is reckoned; between them it is taken straight. */
const STEP = 8;

/**
 * Rows of values of a function that changes little from pixel to pixel, at a fraction of its price.
 * @param count values that the function writes for a place @param at writes the values at the middle of pixel `x`, `y`
 * @returns writes the values of a row of pixels, `count` a pixel
 */
export function coarsely(
  width: number,
  height: number,
  count: number,
  at: (x: number, y: number, out: Float64Array) => void,
): (y: number, row: Float32Array) => void {
  const columns = Math.ceil(width / STEP) + 1;
  const out = new Float64Array(count);
  const line = (j: number) => {
    const values = new Float64Array(columns * count);
    for (let i = 0; i < columns; i++) {
      at(i * STEP, Math.min(j * STEP, height), out);
      values.set(out, i * count);
    }
    return values;
  };
  let upper = -1;
  let [above, below] = [new Float64Array(), new Float64Array()];
  return (y, row) => {
    const j = Math.floor(y / STEP);
    if (j !== upper) {
      above = j === upper + 1 && upper >= 0 ? below : line(j);
      below = line(j + 1);
      upper = j;
    }
    const t = (y - j * STEP) / Math.max(1, Math.min((j + 1) * STEP, height) - j * STEP);
    for (let x = 0; x < width; x++) {
      const i = (x / STEP) | 0;
      const s = (x - i * STEP) / STEP;
      for (let k = 0; k < count; k++) {
        const a = i * count + k;
        const upperValue = above[a]! * (1 - s) + above[a + count]! * s;
        row[x * count + k] = upperValue * (1 - t) + (below[a]! * (1 - s) + below[a + count]! * s) * t;
      }
    }
  };
}
