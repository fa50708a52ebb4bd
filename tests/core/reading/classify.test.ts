import { Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import {
  blurredGlyph,
  type CellLooks,
  emptyLooks,
  LOOK_PIXELS,
  unit,
} from '../../../src/core/reading/cellLooks';
import {
  BlurredSamples,
  correlations,
  fitOf as fitToClass,
  learnt,
  likelyByDiscriminant,
  likelyByFit,
  type Templates,
  verdicts,
} from '../../../src/core/reading/classify';
import { type LightField, labOfLight } from '../../../src/core/reading/light';
import { products } from '../../../src/core/reading/products';
import { tintJudge } from '../../../src/core/reading/tint';

const random = seededRandom(7);
const CLASSES = 6;
const glyph = () => unit(Float32Array.from({ length: LOOK_PIXELS }, () => random.normal()));
const templates: Templates = {
  lines: [11, 12, 13, 14, 15, 16],
  glyphs: Float32Array.from(Array.from({ length: CLASSES }, () => [...glyph()]).flat()),
  tints: Array.from(
    { length: CLASSES },
    () => [random.uniform(), random.uniform(), random.uniform()] as const,
  ),
};

/** Cells that show one class after the other; `noise` beside a glyph of length 1, and a drift that all have. */
function cells(count: number, noise: number, drift: Float32Array | null = null): CellLooks {
  const looks = emptyLooks(count);
  for (let cell = 0; cell < count; cell++) {
    const k = cell % CLASSES;
    const strength = drift ? 1.6 * random.normal() : 0;
    looks.glyphs.set(
      unit(
        Float32Array.from(
          { length: LOOK_PIXELS },
          (_, i) =>
            templates.glyphs[k * LOOK_PIXELS + i]! +
            (noise / 16) * random.normal() +
            strength * (drift?.[i] ?? 0),
        ),
      ),
      cell * LOOK_PIXELS,
    );
    for (let channel = 0; channel < 3; channel++)
      looks.tints[cell * 3 + channel] = Math.min(
        1,
        templates.tints[k]![channel]! * 0.7 + 0.2 * random.uniform(),
      );
  }
  return looks;
}
const fitOf = (looks: CellLooks, cell: number, k: number) =>
  looks.glyphs
    .subarray(cell * LOOK_PIXELS, (cell + 1) * LOOK_PIXELS)
    .reduce((sum, value, i) => sum + value * templates.glyphs[k * LOOK_PIXELS + i]!, 0);
const wrongIn = (best: Int32Array) => best.reduce((sum, k, cell) => sum + (k === cell % CLASSES ? 0 : 1), 0);

describe('cells', () => {
  it('are given to the class that glyph and tint make likeliest, and to no other for having looked at few', () => {
    const looks = cells(90, 2.5);
    const light: LightField = {
      gain: new Float32Array(looks.count * 3).fill(0.7),
      veil: new Float32Array(looks.count * 3),
    };
    const glyphs = likelyByFit(correlations(looks, templates));
    const judge = tintJudge(looks.tints, light, 3);
    const told = verdicts(looks, templates, glyphs, light, 3);
    for (let cell = 0; cell < looks.count; cell++) {
      const tintOf = judge(cell);
      const all = templates.tints
        .map((tint, k) => ({
          k,
          likely: glyphs[cell * CLASSES + k]! + tintOf({ light: tint, lab: labOfLight(...tint) }),
        }))
        .sort((a, b) => b.likely - a.likely);
      expect([told.best[cell], told.second[cell]]).toEqual([all[0]!.k, all[1]!.k]);
      expect(told.margin[cell]).toBeCloseTo(all[0]!.likely - all[1]!.likely, 4);
      expect(told.fit[cell]).toBeCloseTo(fitOf(looks, cell, all[0]!.k), 4);
    }
  });

  it('that all differ from their glyph in the same way are told apart once that way is known', () => {
    // The same pattern is laid over each cell, strongly and by chance: it looks much like the glyphs of two classes.
    const drift = unit(
      Float32Array.from(
        { length: LOOK_PIXELS },
        (_, i) =>
          templates.glyphs[i]! - templates.glyphs[LOOK_PIXELS + i]! + templates.glyphs[2 * LOOK_PIXELS + i]!,
      ),
    );
    const looks = cells(600, 0.6, drift);
    const plain = verdicts(looks, templates, likelyByFit(correlations(looks, templates)), null, 1);
    expect(wrongIn(plain.best)).toBeGreaterThan(60);
    const trusted = Uint8Array.from(plain.best, (k, cell) => (k === cell % CLASSES ? 1 : 0));
    const glyphs = likelyByDiscriminant(looks, templates, plain, trusted)!;
    const told = verdicts(looks, templates, glyphs, null, 1);
    expect(wrongIn(told.best)).toBeLessThan(wrongIn(plain.best) / 2);
  });

  it('of which few are trusted teach nothing of how they differ', () => {
    const looks = cells(300, 0.5);
    const plain = verdicts(looks, templates, likelyByFit(correlations(looks, templates)), null, 1);
    const some = (count: number) => Uint8Array.from({ length: 300 }, (_, cell) => (cell < count ? 1 : 0));
    expect(likelyByDiscriminant(looks, templates, plain, some(255))).toBe(null);
    expect(likelyByDiscriminant(looks, templates, plain, some(256))).not.toBe(null);
  });

  it('that are trusted teach what their glyph looks like here; a class without any stays as its sample', () => {
    const looks = cells(120, 0.1);
    const own = templates.glyphs.slice(0, LOOK_PIXELS);
    const aside = glyph();
    // Nearly as its sample: at an angle whose cosine is 0.98.
    const other = unit(own.map((value, i) => value + 0.2 * aside[i]!));
    for (let cell = 0; cell < 120; cell++)
      if (cell % CLASSES === 0) looks.glyphs.set(other, cell * LOOK_PIXELS);
    const told = { ...verdicts(looks, templates, likelyByFit(correlations(looks, templates)), null, 1) };
    told.best = told.best.map((_, cell) => cell % CLASSES);
    const trusted = Uint8Array.from({ length: 120 }, (_, cell) => (cell % CLASSES === 1 ? 0 : 1));
    const after = learnt(templates, looks, told, trusted);
    const like = (k: number, what: Float32Array) =>
      what.reduce((sum, value, i) => sum + value * after.glyphs[k * LOOK_PIXELS + i]!, 0);
    // Twenty cells weigh 0.75 · 20 / 26 = 0.58 against the sample: a little nearer to them than to it.
    expect(like(0, other)).toBeGreaterThan(like(0, own));
    expect(like(0, own)).toBeGreaterThan(0.99);
    expect(like(0, own)).toBeLessThan(0.999);
    expect(after.glyphs.slice(LOOK_PIXELS, 2 * LOOK_PIXELS)).toEqual(
      templates.glyphs.slice(LOOK_PIXELS, 2 * LOOK_PIXELS),
    );
  });

  it('teach nothing where most of them show another symbol', () => {
    const looks = cells(120, 0.1);
    // Of twenty cells that were taken for the first class twelve are of the third.
    const strangers = [0, 6, 12, 18, 24, 30, 36, 42, 48, 54, 60, 66];
    const third = templates.glyphs.subarray(2 * LOOK_PIXELS, 3 * LOOK_PIXELS);
    for (const cell of strangers) looks.glyphs.set(third, cell * LOOK_PIXELS);
    const told = verdicts(looks, templates, likelyByFit(correlations(looks, templates)), null, 1);
    told.best = told.best.map((_, cell) => cell % CLASSES);
    const after = learnt(templates, looks, told, new Uint8Array(120).fill(1));
    expect(after.glyphs.slice(0, LOOK_PIXELS)).toEqual(templates.glyphs.slice(0, LOOK_PIXELS));
    expect(after.glyphs.slice(LOOK_PIXELS, 2 * LOOK_PIXELS)).not.toEqual(
      templates.glyphs.slice(LOOK_PIXELS, 2 * LOOK_PIXELS),
    );
    // Nor do the strangers fit the sample for which they were taken.
    const fit = fitToClass(looks, templates, told.best);
    for (const cell of strangers) expect(fit[cell]).toBeLessThan(0.5);
    expect(fit[72]).toBeGreaterThan(0.95);
  });
});

describe('samples', () => {
  const samples = templates.lines.map((line, k) => ({
    line,
    glyph: templates.glyphs.slice(k * LOOK_PIXELS, (k + 1) * LOOK_PIXELS),
    tint: templates.tints[k]!,
  }));
  const blurredBy = (sigma: number): CellLooks => {
    const looks = cells(60, 0, null);
    for (let cell = 0; cell < looks.count; cell++)
      looks.glyphs.set(blurredGlyph(samples[cell % CLASSES]!.glyph, sigma), cell * LOOK_PIXELS);
    return looks;
  };

  it('are blurred as the cells are, from whatever blur was found before', () => {
    const blurred = new BlurredSamples(samples);
    for (const sigma of [0.85, 0, 1.9, 0.6, 0.6, 1.15]) expect(blurred.of(blurredBy(sigma))).toBe(sigma);
    expect(new BlurredSamples(samples).of(blurredBy(1.9))).toBe(1.9);
    expect(blurred.with(0).glyphs[5]).toBeCloseTo(templates.glyphs[5]!, 6);
    expect(blurred.with(0.85)).toBe(blurred.with(0.85));
  });
});

describe('products of many vectors', () => {
  it('are those of a matrix and the other turned', () => {
    // 2 to 9 known ones: with and without some that are left over when four are taken at once.
    for (const known of [2, 4, 7, 9]) {
      const [left, right] = [5, known].map((vectors) =>
        Matrix.rand(vectors, 11, { random: () => random.uniform() }),
      ) as [Matrix, Matrix];
      const found = products(Float64Array.from(left.to1DArray()), Float64Array.from(right.to1DArray()), 11);
      left
        .mmul(right.transpose())
        .to1DArray()
        .forEach((value, i) => {
          expect(found[i]).toBeCloseTo(value, 5);
        });
    }
  });
});
