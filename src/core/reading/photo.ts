/** A photograph as decoders give it: RGBA, 8 bits each, row by row. */
export interface Photo {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/** A place in a photograph, in pixels from its upper left corner; the middle of the first pixel is 0.5, 0.5. */
export type Spot = readonly [x: number, y: number];

/** A photograph made smaller: linear light, and lightness as the eye grades it; 0…1. */
export interface SmallPhoto {
  width: number;
  height: number;
  /** Pixels of the photograph that one here stands for, across and down. */
  factor: number;
  /**
   * {@link CHANNELS} values a pixel, row by row: red, green and blue, and the square root of the luminance (ITU-R BT.709),
   * close to what the eye takes for even steps. Side by side, for a place is asked for all of them.
   */
  values: Float32Array;
}
const CHANNELS = 4;

/** Linear light of an 8-bit sRGB value (IEC 61966-2-1). */
const LINEAR = Float64Array.from({ length: 256 }, (_, value) => {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
});

/** The 8-bit sRGB value of linear light, the inverse of the above. @param light cut to 0…1 */
export function toSrgb(light: number): number {
  const share = Math.min(1, Math.max(0, light));
  return 255 * (share <= 0.0031308 ? share * 12.92 : 1.055 * share ** (1 / 2.4) - 0.055);
}

/** Linear light of an 8-bit sRGB value. @param value whole, 0…255 */
export function toLinear(value: number): number {
  return LINEAR[value]!;
}

/** Means of blocks of `factor` × `factor` pixels in linear light; what is left over at the right and below is dropped. */
export function shrunk({ width, height, data }: Photo, factor: number): SmallPhoto {
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  const values = new Float32Array(w * h * CHANNELS);
  const share = 1 / (factor * factor);
  for (let y = 0, to = 0; y < h; y++) {
    for (let x = 0; x < w; x++, to += CHANNELS) {
      let r = 0;
      let g = 0;
      let b = 0;
      for (let j = 0; j < factor; j++) {
        let at = ((y * factor + j) * width + x * factor) * 4;
        for (let i = 0; i < factor; i++, at += 4) {
          r += LINEAR[data[at]!]!;
          g += LINEAR[data[at + 1]!]!;
          b += LINEAR[data[at + 2]!]!;
        }
      }
      values[to] = r * share;
      values[to + 1] = g * share;
      values[to + 2] = b * share;
      values[to + 3] = Math.sqrt((0.2126 * r + 0.7152 * g + 0.0722 * b) * share);
    }
  }
  return { width: w, height: h, factor, values };
}

/** Places in a photograph, in its pixels. */
export interface Places {
  x: Float64Array;
  y: Float64Array;
}

export function emptyPlaces(count: number): Places {
  return { x: new Float64Array(count), y: new Float64Array(count) };
}

/** Values of so many places: red, green, blue and lightness, each in a row. */
export type Channels = readonly [Float32Array, Float32Array, Float32Array, Float32Array];

export function emptyChannels(count: number): Channels {
  return [new Float32Array(count), new Float32Array(count), new Float32Array(count), new Float32Array(count)];
}

/**
 * What lies at places between the pixels, straight from the four pixels around; at the edge that of the edge. Many places at
 * a time, for millions are asked for.
 * @param places in pixels of the photograph @param out takes the values of each place
 */
export function valuesAt(
  { values, width, height, factor }: SmallPhoto,
  { x, y }: Places,
  [red, green, blue, lightness]: Channels,
): void {
  const right = width > 1 ? CHANNELS : 0;
  const below = height > 1 ? width * CHANNELS : 0;
  for (let i = 0; i < x.length; i++) {
    const px = Math.min(width - 1, Math.max(0, x[i]! / factor - 0.5));
    const py = Math.min(height - 1, Math.max(0, y[i]! / factor - 0.5));
    const left = Math.max(0, Math.min(width - 2, px | 0));
    const top = Math.max(0, Math.min(height - 2, py | 0));
    const fx = px - left;
    const fy = py - top;
    const lowerRight = fx * fy;
    const upperRight = fx - lowerRight;
    const lowerLeft = fy - lowerRight;
    const upperLeft = 1 - fx - lowerLeft;
    const a = (top * width + left) * CHANNELS;
    const b = a + right;
    const c = a + below;
    const d = c + right;
    red[i] =
      values[a]! * upperLeft + values[b]! * upperRight + values[c]! * lowerLeft + values[d]! * lowerRight;
    green[i] =
      values[a + 1]! * upperLeft +
      values[b + 1]! * upperRight +
      values[c + 1]! * lowerLeft +
      values[d + 1]! * lowerRight;
    blue[i] =
      values[a + 2]! * upperLeft +
      values[b + 2]! * upperRight +
      values[c + 2]! * lowerLeft +
      values[d + 2]! * lowerRight;
    lightness[i] =
      values[a + 3]! * upperLeft +
      values[b + 3]! * upperRight +
      values[c + 3]! * lowerLeft +
      values[d + 3]! * lowerRight;
  }
}

/** The value of a plane between its pixels. @param x in pixels of the plane, the middle of the first at 0.5 */
export function valueAt(plane: Float32Array, width: number, height: number, x: number, y: number): number {
  const px = Math.min(width - 1, Math.max(0, x - 0.5));
  const py = Math.min(height - 1, Math.max(0, y - 0.5));
  const left = Math.max(0, Math.min(width - 2, px | 0));
  const top = Math.max(0, Math.min(height - 2, py | 0));
  const fx = px - left;
  const fy = py - top;
  const at = top * width + left;
  const right = width > 1 ? 1 : 0;
  const below = height > 1 ? width : 0;
  return (
    (plane[at]! * (1 - fx) + plane[at + right]! * fx) * (1 - fy) +
    (plane[at + below]! * (1 - fx) + plane[at + below + right]! * fx) * fy
  );
}
