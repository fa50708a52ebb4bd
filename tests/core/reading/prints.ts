import { makeChart } from '../../../src/core/cells/chart';
import { seededRandom } from '../../../src/core/chance/random';
import type { Rgb } from '../../../src/core/colour/rgb';
import type { PrintedCell, Scene } from '../../../src/core/reading/camera';

const SIDE = 32;

/** Simple signs, drawn without a font: each says whether ink lies at a place of the cell, −1…1 from its middle. */
const SIGNS: readonly ((x: number, y: number) => boolean)[] = [
  (x, y) => Math.hypot(x, y) < 0.5,
  (x, y) => Math.abs(x) < 0.14 && Math.abs(y) < 0.6,
  (x, y) => Math.abs(y) < 0.14 && Math.abs(x) < 0.6,
  (x, y) => Math.abs(Math.abs(x) - Math.abs(y)) < 0.15 && Math.abs(x) < 0.5,
  (x, y) => Math.abs(x) + Math.abs(y) < 0.6,
  (x, y) => Math.max(Math.abs(x), Math.abs(y)) < 0.5 && Math.max(Math.abs(x), Math.abs(y)) > 0.3,
  (x, y) => y > -0.5 && y < 0.5 && Math.abs(x) < (y + 0.5) / 2,
  (x, y) => (Math.abs(x) < 0.14 || Math.abs(y) < 0.14) && Math.max(Math.abs(x), Math.abs(y)) < 0.55,
];
const TINTS: readonly Rgb[] = [
  [250, 230, 120],
  [90, 160, 220],
  [230, 120, 110],
  [60, 90, 60],
  [200, 200, 205],
  [40, 45, 90],
  [180, 90, 190],
  [240, 170, 90],
];

/** Eight colours, each with a sign and a tint; ink is white on what is dark. */
export const PRINTS: ReadonlyMap<number, PrintedCell> = new Map(
  SIGNS.map((sign, i) => {
    const mask = Float32Array.from({ length: SIDE * SIDE }, (_, k) => {
      const [x, y] = [((k % SIDE) + 0.5) / SIDE, (Math.floor(k / SIDE) + 0.5) / SIDE];
      return sign(2 * x - 1, 2 * y - 1) ? 1 : 0;
    });
    const tint = TINTS[i]!;
    const ink: Rgb = tint[0] + tint[1] + tint[2] < 300 ? [250, 250, 250] : [20, 20, 20];
    return [i + 1, { tint, ink, mask, side: SIDE }];
  }),
);

/** A canvas of these colours, drawn from a seed. */
export function printedScene(width: number, height: number, seed: number): Scene {
  const random = seededRandom(seed);
  const cells = Uint16Array.from(
    { length: width * height },
    () => 1 + Math.floor(random.uniform() * PRINTS.size),
  );
  return { chart: makeChart(width, height, cells), prints: PRINTS, lineWidth: 0.05 };
}
