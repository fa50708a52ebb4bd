import { CholeskyDecomposition, Matrix } from 'ml-matrix';

/** Classes told apart by their means and one covariance that all have within (Fisher 1936, by way of Mahalanobis). */
export interface Discriminant {
  classes: number;
  dims: number;
  /** Makes the covariance within classes the unit matrix: a lower triangle, `dims` × `dims` row by row. */
  whitening: Float64Array;
  /** Means of the classes after whitening, `dims` a class. */
  means: Float64Array;
}

/** Least variance in every direction: samples that all lie on their means have none, and would lie nowhere. */
const LEAST_VARIANCE = 1e-12;

/**
 * @param values `dims` a sample, one sample after the other
 * @param classes class of each sample, from 0; −1 leaves it out
 * @param means where the classes lie, `dims` a class
 * @param shrinkage share of the mean variance that takes the place of what was seen, 0…1: few samples say little of a
 *   covariance
 */
export function linearDiscriminant(
  values: ArrayLike<number>,
  classes: ArrayLike<number>,
  means: ArrayLike<number>,
  dims: number,
  shrinkage = 0,
): Discriminant {
  const within = new Float64Array(dims * dims);
  const off = new Float64Array(dims);
  const known = new Set<number>();
  let count = 0;
  for (let sample = 0; sample < classes.length; sample++) {
    const k = classes[sample]!;
    if (k < 0) continue;
    known.add(k);
    count++;
    for (let i = 0; i < dims; i++) off[i] = values[sample * dims + i]! - means[k * dims + i]!;
    for (let i = 0; i < dims; i++) {
      const own = off[i]!;
      for (let j = 0; j <= i; j++) within[i * dims + j]! += own * off[j]!;
    }
  }
  const freedom = Math.max(1, count - known.size);
  let trace = 0;
  for (let i = 0; i < dims; i++) trace += within[i * dims + i]! / freedom;
  const covariance = new Matrix(dims, dims);
  for (let i = 0; i < dims; i++) {
    for (let j = 0; j <= i; j++) {
      const value =
        ((1 - shrinkage) * within[i * dims + j]!) / freedom +
        (i === j ? (shrinkage * trace) / dims + LEAST_VARIANCE : 0);
      covariance.set(i, j, value);
      covariance.set(j, i, value);
    }
  }
  const lower = new CholeskyDecomposition(covariance).lowerTriangularMatrix;
  const whitening = new Float64Array(dims * dims);
  // Column by column, what the triangle takes to the unit matrix.
  for (let column = 0; column < dims; column++) {
    for (let row = column; row < dims; row++) {
      let rest = row === column ? 1 : 0;
      for (let j = column; j < row; j++) rest -= lower.get(row, j) * whitening[j * dims + column]!;
      whitening[row * dims + column] = rest / lower.get(row, row);
    }
  }
  const discriminant = { classes: means.length / dims, dims, whitening, means: new Float64Array(0) };
  return { ...discriminant, means: whitened(discriminant, means) };
}

/** Samples seen so that each class spreads alike in all directions. @param values `dims` a sample */
export function whitened(
  { dims, whitening }: Pick<Discriminant, 'dims' | 'whitening'>,
  values: ArrayLike<number>,
): Float64Array {
  const out = new Float64Array(values.length);
  for (let from = 0; from < values.length; from += dims) {
    for (let row = 0; row < dims; row++) {
      let sum = 0;
      for (let i = 0; i <= row; i++) sum += whitening[row * dims + i]! * values[from + i]!;
      out[from + row] = sum;
    }
  }
  return out;
}

/** Squares of Mahalanobis' distance of each sample to each class: samples × classes. @param values `dims` a sample */
export function squaredDistances(discriminant: Discriminant, values: ArrayLike<number>): Float32Array {
  const { classes, dims, means } = discriminant;
  const seen = whitened(discriminant, values);
  const samples = values.length / dims;
  const out = new Float32Array(samples * classes);
  for (let sample = 0; sample < samples; sample++) {
    for (let k = 0; k < classes; k++) {
      let sum = 0;
      for (let i = 0; i < dims; i++) sum += (seen[sample * dims + i]! - means[k * dims + i]!) ** 2;
      out[sample * classes + k] = sum;
    }
  }
  return out;
}
