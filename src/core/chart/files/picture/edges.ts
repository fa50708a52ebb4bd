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
    for (let at = 1; at < length; at++) {
      const here = (at * step + line * lineStep) * 4;
      const before = here - step * 4;
      for (let part = 0; part < 4; part++) {
        edges[at]! += Math.abs(rgba[here + part]! - rgba[before + part]!);
      }
    }
  }
  return edges;
}
