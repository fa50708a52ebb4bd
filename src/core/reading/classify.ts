import { blurredGlyph, type CellLooks, LOOK_PIXELS, LOOK_SIDE, unit } from './cellLooks';
import { linearDiscriminant, squaredDistances } from './discriminant';
import { type LightField, labOfLight } from './light';
import { products } from './products';
import { tintJudge } from './tint';

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
/** The same of the distances of a discriminant, whose directions are made free of each other. */
const FREE_DIRECTIONS = 40;

export function templatesOf(samples: readonly ClassSample[], sigma: number): Templates {
  const glyphs = new Float32Array(samples.length * LOOK_PIXELS);
  for (const [i, { glyph }] of samples.entries()) glyphs.set(blurredGlyph(glyph, sigma), i * LOOK_PIXELS);
  return { lines: samples.map(({ line }) => line), glyphs, tints: samples.map(({ tint }) => tint) };
}

/** Pixels of a glyph that are taken together where every class is compared, along each side: little is lost by it. */
const TOGETHER = 2;
const COARSE_SIDE = LOOK_SIDE / TOGETHER;
const COARSE_PIXELS = COARSE_SIDE * COARSE_SIDE;
const COARSE_AT = Uint8Array.from({ length: LOOK_PIXELS }, (_, i) => {
  const [x, y] = [i % LOOK_SIDE, Math.floor(i / LOOK_SIDE)];
  return Math.floor(y / TOGETHER) * COARSE_SIDE + Math.floor(x / TOGETHER);
});

/** Glyphs with fewer pixels, {@link COARSE_PIXELS} each. */
function coarse(glyphs: Float32Array): Float32Array {
  const out = new Float32Array(glyphs.length / (TOGETHER * TOGETHER));
  for (let from = 0, to = 0; from < glyphs.length; from += LOOK_PIXELS, to += COARSE_PIXELS)
    for (let i = 0; i < LOOK_PIXELS; i++) out[to + COARSE_AT[i]!]! += glyphs[from + i]! / TOGETHER;
  return out;
}

function ofLengthOne(glyphs: Float32Array): Float32Array {
  for (let from = 0; from < glyphs.length; from += COARSE_PIXELS)
    glyphs.set(unit(glyphs.subarray(from, from + COARSE_PIXELS)), from);
  return glyphs;
}

/** Correlation of every cell with every class: cells × classes. */
export function correlations(looks: CellLooks, templates: Templates): Float32Array {
  return products(ofLengthOne(coarse(looks.glyphs)), ofLengthOne(coarse(templates.glyphs)), COARSE_PIXELS);
}

/** How likely every class is for every cell by how well its glyph fits, as a logarithm: cells × classes. */
export function likelyByFit(fits: Float32Array): Float32Array {
  return fits.map((fit) => -0.5 * FREE_SAMPLES * Math.log(Math.max(0.004, 1 - fit)));
}

/** So many cells of known class are needed at least. */
const LEAST_TAUGHT = 4 * COARSE_PIXELS;
/** How little is believed of the covariance at least, however many there are. */
const LEAST_SHRINKAGE = 0.1;

/**
 * The same by a linear discriminant: how cells of this photograph usually differ from their own glyph (a little beside it, a
 * little more blurred) is learnt from those that are trusted, and counts less. Null where too few are.
 */
export function likelyByDiscriminant(
  looks: CellLooks,
  templates: Templates,
  { best }: Verdicts,
  trusted: Uint8Array,
): Float32Array | null {
  const classes = Int32Array.from(best, (k, cell) => (trusted[cell] ? k : -1));
  const taught = trusted.reduce((sum, sure) => sum + sure, 0);
  if (taught < LEAST_TAUGHT) return null;
  const values = coarse(looks.glyphs);
  const discriminant = linearDiscriminant(
    values,
    classes,
    coarse(templates.glyphs),
    COARSE_PIXELS,
    LEAST_SHRINKAGE + (1 - LEAST_SHRINKAGE) * (COARSE_PIXELS / (COARSE_PIXELS + taught)),
  );
  return squaredDistances(discriminant, values).map(
    (far) => -0.5 * FREE_DIRECTIONS * Math.log(Math.max(1e-3, far)),
  );
}

/** So many classes are sought out by how likely their glyph makes them. */
const ASKED_FIRST = 4;

/**
 * Judges every cell by its glyph and its tint together.
 * @param glyphs how likely each class is by its glyph, cells × classes
 * @param light how the photograph is lit; null leaves the tint out
 * @param spread usual colour difference of a cell to its tint (ΔE)
 */
export function verdicts(
  looks: CellLooks,
  templates: Templates,
  glyphs: Float32Array,
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
  const tints = templates.tints.map((tint) => ({ light: tint, lab: labOfLight(...tint) }));
  const judge = light && tintJudge(looks.tints, light, spread);
  const open = new Int32Array(classes);
  for (let cell = 0; cell < looks.count; cell++) {
    const own = glyphs.subarray(cell * classes, (cell + 1) * classes);
    const tintOf = judge?.(cell);
    for (let k = 0; k < classes; k++) open[k] = k;
    let [best, next] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let left = classes; left > 0; left--) {
      // The likeliest by their glyph first, after which few are left to ask, in any order.
      let top = left - 1;
      if (classes - left < ASKED_FIRST)
        for (let i = left - 2; i >= 0; i--) if (own[open[i]!]! > own[open[top]!]!) top = i;
      const k = open[top]!;
      open[top] = open[left - 1]!;
      // No tint makes a class likelier than its glyph does.
      if (own[k]! <= next) continue;
      const likely = own[k]! + (tintOf?.(tints[k]!, next - own[k]!) ?? 0);
      if (likely > best) {
        next = best;
        out.second[cell] = out.best[cell]!;
        best = likely;
        out.best[cell] = k;
      } else if (likely > next) {
        next = likely;
        out.second[cell] = k;
      }
    }
    out.margin[cell] = Number.isFinite(next) ? best - next : best;
  }
  out.fit = fitOf(looks, templates, out.best);
  return out;
}

/** Correlation of each cell with the glyph of the class that it was taken for, −1…1. @param classes index by cell */
export function fitOf(looks: CellLooks, templates: Templates, classes: Int32Array): Float32Array {
  return Float32Array.from(classes, (k, cell) => {
    let sum = 0;
    for (let i = 0; i < LOOK_PIXELS; i++)
      sum += looks.glyphs[cell * LOOK_PIXELS + i]! * templates.glyphs[k * LOOK_PIXELS + i]!;
    return sum;
  });
}

/** So many cells are looked at where all would say the same. */
const SOME_CELLS = 130;

/** The middle one of how well some cells fit the class that they fit best, −1…1. */
export function usualFit(looks: CellLooks, templates: Templates): number {
  const every = Math.max(1, Math.floor(looks.count / SOME_CELLS));
  const count = Math.floor(looks.count / every);
  const some = new Float32Array(count * LOOK_PIXELS);
  for (let i = 0; i < count; i++)
    some.set(looks.glyphs.subarray(i * every * LOOK_PIXELS, (i * every + 1) * LOOK_PIXELS), i * LOOK_PIXELS);
  const classes = templates.lines.length;
  const fits = products(some, templates.glyphs, LOOK_PIXELS);
  const tops = Float32Array.from({ length: count }, (_, cell) =>
    fits.subarray(cell * classes, (cell + 1) * classes).reduce((a, b) => Math.max(a, b), -1),
  ).sort();
  return tops[count >> 1]!;
}

/** Blurs that are tried, in the glyph's own pixels. */
const BLURS = [0, 0.35, 0.6, 0.85, 1.15, 1.5, 1.9] as const;

/** Samples as blurred as the cells of a photograph are. */
export class BlurredSamples {
  private readonly known = new Map<number, Templates>();
  private last: number | null = null;

  constructor(private readonly samples: readonly ClassSample[]) {}

  /** The blur that makes the samples most like the cells; once one was found, it is sought from there on. */
  of(looks: CellLooks): number {
    const fits = new Map<number, number>();
    const fitAt = (i: number) => {
      const sigma = BLURS[i];
      if (sigma === undefined) return Number.NEGATIVE_INFINITY;
      if (!fits.has(i)) fits.set(i, usualFit(looks, this.with(sigma)));
      return fits.get(i)!;
    };
    let best = this.last ?? 0;
    if (this.last === null)
      BLURS.forEach((_, i) => {
        if (fitAt(i) > fitAt(best)) best = i;
      });
    for (const step of [-1, 1]) while (fitAt(best + step) > fitAt(best)) best += step;
    this.last = best;
    return BLURS[best]!;
  }

  /** @param sigma in the glyph's own pixels */
  with(sigma: number): Templates {
    const known = this.known.get(sigma) ?? templatesOf(this.samples, sigma);
    this.known.set(sigma, known);
    return known;
  }
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
/** Less like its sample than this nothing becomes that is only blurred otherwise: most of its cells show another symbol. */
const LEAST_LIKENESS = 0.965;

/**
 * Templates whose glyphs learnt from the trusted cells of the photograph itself, tied to the samples. A class whose cells
 * look too little like its sample learns nothing: where a whole region was taken for it in a reflection, its glyph would
 * become that of the region, and every cell there would fit.
 */
export function learnt(
  templates: Templates,
  looks: CellLooks,
  { best }: Verdicts,
  trusted: Uint8Array,
): Templates {
  const means = new Float32Array(templates.glyphs.length);
  const counts = new Float32Array(templates.lines.length);
  for (let cell = 0; cell < looks.count; cell++) {
    const k = best[cell]!;
    if (!trusted[cell] || k < 0) continue;
    counts[k]!++;
    for (let i = 0; i < LOOK_PIXELS; i++)
      means[k * LOOK_PIXELS + i]! += looks.glyphs[cell * LOOK_PIXELS + i]!;
  }
  const glyphs = templates.glyphs.slice();
  counts.forEach((count, k) => {
    if (count === 0) return;
    const weight = (1 - OWN_SHARE) * (count / (count + HALF_WAY));
    const at = k * LOOK_PIXELS;
    const seen = unit(means.subarray(at, at + LOOK_PIXELS));
    const own = templates.glyphs.subarray(at, at + LOOK_PIXELS);
    if (seen.reduce((sum, value, i) => sum + value * own[i]!, 0) < LEAST_LIKENESS) return;
    glyphs.set(unit(own.map((value, i) => value * (1 - weight) + seen[i]! * weight)), at);
  });
  return { ...templates, glyphs };
}
