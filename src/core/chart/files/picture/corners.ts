import { homographyTo, mapped, type QuadCorners } from '../../../view/projective';

/** A place on a picture in pixels from its upper left corner. */
export interface Spot {
  x: number;
  y: number;
}

/** Outer corners of a chart on its picture: upper left, upper right, lower right, lower left. */
export type Corners = readonly [Spot, Spot, Spot, Spot];

/** The corners of an upright rectangle. */
export function cornersOf(left: number, top: number, right: number, bottom: number): Corners {
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ];
}

/**
 * Where places of the unit square lie on a picture that shows it as the quadrilateral `corners`.
 * @returns a function of u, v in 0…1, from the upper left corner
 */
export function squareToQuad(corners: Corners): (u: number, v: number) => Spot {
  const map = homographyTo(corners.map(({ x, y }) => [x, y]) as unknown as QuadCorners, 1, 1);
  return (u, v) => {
    const [x, y] = mapped(map, u, v);
    return { x, y };
  };
}

/** Why four places cannot be the corners of a chart, as a sentence; null where they can. */
export function faultInCorners(
  corners: Corners,
  picture: { width: number; height: number },
  size: { width: number; height: number },
): string | null {
  const inside = corners.every(
    ({ x, y }) => x >= -1 && y >= -1 && x <= picture.width + 1 && y <= picture.height + 1,
  );
  if (!inside) return 'The corners must lie on the picture.';
  for (const [i, here] of corners.entries()) {
    const before = corners[(i + 3) % 4]!;
    const next = corners[(i + 1) % 4]!;
    const turn = (here.x - before.x) * (next.y - here.y) - (here.y - before.y) * (next.x - here.x);
    if (!(turn > 0)) {
      return 'The corners must go round the chart: upper left, upper right, lower right, lower left.';
    }
  }
  const [p0, p1, p2, p3] = corners;
  const wide = Math.min(distance(p0, p1), distance(p3, p2)) / size.width;
  const high = Math.min(distance(p0, p3), distance(p1, p2)) / size.height;
  return Math.min(wide, high) < 1
    ? `Between these corners a square of the canvas would be ${Math.min(wide, high).toFixed(1)} pixels large; at least one pixel is needed.`
    : null;
}

function distance(a: Spot, b: Spot): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/** How far the upper edge is turned from level, in degrees; clockwise is above 0. */
export function turnedBy([p0, p1]: Corners): number {
  return (Math.atan2(p1.y - p0.y, p1.x - p0.x) * 180) / Math.PI;
}

/** Whether a quadrilateral is an upright rectangle to within so many pixels. */
export function isUpright([p0, p1, p2, p3]: Corners, withinPx: number): boolean {
  const apart = [p0.x - p3.x, p1.x - p2.x, p0.y - p1.y, p3.y - p2.y];
  return apart.every((px) => Math.abs(px) <= withinPx);
}
