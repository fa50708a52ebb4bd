import type { Spot } from './photo';

/** Corners of a rectangle as a photograph shows it: upper left, upper right, lower right, lower left. */
export type Corners = readonly [Spot, Spot, Spot, Spot];

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

/** Corners that stand inside of a picture by a share of its sides: where they are looked for at first. */
export function cornersWithin({ width, height }: { width: number; height: number }, inset: number): Corners {
  const [left, top, right, bottom] = [
    width * inset,
    height * inset,
    width * (1 - inset),
    height * (1 - inset),
  ];
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
}
