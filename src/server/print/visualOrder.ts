import bidiFactory from 'bidi-js';

const bidi = bidiFactory();

/** A stretch of text that runs in one direction, and where it stands. */
export interface Directed {
  text: string;
  /** Odd from right to left (Unicode Standard Annex 9). */
  level: number;
}

/** The embedding level of every UTF-16 unit of a text; its first strong letter gives the direction. */
export function levelsOf(text: string): Uint8Array {
  return bidi.getEmbeddingLevels(text, 'auto').levels;
}

/** Letters of a stretch from right to left are kept in their order, but brackets face the other way. */
export function mirrored(text: string, level: number): string {
  if (level % 2 === 0) return text;
  return [...text].map((letter) => bidi.getMirroredCharacter(letter) ?? letter).join('');
}

/**
 * Stretches from left to right as the eye meets them (Unicode Standard Annex 9, rule L2).
 * @param stretches in the order of reading
 */
export function inVisualOrder<Stretch extends Directed>(stretches: readonly Stretch[]): Stretch[] {
  const order = [...stretches];
  const highest = order.reduce((most, { level }) => Math.max(most, level), 0);
  for (let level = highest; level > 0; level--) {
    for (let from = 0; from < order.length; from++) {
      if (order[from]!.level < level) continue;
      let to = from;
      while (to < order.length && order[to]!.level >= level) to++;
      order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = to;
    }
  }
  return order;
}
