import { FULL, type LightField, labOfLight, litAs } from './light';

/** A tint of a class: linear light on white paper, and CIELAB of it. */
export interface KnownTint {
  light: readonly [number, number, number];
  lab: readonly [number, number, number];
}

/** Degrees of freedom of the t-distribution of tints: now and then one is far off. */
const TINT_FREEDOM = 4;
/** From how much light of a reflection on (1 is white paper) a class is held against that it needs it. */
const USUAL_GLARE = 0.03;

/**
 * How likely each tint is for one cell after another, as a logarithm: by its colour difference as the place is lit, or, at a
 * price, with a reflection over it. What shines is white and adds the same to all three channels, so it takes a tint to
 * the white by a way that is known; without it every symbol below a reflection is taken for one on a lighter tint.
 * @param tints linear light of each cell, three values a cell
 * @param spread usual colour difference of a cell to its tint (ΔE)
 * @returns asked cell by cell, then tint by tint; below what is worth knowing it may answer with less than is true
 */
export function tintJudge(tints: Float32Array, light: LightField, spread: number) {
  const likely = (a: KnownTint['lab'], b: KnownTint['lab']) => {
    const far = ((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2) / spread ** 2;
    return -((TINT_FREEDOM + 3) / 2) * Math.log(1 + far / TINT_FREEDOM);
  };
  const bare = new Float64Array(3);
  const gain = new Float64Array(3);
  const open = new Uint8Array(3);
  const below = new Float64Array(3);
  return (cell: number) => {
    const at = cell * 3;
    const plain = labOfLight(...litAs(light, cell, tints));
    let channels = 0;
    for (let channel = 0; channel < 3; channel++) {
      bare[channel] = tints[at + channel]! - light.veil[at + channel]!;
      gain[channel] = Math.max(0.02, light.gain[at + channel]!);
      open[channel] = tints[at + channel]! < FULL ? 1 : 0;
      channels += open[channel]!;
    }
    return (tint: KnownTint, worth = Number.NEGATIVE_INFINITY): number => {
      const unlit = likely(plain, tint.lab);
      if (channels === 0) return unlit;
      let glare = 0;
      for (let channel = 0; channel < 3; channel++)
        if (open[channel]) glare += (bare[channel]! - gain[channel]! * tint.light[channel]!) / channels;
      if (glare <= 0) return unlit;
      const price = Math.log(1 + (glare / USUAL_GLARE) ** 2);
      if (-price <= Math.max(unlit, worth)) return unlit;
      // A channel that is full says nothing against any tint.
      for (let channel = 0; channel < 3; channel++)
        below[channel] = open[channel] ? (bare[channel]! - glare) / gain[channel]! : tint.light[channel]!;
      return Math.max(unlit, likely(labOfLight(below[0]!, below[1]!, below[2]!), tint.lab) - price);
    };
  };
}
