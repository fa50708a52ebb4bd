/** Random numbers from a seed, so that a simulation can be run again. */
export interface SeededRandom {
  /** 0 ≤ u < 1, evenly. */
  uniform(): number;
  /** Standard normal (Box and Muller, 1958). */
  normal(): number;
}

/** mulberry32, a 32-bit generator in the public domain; good enough for stand-ins, not for secrets. */
export function seededRandom(seed: number): SeededRandom {
  let state = seed >>> 0;
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  return {
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}
