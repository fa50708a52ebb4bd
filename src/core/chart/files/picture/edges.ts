/** A picture as it was decoded. */
export interface Picture {
  width: number;
  height: number;
  /** 4 × width × height bytes, sRGB, row-major. */
  rgba: Uint8Array | Uint8ClampedArray;
}

/** Columns run across the picture, rows down. */
export type Direction = 'across' | 'down';

const PROFILE_LINES = 400;

/**
 * Mean colour step ahead of each pixel column (or row), over at most 400 lines.
 * @param strip the lines from and to which it looks, in pixels across the direction; without it all of them
 */
export function edgeProfile(
  { width, height, rgba }: Picture,
  direction: Direction,
  strip: { from: number; to: number } | null = null,
): Float64Array {
  const [length, lines, step, lineStep] =
    direction === 'across' ? [width, height, 1, width] : [height, width, width, 1];
  const edges = new Float64Array(length);
  const from = Math.max(0, Math.floor(strip?.from ?? 0));
  const to = Math.min(lines, Math.ceil(strip?.to ?? lines));
  const stride = Math.max(1, Math.floor((to - from) / PROFILE_LINES));
  for (let line = from; line < to; line += stride) {
    let here = line * lineStep * 4;
    let red = rgba[here]!;
    let green = rgba[here + 1]!;
    let blue = rgba[here + 2]!;
    let alpha = rgba[here + 3]!;
    for (let at = 1; at < length; at++) {
      here += step * 4;
      // The pixel before is kept in hand: each is read once.
      const nextRed = rgba[here]!;
      const nextGreen = rgba[here + 1]!;
      const nextBlue = rgba[here + 2]!;
      const nextAlpha = rgba[here + 3]!;
      edges[at]! +=
        Math.abs(nextRed - red) +
        Math.abs(nextGreen - green) +
        Math.abs(nextBlue - blue) +
        Math.abs(nextAlpha - alpha);
      red = nextRed;
      green = nextGreen;
      blue = nextBlue;
      alpha = nextAlpha;
    }
  }
  return edges;
}
