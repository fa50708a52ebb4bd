import { Refusal } from '../refusal';
import type { Spot } from './photo';

/** Corners of a rectangle as a photograph shows it: upper left, upper right, lower right, lower left. */
export type Corners = readonly [Spot, Spot, Spot, Spot];

/** A projective map of the plane: row by row, the last number is 1. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/**
 * The projective map that takes the rectangle from 0, 0 to `width`, `height` to four corners (Heckbert, “Fundamentals of
 * Texture Mapping and Image Warping”, 1989, section 2.2.3; from memory).
 * @throws Refusal when three of the corners lie on a line
 */
export function homographyTo(corners: Corners, width: number, height: number): Homography {
  const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = corners;
  const [dx1, dx2, sx] = [x1 - x2, x3 - x2, x0 - x1 + x2 - x3];
  const [dy1, dy2, sy] = [y1 - y2, y3 - y2, y0 - y1 + y2 - y3];
  const whole = dx1 * dy2 - dy1 * dx2;
  if (Math.abs(whole) < 1e-9) throw new Refusal('Three of the corners lie on a line.');
  const g = (sx * dy2 - sy * dx2) / whole;
  const h = (dx1 * sy - dy1 * sx) / whole;
  return [
    (x1 - x0 + g * x1) / width,
    (x3 - x0 + h * x3) / height,
    x0,
    (y1 - y0 + g * y1) / width,
    (y3 - y0 + h * y3) / height,
    y0,
    g / width,
    h / height,
    1,
  ];
}

export function mapped([a, b, c, d, e, f, g, h, i]: Homography, x: number, y: number): [number, number] {
  const w = g * x + h * y + i;
  return [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
}

/** The map back. @throws Refusal when there is none */
export function inverseOf([a, b, c, d, e, f, g, h, i]: Homography): Homography {
  const last = a * e - b * d;
  if (Math.abs(last) < 1e-12) throw new Refusal('Three of the corners lie on a line.');
  const adjugate = [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    last,
  ];
  return adjugate.map((value) => value / last) as unknown as Homography;
}

/**
 * What is wrong with corners, as a sentence; null where nothing is. In a photograph, with y downwards, the corners from the
 * upper left one clockwise turn right at each.
 */
export function faultInCorners(
  corners: Corners,
  { width, height }: { width: number; height: number },
): string | null {
  const turns = corners.map((_, i) => {
    const [a, b, c] = [corners[i]!, corners[(i + 1) % 4]!, corners[(i + 2) % 4]!];
    return (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
  });
  if (corners.some(([x, y]) => !Number.isFinite(x) || !Number.isFinite(y)))
    return 'A corner needs two numbers.';
  if (
    corners.some(([x, y]) => x < -width * 0.02 || y < -height * 0.02 || x > width * 1.02 || y > height * 1.02)
  )
    return 'A corner lies outside the photo.';
  if (turns.every((turn) => turn < 0))
    return 'The corners go round the wrong way: upper left, upper right, lower right, lower left.';
  if (turns.some((turn) => turn <= 0))
    return 'The corners cross over: upper left, upper right, lower right, lower left.';
  const [upperLeft, , lowerRight] = corners;
  if (lowerRight[0] <= upperLeft[0] || lowerRight[1] <= upperLeft[1])
    return 'The photo is turned, or the corners begin at another one: the first is the upper left.';
  return null;
}
