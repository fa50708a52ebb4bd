import FFT from 'fft.js';

/** Equally spaced lines along one direction of a picture, in pixels. */
export interface Lattice {
  start: number;
  pitch: number;
  /** Edge strength on the lines as a multiple of that in the middle between them. */
  contrast: number;
}

/** Smallest cell whose edges are looked for. */
const LEAST_PITCH = 2.5;
const LARGEST_PITCH = 220;
const HARMONICS = 4;
/** A longer distance explains the edges as well as a shorter one from this share of its strength on. */
const AS_GOOD = 0.85;

/**
 * The distance at which edges repeat, to a fraction of a pixel, from the strengths of its first harmonics in the spectrum.
 * Half the distance has the same harmonics; therefore the longest of those that are as good is taken. Strengths know
 * nothing of phase: those of several strips add up, however the strips lie against each other.
 * @param strips of each, strength of the edge ahead of each pixel
 * @param near about what it will be, where that is known
 * @returns null where nothing repeats
 */
export function repeatingDistance(
  strips: readonly Float64Array[],
  near: number | null = null,
): number | null {
  const length = strips[0]?.length ?? 0;
  if (length < 4 * LEAST_PITCH) return null;
  // Four times as fine as the edges are long, in the next power of two.
  const size = 2 ** Math.ceil(Math.log2(4 * length));
  const step = 1 / size;
  const bins = size / 2;
  const power = spectrum(strips.map(withoutTrend), size);
  const strength = (bin: number): number => {
    let sum = 0;
    let count = 0;
    for (let k = 1; k <= HARMONICS && k * bin <= bins; k++) {
      let most = 0;
      for (let at = k * bin - k; at <= Math.min(bins, k * bin + k); at++) most = Math.max(most, power[at]!);
      sum += most;
      count++;
    }
    return sum / count;
  };
  const [shortest, longest] = near === null ? [LEAST_PITCH, LARGEST_PITCH] : [near / NEARLY, near * NEARLY];
  let best = { bin: 0, strength: 0 };
  for (let bin = Math.max(5, Math.ceil(1 / longest / step)); bin <= Math.floor(1 / shortest / step); bin++) {
    const here = strength(bin);
    if (here > best.strength) best = { bin, strength: here };
  }
  if (best.strength === 0) return null;
  for (const times of near === null ? [4, 3, 2] : []) {
    const bin = Math.round(best.bin / times);
    if (bin * step * LARGEST_PITCH < 1) continue;
    const around = [bin - 1, bin, bin + 1].map((each) => ({ bin: each, strength: strength(each) }));
    const longer = around.reduce((a, b) => (b.strength > a.strength ? b : a));
    if (longer.strength >= AS_GOOD * best.strength) return 1 / (longer.bin * step);
  }
  return 1 / (best.bin * step);
}

/** Seen from the side, distances differ by no more than this factor. */
const NEARLY = 1.06;

/** Σ |Fourier transform| of some profiles, by frequencies of 0 to 1/2 in steps of 1/size. */
function spectrum(profiles: readonly Float64Array[], size: number): Float64Array {
  const fft = new FFT(size);
  const sums = new Float64Array(size / 2 + 1);
  const input = new Array<number>(size);
  const output = fft.createComplexArray();
  for (const profile of profiles) {
    for (let i = 0; i < size; i++) input[i] = profile[i] ?? 0;
    fft.realTransform(output, input);
    for (let bin = 0; bin < sums.length; bin++) {
      sums[bin]! += Math.hypot(output[2 * bin]!, output[2 * bin + 1]!);
    }
  }
  return sums;
}

/** How strongly edges repeat at a distance. */
export function strengthAt(edges: Float64Array, distance: number): number {
  return magnitude(withoutTrend(edges), 1 / distance);
}

/** |Σ e(x) exp(−2πi f x)|, by turning a vector step by step. */
function magnitude(edges: Float64Array, frequency: number): number {
  const turn = 2 * Math.PI * frequency;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  let [cos, sin, re, im] = [1, 0, 0, 0];
  for (const edge of edges) {
    re += edge * cos;
    im += edge * sin;
    [cos, sin] = [cos * c - sin * s, sin * c + cos * s];
  }
  return Math.hypot(re, im);
}

const TREND_PX = 61;

/** What sticks out of its surroundings. */
function withoutTrend(edges: Float64Array): Float64Array {
  const half = TREND_PX >> 1;
  const sums = new Float64Array(edges.length + 1);
  edges.forEach((edge, i) => {
    sums[i + 1] = sums[i]! + edge;
  });
  return edges.map((edge, i) => {
    const [from, to] = [Math.max(0, i - half), Math.min(edges.length, i + half + 1)];
    return edge - (sums[to]! - sums[from]!) / (to - from);
  });
}

/** Edges as a blurred print leaves them on the pixels beside. */
function softened(edges: Float64Array): Float64Array {
  return edges.map((edge, i) => ((edges[i - 1] ?? 0) + 2 * edge + (edges[i + 1] ?? 0)) / 4);
}

/** Edge strength at a place between two pixels. */
function at(edges: Float64Array, place: number): number {
  const low = Math.floor(place);
  const share = place - low;
  // Asked before and not after: what lies beyond the end would make each of these numbers an object.
  if (low < 0 || low + 1 >= edges.length)
    return (edges[low] ?? 0) * (1 - share) + (edges[low + 1] ?? 0) * share;
  return edges[low]! * (1 - share) + edges[low + 1]! * share;
}

/**
 * How well the lines of a lattice lie on edges.
 * @param edges as {@link softened} gives them
 * @returns edge strength on its lines, and in the middle between them
 */
function onLines(
  edges: Float64Array,
  start: number,
  pitch: number,
  cells: number,
): { on: number; between: number } {
  let on = 0;
  let between = 0;
  // The outermost lines count like the others: laid one cell aside, one of them would lie on bare paper.
  for (let i = 0; i <= cells; i++) on += at(edges, start + i * pitch);
  for (let i = 0; i < cells; i++) between += at(edges, start + (i + 0.5) * pitch);
  return { on: on / (cells + 1), between: between / cells };
}

/** The lines lie between pixels; edges are told ahead of each pixel. */
const CONTRAST_FLOOR = 0.5;

function latticeAt(edges: Float64Array, start: number, pitch: number, cells: number): Lattice {
  const { on, between } = onLines(edges, start, pitch, cells);
  return { start, pitch, contrast: on / (between + CONTRAST_FLOOR) };
}

/**
 * The lattice of so many cells that lies best on some edges.
 * @param cells number of cells from edge to edge
 * @param seen the distance at which edges repeat, see {@link repeatingDistance}
 * @returns null where no edges repeat, or the picture is too small for so many cells
 */
export function findLattice(edges: Float64Array, cells: number, seen: number | null): Lattice | null {
  const soft = softened(edges);
  const length = edges.length;
  const most = length / cells;
  // A chart that fills the picture needs no edges to tell its pitch, if they do not tell another.
  const full = seen === null || Math.abs(seen / most - 1) < 1 / cells ? most : null;
  const pitches = [seen, full].flatMap((pitch) => {
    if (pitch === null || pitch > most * (1 + 1 / cells)) return [];
    // The spectrum tells the distance to within a cell over the whole chart.
    return Array.from({ length: 33 }, (_, i) => pitch + ((i - 16) * 0.06 * pitch) / cells);
  });
  let best: (Lattice & { on: number }) | null = null;
  for (const pitch of pitches) {
    if (pitch < LEAST_PITCH / 2) continue;
    for (let start = 0; start + cells * pitch <= length + 0.5; start += 0.5) {
      const { on, between } = onLines(soft, start, pitch, cells);
      if (best === null || on - between > best.on) {
        best = { start, pitch, contrast: on / (between + CONTRAST_FLOOR), on: on - between };
      }
    }
  }
  return best && refined(soft, best, cells);
}

/**
 * The same lattice where it lies a little otherwise: in another strip of a picture that is turned, or seen from the side.
 * @param reach share of a cell by which either end may have moved
 */
export function followed(edges: Float64Array, before: Lattice, cells: number, reach: number): Lattice {
  const soft = softened(edges);
  const end = before.start + cells * before.pitch;
  let best = latticeAt(soft, before.start, before.pitch, cells);
  let score = Number.NEGATIVE_INFINITY;
  const steps = 9;
  for (let i = -steps; i <= steps; i++) {
    for (let j = -steps; j <= steps; j++) {
      const start = before.start + ((i * reach) / steps) * before.pitch;
      const pitch = (end + ((j * reach) / steps) * before.pitch - start) / cells;
      const { on, between } = onLines(soft, start, pitch, cells);
      if (on - between > score) {
        score = on - between;
        best = { start, pitch, contrast: on / (between + CONTRAST_FLOOR) };
      }
    }
  }
  return refined(soft, best, cells);
}

/** Climbs to the best place nearby, in ever smaller steps. */
function refined(soft: Float64Array, from: Lattice, cells: number): Lattice {
  let [start, end] = [from.start, from.start + cells * from.pitch];
  const score = (a: number, b: number) => {
    const { on, between } = onLines(soft, a, (b - a) / cells, cells);
    return on - between;
  };
  let best = score(start, end);
  for (let step = from.pitch / 8; step > 0.02; step /= 2) {
    for (let moved = true; moved; ) {
      moved = false;
      for (const [da, db] of [
        [step, 0],
        [-step, 0],
        [0, step],
        [0, -step],
        [step, step],
        [-step, -step],
      ] as const) {
        const next = score(start + da, end + db);
        if (next <= best + 1e-9) continue;
        [start, end, best, moved] = [start + da, end + db, next, true];
      }
    }
  }
  return latticeAt(soft, ...centred(soft, start, end, cells), cells);
}

/** Around a line, its edges lie within this share of a cell. */
const LINE_REACH = 0.24;

/** A drawn line has an edge on either side; the lattice is to run along its middle. */
function centred(
  soft: Float64Array,
  start: number,
  end: number,
  cells: number,
): [start: number, pitch: number] {
  const pitch = (end - start) / cells;
  let middle = start;
  for (let round = 0; round < 3; round++) {
    let [pull, weight] = [0, 0];
    for (let i = 0; i <= cells; i++) {
      const line = middle + i * pitch;
      for (let off = -LINE_REACH * pitch; off <= LINE_REACH * pitch; off += 0.5) {
        const edge = at(soft, line + off);
        pull += edge * off;
        weight += edge;
      }
    }
    if (weight > 0) middle += pull / weight;
  }
  return [middle, pitch];
}
