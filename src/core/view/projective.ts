import { Refusal } from '../refusal';

/** Four places, clockwise from the upper left. */
export type QuadCorners = readonly [
  readonly [number, number],
  readonly [number, number],
  readonly [number, number],
  readonly [number, number],
];

/** A projective map of the plane: row by row, the last number is 1. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/**
 * The projective map that takes the rectangle from 0, 0 to `width`, `height` to four corners (Heckbert, “Fundamentals of
 * Texture Mapping and Image Warping”, 1989, section 2.2.3; from memory).
 * @throws Refusal when three of the corners lie on a line
 */
export function homographyTo(corners: QuadCorners, width: number, height: number): Homography {
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
