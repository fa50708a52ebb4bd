import { blurredGlyph, type CellLooks, LOOK_PIXELS, LOOK_SIDE, unit } from './cellLooks';
import { type LightField, labOfLight, litAs } from './light';

/** What is known of one colour before a photograph is read. */
export interface ClassSample {
  line: number;
  /** Its symbol, as {@link CellLooks} holds it. */
  glyph: Float32Array;
  /** Linear light of its tint on white paper. */
  tint: readonly [number, number, number];
}

/** The classes as they look in one photograph: glyphs as blurred as its cells are. */
export interface Templates {
  lines: readonly number[];
  /** {@link LOOK_PIXELS} a class. */
  glyphs: Float32Array;
  tints: readonly (readonly [number, number, number])[];
}

/** What each cell may be: the log-likelihood of every class, and how well the best glyph fits. */
export interface Verdicts {
  /** Index of the most likely class, and of the next one; −1 where there is but one. */
  best: Int32Array;
  second: Int32Array;
  /** How much more likely the best is than the next, as a logarithm. */
  margin: Float32Array;
  /** Correlation of the cell with the glyph of its best class, −1…1. */
  fit: Float32Array;
}

/** How sharply correlation tells: half of so many samples that are free of each other (measured on simulated photographs). */
const FREE_SAMPLES = 18;
/** Degrees of freedom of the t-distribution of tints: now and then one is far off. */
const TINT_FREEDOM = 4;

export function templatesOf(samples: readonly ClassSample[], sigma: number): Templates {
  const glyphs = new Float32Array(samples.length * LOOK_PIXELS);
  for (const [i, { glyph }] of samples.entries()) glyphs.set(blurredGlyph(glyph, sigma), i * LOOK_PIXELS);
  return { lines: samples.map(({ line }) => line), glyphs, tints: samples.map(({ tint }) => tint) };
}

/** Correlation of every cell with every class: cells × classes. */
export function correlations(looks: CellLooks, templates: Templates): Float32Array {
  const classes = templates.lines.length;
  const out = new Float32Array(looks.count * classes);
  const { glyphs } = looks;
  const known = templates.glyphs;
  for (let cell = 0; cell < looks.count; cell++) {
    const at = cell * LOOK_PIXELS;
    let k = 0;
    // Four classes at once, so that each pixel of the cell is fetched for all of them.
    for (; k + 3 < classes; k += 4) {
      let a = 0;
      let b = 0;
      let c = 0;
      let d = 0;
      for (let i = 0, from = k * LOOK_PIXELS; i < LOOK_PIXELS; i++, from++) {
        const here = glyphs[at + i]!;
        a += here * known[from]!;
        b += here * known[from + LOOK_PIXELS]!;
        c += here * known[from + 2 * LOOK_PIXELS]!;
        d += here * known[from + 3 * LOOK_PIXELS]!;
      }
      out.set([a, b, c, d], cell * classes + k);
    }
    for (; k < classes; k++) {
      let sum = 0;
      for (let i = 0; i < LOOK_PIXELS; i++) sum += glyphs[at + i]! * known[k * LOOK_PIXELS + i]!;
      out[cell * classes + k] = sum;
    }
  }
  return out;
}

/**
 * Judges every cell by its glyph and its tint together.
 * @param light how the photograph is lit; null leaves the tint out
 * @param spread usual colour difference of a cell to its tint (ΔE)
 */
export function verdicts(
  looks: CellLooks,
  templates: Templates,
  fits: Float32Array,
  light: LightField | null,
  spread: number,
): Verdicts {
  const classes = templates.lines.length;
  const out: Verdicts = {
    best: new Int32Array(looks.count).fill(-1),
    second: new Int32Array(looks.count).fill(-1),
    margin: new Float32Array(looks.count),
    fit: new Float32Array(looks.count),
  };
  const labs = templates.tints.map((tint) => labOfLight(...tint));
  for (let cell = 0; cell < looks.count; cell++) {
    const seen = light && labOfLight(...litAs(light, cell, looks.tints));
    let [best, next] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let k = 0; k < classes; k++) {
      let likely = -0.5 * FREE_SAMPLES * Math.log(Math.max(0.004, 1 - fits[cell * classes + k]!));
      if (seen) {
        const lab = labs[k]!;
        const far =
          ((seen[0] - lab[0]) ** 2 + (seen[1] - lab[1]) ** 2 + (seen[2] - lab[2]) ** 2) / spread ** 2;
        likely -= ((TINT_FREEDOM + 3) / 2) * Math.log(1 + far / TINT_FREEDOM);
      }
      if (likely > best) {
        next = best;
        out.second[cell] = out.best[cell]!;
        best = likely;
        out.best[cell] = k;
        out.fit[cell] = fits[cell * classes + k]!;
      } else if (likely > next) {
        next = likely;
        out.second[cell] = k;
      }
    }
    out.margin[cell] = Number.isFinite(next) ? best - next : best;
  }
  return out;
}

/** So many cells are looked at where all would say the same. */
const SOME_CELLS = 260;

/** The middle one of how well some cells fit the class that they fit best, −1…1. */
export function usualFit(looks: CellLooks, templates: Templates): number {
  const every = Math.max(1, Math.floor(looks.count / SOME_CELLS));
  const count = Math.floor(looks.count / every);
  const some: CellLooks = { ...looks, count, glyphs: new Float32Array(count * LOOK_PIXELS) };
  for (let i = 0; i < count; i++)
    some.glyphs.set(
      looks.glyphs.subarray(i * every * LOOK_PIXELS, (i * every + 1) * LOOK_PIXELS),
      i * LOOK_PIXELS,
    );
  const classes = templates.lines.length;
  const fits = correlations(some, templates);
  const tops = Float32Array.from({ length: count }, (_, cell) =>
    fits.subarray(cell * classes, (cell + 1) * classes).reduce((a, b) => Math.max(a, b), -1),
  ).sort();
  return tops[count >> 1]!;
}

/** The blur (of the glyph's own pixels) that makes the samples most like the cells. */
export function blurOfCells(looks: CellLooks, samples: readonly ClassSample[]): number {
  let [best, most] = [0, Number.NEGATIVE_INFINITY];
  for (const sigma of [0, 0.35, 0.6, 0.85, 1.15, 1.5, 1.9]) {
    const fit = usualFit(looks, templatesOf(samples, sigma));
    if (fit > most) [best, most] = [sigma, fit];
  }
  return best;
}

/**
 * How far each trusted cell lies beside its glyph, across and down in its own pixels: the one step of Gauss and Newton
 * that makes it most like the template.
 */
export function shiftsOf(
  looks: CellLooks,
  templates: Templates,
  { best }: Verdicts,
  trusted: Uint8Array,
): { across: Float32Array; down: Float32Array } {
  const across = new Float32Array(looks.count);
  const down = new Float32Array(looks.count);
  const slopes = templates.lines.map((_, k) =>
    slopesOf(templates.glyphs.subarray(k * LOOK_PIXELS, (k + 1) * LOOK_PIXELS)),
  );
  for (let cell = 0; cell < looks.count; cell++) {
    const k = best[cell]!;
    if (!trusted[cell] || k < 0) continue;
    const { x, y } = slopes[k]!;
    let [xx, xy, yy, xr, yr] = [1e-4, 0, 1e-4, 0, 0];
    for (let i = 0; i < LOOK_PIXELS; i++) {
      const rest = looks.glyphs[cell * LOOK_PIXELS + i]! - templates.glyphs[k * LOOK_PIXELS + i]!;
      xx += x[i]! * x[i]!;
      xy += x[i]! * y[i]!;
      yy += y[i]! * y[i]!;
      xr += x[i]! * rest;
      yr += y[i]! * rest;
    }
    const whole = xx * yy - xy * xy;
    if (whole < 1e-9) continue;
    // The cell shows the template moved: rest = −(slope · move).
    across[cell] = -(xr * yy - yr * xy) / whole;
    down[cell] = -(yr * xx - xr * xy) / whole;
  }
  return { across, down };
}

function slopesOf(glyph: Float32Array): { x: Float32Array; y: Float32Array } {
  const [x, y] = [new Float32Array(LOOK_PIXELS), new Float32Array(LOOK_PIXELS)];
  for (let j = 0; j < LOOK_SIDE; j++) {
    for (let i = 0; i < LOOK_SIDE; i++) {
      const at = j * LOOK_SIDE + i;
      x[at] = ((glyph[at + (i < LOOK_SIDE - 1 ? 1 : 0)] ?? 0) - (glyph[at - (i > 0 ? 1 : 0)] ?? 0)) / 2;
      y[at] =
        ((glyph[at + (j < LOOK_SIDE - 1 ? LOOK_SIDE : 0)] ?? 0) -
          (glyph[at - (j > 0 ? LOOK_SIDE : 0)] ?? 0)) /
        2;
    }
  }
  return { x, y };
}

/** How much of a class's glyph its own sample stays, however many cells of it there are. */
const OWN_SHARE = 0.25;
/** So many cells weigh as much as nothing but the sample. */
const HALF_WAY = 6;

/** Templates that learnt from the trusted cells of the photograph itself, tied to the samples. */
export function learnt(
  templates: Templates,
  looks: CellLooks,
  { best }: Verdicts,
  trusted: Uint8Array,
  tints: Float32Array | null,
): Templates {
  const glyphs = new Float32Array(templates.glyphs.length);
  const learntTints = templates.tints.map((tint, k) => {
    const mean = new Float32Array(LOOK_PIXELS);
    const seen: [number[], number[], number[]] = [[], [], []];
    let count = 0;
    for (let cell = 0; cell < looks.count; cell++) {
      if (best[cell] !== k || !trusted[cell]) continue;
      count++;
      for (let i = 0; i < LOOK_PIXELS; i++) mean[i]! += looks.glyphs[cell * LOOK_PIXELS + i]!;
      if (tints)
        for (let channel = 0; channel < 3; channel++) seen[channel]!.push(tints[cell * 3 + channel]!);
    }
    const weight = (1 - OWN_SHARE) * (count / (count + HALF_WAY));
    const from = unit(mean);
    const own = templates.glyphs.subarray(k * LOOK_PIXELS, (k + 1) * LOOK_PIXELS);
    glyphs.set(
      unit(own.map((value, i) => value * (1 - weight) + (count > 0 ? from[i]! * weight : 0))),
      k * LOOK_PIXELS,
    );
    if (!tints || count === 0) return tint;
    return tint.map((value, channel) => {
      const sorted = seen[channel]!.sort((a, b) => a - b);
      return value * (1 - weight) + sorted[sorted.length >> 1]! * weight;
    }) as unknown as readonly [number, number, number];
  });
  return { lines: templates.lines, glyphs, tints: learntTints };
}
