/**
 * Distribution function of the normal law.
 * @param deviation standard deviation, more than 0
 * @returns 0…1, to about 12 digits (Abramowitz & Stegun, Handbook of Mathematical Functions, 26.2.11 and 26.2.14)
 * @example normalCdf(3, 1, 2) // 0.8413…: one standard deviation above the mean
 */
export function normalCdf(x: number, mean: number, deviation: number): number {
  const z = (x - mean) / deviation;
  const far = Math.abs(z);
  const density = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
  if (far > 6) {
    // Continued fraction for the tail, from the inside out.
    let fraction = far;
    for (let k = 40; k >= 1; k--) fraction = far + k / fraction;
    return z > 0 ? 1 - density / fraction : density / fraction;
  }
  let term = z;
  let sum = z;
  for (let k = 1; Math.abs(term) > 1e-17 * Math.abs(sum); k++) {
    term *= (z * z) / (2 * k + 1);
    sum += term;
  }
  return 0.5 + density * sum;
}

/** ln Γ(x) for x > 0 (NIST Digital Library of Mathematical Functions, 5.11.1, after shifting x up by 5.5.1). */
function logGamma(x: number): number {
  let shift = 0;
  let at = x;
  for (; at < 10; at++) shift += Math.log(at);
  const square = at * at;
  const series = (1 / 12 - (1 / 360 - (1 / 1260 - 1 / (1680 * square)) / square) / square) / at;
  return (at - 0.5) * Math.log(at) - at + Math.log(2 * Math.PI) / 2 + series - shift;
}

/**
 * Distribution function of the beta law, the regularized incomplete beta function I_x(a, b).
 * @param x 0…1
 * @param a more than 0
 * @param b more than 0
 * @returns 0…1 (continued fraction 8.17.22 of the NIST Digital Library of Mathematical Functions)
 */
export function betaCdf(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  // The fraction runs well on this side only; the law is its own mirror image (8.17.4).
  if (x > (a + 1) / (a + b + 2)) return 1 - betaCdf(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  const terms = Math.ceil(30 + Math.sqrt(a + b) * 5);
  let fraction = 1;
  for (let i = terms; i >= 1; i--) {
    const m = Math.floor(i / 2);
    const d =
      i % 2 === 0
        ? (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
        : (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    fraction = 1 + d / fraction;
  }
  return front / (a * fraction);
}

/**
 * The share below which a beta-distributed share lies with this probability.
 * @param probability 0…1
 * @returns 0…1, by halving {@link betaCdf} to the last digit
 * @example betaQuantile(0.5, 6, 194) // 0.0284: trash is as likely below 2.84 % as above
 */
export function betaQuantile(probability: number, a: number, b: number): number {
  let low = 0;
  let high = 1;
  for (let halving = 0; halving < 52; halving++) {
    const middle = (low + high) / 2;
    if (betaCdf(middle, a, b) < probability) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
