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
 */
export function tintJudge(tints: Float32Array, light: LightField, spread: number) {
  const likely = (a: KnownTint['lab'], b: KnownTint['lab']) => {
    const far = ((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2) / spread ** 2;
    return -((TINT_FREEDOM + 3) / 2) * Math.log(1 + far / TINT_FREEDOM);
  };
  return (cell: number) => {
    const at = cell * 3;
    const plain = labOfLight(...litAs(light, cell, tints));
    const bare = [0, 1, 2].map((channel) => tints[at + channel]! - light.veil[at + channel]!);
    const gain = [0, 1, 2].map((channel) => Math.max(0.02, light.gain[at + channel]!));
    const open = [0, 1, 2].filter((channel) => tints[at + channel]! < FULL);
    return (tint: KnownTint): number => {
      const unlit = likely(plain, tint.lab);
      if (open.length === 0) return unlit;
      const glare =
        open.reduce((sum, channel) => sum + bare[channel]! - gain[channel]! * tint.light[channel]!, 0) /
        open.length;
      if (glare <= 0) return unlit;
      // A channel that is full says nothing against any tint.
      const [r, g, b] = tint.light.map((own, channel) =>
        open.includes(channel) ? (bare[channel]! - glare) / gain[channel]! : own,
      ) as [number, number, number];
      const lit = likely(labOfLight(r, g, b), tint.lab) - Math.log(1 + (glare / USUAL_GLARE) ** 2);
      return Math.max(unlit, lit);
    };
  };
}
