/** A photograph as decoders give it: RGBA, 8 bits each, row by row. */
export interface Photo {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/** A place in a photograph, in pixels from its upper left corner; the middle of the first pixel is 0.5, 0.5. */
export type Spot = readonly [x: number, y: number];

/** A photograph made smaller: linear light, and lightness as the eye grades it; 0…1, row by row. */
export interface Planes {
  width: number;
  height: number;
  /** Pixels of the photograph that one here stands for, across and down. */
  factor: number;
  red: Float32Array;
  green: Float32Array;
  blue: Float32Array;
  /** Square root of the luminance (ITU-R BT.709), close to what the eye takes for even steps. */
  grey: Float32Array;
}

/** Linear light of an 8-bit sRGB value (IEC 61966-2-1). */
const LINEAR = Float32Array.from({ length: 256 }, (_, value) => {
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
export function shrunk({ width, height, data }: Photo, factor: number): Planes {
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  const [red, green, blue, grey] = [0, 1, 2, 3].map(() => new Float32Array(w * h)) as [
    Float32Array,
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const share = 1 / (factor * factor);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let [r, g, b] = [0, 0, 0];
      for (let j = 0; j < factor; j++) {
        let at = ((y * factor + j) * width + x * factor) * 4;
        for (let i = 0; i < factor; i++, at += 4) {
          r += LINEAR[data[at]!]!;
          g += LINEAR[data[at + 1]!]!;
          b += LINEAR[data[at + 2]!]!;
        }
      }
      const here = y * w + x;
      red[here] = r * share;
      green[here] = g * share;
      blue[here] = b * share;
      grey[here] = Math.sqrt((0.2126 * r + 0.7152 * g + 0.0722 * b) * share);
    }
  }
  return { width: w, height: h, factor, red, green, blue, grey };
}

/**
 * Looks at places between the pixels of planes of one size: sought once, told for each plane, straight from the four pixels
 * around; at the edge that of the edge. Made for millions of places.
 */
export class Between {
  private at = 0;
  private fx = 0;
  private fy = 0;
  private readonly right: number;
  private readonly below: number;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.right = width > 1 ? 1 : 0;
    this.below = height > 1 ? width : 0;
  }

  /** @param x in pixels of the planes, the middle of the first at 0.5 */
  seek(x: number, y: number): void {
    const px = Math.min(this.width - 1, Math.max(0, x - 0.5));
    const py = Math.min(this.height - 1, Math.max(0, y - 0.5));
    const left = Math.max(0, Math.min(this.width - 2, px | 0));
    const top = Math.max(0, Math.min(this.height - 2, py | 0));
    this.fx = px - left;
    this.fy = py - top;
    this.at = top * this.width + left;
  }

  of(plane: Float32Array): number {
    const { at, fx, fy, right, below } = this;
    return (
      (plane[at]! * (1 - fx) + plane[at + right]! * fx) * (1 - fy) +
      (plane[at + below]! * (1 - fx) + plane[at + below + right]! * fx) * fy
    );
  }
}

/** The value of a plane between its pixels. @param x in pixels of the plane, the middle of the first at 0.5 */
export function valueAt(plane: Float32Array, width: number, height: number, x: number, y: number): number {
  const between = new Between(width, height);
  between.seek(x, y);
  return between.of(plane);
}
