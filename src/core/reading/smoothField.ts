/** How often values that lie far off are left out anew. */
const REWEIGHTED = 3;

/**
 * A field of values on a grid made smooth: at each place a plane is fitted to the values around by weighted least squares,
 * and again without those that lie far from the fit before (Tukey's biweight).
 * @param values row by row @param trust weight of each value, 0 leaves it out
 * @param radius places to each side that count
 */
export function smoothField(
  values: Float32Array,
  trust: Float32Array,
  width: number,
  height: number,
  radius: number,
): Float32Array {
  let smooth = fitted(values, trust, width, height, radius);
  for (let round = 0; round < REWEIGHTED; round++) {
    const off = Float32Array.from(values, (value, i) => Math.abs(value - smooth[i]!));
    const sure = [...off].filter((_, i) => trust[i]! > 0).sort((a, b) => a - b);
    const scale = Math.max(1e-3, 6 * (sure[sure.length >> 1] ?? 0));
    const reweighted = Float32Array.from(trust, (weight, i) => {
      const share = off[i]! / scale;
      return share >= 1 ? 0 : weight * (1 - share * share) ** 2;
    });
    smooth = fitted(values, reweighted, width, height, radius);
  }
  return smooth;
}

function fitted(
  values: Float32Array,
  trust: Float32Array,
  width: number,
  height: number,
  radius: number,
): Float32Array {
  const out = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      // Where too little is known near by, the next ones further away tell.
      for (let r = radius; ; r *= 2) {
        const level = planeAt(values, trust, width, height, x, y, r);
        if (level !== null || r > width + height) {
          out[y * width + x] = level ?? 0;
          break;
        }
      }
    }
  }
  return out;
}

const weights = new Map<number, Float32Array>();
/** How much places so far away count, along one axis. */
function nearness(radius: number): Float32Array {
  let own = weights.get(radius);
  if (!own) {
    own = Float32Array.from({ length: radius + 1 }, (_, far) => Math.exp(-(far * far) / (radius * radius)));
    weights.set(radius, own);
  }
  return own;
}

/** The height of the fitted plane at a place; null where nothing around it counts. */
function planeAt(
  values: Float32Array,
  trust: Float32Array,
  width: number,
  height: number,
  x: number,
  y: number,
  radius: number,
): number | null {
  let [n, sx, sy, sxx, sxy, syy, sv, sxv, syv] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  const near = nearness(radius);
  const [first, last] = [Math.max(0, x - radius), Math.min(width - 1, x + radius)];
  for (let j = Math.max(0, y - radius); j <= Math.min(height - 1, y + radius); j++) {
    // All of a row is as far up or down.
    const dy = j - y;
    let [rowN, rowX, rowXX, rowV, rowXV] = [0, 0, 0, 0, 0];
    for (let i = first, at = j * width + first; i <= last; i++, at++) {
      const dx = i - x;
      const weight = trust[at]! * near[dx < 0 ? -dx : dx]!;
      if (weight <= 0) continue;
      const value = weight * values[at]!;
      rowN += weight;
      rowX += weight * dx;
      rowXX += weight * dx * dx;
      rowV += value;
      rowXV += value * dx;
    }
    const far = near[Math.abs(dy)]!;
    n += rowN * far;
    sx += rowX * far;
    sy += rowN * far * dy;
    sxx += rowXX * far;
    sxy += rowX * far * dy;
    syy += rowN * far * dy * dy;
    sv += rowV * far;
    sxv += rowXV * far;
    syv += rowV * far * dy;
  }
  if (n < 1e-3) return null;
  // A little ridge on the slopes: where all that counts lies on one line, the plane lies level across it.
  const ridge = 0.005 * n * radius * radius;
  const [a, b, c] = [sxx + ridge, sxy, syy + ridge];
  // Normal equations with the mean taken out.
  const [mx, my, mv] = [sx / n, sy / n, sv / n];
  const [cxx, cxy, cyy] = [a - n * mx * mx, b - n * mx * my, c - n * my * my];
  const [cxv, cyv] = [sxv - n * mx * mv, syv - n * my * mv];
  const whole = cxx * cyy - cxy * cxy;
  if (whole < 1e-9) return mv;
  const [slopeX, slopeY] = [(cxv * cyy - cyv * cxy) / whole, (cyv * cxx - cxv * cxy) / whole];
  return mv - slopeX * mx - slopeY * my;
}
