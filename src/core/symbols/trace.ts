import { contours } from 'd3-contour';

/** Side of the raster that a drawing is taken from. */
export const DRAWING_SIDE = 64;

/**
 * Turns ink into the outline of a symbol.
 * @param ink `DRAWING_SIDE`² values 0…1, row by row
 * @returns SVG path in a box of 100 × 100, to be filled evenodd; null where there is no ink
 */
export function tracedPath(ink: Float32Array): string | null {
  const [outline] = contours().size([DRAWING_SIDE, DRAWING_SIDE]).thresholds([0.5])(Array.from(ink));
  const point = ([x, y]: number[]) => `${scaled(x!)} ${scaled(y!)}`;
  const rings = (outline?.coordinates ?? []).flat();
  if (rings.length === 0) return null;
  // The last point of a ring repeats the first; Z closes it.
  return rings.map((ring) => `M${ring.slice(0, -1).map(point).join('L')}Z`).join('');
}

function scaled(value: number): number {
  return Math.round(Math.min(100, Math.max(0, (value * 100) / DRAWING_SIDE)) * 10) / 10;
}

/**
 * Ink of a cut-out of a picture: what differs from its ground, whichever of the two is darker.
 * @param grey `DRAWING_SIDE`² lightness values 0…255
 */
export function inkOfPicture(grey: ArrayLike<number>): Float32Array {
  const threshold = otsu(grey);
  const border: number[] = [];
  for (let i = 0; i < DRAWING_SIDE; i++) {
    border.push(grey[i]!, grey[i * DRAWING_SIDE]!, grey[i * DRAWING_SIDE + DRAWING_SIDE - 1]!);
    border.push(grey[(DRAWING_SIDE - 1) * DRAWING_SIDE + i]!);
  }
  const lightGround = border.filter((value) => value > threshold).length * 2 >= border.length;
  // A soft step of a few grey levels keeps the outline smooth.
  return Float32Array.from({ length: DRAWING_SIDE ** 2 }, (_, i) => {
    const over = ((lightGround ? threshold - grey[i]! : grey[i]! - threshold) / 24) * 0.5 + 0.5;
    return Math.min(1, Math.max(0, over));
  });
}

/** The grey level that parts two groups best (Otsu 1979: greatest variance between the classes). */
export function otsu(grey: ArrayLike<number>): number {
  const histogram = new Float64Array(256);
  for (let i = 0; i < grey.length; i++) histogram[Math.round(grey[i]!)]!++;
  let below = 0;
  let sumBelow = 0;
  const sum = histogram.reduce((all, count, level) => all + count * level, 0);
  let best = { variance: -1, from: 127, to: 127 };
  for (let level = 0; level < 255; level++) {
    below += histogram[level]!;
    sumBelow += histogram[level]! * level;
    const above = grey.length - below;
    if (below === 0 || above === 0) continue;
    const variance = below * above * (sumBelow / below - (sum - sumBelow) / above) ** 2;
    if (variance > best.variance * (1 + 1e-12)) best = { variance, from: level, to: level };
    else if (variance >= best.variance * (1 - 1e-12)) best.to = level;
  }
  // Between two clean groups every level is as good; the middle keeps clear of both.
  return (best.from + best.to) / 2 + 0.5;
}
