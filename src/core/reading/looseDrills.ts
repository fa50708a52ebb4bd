import type { Shape } from '../canvas/canvas';
import { Refusal } from '../refusal';
import { type Photo, toLinear } from './photo';

/** Drills counted on a photo of a tray. */
export interface LooseCount {
  count: number;
  /** Standard deviation of the count, in drills. */
  spread: number;
  /** Why the count is not to be trusted, as a sentence; null where it is. */
  unsure: string | null;
  /** Middle of each drill, or of each heap of touching ones, in pixels of the photo. */
  heaps: { x: number; y: number; drills: number }[];
}

/** A photo is made smaller until its longer side has no more pixels. */
const WORKING_PX = 1600;
/** Drills narrower than this cannot be told apart (pixels of the smaller photo). */
const LEAST_DRILL_PX = 7;
/** Least difference of drills and tray: of the values 0…1, so that what is between them is no accident. */
const LEAST_CONTRAST = 0.12;
/** Two ways of counting may differ by this share; more means that neither is to be trusted. */
const MOST_APART = 0.06;
/** So much of all must lie by itself, or nothing tells how large one is. */
const LEAST_SINGLES = 0.15;

/**
 * Counts loose drills of one colour that lie in one layer on a tray of another colour. Touching squares are told apart by
 * their area, in whole multiples of a single one; touching rounds by the places that are farthest from any edge. The other
 * way is reckoned too, and where the two differ, or too few lie by themselves, the count is said to be unsure.
 * @throws Refusal where drills and tray look alike, nothing lies there, or it is too small to be counted
 */
export function countedLoose(photo: Photo, shape: Shape): LooseCount {
  const { mask, width, height, factor } = foreground(photo);
  const blobs = blobsOf(mask, width, height);
  if (blobs.length === 0) throw new Refusal('No drills are seen on this photo.');
  const one = singleArea(blobs.map(({ area }) => area));
  const side = shape === 'square' ? Math.sqrt(one) : Math.sqrt((4 * one) / Math.PI);
  if (side < LEAST_DRILL_PX)
    throw new Refusal(
      'The drills are too small on this photo to be counted. Go nearer, or take fewer at once.',
    );
  const distance = distanceInside(mask, width, height);
  const heaps = blobs
    .filter(({ area }) => area > one * 0.4)
    .map((blob) => {
      const byArea = Math.max(1, Math.round(blob.area / one));
      const byPeaks = Math.max(1, peaksIn(blob, distance, width, side));
      return { blob, byArea, byPeaks, drills: shape === 'square' ? byArea : byPeaks };
    });
  const sum = (of: (heap: (typeof heaps)[number]) => number) =>
    heaps.reduce((all, heap) => all + of(heap), 0);
  const [count, area, peaks] = [
    sum((heap) => heap.drills),
    sum((heap) => heap.byArea),
    sum((heap) => heap.byPeaks),
  ];
  const singles = sum(({ byArea }) => (byArea === 1 ? 1 : 0)) / count;
  // Peaks of squares say less than their area: a corner counts like a middle.
  const apart = Math.abs(area - peaks) / count / (shape === 'square' ? 2 : 1);
  const largest = heaps.reduce((most, { byArea }) => Math.max(most, byArea), 0);
  const unsure =
    singles < LEAST_SINGLES
      ? 'Hardly any drill lies by itself, so nothing tells how large one is. Spread them out and take another photo.'
      : apart > MOST_APART
        ? 'Too many drills touch each other to be told apart. Shake the tray so that they spread out.'
        : null;
  const several = sum(({ byArea }) => (byArea > 1 ? byArea : 0));
  return {
    count,
    // A heap is off by a drill now and then: about one in fifty of those that touch, and as the two ways differ.
    spread: Math.sqrt(
      (0.02 * several) ** 2 + (0.25 * Math.abs(area - peaks)) ** 2 + (largest > 12 ? largest / 10 : 0),
    ),
    unsure,
    heaps: heaps.map(({ blob, drills }) => ({
      x: (blob.x + 0.5) * factor,
      y: (blob.y + 0.5) * factor,
      drills,
    })),
  };
}

interface Mask {
  width: number;
  height: number;
  factor: number;
  /** 1 where a drill lies. */
  mask: Uint8Array;
}

/** What is not tray: the tray is the colour that most of the rim has. @throws Refusal where nothing stands out */
function foreground({ width, height, data }: Photo): Mask {
  const factor = Math.max(1, Math.ceil(Math.max(width, height) / WORKING_PX));
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  // Roots of light, so that steps are about even to the eye.
  const channels = [0, 1, 2].map(() => new Float32Array(w * h));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const sums = [0, 0, 0];
      for (let j = 0; j < factor; j++)
        for (let i = 0; i < factor; i++) {
          const at = ((y * factor + j) * width + x * factor + i) * 4;
          for (let channel = 0; channel < 3; channel++) sums[channel]! += toLinear(data[at + channel]!);
        }
      for (let channel = 0; channel < 3; channel++)
        channels[channel]![y * w + x] = Math.sqrt(sums[channel]! / factor ** 2);
    }
  const tray = trayLight(channels, w, h);
  const off = new Float32Array(w * h);
  for (let at = 0; at < off.length; at++) {
    let far = 0;
    for (let channel = 0; channel < 3; channel++)
      far += (channels[channel]![at]! - tray(channel, at % w, (at / w) | 0)) ** 2;
    off[at] = Math.sqrt(far);
  }
  const { threshold, contrast } = twoClasses(off);
  if (contrast < LEAST_CONTRAST)
    throw new Refusal(
      'The drills hardly stand out from the tray. Put them on a tray of quite another colour: light drills on a dark one, dark ones on white.',
    );
  return { width: w, height: h, factor, mask: Uint8Array.from(off, (value) => (value > threshold ? 1 : 0)) };
}

/** The light of the bare tray at each place: a plane through the middle values of parts of the rim, channel by channel. */
function trayLight(
  channels: readonly Float32Array[],
  width: number,
  height: number,
): (channel: number, x: number, y: number) => number {
  const rim = Math.max(2, Math.round(Math.min(width, height) * 0.03));
  const planes = channels.map((values) => {
    const middle = (x0: number, y0: number, x1: number, y1: number) => {
      const seen: number[] = [];
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) seen.push(values[y * width + x]!);
      seen.sort((a, b) => a - b);
      return seen[seen.length >> 1]!;
    };
    return {
      left: middle(0, 0, rim, height),
      right: middle(width - rim, 0, width, height),
      top: middle(0, 0, width, rim),
      bottom: middle(0, height - rim, width, height),
    };
  });
  return (channel, x, y) => {
    const { left, right, top, bottom } = planes[channel]!;
    const [s, t] = [x / width, y / height];
    const mean = (left + right + top + bottom) / 4;
    return mean + (right - left) * (s - 0.5) + (bottom - top) * (t - 0.5);
  };
}

/**
 * The value that parts two classes best (Otsu, “A threshold selection method from gray-level histograms”, 1979, from
 * memory), and how far their means lie apart.
 */
function twoClasses(values: Float32Array): { threshold: number; contrast: number } {
  const BINS = 256;
  const most = values.reduce((top, value) => Math.max(top, value), 1e-6);
  const counts = new Float64Array(BINS);
  for (const value of values) counts[Math.min(BINS - 1, Math.floor((value / most) * BINS))]!++;
  const total = values.length;
  const whole = counts.reduce((sum, n, bin) => sum + n * bin, 0);
  let [below, sum, best, at, gap] = [0, 0, -1, 0, 0];
  for (let bin = 0; bin < BINS - 1; bin++) {
    below += counts[bin]!;
    sum += counts[bin]! * bin;
    const above = total - below;
    if (below === 0 || above === 0) continue;
    const [low, high] = [sum / below, (whole - sum) / above];
    const between = below * above * (high - low) ** 2;
    if (between > best) [best, at, gap] = [between, bin, high - low];
  }
  return { threshold: ((at + 1) / BINS) * most, contrast: (gap / BINS) * most };
}

interface Blob {
  area: number;
  /** Its middle. */
  x: number;
  y: number;
  pixels: number[];
}

/** Connected pieces of a mask, side by side or corner to corner not counted; specks left out. */
function blobsOf(mask: Uint8Array, width: number, height: number): Blob[] {
  const seen = new Uint8Array(mask.length);
  const blobs: Blob[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (!mask[start] || seen[start]) continue;
    const pixels = [start];
    seen[start] = 1;
    let [sx, sy] = [0, 0];
    for (let head = 0; head < pixels.length; head++) {
      const at = pixels[head]!;
      const [x, y] = [at % width, (at / width) | 0];
      sx += x;
      sy += y;
      for (const next of [
        x > 0 ? at - 1 : -1,
        x < width - 1 ? at + 1 : -1,
        y > 0 ? at - width : -1,
        y < height - 1 ? at + width : -1,
      ]) {
        if (next < 0 || !mask[next] || seen[next]) continue;
        seen[next] = 1;
        pixels.push(next);
      }
    }
    if (pixels.length >= 12)
      blobs.push({ area: pixels.length, x: sx / pixels.length, y: sy / pixels.length, pixels });
  }
  return blobs;
}

/** The area of a single drill: the smallest size that many pieces have, within a sixth. */
function singleArea(areas: readonly number[]): number {
  const sorted = [...areas].sort((a, b) => a - b);
  // Specks of dust are far smaller than most.
  const usual = sorted[sorted.length >> 1]!;
  const whole = sorted.filter((area) => area > usual * 0.2);
  let best = { size: usual, near: 0 };
  for (const size of whole) {
    if (size > usual * 1.3) break;
    const near = whole.filter((area) => Math.abs(area / size - 1) < 1 / 6).length;
    if (near > best.near * 1.1) best = { size, near };
  }
  const own = whole.filter((area) => Math.abs(area / best.size - 1) < 1 / 6);
  return own.reduce((sum, area) => sum + area, 0) / Math.max(1, own.length) || usual;
}

/** Distance of each pixel inside to the nearest one outside, in steps of 3 and 4 thirds (chamfer, Borgefors 1986, from memory). */
function distanceInside(mask: Uint8Array, width: number, height: number): Float32Array {
  const far = Float32Array.from(mask, (inside) => (inside ? 1e6 : 0));
  const relax = (at: number, from: number, cost: number) => {
    far[at] = Math.min(far[at]!, from < 0 ? cost : far[from]! + cost);
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      relax(at, x > 0 ? at - 1 : -1, 1);
      relax(at, y > 0 ? at - width : -1, 1);
      if (x > 0 && y > 0) relax(at, at - width - 1, 4 / 3);
      if (x < width - 1 && y > 0) relax(at, at - width + 1, 4 / 3);
    }
  for (let y = height - 1; y >= 0; y--)
    for (let x = width - 1; x >= 0; x--) {
      const at = y * width + x;
      relax(at, x < width - 1 ? at + 1 : -1, 1);
      relax(at, y < height - 1 ? at + width : -1, 1);
      if (x < width - 1 && y < height - 1) relax(at, at + width + 1, 4 / 3);
      if (x > 0 && y < height - 1) relax(at, at + width - 1, 4 / 3);
    }
  return far;
}

/** Places of a piece that lie deep inside and a drill's width from each other. */
function peaksIn({ pixels }: Blob, distance: Float32Array, width: number, side: number): number {
  const deep = pixels.filter((at) => distance[at]! > side * 0.33).sort((a, b) => distance[b]! - distance[a]!);
  const kept: number[] = [];
  for (const at of deep) {
    const [x, y] = [at % width, (at / width) | 0];
    if (kept.every((other) => Math.hypot((other % width) - x, ((other / width) | 0) - y) > side * 0.8))
      kept.push(at);
  }
  return kept.length;
}
