import type { Corners } from './homography';
import { emptyChannels, emptyPlaces, type Photo, type SmallPhoto, shrunk, valuesAt } from './photo';

/** How far a swatch may lie off the even spacing, in its own sides. */
const REACH = 0.35;
/** Places across a swatch at which its upper and lower edge are looked for. */
const LOOKS = 24;

/**
 * A column of swatches on a photo, as a strip that is one swatch wide. Between its corners places are taken straight: two
 * ends that are so narrow tell nothing of the perspective.
 */
class SwatchStrip {
  private readonly small: SmallPhoto;
  private readonly spot = emptyPlaces(1);
  private readonly seen = emptyChannels(1);
  /** In sides of a swatch. */
  readonly length: number;

  constructor(
    photo: Photo,
    private readonly corners: Corners,
  ) {
    const [a, b, c, d] = corners;
    const far = (from: readonly number[], to: readonly number[]) =>
      Math.hypot(from[0]! - to[0]!, from[1]! - to[1]!);
    const side = (far(a, b) + far(d, c)) / 2;
    this.length = Math.max(1, (far(a, d) + far(b, c)) / 2 / side);
    this.small = shrunk(photo, Math.max(1, Math.floor(side / 30)));
  }

  /** The square piece that begins at a height. */
  piece(top: number): Corners {
    return [this.place(0, top), this.place(1, top), this.place(1, top + 1), this.place(0, top + 1)];
  }

  private place(u: number, v: number): [number, number] {
    const [a, b, c, d] = this.corners;
    const t = v / this.length;
    const along = (axis: 0 | 1) =>
      (a[axis] * (1 - u) + b[axis] * u) * (1 - t) + (d[axis] * (1 - u) + c[axis] * u) * t;
    return [along(0), along(1)];
  }

  /** How strong the edge across the strip is at a height. */
  edgeAt(v: number): number {
    let sum = 0;
    for (let k = 0; k < LOOKS; k++) {
      const u = (k + 0.5) / LOOKS;
      const [above, below] = [this.lightAt(u, v - 0.05), this.lightAt(u, v + 0.05)];
      sum += above.reduce(
        (far, value, channel) => far + Math.abs(Math.sqrt(value) - Math.sqrt(below[channel]!)),
        0,
      );
    }
    return sum;
  }

  /** How far a height is from the paper on both sides, in the middle of the strip. */
  offPaper(v: number): number {
    const paper = [-0.4, 1.4].map((u) => this.lightAt(u, v));
    let off = 0;
    for (let channel = 0; channel < 3; channel++) {
      const white = Math.max(paper[0]![channel]!, paper[1]![channel]!);
      let sum = 0;
      for (let k = 0; k < LOOKS; k++)
        sum += Math.abs(
          Math.sqrt(white) - Math.sqrt(this.lightAt(0.1 + (0.8 * (k + 0.5)) / LOOKS, v)[channel]!),
        );
      off += sum / LOOKS;
    }
    return off;
  }

  private lightAt(u: number, v: number): readonly [number, number, number] {
    [this.spot.x[0], this.spot.y[0]] = this.place(u, v);
    valuesAt(this.small, this.spot, this.seen);
    const [red, green, blue] = this.seen;
    return [red[0]!, green[0]!, blue[0]!];
  }
}

/** The distance from one swatch to the next, in their sides. */
function pitchOf(length: number, count: number): number {
  return count === 1 ? 0 : (Math.max(count, length) - 1) / (count - 1);
}

/** Places along the strip, a swatch, at which it is asked whether ink lies there. */
const STEPS = 12;
/** From this difference to the paper beside on (square root of light, summed over channels) it is ink. */
const INK = 0.12;

/**
 * How many swatches a column has: the number with which ink lies where swatches are, and none between them.
 * @param most at most
 */
export function countedSwatches(photo: Photo, corners: Corners, most: number): number {
  const strip = new SwatchStrip(photo, corners);
  const places = Math.ceil(strip.length * STEPS);
  const inked = Float32Array.from({ length: places }, (_, i) =>
    strip.offPaper((i + 0.5) / STEPS) > INK ? 1 : 0,
  );
  let [best, found] = [Number.NEGATIVE_INFINITY, 1];
  for (let count = 1; count <= Math.min(most, Math.floor(strip.length + 0.2)); count++) {
    const pitch = count === 1 ? Number.POSITIVE_INFINITY : pitchOf(strip.length, count);
    let [within, ink, between, stray] = [0, 0, 0, 0];
    inked.forEach((value, i) => {
      const v = (i + 0.5) / STEPS;
      const aside = v % pitch;
      // The edges themselves are neither.
      if (aside > 0.1 && aside < 0.9) {
        within++;
        ink += value;
      } else if (aside > 1.1 && aside < pitch - 0.1) {
        between++;
        stray += value;
      }
    });
    const score = ink / Math.max(1, within) - (between > 0 ? stray / between : 0);
    if (score > best + 1e-6) [best, found] = [score, count];
  }
  return found;
}

/**
 * The swatches of one column of a printed list, from the corners of the column as a whole: from the upper edge of the first
 * swatch to the lower edge of the last. Swatches are squares that lie evenly below each other; each is then moved to where
 * its edges are.
 * @param count of swatches in the column, 1 or more
 * @returns corners of each, from the top down
 */
export function swatchesOfColumn(photo: Photo, corners: Corners, count: number): Corners[] {
  const strip = new SwatchStrip(photo, corners);
  const pitch = pitchOf(strip.length, count);
  const free = Math.min(REACH, Math.max(0, pitch - 1));
  return Array.from({ length: count }, (_, i) => {
    const top = i * pitch;
    let [best, most] = [0, Number.NEGATIVE_INFINITY];
    for (let off = -free; off <= free + 1e-9; off += 0.02) {
      // Both edges count, and a swatch that lies where it should a little more.
      const strength = (strip.edgeAt(top + off) + strip.edgeAt(top + 1 + off)) * (1 - 0.3 * Math.abs(off));
      if (strength > most) [best, most] = [off, strength];
    }
    return strip.piece(top + best);
  });
}
