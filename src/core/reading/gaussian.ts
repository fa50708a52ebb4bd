/** How far a Gaussian is followed, in standard deviations. */
const REACH = 2.6;

/** Weights of a Gaussian at whole places around its middle, which is the middle one; not yet of sum 1. @param sigma above 0 */
export function gaussianWeights(sigma: number): Float32Array {
  const radius = Math.ceil(sigma * REACH);
  return Float32Array.from({ length: 2 * radius + 1 }, (_, i) =>
    Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)),
  );
}
